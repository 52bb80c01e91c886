using System.IO.Compression;
using System.Text;
using System.Text.Json;
using MiniExcelLibs;
using MiniExcelLibs.Attributes;
using MiniExcelLibs.OpenXml;

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

    /// <summary>A workbook with a sheet in front that nobody sees, titles, a formula's value, a date and a
    /// number.</summary>
    private static byte[] Workbook()
    {
        using var file = new MemoryStream();
        file.SaveAs(
            new Dictionary<string, object>
            {
                ["Old"] = new[] { Row("Name", "Sash") },
                ["Everybody"] = new[]
                {
                    Row("Heron Quay Tai Chi"),
                    Row(),
                    Row("Name", "Sash", "Joined", "Telephone"),
                    Row("Marisol Núñez", "Fern", new DateTime(2026, 9, 3), 441632960107),
                },
            },
            printHeader: false,
            configuration: new OpenXmlConfiguration
            {
                DynamicSheets =
                [
                    new DynamicExcelSheet("Old") { State = SheetState.Hidden },
                    new DynamicExcelSheet("Everybody"),
                ],
            }
        );
        return file.ToArray();

        static Dictionary<string, object?> Row(params object?[] cells) =>
            "ABCD".Index().ToDictionary(column => $"{column.Item}", column => cells.ElementAtOrDefault(column.Index));
    }

    private static byte[] OpenDocument(string rows)
    {
        using var file = new MemoryStream();
        using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var content = new StreamWriter(archive.CreateEntry("content.xml").Open());
            content.Write(
                $"""
                <?xml version="1.0" encoding="UTF-8"?>
                <office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0">
                <office:automatic-styles><style:style style:name="ta2" style:family="table"><style:table-properties table:display="false"/></style:style></office:automatic-styles>
                <office:body><office:spreadsheet>
                <table:table table:name="Old" table:style-name="ta2"><table:table-row><table:table-cell office:value-type="string"><text:p>Name</text:p></table:table-cell></table:table-row></table:table>
                <table:table table:name="Everybody"><table:table-column table:number-columns-repeated="16384"/>{rows}<table:table-row table:number-rows-repeated="1048000"><table:table-cell table:number-columns-repeated="16384"/></table:table-row></table:table>
                </office:spreadsheet></office:body></office:document-content>
                """
            );
        }

        return file.ToArray();
    }

    private const string OpenRows = """
        <table:table-row table:number-rows-repeated="2"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>
        <table:table-row><table:table-cell office:value-type="string"><text:p>Name</text:p></table:table-cell><table:table-cell office:value-type="string"><text:p>Sash</text:p></table:table-cell><table:table-cell office:value-type="string"><text:p>Joined</text:p></table:table-cell><table:table-cell office:value-type="string"><text:p>Telephone</text:p></table:table-cell></table:table-row>
        <table:table-row><table:table-cell office:value-type="string" table:formula="of:=CONCATENATE(1)"><text:p>Marisol <text:span>Núñez</text:span></text:p></table:table-cell><table:table-cell office:value-type="string"><text:p>Fern</text:p></table:table-cell><table:table-cell office:value-type="date" office:date-value="2026-09-03"><text:p>03.09.26</text:p></table:table-cell><table:table-cell office:value-type="float" office:value="441632960107"><text:p>4,4E11</text:p></table:table-cell></table:table-row>
        """;

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task A_file_of_a_spreadsheet_program_is_read_as_it_is_shown(bool isXlsx)
    {
        var head = await HeadAsync();
        var file = isXlsx ? Workbook() : OpenDocument(OpenRows);
        var preview = await PreviewAsync(head, file);
        Assert.Equal(["Everybody"], preview.GetProperty("sheets").EnumerateArray().Select(sheet => sheet.GetString()));
        Assert.Equal(3, preview.GetProperty("headerLine").GetInt32());
        Assert.Equal(0, preview.GetProperty("problems").GetArrayLength());
        Assert.True((await ImportAsync(head, Guid.CreateVersion7(), file))[^1].GetProperty("kept").GetBoolean());
        var marisol = await StudentAsync(head, "Marisol Núñez");
        Assert.Equal("2026-09-03", marisol.Text("joined"));
        Assert.Equal(
            "441632960107",
            (await head.GetAsync($"/api/students/{marisol.Text("id")}/details")).Text("contactPhone")
        );
    }

    [Fact]
    public async Task What_was_explained_for_one_file_is_known_for_the_next_and_taken_over_goes_with_a_taken_back_import()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var sheet = Encoding.UTF8.GetBytes(
            $"Name;Gürtel;{form.GetProperty("text").Text("name")}\nOrla Vane;Elfenbein;ja\nAdaeze Obi;Violett;nein\n"
        );
        var ivory = (await head.GetAsync("/api/people")).GetProperty("sashes")[0].Text("id");
        var answers = new
        {
            columns = new object?[]
            {
                new { field = "fullName" },
                new { field = "sash" },
                new { field = "knows", formId = form.Text("id") },
            },
            words = new[]
            {
                new
                {
                    field = "sash",
                    word = "Elfenbein",
                    meaning = ivory,
                },
                new
                {
                    field = "knows",
                    word = "ja",
                    meaning = "yes",
                },
                new
                {
                    field = "knows",
                    word = "nein",
                    meaning = "no",
                },
            },
            leftOut = new[] { 3 },
        };
        var preview = await PreviewAsync(head, sheet, answers);
        Assert.Equal(
            ["added", "leftOut"],
            preview.GetProperty("items").EnumerateArray().Select(item => item.Text("fate"))
        );
        var id = Guid.CreateVersion7();
        Assert.True((await ImportAsync(head, id, sheet, answers))[^1].GetProperty("kept").GetBoolean());
        Assert.True(await CountAsync("taken_over_facts") > 0);

        // The next file needs no word more.
        var next = await PreviewAsync(head, Encoding.UTF8.GetBytes("Name;Gürtel\nMarisol Núñez;elfenbein\n"));
        Assert.Equal(("sash", 1), (next.GetProperty("columns")[1].Text("field"), next.GetProperty("added").GetInt32()));

        await head.DeleteAsync($"/api/roster/imports/{id}").OkAsync();
        Assert.Equal(0, await CountAsync("taken_over_facts"));
    }

    private async Task<long> CountAsync(string table)
    {
        await using var connection = new Npgsql.NpgsqlConnection(Connection);
        await connection.OpenAsync();
        await using var command = new Npgsql.NpgsqlCommand($"SELECT count(*) FROM {table}", connection);
        return (long)(await command.ExecuteScalarAsync())!;
    }

    [Fact]
    public async Task Files_that_are_no_roster_are_refused_with_what_to_do()
    {
        var head = await HeadAsync();
        byte[] Zip(string entry, byte[] content)
        {
            using var file = new MemoryStream();
            using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
            {
                using var stream = archive.CreateEntry(entry).Open();
                stream.Write(content);
            }

            return file.ToArray();
        }

        foreach (
            var (file, says) in new (byte[], string)[]
            {
                ([0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1], "locked with a password"),
                (Zip("letter.txt", [1, 2, 3]), "no spreadsheet"),
                (Zip("content.xml", Encoding.UTF8.GetBytes("<office:document>")), "damaged"),
                (Zip("content.xml", Encoding.UTF8.GetBytes("<!DOCTYPE a [<!ENTITY b 'c'>]><a>&b;</a>")), "damaged"),
                (Zip("xl/workbook.xml", Encoding.UTF8.GetBytes("no xml")), "damaged"),
                (Zip("content.xml", new byte[300 * 1024 * 1024]), "larger than any roster"),
                (Workbook()[..^200], "damaged"),
                (OpenDocument(""), "The file is empty"),
            }
        )
        {
            var problem = await head.PostAsync("/api/roster/preview", new { file, answers = new { } })
                .ProblemAsync(400);
            Assert.Contains(
                says,
                problem.GetProperty("errors").GetProperty("file")[0].GetString(),
                StringComparison.Ordinal
            );
        }

        var many = string.Concat(
            Enumerable
                .Range(0, 200_000)
                .Select(at =>
                    $"<table:table-row><table:table-cell office:value-type=\"string\"><text:p>Name {at}</text:p></table:table-cell></table:table-row>"
                )
        );
        var preview = await PreviewAsync(
            head,
            OpenDocument(
                $"<table:table-row><table:table-cell office:value-type=\"string\"><text:p>Name</text:p></table:table-cell></table:table-row>{many}"
            )
        );
        Assert.Contains(
            "more than 20000 lines",
            preview.GetProperty("problems")[0].Text("message"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_second_person_of_a_name_is_asked_about_before_there_are_two()
    {
        var head = await HeadAsync();
        var agnes = await StudentAsync(head, "Agnes");
        object Another(bool another) =>
            new
            {
                id = Guid.CreateVersion7(),
                text = new
                {
                    givenName = agnes.Text("givenName").ToUpperInvariant(),
                    familyName = $" {agnes.Text("familyName")}",
                    sashId = agnes.Text("sashId"),
                    half = "none",
                    cohortIds = Array.Empty<string>(),
                    joined = "2026-09-01",
                    details = new
                    {
                        aim = "health",
                        scope = "",
                        mode = "standing",
                        heldHand = "symmetric",
                        contactName = "",
                        contactPhone = "",
                        consents = Array.Empty<string>(),
                    },
                },
                sashSince = (string?)null,
                another,
            };

        var problem = await head.PostAsync("/api/students", Another(false)).ProblemAsync(409);
        Assert.Equal("urn:zeitplan:problem:same-name", problem.Text("type"));
        Assert.Contains("here since", problem.GetProperty("changes")[0].GetString(), StringComparison.Ordinal);
        await head.PostAsync("/api/students", Another(true)).OkAsync();
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
                (new byte[] { 80, 75, 3, 4, 0, 0, 8, 0 }, "damaged"),
                (Array.Empty<byte>(), "The file is empty"),
                (Encoding.UTF8.GetBytes("name,sash\r\n\"Orla,Ivory\r\n"), "A quote is opened"),
            }
        )
        {
            var problem = await head.PostAsync("/api/roster/preview", new { file = bytes, answers = new { } })
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

    private static async Task<JsonElement> PreviewAsync(
        Caller head,
        byte[] bytes,
        object? answers = null,
        string? sheet = null
    )
    {
        var answer = await head.PostAsync(
            "/api/roster/preview",
            new
            {
                file = bytes,
                sheet,
                answers = answers ?? new { },
            }
        );
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    private static Task<List<JsonElement>> ImportAsync(Caller head, Guid id, string sheet) =>
        ImportAsync(head, id, Encoding.UTF8.GetBytes(sheet));

    private static async Task<List<JsonElement>> ImportAsync(Caller head, Guid id, byte[] file, object? answers = null)
    {
        var answer = await head.PostAsync(
            "/api/roster/imports",
            new
            {
                id,
                fileName = "roster.csv",
                file,
                answers = answers ?? new { },
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
