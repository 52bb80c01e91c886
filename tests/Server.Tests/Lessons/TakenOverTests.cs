using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

/// <summary>What people came with, and what the head says about it.</summary>
public sealed class TakenOverTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Nothing_that_a_sash_plainly_holds_is_taught_as_new()
    {
        var head = await HeadAsync();
        var evening = await ClassAsync(head);
        var plan = await head.GetAsync($"/api/terms/{await TermAsync(head)}/classes/{evening.Text("id")}/plan");
        foreach (var row in plan.GetProperty("rows").EnumerateArray())
        {
            var table = await head.GetAsync($"/api/cohorts/{row.Text("cohortId")}/taken-over");
            var columns = Columns(table);
            var alone = columns
                .Index()
                .Where(column =>
                    table
                        .GetProperty("rows")
                        .EnumerateArray()
                        .All(person => person.GetProperty("cells")[column.Index].Text("stage") == "alone")
                )
                .Select(column => column.Item.Text("name"))
                .ToHashSet();
            var taught = row.GetProperty("chips")
                .EnumerateArray()
                .Where(chip => chip.Text("kind") is "posture" or "drill")
                .Select(chip => chip.Text("name"))
                .ToList();
            Assert.NotEmpty(taught.Concat(alone));
            Assert.Empty(taught.Intersect(alone));
        }
    }

    [Fact]
    public async Task What_the_head_says_counts_for_the_plan_until_somebody_has_seen_it()
    {
        var head = await HeadAsync();
        var copper = (await ClassAsync(head))
            .GetProperty("cohorts")
            .EnumerateArray()
            .Single(cohort => cohort.Text("name") == "Copper")
            .Text("id");
        var path = $"/api/cohorts/{copper}/taken-over";
        var table = await head.GetAsync(path);
        var column = Columns(table).Index().Single(column => column.Item.Text("name") == "Heel Kick, right");
        object[] Marks(string stage) =>
            [
                .. table
                    .GetProperty("rows")
                    .EnumerateArray()
                    .Select(row => new
                    {
                        id = Guid.CreateVersion7(),
                        studentId = row.Text("studentId"),
                        postureId = column.Item.Text("postureId"),
                        side = "right",
                        stage,
                    }),
            ];
        async Task<List<(string Stage, bool Said)>> CellsAsync() =>
            [
                .. (await head.GetAsync(path))
                    .GetProperty("rows")
                    .EnumerateArray()
                    .Select(row => row.GetProperty("cells")[column.Index])
                    .Select(cell => (cell.Text("stage"), cell.GetProperty("said").GetBoolean())),
            ];

        Assert.All(await CellsAsync(), cell => Assert.Equal(("notMet", false), cell));
        Assert.Contains("marks[0].stage", await head.PostAsync(path, new { marks = Marks("flowing") }).FieldsAsync());
        var marks = Marks("alone");
        await head.PostAsync(path, new { marks }).OkAsync();
        await head.PostAsync(path, new { marks }).OkAsync();
        Assert.All(await CellsAsync(), cell => Assert.Equal(("alone", true), cell));
        var student = await head.GetAsync($"/api/students/{table.GetProperty("rows")[0].Text("studentId")}");
        var standing = student
            .GetProperty("standings")
            .EnumerateArray()
            .Single(of => of.Text("name") == "Heel Kick, right");
        Assert.Equal(("alone", true), (standing.Text("stage"), standing.GetProperty("takenOver").GetBoolean()));
        await Assert.ThrowsAnyAsync<Npgsql.PostgresException>(() => RunAsync("DELETE FROM taken_over_facts"));
        await (await InstructorAsync()).PostAsync(path, new { marks = Marks("notMet") }).ProblemAsync(403);
    }

    private static List<JsonElement> Columns(JsonElement table) =>
        [
            .. table
                .GetProperty("sections")
                .EnumerateArray()
                .SelectMany(section => section.GetProperty("columns").EnumerateArray()),
        ];
}
