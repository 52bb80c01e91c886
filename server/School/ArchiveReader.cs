using System.IO.Compression;
using System.Text.Json;
using CsvHelper;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;

namespace Zeitplan.Server.School;

/// <summary>An archive that cannot be read, and why, in a head's words.</summary>
internal sealed class ArchiveUnreadableException(string message) : Exception(message);

/// <summary>Reads an archive into a school that has nothing yet: all of it or nothing.</summary>
internal sealed class ArchiveReader(SchoolContext db, UserManager<Account> accounts)
{
    /// <summary>Unpacked; what is larger is no school.</summary>
    private const long MostUnpacked = 4L * 1024 * 1024 * 1024;

    /// <param name="head">Whoever reads it: they keep their sign-in.</param>
    /// <param name="said">How many tables of how many are in.</param>
    /// <exception cref="ArchiveUnreadableException">It is damaged or foreign, or this school has things.</exception>
    public async Task ReadAsync(
        Stream file,
        Guid head,
        DateOnly today,
        Func<int, int, Task> said,
        CancellationToken cancel
    )
    {
        using var archive = Open(file);
        var contents = await ContentsAsync(archive, cancel);
        var tables = await Archive.TablesAsync(db, cancel);
        await using var all = await AllOrNothing.InTurnAsync(db, Turn.Heads, cancel);
        if (await WhatIsHereAsync(cancel) is { } here)
        {
            throw new ArchiveUnreadableException(
                $"This school has {here} already. An archive is read into a school that has nothing yet."
            );
        }

        var own = await db.Users.SingleAsync(account => account.StaffId == head, cancel);
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();
        await db.Schools.ExecuteDeleteAsync(cancel);
        try
        {
            foreach (var (at, table) in tables.Index())
            {
                if (contents.Files.Any(known => known.Name == table.FileName))
                {
                    await CopyAsync(archive.GetEntry(table.FileName)!, table, connection, cancel);
                }

                await said(at + 1, tables.Count);
            }

            await FormOutlines.BringUpToDateAsync(db, cancel);
            await OpenSignInsAsync(archive, own, today, cancel);
        }
        catch (PostgresException refused)
        {
            throw new ArchiveUnreadableException(
                $"The table {refused.TableName ?? "of one of its files"} does not fit this Zeitplan ({refused.MessageText}). Bring this installation up to date and try again."
            );
        }

        await all.KeepAsync(cancel);
    }

    private static ZipArchive Open(Stream file)
    {
        try
        {
            return new(file, ZipArchiveMode.Read);
        }
        catch (InvalidDataException)
        {
            throw new ArchiveUnreadableException("This is no archive of Zeitplan, or it is damaged.");
        }
    }

    /// <summary>Everything the manifest names is there and is what was written, and nothing else is.</summary>
    private static async Task<Archive.Contents> ContentsAsync(ZipArchive archive, CancellationToken cancel)
    {
        try
        {
            if (archive.GetEntry(Archive.Manifest) is not { } manifest)
            {
                throw new ArchiveUnreadableException("This is no archive of Zeitplan: it has no manifest.");
            }

            if (archive.Entries.Sum(entry => entry.Length) > MostUnpacked)
            {
                throw new ArchiveUnreadableException("Unpacked, this archive is larger than any school.");
            }

            Archive.Contents? contents;
            await using (var json = await manifest.OpenAsync(cancel))
            {
                contents = await JsonSerializer.DeserializeAsync<Archive.Contents>(json, ArchiveWriter.Json, cancel);
            }

            if (contents?.Kind != Archive.Kind)
            {
                throw new ArchiveUnreadableException("This is no archive that this Zeitplan can read.");
            }

            var named = contents.Files.Select(known => known.Name).Append(Archive.Manifest).ToHashSet();
            if (archive.Entries.FirstOrDefault(entry => !named.Contains(entry.FullName)) is { } foreign)
            {
                throw new ArchiveUnreadableException(
                    $"The archive holds {foreign.FullName}, which does not belong to it."
                );
            }

            foreach (var known in contents.Files)
            {
                await using var content = await (
                    archive.GetEntry(known.Name)
                    ?? throw new ArchiveUnreadableException($"The archive is damaged: {known.Name} is missing.")
                ).OpenAsync(cancel);
                if (await Archive.HashAsync(content, cancel) != known.Sha256)
                {
                    throw new ArchiveUnreadableException(
                        $"The archive is damaged: {known.Name} is not what was written."
                    );
                }
            }

            return contents;
        }
        catch (Exception damaged) when (damaged is InvalidDataException or JsonException)
        {
            throw new ArchiveUnreadableException("The archive is damaged.");
        }
    }

    private async Task<string?> WhatIsHereAsync(CancellationToken cancel) =>
        await db.Students.AnyAsync(cancel) ? "students"
        : await db.Classes.AnyAsync(cancel) ? "classes"
        : await db.Forms.AnyAsync(cancel) || await db.Postures.AnyAsync(cancel) ? "forms or postures"
        : await db.Sashes.AnyAsync(cancel) ? "a ladder"
        : await db.Halls.AnyAsync(cancel) ? "halls"
        : await db.Terms.AnyAsync(cancel) ? "terms"
        : null;

    private static async Task CopyAsync(
        ZipArchiveEntry entry,
        Archive.Table table,
        NpgsqlConnection connection,
        CancellationToken cancel
    )
    {
        using var lines = new StreamReader(await entry.OpenAsync(cancel));
        var header = (await lines.ReadLineAsync(cancel) ?? "").Split(',');
        // Columns an older school did not have are left to what they are by themselves; none is taken that is not ours.
        if (header.Except(table.Columns).FirstOrDefault() is { } foreign)
        {
            throw new ArchiveUnreadableException(
                $"{table.FileName} has a column {foreign} that this Zeitplan does not know. Bring this installation up to date and try again."
            );
        }

        await using var into = await connection.BeginTextImportAsync(
            $"COPY \"{table.Name}\" ({Archive.Quoted(header)}) FROM STDIN (FORMAT csv)",
            cancel
        );
        var buffer = new char[64 * 1024];
        while (await lines.ReadAsync(buffer, cancel) is > 0 and var read)
        {
            await into.WriteAsync(buffer.AsMemory(0, read), cancel);
        }
    }

    /// <summary>Whoever reads the archive is the head of the same address in it, or one more head beside those. The
    /// others have an account without a password, until they have had a letter.</summary>
    private async Task OpenSignInsAsync(ZipArchive archive, Account own, DateOnly today, CancellationToken cancel)
    {
        using var csv = CsvReader.Create(
            new StreamReader(await archive.GetEntry(Archive.Accounts)!.OpenAsync(cancel)),
            new() { HasHeader = true }
        );
        while (csv.Read())
        {
            var (staffId, email) = (Guid.Parse(csv.GetString(0)), csv.GetString(1));
            if (accounts.NormalizeEmail(email) == own.NormalizedEmail)
            {
                var before = own.StaffId;
                own.StaffId = staffId;
                await db.SaveChangesAsync(cancel);
                var member = await db.Staff.SingleAsync(staff => staff.Id == before, cancel);
                if (await db.Journal.AnyAsync(entry => entry.By == before, cancel))
                {
                    member.Close(today);
                }
                else
                {
                    db.Staff.Remove(member);
                }

                await db.SaveChangesAsync(cancel);
            }
            else if (await db.Staff.AnyAsync(staff => staff.Id == staffId, cancel))
            {
                var made = await accounts.CreateAsync(
                    new()
                    {
                        Id = Guid.CreateVersion7(),
                        StaffId = staffId,
                        UserName = email,
                        Email = email,
                    }
                );
                if (!made.Succeeded)
                {
                    throw new ArchiveUnreadableException($"{Archive.Accounts} holds an address that is none: {email}.");
                }
            }
        }

        await db.SignIns.Where(signIn => signIn.AccountId == own.Id).ExecuteDeleteAsync(cancel);
        JournalKeeper.Write(
            db,
            new(own.StaffId, StaffRole.Head),
            HeadsAct.Settings,
            null,
            "the whole school was read from an archive"
        );
        await db.SaveChangesAsync(cancel);
    }
}
