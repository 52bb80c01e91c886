using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>Postures and forms as files (domain.md 7): out, a look at what a file would do, in; and the catalogue that
/// ships with the program.</summary>
internal static class LibraryEndpoints
{
    /// <param name="File">The file as it is.</param>
    public sealed record PreviewRequest([property: WholeFile] string File);

    /// <param name="Choices">What to do with things that are changed or clash, by their identifier in the file; what is
    /// not named is taken as the file says, and a clash as the school's own.</param>
    public sealed record ImportRequest(
        [property: WholeFile] string File,
        IReadOnlyDictionary<Guid, ImportChoice> Choices
    );

    public sealed record ImportResponse(int Postures, int Links, int Principles, int Forms);

    public static void Map(ByRank api)
    {
        var library = api.Group("/library");
        library
            .Anyone.MapGet("", Export)
            .ProducesProblem(404)
            .Produces<string>(200, "application/json")
            .WithName("exportLibrary");
        library.Head.MapPost("/preview", Preview).WithMetadata(Large).TakesATurn().WithName("previewImport");
        library
            .Head.MapPost("/import", Import)
            .ProducesProblem(409)
            .WithMetadata(Large)
            .TakesATurn()
            .WithName("importLibrary");
        library.Head.MapPost("/starter", TakeOver).ProducesProblem(409).WithName("takeOverStarter");
    }

    /// <summary>A file inside a request is longer than by itself.</summary>
    private static SizeLimit Large { get; } = new SizeLimit(FormLibrary.MostBytes * 2L);

    /// <param name="form">One form with all it is made of; everything when it is not given.</param>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Export(
        Guid? form,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var library = await Material.LibraryAsync(db, cancel);
        if (form is { } id)
        {
            if (library.Only(id) is not { } part)
            {
                return Refusals.NotFound("This form");
            }

            library = part;
        }

        return TypedResults.File(
            JsonSerializer.SerializeToUtf8Bytes(library, LibraryJson.Strict),
            "application/json",
            form is null ? "forms.json" : $"{library.Forms.First(entry => entry.Id == form).Text.Name}.json"
        );
    }

    private static async Task<Ok<ImportPreview>> Preview(
        PreviewRequest request,
        SchoolContext db,
        CancellationToken cancel
    ) => TypedResults.Ok((await ReadAsync(request.File, db, cancel)).Preview);

    private static async Task<Results<Ok<ImportResponse>, ValidationProblem, ProblemHttpResult>> Import(
        ImportRequest request,
        SchoolContext db,
        CancellationToken cancel
    ) => await KeepAsync(await ReadAsync(request.File, db, cancel), request.Choices, db, cancel);

    /// <summary>The catalogue and the two house forms that ship with the program, through the same door as anybody's
    /// file.</summary>
    internal static async Task<Results<Ok<ImportResponse>, ValidationProblem, ProblemHttpResult>> TakeOver(
        SchoolContext db,
        CancellationToken cancel
    ) =>
        await KeepAsync(
            LibraryImport.Of(StarterLibrary.File(), await Material.LibraryAsync(db, cancel), cancel),
            new Dictionary<Guid, ImportChoice>(),
            db,
            cancel
        );

    private static async Task<LibraryImport> ReadAsync(string file, SchoolContext db, CancellationToken cancel) =>
        LibraryImport.Of(Encoding.UTF8.GetBytes(file), await Material.LibraryAsync(db, cancel), cancel);

    private static async Task<Results<Ok<ImportResponse>, ValidationProblem, ProblemHttpResult>> KeepAsync(
        LibraryImport import,
        IReadOnlyDictionary<Guid, ImportChoice> choices,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (import.Preview.Problems is { Count: > 0 } problems)
        {
            return Refusals.Invalid(
                problems.Select(problem => new Problem(
                    "file",
                    $"Line {problem.Line}, column {problem.Column}: {problem.Message}"
                ))
            );
        }

        var result = import.Apply(choices);
        foreach (var form in result.Forms)
        {
            if (
                (await FormUses.LoadAsync(db, form.Id, cancel)).BrokenBy(form.Text.Positions).ToList() is
                { Count: > 0 } broken
            )
            {
                return Refusals.Invalid(
                    broken.Select(problem => new Problem("file", $"{form.Text.Name}: {problem.Message}"))
                );
            }
        }

        if (await LostSidesAsync(result, db, cancel) is { Count: > 0 } lost)
        {
            return Refusals.Invalid(lost);
        }

        // One save, so all of it or nothing.
        var postures = await db.Postures.ToDictionaryAsync(posture => posture.Id, cancel);
        foreach (var posture in result.Postures)
        {
            if (postures.TryGetValue(posture.Id, out var kept))
            {
                kept.TakeUpAgain();
                kept.Rewrite(
                    posture.Text,
                    posture.Text.BuiltFrom is { } built
                        ? result.Postures.FirstOrDefault(other => other.Id == built.PostureId)
                            ?? postures.GetValueOrDefault(built.PostureId)
                        : null
                );
            }
            else
            {
                db.Postures.Add(posture);
            }
        }

        PostureSet.Rebuild(
            [.. result.Postures.Select(posture => posture.Id)],
            [.. postures.Values, .. result.Postures.Where(posture => !postures.ContainsKey(posture.Id))]
        );
        await KeepAsync(
            db.Links,
            result.Links,
            link => link.Id,
            (link, text) => link.Rewrite(text),
            Link.Create,
            cancel
        );
        await KeepAsync(
            db.Principles,
            result.Principles,
            principle => principle.Id,
            (principle, text) => principle.Rewrite(text),
            Principle.Create,
            cancel
        );
        await KeepAsync(
            db.Forms,
            result.Forms,
            form => form.Id,
            (form, text) => form.Rewrite(text),
            Form.Create,
            cancel
        );
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            return Refusals.Stale("The material", ["Look at the file again before you import it."]);
        }

        return TypedResults.Ok(
            new ImportResponse(result.Postures.Count, result.Links.Count, result.Principles.Count, result.Forms.Count)
        );
    }

    /// <summary>Postures of the file that would no longer have a side on which they stand in a form of the
    /// school.</summary>
    private static async Task<IReadOnlyList<Problem>> LostSidesAsync(
        ImportResult result,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var rewritten = result.Forms.Select(form => form.Id).ToHashSet();
        var postures = result.Postures.ToDictionary(posture => posture.Id);
        return
        [
            .. from form in await db.Forms.AsNoTracking().ToListAsync(cancel)
            where !rewritten.Contains(form.Id)
            from position in form.Positions
            where postures.TryGetValue(position.PostureId, out var posture) && !posture.HasSide(position.Side)
            select new Problem(
                "file",
                $"{postures[position.PostureId].Name} stands in {form.Name} on a side it would no longer have."
            ),
        ];
    }

    private static async Task KeepAsync<T, TText>(
        DbSet<T> set,
        IReadOnlyList<Entry<TText>> entries,
        Func<T, Guid> id,
        Action<T, TText> rewrite,
        Func<Guid, TText, T> create,
        CancellationToken cancel
    )
        where T : class
    {
        var kept = (await set.ToListAsync(cancel)).ToDictionary(id);
        foreach (var entry in entries)
        {
            if (kept.TryGetValue(entry.Id, out var own))
            {
                rewrite(own, entry.Text);
            }
            else
            {
                set.Add(create(entry.Id, entry.Text));
            }
        }
    }
}
