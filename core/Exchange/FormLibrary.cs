using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Exchange;

/// <summary>
/// A file of postures, links, principles and forms (domain.md 7), as docs/formats/forms.md describes it. Reading what was written gives the same again, to the letter.
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

    public static FormLibrary Of(IEnumerable<Posture> postures, IEnumerable<Link> links, IEnumerable<Principle> principles, IEnumerable<Form> forms) => new()
    {
        Format = FormatName,
        Version = CurrentVersion,
        Postures = [.. postures.Select(posture => new Entry<PostureText>(posture.Id, posture.Text))],
        Links = [.. links.Select(link => new Entry<LinkText>(link.Id, link.Text))],
        Principles = [.. principles.Select(principle => new Entry<PrincipleText>(principle.Id, principle.Text))],
        Forms = [.. forms.Select(form => new Entry<FormText>(form.Id, form.Text))],
    };
}
