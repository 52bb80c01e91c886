using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Exchange;

/// <summary>
/// A file of postures, links, principles and forms (domain.md 7), as docs/formats/forms.md describes it. Reading what
/// was written gives the same again, to the letter.
/// </summary>
public sealed record FormLibrary
{
    public const string FormatName = "zeitplan-forms";
    public const int CurrentVersion = 1;

    /// <summary>A larger file is refused before it is read.</summary>
    public const int MostBytes = 8 * 1024 * 1024;

    public required string Format { get; init; }
    public required int Version { get; init; }
    public IReadOnlyList<Entry<PostureText>> Postures { get; init; } = [];
    public IReadOnlyList<Entry<LinkText>> Links { get; init; } = [];
    public IReadOnlyList<Entry<PrincipleText>> Principles { get; init; } = [];
    public IReadOnlyList<Entry<FormText>> Forms { get; init; } = [];

    public static FormLibrary Of(
        IEnumerable<Posture> postures,
        IEnumerable<Link> links,
        IEnumerable<Principle> principles,
        IEnumerable<Form> forms
    ) =>
        new()
        {
            Format = FormatName,
            Version = CurrentVersion,
            Postures = [.. postures.Select(posture => new Entry<PostureText>(posture.Id, posture.Text))],
            Links = [.. links.Select(link => new Entry<LinkText>(link.Id, link.Text))],
            Principles = [.. principles.Select(principle => new Entry<PrincipleText>(principle.Id, principle.Text))],
            Forms = [.. forms.Select(form => new Entry<FormText>(form.Id, form.Text))],
        };

    /// <summary>One form with all it is made of: its parents, the postures of all of them and what those are built
    /// from, and the links between those. Null when it is not here.</summary>
    public FormLibrary? Only(Guid formId)
    {
        HashSet<Guid> forms = [];
        for (
            var at = Forms.FirstOrDefault(entry => entry.Id == formId);
            at is not null && forms.Add(at.Id);
            at = Forms.FirstOrDefault(entry => entry.Id == at.Text.ParentId)
        ) { }

        if (forms.Count == 0)
        {
            return null;
        }

        var kept = Forms.Where(entry => forms.Contains(entry.Id)).ToList();
        var all = Postures.ToDictionary(entry => entry.Id, entry => entry.Text);
        HashSet<Guid> postures = [];
        Queue<Guid> next = new(
            kept.SelectMany(entry => entry.Text.Positions)
                .SelectMany(position =>
                    position.CompoundId is { } compound ? new[] { position.PostureId, compound } : [position.PostureId]
                )
        );
        while (next.TryDequeue(out var id))
        {
            if (postures.Add(id) && all.TryGetValue(id, out var text))
            {
                text.Parts.Select(part => part.PostureId)
                    .Concat(text.Needs)
                    .Concat(text.BuiltFrom is { } built ? [built.PostureId] : Array.Empty<Guid>())
                    .ToList()
                    .ForEach(next.Enqueue);
            }
        }

        return this with
        {
            Postures = [.. Postures.Where(entry => postures.Contains(entry.Id))],
            Links =
            [
                .. Links.Where(entry => postures.Contains(entry.Text.FromId) && postures.Contains(entry.Text.ToId)),
            ],
            Principles = [],
            Forms = kept,
        };
    }
}
