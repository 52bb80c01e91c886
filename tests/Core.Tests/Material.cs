using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests;

/// <summary>Small pieces of a school for tests to be about.</summary>
internal static class Material
{
    public static readonly DateOnly FirstTuesday = new(2026, 9, 1);

    public static Posture Posture(string name, Side side, int counts, int seatedCounts = 0, int difficulty = 1) =>
        Core.Forms.Posture.Create(
            Guid.NewGuid(),
            Text(name, side) with
            {
                Difficulty = difficulty,
                Counts = Counts(counts),
                Versions =
                    seatedCounts == 0
                        ? []
                        : [new(Mode.Seated, Counts(seatedCounts), [], "the weight shifts on the seat")],
            }
        );

    /// <summary>A posture whose feet are written: the stand it starts from and a line of steps for each
    /// count.</summary>
    public static Posture Stepped(string name, Side side, string entry, params string[] feet) =>
        Core.Forms.Posture.Create(
            Guid.NewGuid(),
            Text(name, side) with
            {
                Entry = entry,
                Counts = [.. feet.Select((steps, at) => new Count($"count {at + 1}", steps))],
            }
        );

    private static PostureText Text(string name, Side side) =>
        new()
        {
            Name = name,
            WrittenSide = side,
            NamedBy = side == Side.Symmetric ? SideNamedBy.Nothing : SideNamedBy.LeadingFoot,
            KeyPoint = "the hand arrives with the foot",
        };

    /// <summary>Something seen at seven in the evening, by whoever and of whoever it may be.</summary>
    public static Observation Saw(PostureSide of, DateOnly date, Sign sign) =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            date,
            Guid.Empty,
            of.PostureId,
            of.Side,
            sign,
            null,
            null,
            "",
            null,
            Guid.Empty,
            new(date, new(19, 0), TimeSpan.Zero)
        );

    /// <summary>Reviewed with whoever was there, in whatever class.</summary>
    public static TaughtFact Taught(PostureSide of, DateOnly date) =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            date,
            Guid.Empty,
            UnitKind.Posture,
            of.PostureId,
            of.Side,
            null,
            null,
            TaughtHow.Reviewed,
            true,
            null,
            Guid.Empty,
            new(date, new(19, 0), TimeSpan.Zero)
        );

    /// <summary>Where somebody is whose cohort does not matter.</summary>
    public static IReadOnlyList<Place> NoPlace { get; } = [new(Guid.Empty, DateOnly.MinValue)];

    public static TeachingUnit Unit(int number, int counts = 5, int difficulty = 1)
    {
        var effort = new Effort(TeachingPattern.ShowTogetherWatch, counts, difficulty, Mode.Standing);
        return new(
            Guid.NewGuid(),
            Side.Left,
            $"Posture {number}",
            difficulty,
            counts,
            effort.IntroduceSeconds,
            effort.ReviewSeconds,
            effort.RunThroughSeconds,
            effort.Explain()
        );
    }

    public static IReadOnlyList<TeachingUnit> Units(int count) =>
        [.. Enumerable.Range(1, count).Select(number => Unit(number))];

    /// <summary>Weekly lessons of 90 minutes; the last is a test, the one before it consolidates.</summary>
    public static IReadOnlyList<LessonSlot> Lessons(int count, int staff = 2, int held = 0) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(at => new LessonSlot(
                    FirstTuesday.AddDays(7 * at),
                    LessonSlot.Teachable(90),
                    staff,
                    at == count - 1 ? LessonKind.Test
                        : at == count - 2 ? LessonKind.Consolidation
                        : LessonKind.Ordinary,
                    at < held
                )),
        ];

    public static CohortProblem Cohort(
        string name,
        IReadOnlyList<TeachingUnit> units,
        IReadOnlyList<int>? introducedIn = null,
        int maxNew = 2,
        int attended = 0,
        int target = 99
    ) => new(Guid.NewGuid(), name, 6, units, introducedIn ?? [], maxNew, attended, target, [], new(0));

    private static List<Count> Counts(int counts) =>
        [.. Enumerable.Range(1, counts).Select(number => new Count($"count {number}"))];
}
