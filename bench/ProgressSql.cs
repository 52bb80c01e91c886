using Npgsql;

namespace Zeitplan.Bench;

/// <summary>The rows the Progress table needs.</summary>
internal static class ProgressSql
{
    private const string Students =
        "SELECT s.id FROM students s WHERE s.cohort_ids && ARRAY(SELECT id FROM cohorts WHERE class_id = $1)";

    public static readonly string[] Statements =
    [
        "SELECT * FROM cohorts WHERE class_id = $1",
        $"SELECT * FROM students WHERE id IN ({Students})",
        $"SELECT * FROM attendance WHERE student_id IN ({Students})",
        "SELECT * FROM taught_facts WHERE class_id = $1",
        $"SELECT * FROM observations o WHERE student_id IN ({Students}) AND NOT EXISTS (SELECT FROM withdrawals w WHERE w.observation_id = o.id)",
        "SELECT id, outline FROM postures WHERE $1 IS NOT NULL",
        "SELECT * FROM forms WHERE $1 IS NOT NULL",
    ];

    public static Task ReadAsync(NpgsqlDataSource database, Guid classId) =>
        BareSql.ReadAsync(database, classId, Statements);
}
