using System.Text;
using System.Text.Json;

namespace Zeitplan.Server.Tests.People;

public sealed class RosterEndpointTests(DemoTemplate template) : HeronQuayTests(template)
{
    private const string Messy =
        "Surname;First name;Level;Class;Group;Member since\r\nNúñez;Marisol;Fern (senior);Tuesday evening;;3.9.2026\r\n\"Strand\";Filippa;Fern newer;Tuesday evening;;\r\nVane;Orla;;;Chair group;2026-02-03\r\n";

    [Theory]
    [InlineData("utf-8", "")]
    [InlineData("utf-16", "")]
    [InlineData("latin1", "")]
    [InlineData("utf-8", "sep=;\r\n")]
    public async Task A_sheet_is_read_however_a_spreadsheet_wrote_it(string encoding, string first)
    {
        var head = await HeadAsync();
        var bytes =
            Encoding.GetEncoding(encoding) is var written && encoding == "utf-16"
                ? [.. written.GetPreamble(), .. written.GetBytes(first + Messy)]
                : written.GetBytes(first + Messy);
        var preview = await PreviewAsync(head, bytes);
        Assert.Equal(
            (2, 0, 0),
            (
                preview.GetProperty("added").GetInt32(),
                preview.GetProperty("changed").GetInt32(),
                preview.GetProperty("problems").GetArrayLength()
            )
        );
        Assert.Equal("Marisol Núñez", preview.GetProperty("items")[0].Text("name"));
    }

    [Fact]
    public async Task An_import_is_kept_whole_and_taken_back_whole()
    {
        var head = await HeadAsync();
        var before = (await head.GetAsync("/api/students")).GetRawText();
        var id = Guid.CreateVersion7();
        var lines = await ImportAsync(head, id, Messy + "Adaeze;wrong;;;;\r\n");
        Assert.Equal(2, lines[^1].GetProperty("of").GetInt32() - 1);
        Assert.True(lines[^1].GetProperty("kept").GetBoolean());
        Assert.Equal(
            "taken twice",
            (await ImportAsync(head, id, Messy))[^1].GetProperty("kept").GetBoolean() ? "taken again" : "taken twice"
        );
        Assert.Equal("2026-09-03", (await StudentAsync(head, "Marisol")).Text("joined"));
        await head.SendAsync(HttpMethod.Delete, $"/api/roster/imports/{id}", null).OkAsync();
        Assert.Equal(Without(before), Without((await head.GetAsync("/api/students")).GetRawText()));
        await head.SendAsync(HttpMethod.Delete, $"/api/roster/imports/{id}", null).ProblemAsync(404);
    }

    [Fact]
    public async Task An_import_whose_people_were_changed_since_is_not_taken_back()
    {
        var head = await HeadAsync();
        var id = Guid.CreateVersion7();
        await ImportAsync(head, id, Messy);
        var orla = await StudentAsync(head, "Orla");
        await head.PostAsync(
                $"/api/students/{orla.Text("id")}/leaving",
                new { version = orla.GetProperty("version").GetInt64() }
            )
            .OkAsync();
        Assert.Contains(
            "Orla Vane was changed since.",
            (await head.SendAsync(HttpMethod.Delete, $"/api/roster/imports/{id}", null).ProblemAsync(409)).GetRawText(),
            StringComparison.Ordinal
        );
        Assert.Contains(
            (await head.GetAsync("/api/students")).EnumerateArray(),
            student => student.Text("givenName") == "Marisol"
        );
    }

    [Theory]
    [InlineData("name,sash\r\nOrla Vane,Purple\r\n", 2, "sash")]
    [InlineData("name,joined\r\nOrla Vane,yesterday\r\n", 2, "joined")]
    public async Task A_bad_sheet_says_where_and_keeps_nothing(string sheet, int line, string column)
    {
        var head = await HeadAsync();
        var count = (await head.GetAsync("/api/students")).GetArrayLength();
        var problem = Assert.Single(
            (await PreviewAsync(head, Encoding.UTF8.GetBytes(sheet))).GetProperty("problems").EnumerateArray()
        );
        Assert.Equal((line, column), (problem.GetProperty("line").GetInt32(), problem.Text("column")));
        Assert.False((await ImportAsync(head, Guid.CreateVersion7(), sheet))[^1].GetProperty("kept").GetBoolean());
        Assert.Equal(count, (await head.GetAsync("/api/students")).GetArrayLength());
    }

    [Fact]
    public async Task What_is_no_sheet_is_refused_in_words()
    {
        var head = await HeadAsync();
        foreach (
            var (bytes, says) in new[]
            {
                (new byte[] { 80, 75, 3, 4, 0, 0, 8, 0 }, "This is not a text file"),
                (Array.Empty<byte>(), "The file is empty"),
                (Encoding.UTF8.GetBytes("name,sash\r\n\"Orla,Ivory\r\n"), "A quote is opened"),
            }
        )
        {
            var problem = await head.PostAsync("/api/roster/preview", new { file = bytes, mapping = (object?)null })
                .ProblemAsync(400);
            Assert.Contains(
                says,
                problem.GetProperty("errors").GetProperty("file")[0].GetString(),
                StringComparison.Ordinal
            );
        }
    }

    [Fact]
    public async Task The_roster_written_out_and_read_again_changes_nothing_and_holds_no_limits()
    {
        var head = await HeadAsync();
        var bytes = await head.Client.GetByteArrayAsync("/api/students.csv");
        var preview = await PreviewAsync(head, bytes);
        Assert.Equal(
            (0, 0, 0),
            (
                preview.GetProperty("added").GetInt32(),
                preview.GetProperty("changed").GetInt32(),
                preview.GetProperty("problems").GetArrayLength()
            )
        );
        Assert.All(preview.GetProperty("items").EnumerateArray(), item => Assert.Equal("same", item.Text("fate")));
        Assert.DoesNotContain("balance", Encoding.UTF8.GetString(bytes), StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("limit", Encoding.UTF8.GetString(bytes), StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task A_thousand_students_come_in_with_progress_shown()
    {
        var head = await HeadAsync();
        var sheet =
            "name,sash,class,cohort,joined\r\n"
            + string.Concat(
                Enumerable
                    .Range(1, 1000)
                    .Select(number => $"Person Number{number},Ivory,Tuesday evening,Ivory,2026-01-01\r\n")
            );
        var lines = await ImportAsync(head, Guid.CreateVersion7(), sheet);
        Assert.Equal(
            [.. Enumerable.Range(1, 10).Select(batch => batch * 100), 1000],
            lines.Select(line => line.GetProperty("done").GetInt32())
        );
        Assert.True(lines[^1].GetProperty("kept").GetBoolean());
    }

    private static async Task<JsonElement> PreviewAsync(Caller head, byte[] bytes)
    {
        var answer = await head.PostAsync("/api/roster/preview", new { file = bytes, mapping = (object?)null });
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    private static async Task<List<JsonElement>> ImportAsync(Caller head, Guid id, string sheet)
    {
        var bytes = Encoding.UTF8.GetBytes(sheet);
        var mapping = (await PreviewAsync(head, bytes)).GetProperty("mapping");
        var answer = await head.PostAsync(
            "/api/roster/imports",
            new
            {
                id,
                fileName = "roster.csv",
                file = bytes,
                mapping,
            }
        );
        return
        [
            .. (await answer.Content.ReadAsStringAsync())
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(line => JsonSerializer.Deserialize<JsonElement>(line)),
        ];
    }

    private static string Without(string students) =>
        System.Text.RegularExpressions.Regex.Replace(students, "\"version\":\\d+", "");
}
