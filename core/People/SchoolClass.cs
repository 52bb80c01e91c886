namespace Zeitplan.Core.People;

/// <summary>A weekly recurring meeting: weekday, time, minutes, hall and the people who teach it.</summary>
public sealed class SchoolClass
{
    private SchoolClass()
    {
    }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public DayOfWeek Weekday { get; private set; }
    public TimeOnly Start { get; private set; }
    public int Minutes { get; private set; }
    public Guid HallId { get; private set; }
    public IReadOnlyList<Guid> StaffIds { get; private set; } = [];

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public TimeOnly End => Start.AddMinutes(Minutes);

    public static SchoolClass Create(Guid id, ClassText text)
    {
        var meeting = new SchoolClass { Id = id };
        meeting.Rewrite(text);
        return meeting;
    }

    public void Rewrite(ClassText text) =>
        (Name, Weekday, Start, Minutes, HallId, StaffIds) = (text.Name.Trim(), text.Weekday, text.Start, text.Minutes, text.HallId, text.StaffIds);
}

/// <summary>Everything a head writes about a class, before it has been checked.</summary>
public sealed record ClassText(string Name, DayOfWeek Weekday, TimeOnly Start, int Minutes, Guid HallId, IReadOnlyList<Guid> StaffIds)
{
    /// <summary>A lesson shorter than this has no time to teach between warm-up and settling (domain.md 4.3).</summary>
    public const int ShortestLesson = 30;

    /// <param name="others">The school's other classes, without this one.</param>
    public IEnumerable<Problem> Check(IReadOnlyCollection<SchoolClass> others, IReadOnlyDictionary<Guid, string> halls, IReadOnlyDictionary<Guid, string> staff)
    {
        foreach (var problem in Problem.WithName(Name, "name"))
        {
            yield return problem;
        }

        if (!Enum.IsDefined(Weekday))
        {
            yield return new("weekday", "Choose a weekday.");
        }

        if (Minutes is < ShortestLesson or > 300)
        {
            yield return new("minutes", $"A lesson lasts between {ShortestLesson} and 300 minutes.");
        }
        else if (Start.ToTimeSpan() + TimeSpan.FromMinutes(Minutes) > TimeSpan.FromDays(1))
        {
            yield return new("start", "The lesson would run past midnight.");
        }

        if (!halls.ContainsKey(HallId))
        {
            yield return new("hallId", "Choose one of the school's halls.");
        }

        if (StaffIds.Count == 0)
        {
            yield return new("staffIds", "Somebody has to teach: choose at least one.");
        }

        foreach (var (at, id) in StaffIds.Index().Where(s => !staff.ContainsKey(s.Item)))
        {
            yield return new($"staffIds[{at}]", "The school has no such member of staff.");
        }

        foreach (var other in others.Where(Overlaps))
        {
            foreach (var (at, id) in StaffIds.Index().Where(s => other.StaffIds.Contains(s.Item)))
            {
                yield return new($"staffIds[{at}]", $"{staff.GetValueOrDefault(id, "This person")} teaches {other.Name} at that time ({other.Start:HH:mm} to {other.End:HH:mm}).");
            }

            if (other.HallId == HallId)
            {
                yield return new("hallId", $"{other.Name} has {halls.GetValueOrDefault(HallId, "this hall")} at that time ({other.Start:HH:mm} to {other.End:HH:mm}).");
            }
        }
    }

    private bool Overlaps(SchoolClass other) =>
        other.Weekday == Weekday
        && Start.ToTimeSpan() < other.Start.ToTimeSpan() + TimeSpan.FromMinutes(other.Minutes)
        && other.Start.ToTimeSpan() < Start.ToTimeSpan() + TimeSpan.FromMinutes(Minutes);
}

/// <summary>The people in one class who work on the same material in the same mode.</summary>
public sealed class Cohort
{
    private Cohort()
    {
    }

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

    /// <summary>First-term learners: one new posture a lesson, and attended in their first three lessons (domain.md 4.2, 4.3).</summary>
    public bool Beginners { get; private set; }

    public static Cohort Create(Guid id, Guid classId, string name, int order, Guid? sashId, Half half, Mode mode, string colour, bool beginners) =>
        new() { Id = id, ClassId = classId, Name = name.Trim(), Order = order, SashId = sashId, Half = half, Mode = mode, Colour = colour, Beginners = beginners };
}

/// <summary>Somebody who learns.</summary>
public sealed class Student
{
    private Student()
    {
    }

    public Guid Id { get; private set; }
    public string GivenName { get; private set; } = "";
    public string FamilyName { get; private set; } = "";
    public Guid SashId { get; private set; }
    public Half Half { get; private set; }
    public Guid CohortId { get; private set; }
    public DateOnly Joined { get; private set; }

    /// <summary>Private: for those who teach this student, never for assistants (domain.md 6).</summary>
    public IReadOnlyList<Limit> Limits { get; private set; } = [];

    /// <summary>Private like the limits.</summary>
    public string Note { get; private set; } = "";

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    /// <summary>As on boards and sheets: Imke R.</summary>
    public string ShortName => FamilyName.Length == 0 ? GivenName : $"{GivenName} {FamilyName[0]}.";

    public static Student Create(Guid id, StudentText text)
    {
        var student = new Student { Id = id };
        student.Rewrite(text);
        return student;
    }

    public void Rewrite(StudentText text) =>
        (GivenName, FamilyName, SashId, Half, CohortId, Joined, Limits, Note) =
        (text.GivenName.Trim(), text.FamilyName.Trim(), text.SashId, text.Half, text.CohortId, text.Joined, text.Limits, text.Note.Trim());
}

/// <summary>Everything a head writes about a student, before it has been checked.</summary>
public sealed record StudentText(string GivenName, string FamilyName, Guid SashId, Half Half, Guid CohortId, DateOnly Joined, IReadOnlyList<Limit> Limits, string Note)
{
    public IEnumerable<Problem> Check(IReadOnlyDictionary<Guid, SashLevel> sashes, IReadOnlySet<Guid> cohorts, DateOnly today) =>
    [
        .. Problem.WithName(GivenName, "givenName"),
        .. FamilyName.Length == 0 ? [] : Problem.WithName(FamilyName, "familyName"),
        .. !sashes.TryGetValue(SashId, out var sash) ? [new Problem("sashId", "Choose a sash of the ladder.")]
            : Half != Half.None && !sash.HasHalves ? [new Problem("half", $"{sash.Name} has no halves.")] : Array.Empty<Problem>(),
        .. cohorts.Contains(CohortId) ? Array.Empty<Problem>() : [new Problem("cohortId", "Choose a cohort of a class.")],
        .. Joined > today ? [new Problem("joined", "Nobody has joined in the future.")] : Array.Empty<Problem>(),
        .. Note.Length > Problem.LongestText ? [new Problem("note", $"Keep the note to {Problem.LongestText} characters.")] : Array.Empty<Problem>(),
    ];
}
