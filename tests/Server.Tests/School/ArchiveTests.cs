using System.IO.Compression;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc.Testing;
using Npgsql;

namespace Zeitplan.Server.Tests.School;

/// <summary>The whole school as one open file, read into an empty one; and what is kept about one person.</summary>
public sealed class ArchiveTests(DemoTemplate template) : HeronQuayTests(template)
{
    private static readonly string[] Secret =
    [
        "accounts.csv",
        "sign_ins.csv",
        "letters.csv",
        "data_protection_keys.csv",
    ];

    private const string Empty = "zeitplan_archive_read";

    private WebApplicationFactory<Program> OpenEmpty()
    {
        NpgsqlConnection.ClearAllPools();
        Template.Run($"DROP DATABASE IF EXISTS {Empty} WITH (FORCE)");
        return Template.Open(Empty, null, ("ZEITPLAN_EMPTY", "true"));
    }

    private static async Task<Caller> HeadOfAsync(
        WebApplicationFactory<Program> application,
        string email = "head@school.example"
    )
    {
        var head = new Caller(application.CreateClient());
        await head.RefreshTokenAsync();
        await head.PostAsync("/api/session/sign-in", new { email, password = DemoTemplate.Password }).OkAsync();
        await head.RefreshTokenAsync();
        return head;
    }

    private static async Task<JsonElement> ReadAsync(Caller head, byte[] archive)
    {
        using var content = new ByteArrayContent(archive);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/zip");
        var answer = await head.SendContentAsync(HttpMethod.Post, "/api/archive", content);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonSerializer.Deserialize<JsonElement>(text.TrimEnd().Split('\n')[^1]);
    }

    /// <summary>Every table of a school with its rows and their hash.</summary>
    private static async Task<Dictionary<string, string>> DigestAsync(string connectionString)
    {
        await using var connection = new NpgsqlConnection(connectionString);
        await connection.OpenAsync();
        List<string> tables = [];
        await using (
            var asked = new NpgsqlCommand("SELECT tablename FROM pg_tables WHERE schemaname = 'public'", connection)
        )
        await using (var reader = await asked.ExecuteReaderAsync())
        {
            while (await reader.ReadAsync())
            {
                tables.Add(reader.GetString(0));
            }
        }

        Dictionary<string, string> digest = [];
        foreach (
            var table in tables.Where(table =>
                !table.StartsWith("account", StringComparison.Ordinal)
                && table
                    is not (
                        "sign_ins"
                        or "data_protection_keys"
                        or "letters"
                        or "calendar_links"
                        or "journal"
                        or "staff"
                    )
            )
        )
        {
            await using var rows = new NpgsqlCommand(
                $"SELECT count(*) || ' ' || coalesce(md5(string_agg(md5(t::text), '' ORDER BY md5(t::text))), '') FROM \"{table}\" AS t",
                connection
            );
            digest[table] = (string)(await rows.ExecuteScalarAsync())!;
        }

        return digest;
    }

    [Fact]
    public async Task A_school_read_from_its_archive_is_equal_to_the_row_and_its_people_come_in_by_letter()
    {
        var head = await HeadAsync();
        var archive = await head.Client.GetByteArrayAsync("/api/archive");
        await using var empty = OpenEmpty();
        var reader = await HeadOfAsync(empty);
        var last = await ReadAsync(reader, archive);
        Assert.True(last.GetProperty("kept").GetBoolean(), last.GetRawText());
        Assert.Equal(await DigestAsync(Connection), await DigestAsync(Template.ConnectionTo(Empty)));

        // Whoever read it signs in anew, and stays head beside those of the school.
        await reader.Client.GetAsync("/api/today").ProblemAsync(401);
        reader = await HeadOfAsync(empty);
        var members = (await reader.GetAsync("/api/staff")).GetProperty("members").EnumerateArray().ToList();
        Assert.Equal(5, members.Count);
        Assert.Equal("invited", members.Single(member => member.Text("name") == "Jonas Lindqvist").Text("state"));
        Assert.Equal("Heron Quay Tai Chi", (await reader.GetAsync("/api/session")).Text("schoolName"));
        Assert.NotEmpty((await reader.GetAsync("/api/students")).EnumerateArray());

        // Once there are things, nothing is read over them.
        var second = await ReadAsync(reader, archive);
        Assert.Contains("has students already", second.Text("problem"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Whoever_reads_the_archive_with_an_address_of_its_head_is_that_head()
    {
        var archive = await (await HeadAsync()).Client.GetByteArrayAsync("/api/archive");
        await using var empty = OpenEmpty();
        var reader = await HeadOfAsync(empty);
        var own = (await reader.GetAsync("/api/staff")).GetProperty("members")[0];
        await reader
            .PutAsync(
                $"/api/staff/{own.Text("id")}",
                new
                {
                    text = new
                    {
                        name = "Noor",
                        role = "head",
                        studentId = (string?)null,
                    },
                    email = "head@heronquay.example",
                    version = own.GetProperty("version").GetUInt32(),
                }
            )
            .OkAsync();
        Assert.True((await ReadAsync(reader, archive)).GetProperty("kept").GetBoolean());
        var noor = await HeadOfAsync(empty, "head@heronquay.example");
        Assert.Equal("Noor Adeyemi", (await noor.GetAsync("/api/session")).GetProperty("person").Text("name"));
        Assert.Equal(4, (await noor.GetAsync("/api/staff")).GetProperty("members").GetArrayLength());
    }

    private static byte[] Changed(byte[] archive, Action<ZipArchive> change)
    {
        using var file = new MemoryStream();
        file.Write(archive);
        using (var zip = new ZipArchive(file, ZipArchiveMode.Update, leaveOpen: true))
        {
            change(zip);
        }

        return file.ToArray();
    }

    [Fact]
    public async Task A_damaged_or_foreign_archive_is_refused_whole_with_its_reason()
    {
        var archive = await (await HeadAsync()).Client.GetByteArrayAsync("/api/archive");
        await using var empty = OpenEmpty();
        var reader = await HeadOfAsync(empty);
        var before = await DigestAsync(Template.ConnectionTo(Empty));
        void Append(ZipArchive zip, string name)
        {
            using var writer = new StreamWriter(zip.GetEntry(name)!.Open());
            writer.BaseStream.Seek(0, SeekOrigin.End);
            writer.Write("more\n");
        }

        foreach (
            var (file, says) in new (byte[], string)[]
            {
                (Encoding.UTF8.GetBytes("no archive at all"), "no archive of Zeitplan"),
                (archive[..(archive.Length / 2)], "damaged"),
                (Changed(archive, zip => zip.GetEntry("manifest.json")!.Delete()), "no manifest"),
                (Changed(archive, zip => zip.GetEntry("students.csv")!.Delete()), "students.csv is missing"),
                (Changed(archive, zip => Append(zip, "observations.csv")), "observations.csv is not what was written"),
                (Changed(archive, zip => zip.CreateEntry("../../etc/passwd")), "which does not belong to it"),
                (Changed(archive, zip => Append(zip, "manifest.json")), "damaged"),
            }
        )
        {
            var last = await ReadAsync(reader, file);
            Assert.False(last.GetProperty("kept").GetBoolean());
            Assert.Contains(says, last.Text("problem"), StringComparison.Ordinal);
        }

        Assert.Equal(before, await DigestAsync(Template.ConnectionTo(Empty)));
        await reader.GetAsync("/api/today");
    }

    [Fact]
    public async Task An_archive_holds_no_password_and_no_device()
    {
        using var archive = new ZipArchive(
            new MemoryStream(await (await HeadAsync()).Client.GetByteArrayAsync("/api/archive"))
        );
        foreach (var entry in archive.Entries)
        {
            Assert.DoesNotContain(entry.Name, Secret);
            using var text = new StreamReader(entry.Open());
            Assert.DoesNotContain(
                "AQAAAA",
                await text.ReadToEndAsync(TestContext.Current.CancellationToken),
                StringComparison.Ordinal
            );
        }

        Assert.NotNull(archive.GetEntry("README.txt"));
        Assert.NotNull(archive.GetEntry("forms.json"));
    }

    [Fact]
    public async Task Everything_about_one_person_is_for_themselves_and_for_the_head_and_written_down()
    {
        var (head, odile) = (await HeadAsync(), await AssistantAsync());
        var bernd = (await StudentAsync(head, "Bernd")).Text("id");
        var path = $"/api/students/{bernd}/everything";
        await odile.Client.GetAsync(path).ProblemAsync(403);
        var file = await head.Client.GetStringAsync(path);
        foreach (
            var words in new[]
            {
                "Everything Heron Quay Tai Chi keeps about Bernd Hollerbach",
                "kick",
                "Tuesday evening",
                "here (",
            }
        )
        {
            Assert.Contains(words, file, StringComparison.Ordinal);
        }

        Assert.Contains(
            "everything about one person",
            (await head.GetAsync("/api/access-log")).GetRawText(),
            StringComparison.Ordinal
        );
        await RunAsync($"UPDATE staff SET student_id = '{bernd}' WHERE role = 'Assistant'");
        Assert.Contains("Bernd", await odile.Client.GetStringAsync(path), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Whoever_was_erased_does_not_come_back_with_an_older_database()
    {
        var list = Path.GetTempFileName();
        string id;
        await using (var application = Template.Open("", Connection, ("ZEITPLAN_ERASED_FILE", list)))
        {
            var head = await HeadOfAsync(application, "head@heronquay.example");
            var agnes = await StudentAsync(head, "Agnes");
            id = agnes.Text("id");
            await head.PostAsync(
                    $"/api/students/{id}/erasure",
                    new { version = agnes.GetProperty("version").GetUInt32() }
                )
                .OkAsync();
            Assert.Equal([id], await File.ReadAllLinesAsync(list, TestContext.Current.CancellationToken));
        }

        // The template is the school of before.
        NpgsqlConnection.ClearAllPools();
        Template.Run($"DROP DATABASE IF EXISTS {Empty} WITH (FORCE)");
        Template.Run($"CREATE DATABASE {Empty} TEMPLATE zeitplan_template");
        await using (var restored = Template.Open(Empty, null, ("ZEITPLAN_ERASED_FILE", list)))
        {
            var head = await HeadOfAsync(restored, "head@heronquay.example");
            Assert.DoesNotContain(
                "Agnes",
                (await head.GetAsync("/api/students")).GetRawText(),
                StringComparison.Ordinal
            );
        }

        File.Delete(list);
    }
}
