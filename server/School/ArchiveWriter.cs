using System.Data;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Zeitplan.Core.Exchange;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;

namespace Zeitplan.Server.School;

/// <summary>Writes the archive of the school as it is at one moment, however long that takes.</summary>
internal sealed class ArchiveWriter(SchoolContext db)
{
    public async Task WriteAsync(Stream to, CancellationToken cancel)
    {
        await using var moment = await db.Database.BeginTransactionAsync(IsolationLevel.RepeatableRead, cancel);
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        List<Archive.File> files = [];
        await using var archive = await ZipArchive.CreateAsync(
            to,
            ZipArchiveMode.Create,
            leaveOpen: true,
            Encoding.UTF8,
            cancel
        );
        await WriteAsync(Archive.Readme, null, output => output.WriteAsync(ReadmeOf(school), cancel));
        var library = JsonSerializer.Serialize(await Material.LibraryAsync(db, cancel), LibraryJson.Strict);
        await WriteAsync(Archive.Forms, null, output => output.WriteAsync(library.AsMemory(), cancel));
        foreach (var table in await Archive.TablesAsync(db, cancel))
        {
            await CopyAsync(
                table.FileName,
                $"SELECT {Archive.Quoted(table.Columns)} FROM \"{table.Name}\" ORDER BY {Archive.Quoted(table.Key)}"
            );
        }

        await CopyAsync(
            Archive.Accounts,
            "SELECT staff_id, email FROM accounts WHERE email IS NOT NULL ORDER BY email"
        );
        var migrations = await db.Database.GetAppliedMigrationsAsync(cancel);
        Archive.Contents contents = new(
            Archive.Kind,
            TimeProvider.System.GetUtcNow(),
            school.Name,
            migrations.Last(),
            files
        );
        await using var manifest = await archive.CreateEntry(Archive.Manifest).OpenAsync(cancel);
        await JsonSerializer.SerializeAsync(manifest, contents, Json, cancel);

        async Task CopyAsync(string name, string sql)
        {
            long rows;
            await using (var count = new NpgsqlCommand($"SELECT count(*) FROM ({sql}) AS rows", connection))
            {
                rows = (long)(await count.ExecuteScalarAsync(cancel))!;
            }

            using var lines = await connection.BeginTextExportAsync(
                $"COPY ({sql}) TO STDOUT (FORMAT csv, HEADER)",
                cancel
            );
            await WriteAsync(
                name,
                rows,
                async output =>
                {
                    var buffer = new char[64 * 1024];
                    while (await lines.ReadAsync(buffer, cancel) is > 0 and var read)
                    {
                        await output.WriteAsync(buffer.AsMemory(0, read), cancel);
                    }
                }
            );
        }

        async Task WriteAsync(string name, long? rows, Func<StreamWriter, Task> write)
        {
            using var hash = SHA256.Create();
            await using (var entry = await archive.CreateEntry(name, CompressionLevel.Fastest).OpenAsync(cancel))
            await using (var hashed = new CryptoStream(entry, hash, CryptoStreamMode.Write, leaveOpen: true))
            {
                await using var output = new StreamWriter(hashed, new UTF8Encoding(false), leaveOpen: true);
                await write(output);
            }

            files.Add(new(name, rows, Convert.ToHexStringLower(hash.Hash!)));
        }
    }

    internal static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    private static ReadOnlyMemory<char> ReadmeOf(Core.School school) =>
        $"""
            The archive of {(school.Name.Length > 0 ? school.Name : "a school")}, written by Zeitplan.

            Every *.csv file is one table, in UTF-8, its first line the names of its columns; an empty cell is nothing, and
            "" an empty text. Cells that hold several things are JSON. Identifiers are UUIDs; dates are ISO 8601.
            forms.json has the forms once more, in the format in which Zeitplan exchanges forms with others.
            sign-ins.csv says who signs in with which address. Passwords, devices and keys are not in here.
            manifest.json names every file with its rows and its SHA-256.

            An empty Zeitplan reads it whole (School, Kept safe). Everybody but whoever reads it gets a letter to choose a
            new password. It holds personal things, limits among them: keep it as you keep the register.
            """.ReplaceLineEndings("\r\n").AsMemory();
}
