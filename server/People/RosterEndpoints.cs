using System.Text.Json;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>The roster out of and into a spreadsheet. Limits never travel: they are private.</summary>
internal static class RosterEndpoints
{
    private const int MostBytes = 8 * 1024 * 1024;

    /// <summary>Students saved between two reports of progress.</summary>
    private const int Batch = 100;

    /// <param name="File">The file's bytes.</param>
    /// <param name="Mapping">For each column what it means, null to pass it over; guessed when it is left out.</param>
    public sealed record PreviewRequest(byte[] File, IReadOnlyList<RosterField?>? Mapping);

    public sealed record Preview(
        IReadOnlyList<string> Headers,
        IReadOnlyList<IReadOnlyList<string>> Examples,
        IReadOnlyList<RosterField?> Mapping,
        IReadOnlyList<RosterItem> Items,
        IReadOnlyList<RosterProblem> Problems,
        int Added,
        int Changed
    );

    public sealed record ImportRequest(Guid Id, string FileName, byte[] File, IReadOnlyList<RosterField?> Mapping);

    /// <summary>One line of the answer while an import runs, and the last one when it is done.</summary>
    /// <param name="Kept">Whether everything has been kept; false for all lines but the last.</param>
    /// <param name="Problem">Why nothing was kept.</param>
    public sealed record Progress(int Done, int Of, bool Kept, string? Problem = null);

    public sealed record ImportItem(
        Guid Id,
        DateTimeOffset At,
        string FileName,
        string By,
        int Added,
        int Changed,
        bool TakenBack
    );

    public static void Map(ByRank api)
    {
        api.Head.MapGet("/students.csv", Export).WithName("exportRoster");
        var roster = api.Head.MapGroup("/roster");
        roster
            .MapPost("/preview", Look)
            .WithMetadata(new SizeLimit(MostBytes * 2L))
            .TakesATurn()
            .WithName("previewRoster");
        roster
            .MapPost("/imports", Import)
            .WithMetadata(new SizeLimit(MostBytes * 2L))
            .Produces<Progress>(200, "application/x-ndjson")
            .TakesATurn()
            .WithName("importRoster");
        roster.MapGet("/imports", List).WithName("rosterImports");
        roster
            .MapDelete("/imports/{id:guid}", TakeBack)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("takeBackImport");
    }

    private sealed record SizeLimit(long? MaxRequestBodySize) : IRequestSizeLimitMetadata;

    private static async Task<FileContentHttpResult> Export(SchoolContext db, CancellationToken cancel)
    {
        var school = await SchoolAsync(db, DateOnly.MaxValue, cancel);
        var (sashes, cohorts) = (
            school.Sashes.ToDictionary(sash => sash.Id),
            school.Cohorts.ToDictionary(cohort => cohort.Id)
        );
        using var file = new MemoryStream();
        using (
            var csv = CsvWriter.Create(
                file,
                new() { WriteByteOrderMark = true, Injection = CsvInjection.Escape },
                leaveOpen: true
            )
        )
        {
            Write(csv, Exported.Select(RosterColumns.Header));
            foreach (
                var student in school
                    .Students.Where(student => student is { Left: null, Erased: null })
                    .OrderBy(student => student.GivenName)
                    .ThenBy(student => student.FamilyName)
            )
            {
                var cohort = student.CohortIds.Length > 0 ? cohorts.GetValueOrDefault(student.CohortIds[0]) : null;
                Write(
                    csv,
                    [
                        student.GivenName,
                        student.FamilyName,
                        sashes[student.SashId].Name,
                        student.Half == Half.None ? "" : student.Half.ToString().ToLowerInvariant(),
                        cohort is null ? "" : school.Classes[cohort.ClassId],
                        cohort?.Name ?? "",
                        $"{student.Joined:yyyy-MM-dd}",
                        $"{student.SashSince:yyyy-MM-dd}",
                        student.Details.Mode.Name,
                        Aims[student.Details.Aim],
                        student.Details.Scope,
                        student.Details.ContactName,
                        student.Details.ContactPhone,
                    ]
                );
            }
        }

        return TypedResults.File(file.ToArray(), "text/csv; charset=utf-8", "roster.csv");
    }

    private static readonly Dictionary<Aim, string> Aims = new()
    {
        [Aim.Health] = "health",
        [Aim.TheArt] = "the art",
        [Aim.PartnerWork] = "partner work",
    };

    private static readonly RosterField[] Exported =
    [
        RosterField.GivenName,
        RosterField.FamilyName,
        RosterField.Sash,
        RosterField.Half,
        RosterField.Class,
        RosterField.Cohort,
        RosterField.Joined,
        RosterField.SashSince,
        RosterField.Mode,
        RosterField.Aim,
        RosterField.Scope,
        RosterField.ContactName,
        RosterField.ContactPhone,
    ];

    private static void Write(CsvWriter csv, IEnumerable<string> cells)
    {
        foreach (var cell in cells)
        {
            csv.WriteField(cell);
        }

        csv.EndRecord();
    }

    private static async Task<Results<Ok<Preview>, ValidationProblem>> Look(
        PreviewRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var (table, problem) = Table(request.File);
        if (table is null)
        {
            return Refusals.Invalid("file", problem!);
        }

        var mapping = request.Mapping ?? RosterColumns.Guess(table.Headers);
        var import = RosterImport.Of(
            table,
            mapping,
            await SchoolAsync(db, await clock.TodayAsync(cancel), cancel),
            cancel
        );
        return TypedResults.Ok(
            new Preview(
                table.Headers,
                [.. table.Lines.Take(3).Select(line => line.Cells)],
                mapping,
                import.Items,
                import.Problems,
                import.Items.Count(item => item.Fate == RosterFate.Added),
                import.Items.Count(item => item.Fate == RosterFate.Changed)
            )
        );
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
        http.Response.ContentType = "application/x-ndjson";
        var (table, problem) = Table(request.File);
        var today = await clock.TodayAsync(cancel);
        await using var turn = await AllOrNothing.InTurnAsync(db, Turn.Roster, cancel);
        var import = table is null
            ? null
            : RosterImport.Of(table, request.Mapping, await SchoolAsync(db, today, cancel), cancel);
        if (
            import is null
            || import.Problems.Count > 0
            || await db.Imports.AnyAsync(import => import.Id == request.Id, cancel)
        )
        {
            await SayAsync(
                http,
                new(
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
        foreach (var batch in import.Entries.Chunk(Batch))
        {
            foreach (var entry in batch)
            {
                kept.Add(Keep(entry, existing, db, today, clock.Now));
            }

            try
            {
                await db.SaveChangesAsync(cancel);
            }
            catch (DbUpdateConcurrencyException)
            {
                await SayAsync(
                    http,
                    new(
                        0,
                        import.Entries.Count,
                        false,
                        "Somebody changed the roster meanwhile. Look at the file again."
                    ),
                    cancel
                );
                return;
            }

            await SayAsync(http, new(kept.Count, import.Entries.Count, false), cancel);
        }

        db.Imports.Add(KeptImport.Create(request.Id, request.FileName, kept, actor.StaffId, clock.Now));
        await db.SaveChangesAsync(cancel);
        await turn.KeepAsync(cancel);
        await SayAsync(http, new(kept.Count, import.Entries.Count, true), cancel);
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

    private static async Task SayAsync(HttpContext http, Progress progress, CancellationToken cancel)
    {
        await http.Response.WriteAsync(JsonSerializer.Serialize(progress, JsonSerializerOptions.Web) + "\n", cancel);
        await http.Response.Body.FlushAsync(cancel);
    }

    private static async Task<Ok<IReadOnlyList<ImportItem>>> List(SchoolContext db, CancellationToken cancel)
    {
        var staff = await db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        var imports = await db
            .Imports.AsNoTracking()
            .OrderByDescending(import => import.At)
            .Take(10)
            .ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<ImportItem>>([
            .. imports.Select(import => new ImportItem(
                import.Id,
                import.At,
                import.FileName,
                staff.GetValueOrDefault(import.By, "somebody who left"),
                import.Entries.Count(entry => entry.Before is null),
                import.Entries.Count(entry => entry.Before is not null),
                import.TakenBack
            )),
        ]);
    }

    /// <summary>Takes an import back as a whole; refused where somebody it touched has been changed, taught or watched
    /// since.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBack(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (
            await db.Imports.SingleOrDefaultAsync(import => import.Id == id && !import.TakenBack, cancel)
            is not { } import
        )
        {
            return Refusals.NotFound("This import");
        }

        var ids = import.Entries.Select(entry => entry.StudentId).ToList();
        var students = await db
            .Students.Where(student => ids.Contains(student.Id))
            .ToDictionaryAsync(student => student.Id, cancel);
        var busy = await db.MarkedAsync(ids, cancel);
        List<string> changed =
        [
            .. import
                .Entries.Where(entry =>
                    students.TryGetValue(entry.StudentId, out var student)
                    && Json.Write(student.Keep()) != Json.Write(entry.After)
                )
                .Select(entry => $"{students[entry.StudentId].FullName} was changed since."),
            .. import
                .Entries.Where(entry => entry.Before is null && busy.Contains(entry.StudentId))
                .Select(entry => $"{students[entry.StudentId].FullName} has been in a lesson since."),
            .. import
                .Entries.Where(entry =>
                    entry.Before is null
                    && students.TryGetValue(entry.StudentId, out var student)
                    && student.Limits.Count > 0
                )
                .Select(entry => $"{students[entry.StudentId].FullName} has limits written down since."),
        ];
        if (changed.Count > 0)
        {
            return Refusals.InUse("The import", changed);
        }

        foreach (var entry in import.Entries)
        {
            if (entry.Before is { } before)
            {
                students[entry.StudentId].Restore(before);
            }
            else
            {
                db.Students.Remove(students[entry.StudentId]);
            }
        }

        import.TakeBack();
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static (RosterTable? Table, string? Problem) Table(byte[] file)
    {
        try
        {
            return file.Length > MostBytes
                ? (
                    null,
                    $"The file has {file.Length / 1024 / 1024} MB; {MostBytes / 1024 / 1024} can be taken at once."
                )
                : (RosterFile.Read(file), null);
        }
        catch (RosterUnreadableException unreadable)
        {
            return (null, $"Line {unreadable.Line}: {unreadable.Message}");
        }
    }

    private static async Task<RosterSchool> SchoolAsync(SchoolContext db, DateOnly today, CancellationToken cancel)
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
        );
    }
}
