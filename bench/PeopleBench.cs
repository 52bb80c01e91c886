using Microsoft.EntityFrameworkCore;
using Npgsql;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;

namespace Zeitplan.Bench;

/// <summary>The demo school grown to 300 students, 12 classes and 3 forms: its roster, and the coverage of a cohort of
/// 40 over 60 positions, beside the SQL they need.</summary>
internal static class PeopleBench
{
    private const int AllStudents = 300;
    private const int AllClasses = 12;
    private const int LargeCohort = 40;
    private const int Seed = 12;

    public static async Task RunAsync(
        string connection,
        NpgsqlDataSource database,
        Page page,
        Action<string, double, string> say
    )
    {
        var cohort = await GrowAsync(connection);
        var (roster, rosterSql) = await Timing.OfBothAsync(
            200,
            () => page.ReadAsync("/api/students"),
            () =>
                BareSql.ReadAsync(
                    database,
                    cohort,
                    "SELECT id, mode FROM cohorts WHERE $1 IS NOT NULL",
                    "SELECT id, given_name, family_name, sash_id, half, sash_since, cohort_ids, joined, \"left\", has_limits, usual_mode, xmin FROM students WHERE $1 IS NOT NULL AND erased IS NULL"
                )
        );
        Timing.Compare("roster of 300", roster, rosterSql, say);

        var (coverage, coverageSql) = await Timing.OfBothAsync(
            200,
            () => page.ReadAsync($"/api/cohorts/{cohort}/coverage"),
            () =>
                BareSql.ReadAsync(
                    database,
                    cohort,
                    "SELECT time_zone FROM schools WHERE $1 IS NOT NULL",
                    "SELECT * FROM cohorts WHERE id = $1",
                    "SELECT * FROM classes WHERE id = (SELECT class_id FROM cohorts WHERE id = $1)",
                    "SELECT id, given_name, family_name, usual_mode, has_limits, limits FROM students WHERE cohort_ids && ARRAY[$1]",
                    "SELECT * FROM terms WHERE $1 IS NOT NULL",
                    "SELECT * FROM assignments WHERE cohort_id = $1",
                    "SELECT id, name, text, xmin FROM forms WHERE id IN (SELECT (segment->>'formId')::uuid FROM assignments, jsonb_array_elements(segments) segment WHERE cohort_id = $1)",
                    "SELECT id, outline FROM postures WHERE $1 IS NOT NULL",
                    "INSERT INTO access_log (id, at, by, student_id, kind, place) SELECT gen_random_uuid(), now(), (SELECT id FROM staff LIMIT 1), id, 'Read', 'coverage' FROM students WHERE cohort_ids && ARRAY[$1] AND limits <> '[]'"
                )
        );
        Timing.Compare("coverage of 40 over 60", coverage, coverageSql, say);
    }

    /// <returns>The cohort of 40.</returns>
    public static async Task<Guid> GrowAsync(string connection)
    {
        await using var db = new SchoolContext(
            new DbContextOptionsBuilder<SchoolContext>().UseNpgsql(connection).UseSnakeCaseNamingConvention().Options
        );
        var random = new Random(Seed);
        var (sash, hall, staff) = (
            await db.Sashes.OrderBy(one => one.Order).FirstAsync(),
            await db.Halls.FirstAsync(),
            await db.Staff.FirstAsync()
        );
        var lantern = (await db.Forms.ToListAsync()).MaxBy(form => form.Positions.Count)!;
        db.Forms.Add(Form.Create(Guid.CreateVersion7(), lantern.Text with { Name = "Lantern Form, as once taught" }));
        List<Cohort> cohorts = [];
        for (var at = await db.Classes.CountAsync(); at < AllClasses; at++)
        {
            var schoolClass = SchoolClass.Create(
                Guid.CreateVersion7(),
                new($"Class {at}", (DayOfWeek)(at % 7), new(8 + at, 0), 60, hall.Id, [staff.Id])
            );
            db.Classes.Add(schoolClass);
            cohorts.Add(
                Cohort.Create(
                    Guid.CreateVersion7(),
                    schoolClass.Id,
                    new($"Group {at}", at, sash.Id, Half.None, Mode.Standing, sash.Colour, false, false)
                )
            );
        }

        db.Cohorts.AddRange(cohorts);
        for (var (made, missing) = (0, AllStudents - await db.Students.CountAsync()); made < missing; made++)
        {
            var cohort = made < LargeCohort ? cohorts[0] : cohorts[1 + (made % (cohorts.Count - 1))];
            var student = Student.Create(
                Guid.CreateVersion7(),
                new($"Given{made}", $"Family{made}", sash.Id, Half.None, [cohort.Id], new(2026, 1, 1))
            );
            student.Limit(
                [.. Enum.GetValues<Demand>().Where(_ => random.Next(12) == 0).Select(demand => new Limit(demand))],
                ""
            );
            db.Students.Add(student);
        }

        var term = await db.Terms.OrderByDescending(one => one.Start).FirstAsync();
        db.Assignments.Add(
            Assignment.Create(
                Guid.CreateVersion7(),
                term.Id,
                cohorts[0].Id,
                [
                    new(
                        Guid.CreateVersion7(),
                        lantern.Id,
                        lantern.Positions[0].Id,
                        lantern.Positions[59].Id,
                        term.End,
                        Purpose.New,
                        []
                    ),
                ]
            )
        );
        await db.SaveChangesAsync();

        // The database tidies up after so many new rows by itself, some time; it should be before the clock runs.
        await db.Database.ExecuteSqlRawAsync("VACUUM ANALYZE");
        return cohorts[0].Id;
    }
}
