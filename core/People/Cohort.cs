using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>The people in one class who work on the same material in the same mode.</summary>
public sealed class Cohort
{
    private Cohort() { }

    public Guid Id { get; private set; }
    public Guid ClassId { get; private set; }
    public string Name { get; private set; } = "";

    /// <summary>Top to bottom on every board.</summary>
    public int Order { get; private set; }

    /// <summary>Null for an adapted group that people of any level join.</summary>
    public Guid? SashId { get; private set; }
    public Half Half { get; private set; }
    public Mode Mode { get; private set; }

    /// <summary>As <c>#RRGGBB</c>; the sash's own for a sash cohort.</summary>
    public string Colour { get; private set; } = "";

    /// <summary>First-term learners: one new posture a lesson, and attended in their first three lessons (domain.md
    /// 4.2, 4.3).</summary>
    public bool Beginners { get; private set; }

    /// <summary>Somebody who can help is with it all lesson (domain.md 4.3); always so for whoever holds on or
    /// sits.</summary>
    public bool MustBeAttended { get; private set; }

    /// <summary>Whether it can work by itself on what it already does.</summary>
    public bool PractisesAlone => !MustBeAttended;

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Cohort Create(Guid id, Guid classId, CohortText text)
    {
        var cohort = new Cohort { Id = id, ClassId = classId };
        cohort.Rewrite(text);
        return cohort;
    }

    public void Rewrite(CohortText text) =>
        (Name, Order, SashId, Half, Mode, Colour, Beginners, MustBeAttended) = (
            text.Name.Trim(),
            text.Order,
            text.SashId,
            text.Half,
            text.Mode,
            text.Colour,
            text.Beginners,
            text.MustBeAttended || text.Mode.Support != Support.None
        );
}

/// <summary>Everything a head writes about a cohort, before it has been checked.</summary>
public sealed record CohortText(
    string Name,
    int Order,
    Guid? SashId,
    Half Half,
    Mode Mode,
    string Colour,
    bool Beginners,
    bool MustBeAttended
)
{
    /// <param name="others">The other cohorts of the class.</param>
    public IEnumerable<Problem> Check(IEnumerable<Cohort> others, IReadOnlyDictionary<Guid, SashLevel> sashes)
    {
        var sash = SashId is { } id ? sashes.GetValueOrDefault(id) : null;
        return
        [
            .. Problem.WithName(Name, "name"),
            .. Problem.WithColour(Colour, "colour"),
            .. SashId is not null && sash is null
                ? [new Problem("sashId", "Choose a sash of the ladder.")]
                : Array.Empty<Problem>(),
            .. Half != Half.None && sash?.HasHalves != true
                ? [new Problem("half", "Only a sash with halves can be split.")]
                : Array.Empty<Problem>(),
            .. others.Any(other => other.Name.Equals(Name.Trim(), StringComparison.OrdinalIgnoreCase))
                ? [new Problem("name", $"The class has a cohort {Name.Trim()} already.")]
                : Array.Empty<Problem>(),
        ];
    }
}
