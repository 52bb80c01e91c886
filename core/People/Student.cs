using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>What a student comes for.</summary>
public enum Aim
{
    Health,
    TheArt,
    PartnerWork,
}

/// <summary>What a student has agreed to.</summary>
public enum Consent
{
    /// <summary>To be touched when corrected.</summary>
    HandsOn,

    /// <summary>To work with a partner, contact included.</summary>
    PartnerWork,

    /// <summary>To be in the school's own recordings.</summary>
    Recording,

    /// <summary>To be written to.</summary>
    Messages,
}

/// <summary>A stretch of time in a cohort. On the day of a move both count, so that no lesson falls between
/// them.</summary>
public sealed record Place(Guid CohortId, DateOnly From, DateOnly? Until = null)
{
    public bool Covers(DateOnly date) => From <= date && (Until is null || date <= Until);

    /// <summary>The cohorts somebody was in on a date; their first one for a lesson before it, such as a
    /// trial.</summary>
    public static IEnumerable<Guid> On(IReadOnlyList<Place> places, DateOnly date) =>
        places.Any(place => place.Covers(date))
            ? places.Where(place => place.Covers(date)).Select(place => place.CohortId)
            : places.Where(place => place.From > date).Take(1).Select(place => place.CohortId);
}

/// <summary>A level and half reached on a day.</summary>
public sealed record Level(Guid SashId, Half Half, DateOnly Since);

/// <summary>What is known of a student beside name and level.</summary>
public sealed record StudentDetails
{
    public Aim Aim { get; init; } = Aim.TheArt;

    /// <summary>What of the syllabus they want, in words; empty for all of it.</summary>
    public string Scope { get; init; } = "";

    /// <summary>How they usually take part; the cohort's mode where that is more adapted.</summary>
    public Mode Mode { get; init; } = Mode.Standing;

    /// <summary>The hand that holds, when one does; <see cref="Side.Symmetric"/> for either.</summary>
    public Side HeldHand { get; init; } = Side.Symmetric;
    public string ContactName { get; init; } = "";
    public string ContactPhone { get; init; } = "";
    public IReadOnlyList<Consent> Consents { get; init; } = [];

    public IEnumerable<Problem> Check() =>
        [
            .. TooLong(Scope, Problem.LongestText, "details.scope"),
            .. TooLong(ContactName, Problem.LongestName, "details.contactName"),
            .. TooLong(ContactPhone, 40, "details.contactPhone"),
            .. ContactPhone.Any(char.IsAsciiLetter)
                ? [new Problem("details.contactPhone", "A telephone number has digits, spaces and + only.")]
                : Array.Empty<Problem>(),
            .. HeldHand != Side.Symmetric && Mode.Support is not (Support.Touch or Support.Hold)
                ? [new Problem("details.heldHand", "Only somebody who holds on has a holding hand.")]
                : Array.Empty<Problem>(),
        ];

    private static IEnumerable<Problem> TooLong(string text, int most, string field) =>
        text.Length > most ? [new(field, $"Keep this to {most} characters.")] : [];
}

/// <summary>Somebody who learns.</summary>
public sealed class Student
{
    private Student() { }

    public Guid Id { get; private set; }
    public string GivenName { get; private set; } = "";
    public string FamilyName { get; private set; } = "";
    public Guid SashId { get; private set; }
    public Half Half { get; private set; }

    /// <summary>Where they learn now, one cohort of each of their classes, their own first. Nobody who has left has
    /// one.</summary>
    public Guid[] CohortIds { get; private set; } = [];
    public DateOnly Joined { get; private set; }

    /// <summary>The last day, for somebody who left.</summary>
    public DateOnly? Left { get; private set; }

    /// <summary>The day on which everything that identifies this person was taken out.</summary>
    public DateOnly? Erased { get; private set; }

    /// <summary>Every cohort they have been in, so that a move loses nothing that was learned before it.</summary>
    public IReadOnlyList<Place> Places { get; private set; } = [];

    /// <summary>Every level they have reached, the present one last.</summary>
    public IReadOnlyList<Level> Levels { get; private set; } = [];
    public StudentDetails Details { get; private set; } = new();

    /// <summary>Private: for those who teach this student, never for assistants (domain.md 6).</summary>
    public IReadOnlyList<Limit> Limits { get; private set; } = [];

    /// <summary>Private like the limits.</summary>
    public string Note { get; private set; } = "";

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public string FullName => $"{GivenName} {FamilyName}".Trim();

    /// <summary>As on boards and sheets: Imke R.</summary>
    public string ShortName => ShortNameOf(GivenName, FamilyName);

    public static string ShortNameOf(string givenName, string familyName) =>
        familyName.Length == 0 ? givenName : $"{givenName} {familyName[0]}.";

    /// <summary>Since when at the present level: the last of <see cref="Levels"/>.</summary>
    public DateOnly SashSince { get; private set; }

    /// <summary>How they usually take part: of <see cref="Details"/>, for lists that read nothing else of
    /// those.</summary>
    public Mode UsualMode { get; private set; } = Mode.Standing;

    /// <summary>Whether any limit is known, for lists that must not read which.</summary>
    public bool HasLimits { get; private set; }

    /// <summary>The least adapted mode they are taught in where a cohort works in <paramref name="cohort"/>.</summary>
    public Mode ModeIn(Mode cohort) => Mode.MoreAdapted(cohort, UsualMode);

    /// <param name="since">Since when at the level; the day of joining when it is not known.</param>
    public static Student Create(Guid id, StudentText text, DateOnly? since = null)
    {
        var student = new Student { Id = id, Joined = text.Joined };
        student.Rewrite(text, text.Joined, since);
        return student;
    }

    /// <param name="today">The day from which a new cohort or level counts.</param>
    public void Rewrite(StudentText text, DateOnly today, DateOnly? since = null)
    {
        (GivenName, FamilyName, Joined, Details, UsualMode) = (
            text.GivenName.Trim(),
            text.FamilyName.Trim(),
            text.Joined,
            text.Details,
            text.Details.Mode
        );
        if (text.CohortIds.Count > 0)
        {
            Left = null;
        }

        Reach(text.SashId, text.Half, since ?? today);
        MoveTo(text.CohortIds, today);
    }

    /// <summary>Another level or half from a day on. The same level with another day corrects the day.</summary>
    public void Reach(Guid sashId, Half half, DateOnly since)
    {
        var isNew = Levels.Count == 0 || Levels[^1].SashId != sashId || Levels[^1].Half != half;
        Levels = isNew ? [.. Levels, new(sashId, half, since)] : Levels;
        (SashId, Half, SashSince) = (sashId, half, Levels[^1].Since);
    }

    /// <summary>Corrects since when the present level counts.</summary>
    public void ReachedOn(DateOnly since) =>
        (Levels, SashSince) = ([.. Levels.SkipLast(1), Levels[^1] with { Since = since }], since);

    public void MoveTo(IReadOnlyList<Guid> cohorts, DateOnly today)
    {
        Places =
        [
            .. Places.Select(place =>
                place.Until is null && !cohorts.Contains(place.CohortId)
                    ? place with
                    {
                        Until = today < place.From ? place.From : today,
                    }
                    : place
            ),
            .. cohorts.Where(cohort => !CohortIds.Contains(cohort)).Select(cohort => new Place(cohort, today)),
        ];
        CohortIds = [.. cohorts];
    }

    /// <summary>Everything but the limits, to come back to.</summary>
    public StudentState Keep() =>
        new(GivenName, FamilyName, SashId, Half, CohortIds, Joined, Left, Places, Levels, Details);

    public void Restore(StudentState state)
    {
        (GivenName, FamilyName, SashId, Half, CohortIds, Joined, Left, Places, Levels, Details) = (
            state.GivenName,
            state.FamilyName,
            state.SashId,
            state.Half,
            [.. state.CohortIds],
            state.Joined,
            state.Left,
            state.Places,
            state.Levels,
            state.Details
        );
        (SashSince, UsualMode) = (Levels[^1].Since, Details.Mode);
    }

    public void Limit(IReadOnlyList<Limit> limits, string note) =>
        (Limits, HasLimits, Note) = (limits, limits.Count > 0, note.Trim());

    /// <summary>Leaves the school; everything that was learned stays.</summary>
    public void Leave(DateOnly last)
    {
        MoveTo([], last);
        Left = last;
    }

    /// <summary>Takes out whatever tells who this was. What was taught and seen stays as counts nobody can be found
    /// in.</summary>
    public void Erase(DateOnly today)
    {
        if (Left is null)
        {
            Leave(today);
        }

        (GivenName, FamilyName, Details, UsualMode, Erased) = (ErasedName, "", new(), Mode.Standing, today);
        Limit([], "");
    }

    public const string ErasedName = "Somebody";
}

/// <summary>What is known of a student at one time, the limits left out.</summary>
public sealed record StudentState(
    string GivenName,
    string FamilyName,
    Guid SashId,
    Half Half,
    IReadOnlyList<Guid> CohortIds,
    DateOnly Joined,
    DateOnly? Left,
    IReadOnlyList<Place> Places,
    IReadOnlyList<Level> Levels,
    StudentDetails Details
);

/// <summary>Everything a head writes about a student, before it has been checked. Limits are written apart.</summary>
public sealed record StudentText(
    string GivenName,
    string FamilyName,
    Guid SashId,
    Half Half,
    IReadOnlyList<Guid> CohortIds,
    DateOnly Joined
)
{
    public StudentDetails Details { get; init; } = new();

    /// <param name="cohorts">Every cohort with the class it belongs to.</param>
    public IEnumerable<Problem> Check(
        IReadOnlyDictionary<Guid, SashLevel> sashes,
        IReadOnlyDictionary<Guid, Guid> cohorts,
        DateOnly today
    ) =>
        [
            .. Problem.WithName(GivenName, "givenName"),
            .. FamilyName.Length == 0 ? [] : Problem.WithName(FamilyName, "familyName"),
            .. !sashes.TryGetValue(SashId, out var sash) ? [new Problem("sashId", "Choose a sash of the ladder.")]
            : Half != Half.None && !sash.HasHalves ? [new Problem("half", $"{sash.Name} has no halves.")]
            : Array.Empty<Problem>(),
            .. CohortIds
                .Index()
                .Where(cohort => !cohorts.ContainsKey(cohort.Item))
                .Select(cohort => new Problem($"cohortIds[{cohort.Index}]", "Choose a cohort of a class.")),
            .. CohortIds.Where(cohorts.ContainsKey).GroupBy(cohort => cohorts[cohort]).Any(same => same.Count() > 1)
                ? [new Problem("cohortIds", "In each class somebody belongs to one cohort.")]
                : Array.Empty<Problem>(),
            .. Joined > today ? [new Problem("joined", "Nobody has joined in the future.")] : Array.Empty<Problem>(),
            .. Details.Check(),
        ];
}
