using Npgsql;

namespace Zeitplan.Bench;

/// <summary>The rows the Progress table needs, read in one batch and thrown away.</summary>
internal static class ProgressSql
{
    private const string Students = "SELECT s.id FROM students s JOIN cohorts c ON c.id = s.cohort_id WHERE c.class_id = $1";

    public static async Task ReadAsync(NpgsqlDataSource database, Guid classId)
    {
        await using var batch = database.CreateBatch();
        foreach (var text in new[]
        {
            "SELECT * FROM cohorts WHERE class_id = $1",
            $"SELECT * FROM students WHERE id IN ({Students})",
            $"SELECT * FROM attendance WHERE student_id IN ({Students})",
            "SELECT * FROM lesson_records WHERE class_id = $1",
            $"SELECT * FROM observations o WHERE student_id IN ({Students}) AND NOT EXISTS (SELECT FROM withdrawals w WHERE w.observation_id = o.id)",
            "SELECT * FROM postures WHERE $1 IS NOT NULL",
            "SELECT * FROM forms WHERE $1 IS NOT NULL",
        })
        {
            batch.BatchCommands.Add(new(text) { Parameters = { new() { Value = classId } } });
        }

        await using var reader = await batch.ExecuteReaderAsync();
        var values = new object[40];
        do
        {
            while (await reader.ReadAsync())
            {
                reader.GetValues(values);
            }
        }
        while (await reader.NextResultAsync());
    }
}
