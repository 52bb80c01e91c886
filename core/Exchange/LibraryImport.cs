using System.Text.Json;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Exchange;

public enum LibraryKind
{
    Posture,
    Link,
    Principle,
    Form,
}

/// <summary>What would happen to one thing of the file.</summary>
public enum ImportFate
{
    Added,
    Changed,
    Same,

    /// <summary>The school has another thing of this name.</summary>
    Clash,
}

/// <summary>What is to happen to something that is changed or clashes.</summary>
public enum ImportChoice
{
    /// <summary>The file's text replaces the school's; a clash is added under another name.</summary>
    Theirs,

    /// <summary>The school's stays; what the file says about a clash means the school's own.</summary>
    Ours,
}

/// <param name="OurId">The school's own thing that a clash is about.</param>
/// <param name="Differences">For something changed, the parts that would read differently.</param>
public sealed record ImportItem(
    LibraryKind Kind,
    Guid Id,
    string Name,
    ImportFate Fate,
    Guid? OurId,
    IReadOnlyList<string> Differences
);

/// <summary>What an import would do, before anything is done; with problems, nothing can be.</summary>
public sealed record ImportPreview(IReadOnlyList<ImportItem> Items, IReadOnlyList<FileProblem> Problems);

/// <summary>What the school would hold afterwards, ready to be kept as a whole.</summary>
public sealed record ImportResult(
    IReadOnlyList<Posture> Postures,
    IReadOnlyList<Entry<LinkText>> Links,
    IReadOnlyList<Entry<PrincipleText>> Principles,
    IReadOnlyList<Entry<FormText>> Forms
);

/// <summary>Brings a library into a school (domain.md 7): all of it or nothing.</summary>
public sealed class LibraryImport
{
    private readonly byte[] file;
    private readonly FormLibrary theirs;
    private readonly FormLibrary ours;

    private LibraryImport(byte[] file, FormLibrary theirs, FormLibrary ours) =>
        (this.file, this.theirs, this.ours) = (file, theirs, ours);

    public ImportPreview Preview { get; private set; } = new([], []);

    /// <param name="ours">What the school holds now.</param>
    /// <exception cref="OperationCanceledException">Whoever sent the file does not wait any more.</exception>
    public static LibraryImport Of(byte[] file, FormLibrary ours, CancellationToken cancel = default)
    {
        var reading = LibraryReader.Read(file);
        if (reading.Library is not { } theirs)
        {
            return new(file, ours, ours) { Preview = new([], reading.Problems) };
        }

        var import = new LibraryImport(file.AsSpan().StartsWith("\uFEFF"u8) ? file[3..] : file, theirs, ours);
        import.Preview = new(import.Items(), import.Problems(cancel));
        return import;
    }

    /// <summary>Carries it out as chosen; what nobody chose about is taken as the file says, and a clash as the
    /// school's own.</summary>
    /// <exception cref="InvalidOperationException">The preview has problems.</exception>
    public ImportResult Apply(IReadOnlyDictionary<Guid, ImportChoice> choices)
    {
        if (Preview.Problems.Count > 0)
        {
            throw new InvalidOperationException("A file with problems is not imported.");
        }

        var items = Preview.Items.ToDictionary(item => (item.Kind, item.Id));
        var means = Preview
            .Items.Where(item => item.Fate == ImportFate.Clash && Choice(item) == ImportChoice.Ours)
            .ToDictionary(item => item.Id, item => item.OurId!.Value);
        var postures = Taken(
            LibraryKind.Posture,
            theirs.Postures,
            text => Rewired(text, Means),
            (text, name) => text with { Name = name },
            text => text.Name,
            ours.Postures.Select(entry => entry.Text.Name)
        );
        return new(
            PostureSet
                .Build([.. ours.Postures.Where(entry => postures.All(other => other.Id != entry.Id)), .. postures])
                .Values.Where(posture => postures.Any(entry => entry.Id == posture.Id))
                .ToList(),
            Taken(
                LibraryKind.Link,
                theirs.Links,
                text => text with { FromId = Means(text.FromId), ToId = Means(text.ToId) },
                (text, _) => text,
                _ => "",
                []
            ),
            Taken(
                LibraryKind.Principle,
                theirs.Principles,
                text => text,
                (text, name) => text with { Name = name },
                text => text.Name,
                ours.Principles.Select(entry => entry.Text.Name)
            ),
            Taken(
                LibraryKind.Form,
                theirs.Forms,
                text =>
                    text with
                    {
                        ParentId = text.ParentId is { } parent ? Means(parent) : null,
                        Positions =
                        [
                            .. text.Positions.Select(position =>
                                position with
                                {
                                    PostureId = Means(position.PostureId),
                                    CompoundId = position.CompoundId is { } compound ? Means(compound) : null,
                                }
                            ),
                        ],
                    },
                (text, name) => text with { Name = name },
                text => text.Name,
                ours.Forms.Select(entry => entry.Text.Name)
            )
        );

        Guid Means(Guid id) => means.GetValueOrDefault(id, id);

        ImportChoice Choice(ImportItem item) =>
            choices.GetValueOrDefault(item.Id, item.Fate == ImportFate.Clash ? ImportChoice.Ours : ImportChoice.Theirs);

        List<Entry<T>> Taken<T>(
            LibraryKind kind,
            IReadOnlyList<Entry<T>> entries,
            Func<T, T> rewire,
            Func<T, string, T> rename,
            Func<T, string> name,
            IEnumerable<string> names
        )
        {
            var used = names.ToHashSet(StringComparer.OrdinalIgnoreCase);
            return
            [
                .. entries
                    .Where(entry =>
                        items[(kind, entry.Id)] is var item
                        && item.Fate != ImportFate.Same
                        && Choice(item) == ImportChoice.Theirs
                    )
                    .Select(entry =>
                        entry with
                        {
                            Text =
                                items[(kind, entry.Id)].Fate == ImportFate.Clash
                                    ? rename(rewire(entry.Text), Free(name(entry.Text), used))
                                    : rewire(entry.Text),
                        }
                    ),
            ];
        }
    }

    private static PostureText Rewired(PostureText text, Func<Guid, Guid> means) =>
        text with
        {
            BuiltFrom = text.BuiltFrom is { } built ? built with { PostureId = means(built.PostureId) } : null,
            Parts = [.. text.Parts.Select(part => part with { PostureId = means(part.PostureId) })],
            Needs = [.. text.Needs.Select(means)],
        };

    private static string Free(string name, HashSet<string> used)
    {
        var free = Enumerable
            .Range(2, 1000)
            .Select(number => $"{name} ({number})")
            .First(candidate => !used.Contains(candidate));
        used.Add(free);
        return free;
    }

    private List<ImportItem> Items() =>
        [
            .. Items(LibraryKind.Posture, theirs.Postures, ours.Postures, text => text.Name),
            .. Items(LibraryKind.Link, theirs.Links, ours.Links, NameOf),
            .. Items(LibraryKind.Principle, theirs.Principles, ours.Principles, text => text.Name),
            .. Items(LibraryKind.Form, theirs.Forms, ours.Forms, text => text.Name),
        ];

    private static IEnumerable<ImportItem> Items<T>(
        LibraryKind kind,
        IReadOnlyList<Entry<T>> theirs,
        IReadOnlyList<Entry<T>> ours,
        Func<T, string> name
    )
        where T : notnull
    {
        var mine = ours.DistinctBy(entry => entry.Id).ToDictionary(entry => entry.Id, entry => entry.Text);
        var names = ours.GroupBy(entry => name(entry.Text), StringComparer.OrdinalIgnoreCase)
            .ToDictionary(same => same.Key, same => same.First().Id, StringComparer.OrdinalIgnoreCase);
        foreach (var entry in theirs)
        {
            var called = name(entry.Text);
            var clash =
                names.TryGetValue(called, out var other)
                && other != entry.Id
                && !theirs.Any(their => their.Id == other);
            if (mine.TryGetValue(entry.Id, out var own))
            {
                var differences = Differences(own, entry.Text);
                yield return new(
                    kind,
                    entry.Id,
                    called,
                    differences.Count == 0 ? ImportFate.Same : ImportFate.Changed,
                    null,
                    differences
                );
            }
            else
            {
                yield return new(
                    kind,
                    entry.Id,
                    called,
                    clash ? ImportFate.Clash : ImportFate.Added,
                    clash ? other : null,
                    []
                );
            }
        }
    }

    /// <summary>The names of the fields that read differently.</summary>
    private static List<string> Differences<T>(T own, T offered)
        where T : notnull
    {
        var (a, b) = (
            JsonSerializer.SerializeToNode(own, LibraryJson.Stored)!.AsObject(),
            JsonSerializer.SerializeToNode(offered, LibraryJson.Stored)!.AsObject()
        );
        return
        [
            .. a.Select(field => field.Key)
                .Union(b.Select(field => field.Key))
                .Where(field => a[field]?.ToJsonString() != b[field]?.ToJsonString())
                .Order(StringComparer.Ordinal),
        ];
    }

    private string NameOf(LinkText link)
    {
        return $"{Called(link.FromId)} to {Called(link.ToId)}";

        string Called(Guid id) =>
            theirs.Postures.Concat(ours.Postures).FirstOrDefault(entry => entry.Id == id)?.Text.Name
            ?? "an unknown posture";
    }

    /// <summary>The first of what stands against the file; looking ends there.</summary>
    private List<FileProblem> Problems(CancellationToken cancel) =>
        [
            .. Found(cancel)
                .Take(SoundInput.MostProblems)
                .Select(item =>
                {
                    var (line, column) = JsonPlaces.Of(
                        file,
                        item.Problem.Field.Length == 0 ? item.Path : $"{item.Path}.{item.Problem.Field}"
                    );
                    return new FileProblem(line, column, item.Problem.Message);
                })
                .OrderBy(problem => problem.Line)
                .ThenBy(problem => problem.Column),
        ];

    private IEnumerable<(string Path, Problem Problem)> Found(CancellationToken cancel)
    {
        List<Entry<PostureText>> together =
        [
            .. theirs.Postures,
            .. ours.Postures.Where(own => theirs.Postures.All(entry => entry.Id != own.Id)),
        ];
        var names = together.DistinctBy(entry => entry.Id).ToDictionary(entry => entry.Id, entry => entry.Text);
        var isSound = true;
        foreach (
            var problem in Twice("postures", theirs.Postures, text => text.Name)
                .Concat(Twice("links", theirs.Links, text => $"{text.FromId}{text.FromSide}{text.ToId}{text.ToSide}"))
                .Concat(Twice("principles", theirs.Principles, text => text.Name))
                .Concat(Twice("forms", theirs.Forms, text => text.Name))
                .Concat(
                    At(
                        "postures",
                        theirs.Postures,
                        entry => entry.Text.Check().Concat(PostureSet.Check(entry.Id, entry.Text, names)),
                        cancel
                    )
                )
        )
        {
            isSound = false;
            yield return problem;
        }

        // Links and forms are about postures: before those are sound there is nothing to hold them against.
        if (!isSound)
        {
            yield break;
        }

        var postures = PostureSet.Build(together);
        var parents = theirs
            .Forms.Concat(ours.Forms)
            .DistinctBy(entry => entry.Id)
            .ToDictionary(entry => entry.Id, entry => entry.Text.ParentId);
        foreach (
            var problem in At("links", theirs.Links, entry => entry.Text.Check(postures), cancel)
                .Concat(At("principles", theirs.Principles, entry => entry.Text.Check(), cancel))
                .Concat(
                    At(
                        "forms",
                        theirs.Forms,
                        entry =>
                            entry
                                .Text.Check(postures)
                                .Concat(FormText.CheckParent(entry.Id, entry.Text.ParentId, parents)),
                        cancel
                    )
                )
        )
        {
            yield return problem;
        }
    }

    private static IEnumerable<(string Path, Problem Problem)> At<T>(
        string list,
        IReadOnlyList<Entry<T>> entries,
        Func<Entry<T>, IEnumerable<Problem>> check,
        CancellationToken cancel
    )
    {
        foreach (var (at, entry) in entries.Index())
        {
            cancel.ThrowIfCancellationRequested();
            foreach (var problem in check(entry))
            {
                yield return ($"{list}[{at}].text", problem);
            }
        }
    }

    private static IEnumerable<(string Path, Problem Problem)> Twice<T>(
        string list,
        IReadOnlyList<Entry<T>> entries,
        Func<T, string> name
    )
    {
        HashSet<Guid> ids = [];
        HashSet<string> called = new(StringComparer.OrdinalIgnoreCase);
        foreach (var (at, entry) in entries.Index())
        {
            if (!ids.Add(entry.Id))
            {
                yield return ($"{list}[{at}]", new("id", "Something before this has the same identifier."));
            }

            if (!called.Add(name(entry.Text)))
            {
                yield return ($"{list}[{at}].text", new("", "Something before this has the same name."));
            }
        }
    }
}
