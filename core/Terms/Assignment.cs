using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms;

/// <summary>A segment of a form given to a cohort for a term, to be introduced by a date.</summary>
public sealed class Assignment
{
    private Assignment()
    {
    }

    public Guid Id { get; private set; }
    public Guid TermId { get; private set; }
    public Guid CohortId { get; private set; }
    public Guid FormId { get; private set; }

    /// <summary>First and last position, both included. Positions are named, not numbered, so that editing the form does not move the segment.</summary>
    public Guid FromPositionId { get; private set; }
    public Guid ToPositionId { get; private set; }
    public DateOnly Target { get; private set; }

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Assignment Create(Guid id, Guid termId, Guid cohortId, AssignmentText text)
    {
        var assignment = new Assignment { Id = id, TermId = termId, CohortId = cohortId };
        assignment.Rewrite(text);
        return assignment;
    }

    public void Rewrite(AssignmentText text) =>
        (FormId, FromPositionId, ToPositionId, Target) = (text.FormId, text.FromPositionId, text.ToPositionId, text.Target);

    /// <summary>The positions of the segment in form order.</summary>
    /// <exception cref="InvalidOperationException">The form no longer has the segment; <see cref="StillFits"/> guards every edit of a form.</exception>
    public IReadOnlyList<Position> SegmentOf(Form form)
    {
        var (from, to) = (form.IndexOf(FromPositionId), form.IndexOf(ToPositionId));
        return from >= 0 && to >= from ? [.. form.Positions.Skip(from).Take(to - from + 1)] : throw new InvalidOperationException($"{form.Name} does not have the assigned segment.");
    }

    /// <summary>Whether the segment would survive an edit of its form: both ends there, in order.</summary>
    public bool StillFits(IReadOnlyList<Position> positions)
    {
        var places = positions.Index().ToDictionary(place => place.Item.Id, place => place.Index);
        return places.TryGetValue(FromPositionId, out var from) && places.TryGetValue(ToPositionId, out var to) && from <= to;
    }
}

/// <summary>Everything a head says when assigning a segment, before it has been checked.</summary>
public sealed record AssignmentText(Guid FormId, Guid FromPositionId, Guid ToPositionId, DateOnly Target)
{
    public IEnumerable<Problem> Check(Form? form, Term term)
    {
        if (form is null)
        {
            yield return new("formId", "Choose one of the school's forms.");
            yield break;
        }

        var (from, to) = (form.IndexOf(FromPositionId), form.IndexOf(ToPositionId));
        if (from < 0)
        {
            yield return new("fromPositionId", $"{form.Name} has no such position.");
        }

        if (to < 0)
        {
            yield return new("toPositionId", $"{form.Name} has no such position.");
        }

        if (from >= 0 && to >= 0 && to < from)
        {
            yield return new("toPositionId", "The segment ends before it starts.");
        }

        if (!term.Contains(Target))
        {
            yield return new("target", $"The target lies outside {term.Name} ({term.Start:yyyy-MM-dd} to {term.End:yyyy-MM-dd}).");
        }
    }
}
