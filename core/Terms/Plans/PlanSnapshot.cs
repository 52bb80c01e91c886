using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>
/// A plan as it is kept: what was asked and what was answered, every unit by what it is and every lesson by its date, so
/// that it reads the same however the term is stated later. These records are the stored shape and change only together
/// with <see cref="Current"/>; the working types beside them change freely.
/// </summary>
/// <param name="Version">The shape it was written in.</param>
/// <param name="MovePoints">What leaving an announced lesson cost when it was planned.</param>
public sealed record PlanSnapshot(
    int Version,
    IReadOnlyList<PlanSnapshot.Lesson> Lessons,
    IReadOnlyList<PlanSnapshot.ClosedDay> Closed,
    IReadOnlyList<PlanSnapshot.Cohort> Cohorts,
    IReadOnlyList<PlanSnapshot.Block> Shared,
    long MovePoints,
    long UnsharedPoints
)
{
    public const int Current = 1;

    /// <param name="LedSeconds">Of the teachers, by all cohorts, what is led together counted once.</param>
    public sealed record Lesson(
        DateOnly Date,
        int TeachableSeconds,
        int Staff,
        LessonKind Kind,
        bool Held,
        int TalkSeconds,
        int LedSeconds,
        int WatchSeconds = 0,
        int AgainSeconds = 0
    );

    public sealed record ClosedDay(DateOnly Date, string Reason);

    public sealed record Cohort
    {
        public required Guid Id { get; init; }
        public required string Name { get; init; }
        public required Mode Mode { get; init; }
        public required int People { get; init; }
        public required int MaxNew { get; init; }
        public required int AttendedLessons { get; init; }

        /// <summary>The last lesson on or before the target; null when that lies before the first.</summary>
        public DateOnly? Target { get; init; }
        public IReadOnlyList<KnownPosture> Before { get; init; } = [];
        public required int BeforeSeconds { get; init; }

        /// <summary>Its own pace, which its units' seconds have in them; null for the usual.</summary>
        public decimal? Pace { get; init; }

        /// <summary>In teaching order.</summary>
        public IReadOnlyList<Unit> Units { get; init; } = [];
        public IReadOnlyList<Content> Lessons { get; init; } = [];

        /// <summary>What it can do already, and how that is kept; null where nothing is.</summary>
        public KeptMaterial? Kept { get; init; }
        public required bool Exact { get; init; }
        public required long Cost { get; init; }
    }

    public sealed record KnownPosture(Guid PostureId, Side Side);

    public sealed record Unit
    {
        public required UnitKind Kind { get; init; }
        public required Guid PostureId { get; init; }
        public required Side Side { get; init; }

        /// <summary>With a link, the posture it leads on from.</summary>
        public KnownPosture? From { get; init; }
        public required string Name { get; init; }
        public required int Difficulty { get; init; }
        public required int Counts { get; init; }
        public required int IntroduceSeconds { get; init; }
        public required int ReviewSeconds { get; init; }
        public required int RunThroughSeconds { get; init; }
        public required string Effort { get; init; }
        public string? NeededBy { get; init; }

        /// <summary>The date its segment is wanted by.</summary>
        public DateOnly? SegmentTarget { get; init; }

        /// <summary>The last lesson on or before that; null when it lies before the first.</summary>
        public DateOnly? Target { get; init; }

        /// <summary>The lesson that has introduced it.</summary>
        public DateOnly? Introduced { get; init; }

        /// <summary>The lesson it was announced for.</summary>
        public DateOnly? Announced { get; init; }

        /// <summary>Where the head put it.</summary>
        public FixedOn? Fixed { get; init; }

        /// <summary>Where the plan has it; null when it is left over.</summary>
        public DateOnly? Place { get; init; }

        /// <summary>Why it is there, or why it is left over.</summary>
        public required string Because { get; init; }
        public IReadOnlyList<Reviewed> Reviews { get; init; } = [];
        public IReadOnlyList<NotHeld> Dropped { get; init; } = [];
    }

    /// <param name="Refused">Why the plan does not keep it.</param>
    /// <param name="Lost">Why no lesson can bring it on that date any more.</param>
    public sealed record FixedOn(DateOnly Date, string? Refused, string? Lost);

    public sealed record Reviewed(DateOnly Date, int WeeksAfter, bool Late, bool InRunThrough);

    /// <summary>A review no lesson had room for.</summary>
    public sealed record NotHeld(DateOnly Due, int Seconds);

    /// <summary>What a lesson holds for one cohort, in seconds.</summary>
    public sealed record Content(
        DateOnly Date,
        int Introduce,
        int Review,
        int RunThrough,
        int Watch,
        int LeadIn,
        int Own,
        int Teacher,
        int Keep = 0,
        int Again = 0
    );

    /// <param name="Exact">Nothing keeps as much at less cost.</param>
    public sealed record KeptMaterial(
        IReadOnlyList<KeptThing> Postures,
        IReadOnlyList<KeptStretch> Runs,
        long Cost,
        bool Exact
    );

    /// <param name="HoldsDays">Null where once is enough.</param>
    /// <param name="Refreshed">The lessons that are planned to.</param>
    public sealed record KeptThing(
        Guid PostureId,
        Side Side,
        string Name,
        int Seconds,
        DateOnly Due,
        int? HoldsDays,
        KeptChange? Changed,
        IReadOnlyList<KeptOn> Refreshed,
        IReadOnlyList<KeptLate> Late
    );

    /// <param name="Postures">Indexes of what it touches.</param>
    /// <param name="RunThrough">The lessons that are planned to.</param>
    public sealed record KeptStretch(
        string Name,
        IReadOnlyList<int> Postures,
        int Seconds,
        IReadOnlyList<KeptOn> RunThrough
    );

    public sealed record KeptChange(DateOnly Since, string Difference);

    public sealed record KeptOn(DateOnly Date, string Because);

    /// <param name="Date">The lesson that touches it then; null where none does.</param>
    public sealed record KeptLate(DateOnly Due, DateOnly? Date);

    /// <summary>One posture led to several cohorts at once.</summary>
    public sealed record Block(
        DateOnly Date,
        Guid PostureId,
        Side Side,
        IReadOnlyList<Guid> CohortIds,
        int Seconds,
        int SavedSeconds
    );

    public static PlanSnapshot Of(SolvedTerm term) => new SnapshotWriter(term).Write();

    /// <exception cref="NotSupportedException">A newer version of the program wrote it.</exception>
    public SolvedTerm Solved() =>
        Version <= Current
            ? new SnapshotReader(this).Read()
            : throw new NotSupportedException(
                $"This plan was written in shape {Version}; this version reads up to {Current}."
            );
}
