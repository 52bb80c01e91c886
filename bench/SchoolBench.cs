using System.Diagnostics;
using System.Globalization;
using Npgsql;

namespace Zeitplan.Bench;

/// <summary>The school of 300 students and 12 classes after a year of evenings, with 60,000 observations: what is opened
/// every evening, beside the SQL of the rows it needs.</summary>
internal static class SchoolBench
{
    private const string LessonDay = "2026-11-17";
    private static readonly TimeSpan LittleWork = TimeSpan.FromMilliseconds(50);

    /// <summary>The latest plan of every class in the term that runs.</summary>
    private const string Plans =
        "SELECT DISTINCT ON (class_id) * FROM plans WHERE $1 IS NOT NULL AND number IS NOT NULL ORDER BY class_id, number DESC";

    /// <summary>The term, its plans and whoever is in it.</summary>
    private static readonly string[] Term =
    [
        Plans,
        "SELECT * FROM classes WHERE $1 IS NOT NULL",
        "SELECT * FROM cohorts WHERE $1 IS NOT NULL",
        "SELECT * FROM terms WHERE $1 IS NOT NULL",
        "SELECT * FROM assignments WHERE $1 IS NOT NULL",
        "SELECT * FROM forms WHERE $1 IS NOT NULL",
        "SELECT * FROM postures WHERE $1 IS NOT NULL",
        "SELECT * FROM students WHERE $1 IS NOT NULL",
    ];

    /// <summary>All facts of the school.</summary>
    private static readonly string[] Patterns =
    [
        "SELECT * FROM classes WHERE $1 IS NOT NULL",
        "SELECT * FROM cohorts WHERE $1 IS NOT NULL",
        "SELECT * FROM students WHERE $1 IS NOT NULL",
        "SELECT * FROM postures WHERE $1 IS NOT NULL",
        "SELECT * FROM attendance WHERE $1 IS NOT NULL",
        "SELECT * FROM taught_facts WHERE $1 IS NOT NULL",
        "SELECT * FROM observations o WHERE $1 IS NOT NULL AND NOT EXISTS (SELECT FROM withdrawals w WHERE w.observation_id = o.id)",
    ];

    private const string Here =
        "SELECT id FROM students WHERE cohort_ids && ARRAY(SELECT id FROM cohorts WHERE class_id = $1)";

    public static async Task RunAsync(NpgsqlDataSource database, Page page, Action<string, double, string> say)
    {
        await FillAsync(database);
        var (classId, student, posture, side) = await LargestAsync(database);

        await CompareAsync("Today", 100, () => page.ReadAsync("/api/today"), Term);
        await CompareAsync(
            "what is left to do, 60,000 observations",
            100,
            () => page.ReadAsync("/api/today/left-to-do"),
            [
                .. Term,
                "SELECT * FROM attendance WHERE $1 IS NOT NULL",
                "SELECT * FROM taught_facts WHERE $1 IS NOT NULL",
                "SELECT * FROM observations o WHERE $1 IS NOT NULL AND NOT EXISTS (SELECT FROM withdrawals w WHERE w.observation_id = o.id)",
            ]
        );
        await CompareAsync(
            "register of 40, 60,000 observations",
            100,
            () => page.ReadAsync($"/api/classes/{classId}/lessons/{LessonDay}/register"),
            "SELECT * FROM classes WHERE id = $1",
            "SELECT * FROM terms WHERE $1 IS NOT NULL",
            $"{Plans} LIMIT 1",
            "SELECT * FROM cohorts WHERE class_id = $1",
            "SELECT * FROM postures WHERE $1 IS NOT NULL",
            "SELECT * FROM sashes WHERE $1 IS NOT NULL",
            $"SELECT * FROM students WHERE id IN ({Here})",
            $"SELECT * FROM attendance WHERE student_id IN ({Here})",
            "SELECT * FROM taught_facts WHERE class_id = $1",
            $"SELECT * FROM observations o WHERE student_id IN ({Here}) AND NOT EXISTS (SELECT FROM withdrawals w WHERE w.observation_id = o.id)"
        );
        await CompareAsync(
            "one mark, 60,000 observations",
            200,
            () =>
                page.SendAsync(
                    $"/api/classes/{classId}/lessons/{LessonDay}/observations",
                    new
                    {
                        marks = new[]
                        {
                            new
                            {
                                id = Guid.CreateVersion7(),
                                studentId = student,
                                postureId = posture,
                                side,
                                sign = "stage",
                                stage = "alone",
                                faultId = (Guid?)null,
                                words = (string?)null,
                                weight = (string?)null,
                            },
                        },
                    }
                ),
            "SELECT * FROM classes WHERE id = $1",
            "SELECT * FROM terms WHERE $1 IS NOT NULL",
            "SELECT id FROM cohorts WHERE class_id = $1",
            $"SELECT id, cohort_ids, places FROM students WHERE id = '{student}' AND $1 IS NOT NULL",
            $"SELECT * FROM postures WHERE id = '{posture}' AND $1 IS NOT NULL",
            $"""
            INSERT INTO observations (id, class_id, date, student_id, posture_id, side, sign, stage, words, by, at)
            SELECT gen_random_uuid(), $1, '{LessonDay}', '{student}', '{posture}', initcap('{side}'), 'Stage', 'Alone', '', (SELECT id FROM staff LIMIT 1), now()
            """
        );
        await CompareAsync(
            "Progress of 40, 60,000 observations",
            100,
            () => page.ReadAsync($"/api/classes/{classId}/progress"),
            ProgressSql.Statements
        );
        await CompareAsync(
            "pattern board of 300, 60,000 observations",
            20,
            () => page.ReadAsync("/api/patterns"),
            Patterns
        );
        await CompareAsync(
            "home sheets of 40, 60,000 observations",
            50,
            () => page.ReadAsync($"/api/classes/{classId}/home"),
            [.. ProgressSql.Statements, "SELECT * FROM postures WHERE $1 IS NOT NULL"]
        );

        Task CompareAsync(string what, int runs, Func<Task> read, params string[] statements) =>
            SchoolBench.CompareAsync(database, classId, say, what, runs, read, statements);
    }

    /// <summary>What the board of patterns takes after four more years like that. The school stays that large: nothing else is measured in
    /// it afterwards.</summary>
    public static async Task OverFiveYearsAsync(
        NpgsqlDataSource database,
        Page page,
        Action<string, double, string> say
    )
    {
        await FillAsync(database, FourEarlierYears);
        await FillAsync(database, "VACUUM ANALYZE observations");
        var (classId, _, _, _) = await LargestAsync(database);
        say(
            "pattern board of 300 over five years, opened once, nothing in memory",
            await Timing.MillisecondsAsync(() => page.ReadAsync("/api/patterns")),
            "ms"
        );
        await CompareAsync(
            database,
            classId,
            say,
            "pattern board of 300 over five years, 300,000 observations",
            10,
            () => page.ReadAsync("/api/patterns"),
            Patterns
        );
    }

    /// <summary>What the board takes whoever opens it first after a start, once the server has come to rest.</summary>
    public static async Task AfterAStartAsync(NpgsqlDataSource database, Page page, Action<string, double, string> say)
    {
        await UntilAtRestAsync();
        var (classId, _, _, _) = await LargestAsync(database);
        const string What = "pattern board of 300 over five years, opened first after a start";
        say(What, await Timing.MillisecondsAsync(() => page.ReadAsync("/api/patterns")), "ms of at most 1000");
        say(
            $"{What}, bare SQL",
            await Timing.MillisecondsAsync(() => BareSql.ReadAsync(database, classId, Patterns)),
            "ms"
        );
    }

    /// <summary>After a start the server reads ahead by itself; a second in which it does next to nothing is its rest.</summary>
    private static async Task UntilAtRestAsync()
    {
        using var server = Process.GetProcessById(
            int.Parse(Environment.GetEnvironmentVariable("ZEITPLAN_SERVER_PID")!, CultureInfo.InvariantCulture)
        );
        TimeSpan before;
        do
        {
            before = server.TotalProcessorTime;
            await Task.Delay(1000);
            server.Refresh();
        } while (server.TotalProcessorTime - before > LittleWork);
    }

    private static async Task CompareAsync(
        NpgsqlDataSource database,
        Guid classId,
        Action<string, double, string> say,
        string what,
        int runs,
        Func<Task> read,
        string[] statements
    )
    {
        var (whole, sql) = await Timing.OfBothAsync(runs, read, () => BareSql.ReadAsync(database, classId, statements));
        Timing.Compare(what, whole, sql, say);
    }

    /// <summary>A year of evenings for a school that has grown.</summary>
    public static Task FillAsync(NpgsqlDataSource database) => FillAsync(database, Fill);

    private static async Task FillAsync(NpgsqlDataSource database, string sql)
    {
        await using var fill = database.CreateCommand(sql);
        fill.CommandTimeout = 300;
        await fill.ExecuteNonQueryAsync();
    }

    /// <returns>The class with most students, one of them, and something taught there.</returns>
    private static async Task<(Guid Class, Guid Student, Guid Posture, string Side)> LargestAsync(
        NpgsqlDataSource database
    )
    {
        await using var command = database.CreateCommand(
            """
            SELECT c.class_id, (array_agg(s.id ORDER BY s.id))[1], t.posture_id, lower(t.side)
            FROM students s JOIN cohorts c ON c.id = s.cohort_ids[1]
            JOIN LATERAL (SELECT * FROM taught_facts WHERE class_id = c.class_id ORDER BY id LIMIT 1) t ON true
            GROUP BY c.class_id, t.posture_id, t.side ORDER BY count(*) DESC, c.class_id LIMIT 1
            """
        );
        await using var reader = await command.ExecuteReaderAsync();
        await reader.ReadAsync();
        return (reader.GetGuid(0), reader.GetGuid(1), reader.GetGuid(2), reader.GetString(3));
    }

    /// <summary>The same evenings again in each of the four years before, but for the few facts of the demo that need others
    /// beside them.</summary>
    private const string FourEarlierYears = """
        INSERT INTO attendance (id, class_id, date, student_id, present, by, at)
        SELECT gen_random_uuid(), class_id, date - 364 * years, student_id, present, by, at - 364 * years * interval '1 day'
        FROM attendance, generate_series(1, 4) years;
        INSERT INTO taught_facts (id, class_id, date, cohort_id, kind, posture_id, side, how, taught, by, at)
        SELECT gen_random_uuid(), class_id, date - 364 * years, cohort_id, kind, posture_id, side, how, taught, by, at - 364 * years * interval '1 day'
        FROM taught_facts, generate_series(1, 4) years WHERE from_id IS NULL;
        INSERT INTO observations (id, class_id, date, student_id, posture_id, side, sign, stage, words, weight, by, at)
        SELECT gen_random_uuid(), class_id, date - 364 * years, student_id, posture_id, side, sign, stage, words, weight, by, at - 364 * years * interval '1 day'
        FROM observations, generate_series(1, 4) years WHERE from_id IS NULL AND fault_id IS NULL AND principle_id IS NULL;
        ANALYZE;
        """;

    /// <summary>Every class weekly through the year; each lesson brings four postures further along the form, and each
    /// student is marked 200 times.</summary>
    private const string Fill = """
        SELECT setseed(0.12);
        CREATE TEMP TABLE lesson ON COMMIT DROP AS
        SELECT id AS class_id, week, date '2026-01-05' + 7 * week + array_position(ARRAY['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'], weekday) - 1 AS date,
            timestamptz '2026-01-05 20:00Z' + 7 * week * interval '1 day' AS at
        FROM classes, generate_series(0, 45) week;
        CREATE TEMP TABLE material ON COMMIT DROP AS
        SELECT posture_id, side, row_number() OVER (ORDER BY posture_id, side) - 1 AS place, count(*) OVER () AS among
        FROM (SELECT DISTINCT (position ->> 'postureId')::uuid AS posture_id, initcap(position ->> 'side') AS side FROM forms, jsonb_array_elements(text -> 'positions') position) of;
        CREATE TEMP TABLE member ON COMMIT DROP AS
        SELECT s.id AS student_id, c.id AS cohort_id, c.class_id FROM students s JOIN cohorts c ON c.id = s.cohort_ids[1];
        INSERT INTO attendance (id, class_id, date, student_id, present, by, at)
        SELECT gen_random_uuid(), class_id, date, student_id, random() < 0.85, (SELECT id FROM staff ORDER BY id LIMIT 1), at FROM member JOIN lesson USING (class_id);
        INSERT INTO taught_facts (id, class_id, date, cohort_id, kind, posture_id, side, how, taught, by, at)
        SELECT gen_random_uuid(), class_id, date, c.id, 'Posture', posture_id, side, CASE WHEN step = 0 THEN 'Introduced' ELSE 'Reviewed' END, true, (SELECT id FROM staff ORDER BY id LIMIT 1), at
        FROM cohorts c JOIN lesson USING (class_id), generate_series(0, 3) step, material WHERE place = (2 * week + step) % among;
        INSERT INTO observations (id, class_id, date, student_id, posture_id, side, sign, stage, words, weight, by, at)
        SELECT gen_random_uuid(), class_id, date, student_id, posture_id, side, sign,
            CASE WHEN sign = 'Stage' THEN (ARRAY['Follows', 'Alone', 'Flowing'])[1 + floor(random() * 3)::int] END,
            CASE WHEN sign = 'Fault' THEN 'leans into it' ELSE '' END, CASE WHEN sign = 'Fault' THEN 'Shape' END,
            (SELECT id FROM staff ORDER BY id LIMIT 1), at
        FROM (SELECT member.*, mark, mark * 46 / 200 AS week, (ARRAY['Stage', 'Stage', 'Stage', 'Stage', 'Stage', 'Fine', 'Fault'])[1 + floor(random() * 7)::int] AS sign
            FROM member, generate_series(0, 199) mark) marked
        JOIN lesson USING (class_id, week) JOIN material ON place = (2 * week + mark % 4) % among;
        ANALYZE;
        """;
}
