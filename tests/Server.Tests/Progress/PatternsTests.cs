using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Progress;

namespace Zeitplan.Server.Tests.Progress;

public sealed class PatternsTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_fault_of_last_spring_has_come_back_and_leads_to_who_had_it_and_what_was_tried()
    {
        var head = await HeadAsync();
        var board = await head.GetAsync("/api/patterns");
        var months = board.GetProperty("months").GetArrayLength();
        var knee = Patterns(board).First();
        Assert.Equal(("Single Whip", 2), (knee.Text("name"), knee.GetProperty("waves").GetArrayLength()));
        Assert.False(knee.GetProperty("sameSeason").GetBoolean());
        Assert.Equal(months, knee.GetProperty("in").GetArrayLength());
        var lucia = knee.GetProperty("cases")
            .EnumerateArray()
            .Single(one => one.Text("name").StartsWith("Lucia", StringComparison.Ordinal));
        Assert.False(Assert.Single(lucia.GetProperty("tried").EnumerateArray()).GetProperty("helped").GetBoolean());
        Assert.Equal("Fern, newer", Patterns(board).Single(one => one.Text("name") == "Brush Knee").Text("onlyIn"));
        // The class went on to other things: nobody has looked since, and two still have it.
        Assert.Equal(
            2,
            Patterns(board).Single(one => one.Text("name") == "Stepping Back Walk").GetProperty("unlooked").GetInt32()
        );
    }

    [Fact]
    public async Task An_instructor_sees_the_threads_of_their_own_classes_only()
    {
        var (head, instructor) = (await HeadAsync(), await InstructorAsync());
        var all = Names(await head.GetAsync("/api/patterns"));
        var own = Names(await instructor.GetAsync("/api/patterns"));
        Assert.Contains("Imke R.", own);
        Assert.Contains("Conrad B.", all.Except(own));

        static IReadOnlySet<string> Names(JsonElement board) =>
            Patterns(board)
                .SelectMany(pattern => pattern.GetProperty("cases").EnumerateArray())
                .Select(one => one.Text("name"))
                .ToHashSet();
    }

    [Fact]
    public async Task What_is_kept_in_memory_is_what_is_there_after_every_kind_of_fact()
    {
        await SameAsReadAnewAsync();
        await SameAsReadAnewAsync(days: 7 * Correction.StuckWeeks);
        foreach (
            var happens in new[]
            {
                Again("observations", "sign = 'Fault' AND principle_id IS NULL"),
                Again("observations", "sign = 'Better'"),
                Again("observations", "sign = 'Fine'"),
                Again("observations", "sign = 'Noted'"),
                Again("observations", "sign = 'Stage'"),
                Again("observations", "sign = 'Fault' AND from_id IS NOT NULL"),
                Again("observations", "sign = 'Fault' AND principle_id IS NOT NULL"),
                Again("observations", "mode IS NOT NULL"),
                """
                    INSERT INTO withdrawals (id, observation_id, by, at)
                    SELECT gen_random_uuid(), id, by, at FROM observations o
                    WHERE sign = 'Fault' AND NOT EXISTS (SELECT FROM withdrawals WHERE observation_id = o.id) ORDER BY id LIMIT 1
                    """,
                // Of somebody of whom nothing had been tried: now their stages count as well.
                Again("ways_tried", "true", $"'student_id', ({NobodyTriedWith})"),
                "UPDATE students SET places = places || places WHERE id = (SELECT student_id FROM observations ORDER BY id LIMIT 1)",
                // What a level accepts and how a posture is done are asked when somebody is judged, and kept with nobody.
                "UPDATE sashes SET asks = jsonb_set(asks, '{accepts}', '\"nothing\"')",
                "UPDATE postures SET text = jsonb_set(text, '{faults,0,weight}', '\"finesse\"') WHERE jsonb_array_length(text->'faults') > 0",
            }
        )
        {
            await RunAsync(happens);
            await SameAsReadAnewAsync();
        }

        static string Again(string table, string which, string other = "'of', 0") =>
            $"INSERT INTO {table} SELECT (jsonb_populate_record(f, jsonb_build_object('id', gen_random_uuid(), {other}))).* FROM {table} f WHERE {which} ORDER BY id LIMIT 1";
    }

    [Fact]
    public async Task After_a_start_everybody_of_the_school_is_read_before_anybody_asks()
    {
        await using var db = await OpenAsync();
        using var started = Template.Open(db.Database.GetDbConnection().Database);
        await started.Services.GetServices<IHostedService>().OfType<ReadAhead>().Single().ExecuteTask!;
        Assert.Equal(
            await db.Students.CountAsync(student => student.Erased == null, TestContext.Current.CancellationToken),
            started.Services.GetRequiredService<SeenBefore>().People
        );
    }

    private const string NobodyTriedWith =
        "SELECT student_id FROM observations o WHERE NOT EXISTS (SELECT FROM ways_tried w WHERE w.student_id = o.student_id) ORDER BY id LIMIT 1";

    private async Task SameAsReadAnewAsync(int days = 0)
    {
        var school = await SchoolAsync();
        await using var db = school.Open();
        var students = await db
            .Students.AsNoTracking()
            .OrderBy(student => student.Id)
            .ToListAsync(TestContext.Current.CancellationToken);
        var today = DateOnly.Parse(DemoTemplate.Today, CultureInfo.InvariantCulture).AddDays(days);
        using var anew = new SeenBefore();
        Assert.Equal(await TextAsync(anew), await TextAsync(Services.GetRequiredService<SeenBefore>()));

        async Task<string> TextAsync(SeenBefore before)
        {
            var seen = await before.OfAsync(db, school, students, today, TestContext.Current.CancellationToken);
            return JsonSerializer.Serialize(
                students.Select(student => new
                {
                    student.Id,
                    Corrections = seen[student.Id]
                        .Corrections.Select(its => $"{its.Of} {JsonSerializer.Serialize(its.Correction)}")
                        .Order(StringComparer.Ordinal),
                    Looked = seen[student.Id]
                        .Looked.Select(its => $"{its.Of} {string.Join(' ', its.Days.Order())}")
                        .Order(StringComparer.Ordinal),
                })
            );
        }
    }

    private static IEnumerable<JsonElement> Patterns(JsonElement board) =>
        board.GetProperty("patterns").EnumerateArray();
}
