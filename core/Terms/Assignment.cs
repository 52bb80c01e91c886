using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms;

/// <summary>What a segment is given for (domain.md 4.3).</summary>
public enum Purpose
{
    /// <summary>In form order, a posture after what it needs.</summary>
    New,

    /// <summary>Chosen places in any order.</summary>
    Refine,

    /// <summary>Run-throughs and what is fading.</summary>
    Maintain,
}

/// <summary>A run of a form given to a cohort, to be met by a date. Positions are named, not numbered, so that editing
/// the form does not move the segment.</summary>
/// <param name="LeftOut">Positions between the ends that this cohort leaves out; the links round them are repaired
/// (<see cref="GroupSegment"/>).</param>
public sealed record AssignedSegment(
    Guid Id,
    Guid FormId,
    Guid FromId,
    Guid ToId,
    DateOnly Target,
    Purpose Purpose,
    IReadOnlyList<Guid> LeftOut
)
{
    /// <summary>Whether the segment would survive an edit of its form: both ends there, in order.</summary>
    public bool StillFits(IReadOnlyList<Position> positions)
    {
        var places = positions.Index().ToDictionary(place => place.Item.Id, place => place.Index);
        return places.TryGetValue(FromId, out var from) && places.TryGetValue(ToId, out var to) && from <= to;
    }

    /// <summary>The positions of the segment in form order, without those left out.</summary>
    /// <exception cref="InvalidOperationException">The form no longer has the segment; <see cref="StillFits"/> guards
    /// every edit of a form.</exception>
    public IReadOnlyList<Position> PositionsOf(Form form)
    {
        var (from, to) = (form.IndexOf(FromId), form.IndexOf(ToId));
        return from >= 0 && to >= from
            ? [.. form.Positions.Skip(from).Take(to - from + 1).Where(position => !LeftOut.Contains(position.Id))]
            : throw new InvalidOperationException($"{form.Name} does not have the assigned segment.");
    }

    public IEnumerable<Problem> Check(string path, Form? form, Term term)
    {
        if (form is null)
        {
            yield return new($"{path}.formId", "Choose one of the school's forms.");
            yield break;
        }

        var (from, to) = (form.IndexOf(FromId), form.IndexOf(ToId));
        if (from < 0)
        {
            yield return new($"{path}.fromId", $"{form.Name} has no such position.");
        }

        if (to < 0)
        {
            yield return new($"{path}.toId", $"{form.Name} has no such position.");
        }

        if (from >= 0 && to >= 0 && to < from)
        {
            yield return new($"{path}.toId", "The segment ends before it starts.");
        }
        else if (from >= 0 && to >= 0 && PositionsOf(form).Count == 0)
        {
            yield return new($"{path}.leftOut", "Everything is left out of this segment.");
        }

        if (!term.Contains(Target))
        {
            yield return new(
                $"{path}.target",
                $"The target lies outside {term.Name} ({term.Start:yyyy-MM-dd} to {term.End:yyyy-MM-dd})."
            );
        }
    }
}

/// <summary>What a cohort has been given for a term: segments in the order in which they are taught.</summary>
public sealed class Assignment
{
    private Assignment() { }

    public Guid Id { get; private set; }
    public Guid TermId { get; private set; }
    public Guid CohortId { get; private set; }
    public IReadOnlyList<AssignedSegment> Segments { get; private set; } = [];

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Assignment Create(Guid id, Guid termId, Guid cohortId, IReadOnlyList<AssignedSegment> segments) =>
        new()
        {
            Id = id,
            TermId = termId,
            CohortId = cohortId,
            Segments = segments,
        };

    public void Rewrite(IReadOnlyList<AssignedSegment> segments) => Segments = segments;

    /// <summary>The date by which all that is new is to be met; null when nothing is new.</summary>
    public DateOnly? Target =>
        Segments.Where(segment => segment.Purpose == Purpose.New).Max(segment => (DateOnly?)segment.Target);

    /// <summary>What cannot be kept of a list of segments.</summary>
    public static IEnumerable<Problem> Check(
        IReadOnlyList<AssignedSegment> segments,
        IReadOnlyDictionary<Guid, Form> forms,
        Term term
    ) =>
        [
            .. segments.SelectMany(
                (segment, at) => segment.Check($"segments[{at}]", forms.GetValueOrDefault(segment.FormId), term)
            ),
            .. segments.Select(segment => segment.Id).Distinct().Count() == segments.Count
                ? Array.Empty<Problem>()
                : [new("segments", "Two segments have the same identifier.")],
            .. segments
                .Index()
                .Where(place =>
                    segments
                        .Take(place.Index)
                        .Any(before =>
                            (before.FormId, before.FromId, before.ToId, before.Purpose)
                            == (place.Item.FormId, place.Item.FromId, place.Item.ToId, place.Item.Purpose)
                        )
                )
                .Select(place => new Problem(
                    $"segments[{place.Index}]",
                    "This segment is in the list already, for the same purpose."
                )),
        ];
}
