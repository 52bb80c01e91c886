using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>A roster out of a spreadsheet: looked at, and taken in. Limits never travel: they are private.</summary>
internal static class RosterEndpoints
{
    private const int MostBytes = 8 * 1024 * 1024;

    /// <summary>Students saved between two reports of progress.</summary>
    private const int Batch = 100;

    /// <param name="File">The file's bytes.</param>
    /// <param name="Sheet">Of a file with several; null for the first that is shown.</param>
    public sealed record PreviewRequest(byte[] File, RosterAnswers Answers, string? Sheet = null);

    /// <param name="Sheets">What can be chosen; none for a text file.</param>
    /// <param name="Tops">The first lines, of which one holds the headers.</param>
    /// <param name="Unknown">Words that have to be explained.</param>
    /// <param name="AsksDayFirst">Whether it has to be said if the day or the month comes first.</param>
    /// <param name="Forms">What a column about what somebody knows can be about.</param>
    public sealed record Preview(
        IReadOnlyList<string> Sheets,
        string? Sheet,
        IReadOnlyList<RosterLine> Tops,
        int HeaderLine,
        IReadOnlyList<string> Headers,
        IReadOnlyList<IReadOnlyList<string>> Examples,
        IReadOnlyList<RosterColumn> Columns,
        IReadOnlyList<RosterItem> Items,
        IReadOnlyList<RosterProblem> Problems,
        IReadOnlyList<RosterUnknown> Unknown,
        bool AsksDayFirst,
        int Added,
        int Changed,
        IReadOnlyList<FormChoice> Forms
    );

    public sealed record FormChoice(Guid Id, string Name, IReadOnlyList<Section> Sections);

    public sealed record ImportRequest(
        Guid Id,
        string FileName,
        byte[] File,
        RosterAnswers Answers,
        string? Sheet = null
    );

    /// <summary>One line of the answer while an import runs, and the last one when it is done.</summary>
    /// <param name="Kept">Whether everything has been kept; false for all lines but the last.</param>
    /// <param name="Problem">Why nothing was kept.</param>
    /// <param name="WithoutClass">How many of those added are in no class yet.</param>
    public sealed record Progress(int Done, int Of, bool Kept, string? Problem = null, int WithoutClass = 0);

    public static void Map(ByRank api)
    {
        var roster = api.Head.MapGroup("/roster");
        roster
            .MapPost("/preview", Look)
            .WithMetadata(new SizeLimit(MostBytes * 2L))
            .TakesATurn()
            .WithName("previewRoster");
        roster
            .MapPost("/imports", Import)
            .WithMetadata(new SizeLimit(MostBytes * 2L))
            .Produces<Progress>(200, SaidLines.ContentType)
            .TakesATurn()
            .WithName("importRoster");
    }

    private static async Task<Results<Ok<Preview>, ValidationProblem>> Look(
        PreviewRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var (file, problem) = FileOf(request.File, request.Sheet);
        if (file is null)
        {
            return Refusals.Invalid("file", problem!);
        }

        var school = await SchoolAsync(db, await clock.TodayAsync(cancel), cancel);
        var answers = await WithMemoryAsync(request.Answers, db, cancel);
        var table = file.Rows.Below(answers, school.Forms);
        var import = RosterImport.Of(table, answers, school, cancel);
        return TypedResults.Ok(
            new Preview(
                file.Sheets,
                file.Sheet,
                [.. file.Rows.Tops],
                table.HeaderLine,
                table.Headers,
                [.. table.Lines.Take(3).Select(line => line.Cells)],
                import.Columns,
                import.Items,
                import.Problems,
                import.Unknown,
                import.AsksDayFirst,
                import.Items.Count(item => item.Fate == RosterFate.Added),
                import.Items.Count(item => item.Fate == RosterFate.Changed),
                [.. school.Forms.Select(form => new FormChoice(form.Id, form.Name, form.Sections))]
            )
        );
    }

    /// <summary>What is said about this file counts before what was said about earlier ones.</summary>
    private static async Task<RosterAnswers> WithMemoryAsync(
        RosterAnswers answers,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        answers with
        {
            Words =
            [
                .. (await db.ImportWords.AsNoTracking().ToListAsync(cancel)).Select(word => word.Said),
                .. answers.Words,
            ],
        };

    /// <summary>Words that were explained, and columns that were called otherwise than they are usually, are known the next
    /// time.</summary>
    private static async Task RememberAsync(
        RosterTable table,
        RosterAnswers answers,
        IReadOnlyList<RosterColumn> columns,
        IReadOnlyList<Form> forms,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var usual = RosterColumns.Guess(table.Headers, [], forms);
        var said = answers
            .Words.Where(word => word.Field is not null)
            .Concat(
                from at in Enumerable.Range(0, Math.Min(table.Headers.Count, columns.Count))
                where columns[at] != usual[at]
                select new RosterWord(null, RosterColumns.Plain(table.Headers[at]), RosterColumns.Meaning(columns[at]))
            )
            .Select(word => new ImportWord(
                word.Field is { } field ? $"{field}" : "",
                RosterColumns.Plain(word.Word),
                word.Meaning
            ))
            .Where(word => word.Word.Length is > 0 and <= RosterWord.LongestWord)
            .GroupBy(word => (word.Field, word.Word))
            .Select(same => same.Last());
        var known = await db.ImportWords.ToDictionaryAsync(word => (word.Field, word.Word), cancel);
        foreach (var word in said)
        {
            if (!known.TryGetValue((word.Field, word.Word), out var before))
            {
                db.ImportWords.Add(word);
            }
            else if (before != word)
            {
                db.Entry(before).CurrentValues.SetValues(word);
            }
        }
    }

    /// <summary>All or nothing, in one transaction; while it runs, a line of JSON says how far it is.</summary>
    private static async Task Import(
        ImportRequest request,
        HttpContext http,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        http.Response.ContentType = SaidLines.ContentType;
        var (file, problem) = FileOf(request.File, request.Sheet);
        var today = await clock.TodayAsync(cancel);
        await using var turn = await AllOrNothing.InTurnAsync(db, Turn.Roster, cancel);
        var school = await SchoolAsync(db, today, cancel);
        var answers = await WithMemoryAsync(request.Answers, db, cancel);
        var table = file?.Rows.Below(answers, school.Forms);
        var import = table is null ? null : RosterImport.Of(table, answers, school, cancel);
        if (
            import is null
            || import.Problems.Count > 0
            || await db.Imports.AnyAsync(import => import.Id == request.Id, cancel)
        )
        {
            await http.SayAsync(
                new Progress(
                    0,
                    0,
                    false,
                    problem
                        ?? (
                            import!.Problems.Count > 0
                                ? $"{import.Problems.Count} things have to be put right first."
                                : "This file has been imported already."
                        )
                ),
                cancel
            );
            return;
        }

        var ids = import
            .Entries.Where(entry => entry.Existing is not null)
            .Select(entry => entry.Existing!.Id)
            .ToList();
        var existing = await db
            .Students.Where(student => ids.Contains(student.Id))
            .ToDictionaryAsync(student => student.Id, cancel);
        List<KeptStudent> kept = [];
        List<Guid> factIds = [];
        foreach (var batch in import.Entries.Chunk(Batch))
        {
            foreach (var entry in batch)
            {
                kept.Add(Keep(entry, existing, db, today, clock.Now));
                factIds.AddRange(db.AddKnowledge(kept[^1].StudentId, entry.Knows, actor.StaffId, clock.Now));
            }

            try
            {
                await db.SaveChangesAsync(cancel);
            }
            catch (DbUpdateConcurrencyException)
            {
                await http.SayAsync(
                    new Progress(
                        0,
                        import.Entries.Count,
                        false,
                        "Somebody changed the roster meanwhile. Look at the file again."
                    ),
                    cancel
                );
                return;
            }

            await http.SayAsync(new Progress(kept.Count, import.Entries.Count, false), cancel);
        }

        await RememberAsync(table!, request.Answers, import.Columns, school.Forms, db, cancel);
        db.Imports.Add(KeptImport.Create(request.Id, request.FileName, kept, factIds, actor.StaffId, clock.Now));
        await db.SaveChangesAsync(cancel);
        await turn.KeepAsync(cancel);
        var withoutClass = import.Entries.Count(entry => entry.Existing is null && entry.Text.CohortIds.Count == 0);
        await http.SayAsync(new Progress(kept.Count, import.Entries.Count, true, WithoutClass: withoutClass), cancel);
    }

    private static KeptStudent Keep(
        RosterEntry entry,
        Dictionary<Guid, Student> existing,
        SchoolContext db,
        DateOnly today,
        DateTimeOffset now
    )
    {
        var before = entry.Existing is { } known ? existing[known.Id].Keep() : null;
        Student student;
        if (entry.Existing is null)
        {
            student = Student.Create(Guid.CreateVersion7(now), entry.Text, entry.SashSince);
            db.Students.Add(student);
        }
        else
        {
            student = existing[entry.Existing.Id];
            // What the file was compared with; whoever has been changed since is not written over.
            db.Entry(student).Property(student => student.Version).OriginalValue = entry.Existing.Version;
            student.Rewrite(entry.Text, today);
            if (entry.SashSince is { } since)
            {
                student.ReachedOn(since);
            }
        }

        return new(student.Id, before, student.Keep());
    }

    private static (RosterFile? File, string? Problem) FileOf(byte[] file, string? sheet)
    {
        try
        {
            return file.Length > MostBytes
                ? (
                    null,
                    $"The file has {file.Length / 1024 / 1024} MB; {MostBytes / 1024 / 1024} can be taken at once."
                )
                : (RosterFile.Read(file, sheet), null);
        }
        catch (RosterUnreadableException unreadable)
        {
            return (null, $"Line {unreadable.Line}: {unreadable.Message}");
        }
    }

    internal static async Task<RosterSchool> SchoolAsync(SchoolContext db, DateOnly today, CancellationToken cancel)
    {
        var classes = await db
            .Classes.AsNoTracking()
            .Where(schoolClass => schoolClass.Closed == null)
            .ToDictionaryAsync(schoolClass => schoolClass.Id, schoolClass => schoolClass.Name, cancel);
        return new(
            await db.Sashes.AsNoTracking().ToListAsync(cancel),
            await db.Cohorts.AsNoTracking().Where(cohort => classes.Keys.Contains(cohort.ClassId)).ToListAsync(cancel),
            classes,
            await db.Students.AsNoTracking().ToListAsync(cancel),
            today
        )
        {
            Forms = await db.Forms.AsNoTracking().OrderBy(form => form.Name).ToListAsync(cancel),
        };
    }
}
