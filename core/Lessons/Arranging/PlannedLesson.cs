using System.Globalization;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>What a term plan asks of one lesson, in tasks on whole minutes (domain.md 4.3, 4.4).</summary>
/// <param name="Whole">What the whole class does, warm-up and settling included.</param>
public sealed record PlannedLesson(IReadOnlyList<LessonTask> Tasks, IReadOnlyList<WholeClass> Whole)
{
    /// <summary>A together block is as long as the longest run-through in it, within this.</summary>
    private const int LongestTogether = 12;

    /// <summary>A run-through of everybody is not worth beginning for less.</summary>
    public const int LeastTogether = 4;
    private const int RestMinutes = 3;
    private const string Relearn = "relearn ";

    /// <summary>An adapted group sits for a while in a lesson at least this long.</summary>
    private const int RestFrom = 40;

    /// <param name="restful">Cohorts that sit down for a while: adapted groups.</param>
    /// <param name="warmUp">What the school begins with.</param>
    public static PlannedLesson Of(
        TermProblem problem,
        TermPlan plan,
        int lesson,
        IReadOnlySet<Guid> restful,
        IReadOnlyList<WarmUpPiece> warmUp
    )
    {
        var slot = problem.Lessons[lesson];
        var cohorts = problem
            .Cohorts.Zip(plan.Cohorts, (asked, planned) => (Asked: asked, Planned: planned))
            .Where(cohort => cohort.Asked.Units.Count > 0 || cohort.Planned.Kept.In(lesson).Any())
            .ToList();
        var running = cohorts.Where(cohort => cohort.Planned.Lessons[lesson].RunThroughSeconds > 0).ToList();
        var watching = Watching(
            slot,
            [.. cohorts.Where(cohort => Known(cohort.Asked, cohort.Planned, lesson).Count > 0)]
        );
        var isTogether = slot.Kind != LessonKind.Test && running.Count > 1;
        List<LessonTask> tasks =
        [
            .. Led(cohorts, plan, lesson),
            .. cohorts.SelectMany(cohort =>
                ByItself(
                    cohort.Asked,
                    cohort.Planned,
                    lesson,
                    slot,
                    watching.GetValueOrDefault(cohort.Asked.Id),
                    isTogether
                )
            ),
            .. cohorts.SelectMany(cohort =>
                cohort.Planned.Kept.In(lesson).Select(refresh => Kept(cohort.Asked, refresh))
            ),
            .. slot.TeachableSeconds >= RestFrom * 60
                ? cohorts
                    .Where(cohort => restful.Contains(cohort.Asked.Id))
                    .Select(cohort => new LessonTask(
                        $"rest {cohort.Asked.Id}",
                        BlockKind.Rest,
                        [cohort.Asked.Id],
                        RestMinutes,
                        "sitting, breathing as it comes",
                        "An adapted group sits for a while."
                    ))
                : [],
        ];
        return new(
            tasks,
            [
                new(BlockKind.WarmUp, LessonSlot.WarmUpMinutes, WarmUp.Say(warmUp), "Every lesson begins so.", false),
                .. isTogether
                    ?
                    [
                        new WholeClass(
                            BlockKind.Together,
                            Math.Clamp(
                                Minutes(running.Max(cohort => (int)cohort.Planned.Lessons[lesson].RunThroughSeconds)),
                                LeastTogether,
                                LongestTogether
                            ),
                            "from the beginning, each to where it knows",
                            $"{running.Count} cohorts run through what they share; it counts for each.",
                            true
                        ),
                    ]
                    : Array.Empty<WholeClass>(),
                .. slot.TalkSeconds > 0
                    ?
                    [
                        new WholeClass(
                            BlockKind.Talk,
                            Minutes(slot.TalkSeconds),
                            "a talk",
                            "The term plan has it.",
                            true
                        ),
                    ]
                    : Array.Empty<WholeClass>(),
                new(BlockKind.Settle, LessonSlot.SettleMinutes, "standing quietly", "Every lesson ends so.", true),
            ]
        );
    }

    /// <summary>What is new and what is reviewed; what several cohorts are led in at once is one task.</summary>
    private static IEnumerable<LessonTask> Led(
        List<(CohortProblem Asked, CohortPlan Planned)> cohorts,
        TermPlan plan,
        int lesson
    )
    {
        var parts =
            from cohort in cohorts
            from placement in cohort.Planned.Placements
            let unit = cohort.Asked.Units[placement.Unit]
            let isReviewed = placement.Lesson < lesson
                && placement.Reviews.Any(review => review.Lesson == lesson && !review.InRunThrough)
            where placement.Lesson == lesson || isReviewed
            select (
                cohort.Asked.Id,
                Unit: unit,
                Kind: isReviewed ? BlockKind.Review : BlockKind.New,
                Seconds: isReviewed ? unit.ReviewSeconds : unit.IntroduceSeconds
            );
        foreach (
            var same in parts.GroupBy(part => (part.Kind, part.Unit.Key, SharedBy(plan, lesson, part.Unit, part.Id)))
        )
        {
            var ids = same.Select(part => part.Id).ToList();
            var (kind, unit) = (same.Key.Kind, same.First().Unit);
            yield return new(
                $"{kind} {unit.Kind} {unit.PostureId} {unit.Side} {unit.From?.PostureId} {string.Join('+', ids)}",
                kind,
                ids,
                Minutes(same.Max(part => (int)part.Seconds)),
                unit.Name,
                kind == BlockKind.New ? "It is this lesson's turn in the term plan." : "The term plan brings it back."
            )
            {
                Material = [unit.Of],
            };
        }
    }

    /// <summary>The cohorts that are led in it together; the cohort itself where it is led alone.</summary>
    private static string SharedBy(TermPlan plan, int lesson, TeachingUnit unit, Guid cohort) =>
        plan.Shared.FirstOrDefault(block =>
            block.Lesson == lesson
            && block.PostureId == unit.PostureId
            && block.Side == unit.Side
            && block.CohortIds.Contains(cohort)
        )
            is { } block
            ? string.Join('+', block.CohortIds)
            : $"{cohort}";

    /// <summary>The minutes a lesson keeps for watching, to each cohort by how many there are to see.</summary>
    private static Dictionary<Guid, int> Watching(
        LessonSlot slot,
        List<(CohortProblem Asked, CohortPlan Planned)> cohorts
    )
    {
        var (minutes, people) = (slot.WatchSeconds / 60, cohorts.Sum(cohort => cohort.Asked.People));
        if (minutes == 0 || people == 0)
        {
            return [];
        }

        var shares = cohorts.ToDictionary(cohort => cohort.Asked.Id, cohort => minutes * cohort.Asked.People / people);
        // What does not divide goes to whoever has most to see for a minute.
        foreach (
            var cohort in cohorts
                .OrderByDescending(cohort => minutes * cohort.Asked.People % people)
                .Take(minutes - shares.Values.Sum())
        )
        {
            shares[cohort.Asked.Id]++;
        }

        return shares;
    }

    private static List<TeachingUnit> Known(CohortProblem cohort, CohortPlan plan, int lesson) =>
        [.. plan.Placements.Where(placement => placement.Lesson < lesson).Select(its => cohort.Units[its.Unit])];

    /// <param name="watching">Of the minutes the lesson keeps for that.</param>
    private static IEnumerable<LessonTask> ByItself(
        CohortProblem cohort,
        CohortPlan plan,
        int lesson,
        LessonSlot slot,
        int watching,
        bool isTogether
    )
    {
        var content = plan.Lessons[lesson];
        var known = Known(cohort, plan, lesson);
        if (content.LeadInSeconds > 0 && known.Count > 0)
        {
            yield return Task(
                BlockKind.LeadIn,
                content.LeadInSeconds,
                known[^1].Name,
                "There the last lesson ended.",
                [known[^1].Of]
            );
        }

        if (content.WatchSeconds + watching > 0)
        {
            yield return Task(
                BlockKind.Watch,
                new(content.WatchSeconds + (60 * watching)),
                Range([.. known.Select(unit => unit.Name)]),
                watching > 0 ? "Minutes are kept to see everybody." : "Everybody is truly seen.",
                [.. known.Select(unit => unit.Of)]
            );
        }

        if (content.RunThroughSeconds > 0 && !isTogether)
        {
            yield return Task(
                slot.Kind == LessonKind.Test ? BlockKind.Test : BlockKind.RunThrough,
                content.RunThroughSeconds,
                Range([.. known.Select(unit => unit.Name)]),
                "From the beginning to what is known.",
                [.. known.Select(unit => unit.Of)]
            );
        }

        LessonTask Task(
            BlockKind kind,
            Seconds seconds,
            string what,
            string because,
            IReadOnlyList<PostureSide> material
        ) => new($"{kind} {cohort.Id}", kind, [cohort.Id], Minutes(seconds), what, because) { Material = material };
    }

    /// <summary>What keeps what a cohort can do: a run-through, a review, or the difference told.</summary>
    private static LessonTask Kept(CohortProblem cohort, Refresh refresh)
    {
        var (keeping, minutes) = (cohort.Keeping, Minutes(refresh.Seconds));
        var name = keeping.NameOf(refresh);
        IReadOnlyList<PostureSide> material = [.. keeping.TouchedBy(refresh)];
        if (refresh.Posture is not { } posture)
        {
            return new($"keep {cohort.Id} {name}", BlockKind.RunThrough, [cohort.Id], minutes, name, refresh.Because)
            {
                Material = material,
            };
        }

        var of = keeping.Postures[posture].Of;
        return keeping.Postures[posture].Changed is { } changed
            ? new(
                KeyOfADifference(cohort.Id, of, changed.Since),
                BlockKind.ReTeach,
                [cohort.Id],
                minutes,
                $"{name}: {changed.Difference}",
                refresh.Because
            )
            {
                Material = material,
            }
            : new(
                $"keep {cohort.Id} {of.PostureId} {of.Side}",
                BlockKind.Review,
                [cohort.Id],
                minutes,
                name,
                refresh.Because
            )
            {
                Material = material,
            };
    }

    /// <summary>Whether the plan asks for it or somebody at the desk does, it is one task.</summary>
    public static string KeyOfADifference(Guid cohort, PostureSide of, DateOnly since) =>
        string.Create(CultureInfo.InvariantCulture, $"{Relearn}{cohort} {of.PostureId} {of.Side} {since:yyyy-MM-dd}");

    /// <summary>It tells what the school does otherwise, and mends no fault.</summary>
    public static bool IsADifference(string? task) => task?.StartsWith(Relearn, StringComparison.Ordinal) == true;

    /// <summary>From its first to its last: "Opening to Push, right".</summary>
    public static string Range(IReadOnlyList<string> names) =>
        names.Count switch
        {
            0 => "",
            1 => names[0],
            2 => $"{names[0]}; {names[1]}",
            _ => $"{names[0]} to {names[^1]}",
        };

    private static int Minutes(int seconds) => Math.Max(1, (int)Math.Round(seconds / 60.0));
}
