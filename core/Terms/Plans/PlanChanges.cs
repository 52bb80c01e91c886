using System.Globalization;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>A unit that is in another lesson than before.</summary>
/// <param name="From">Null when it was in no lesson; <paramref name="To"/> when it is in none now.</param>
public sealed record UnitMove(UnitKey Key, string Name, DateOnly? From, DateOnly? To, string Because);

/// <summary>How well a plan does by a cohort.</summary>
/// <param name="LeftSeconds">Of units no lesson has room for.</param>
/// <param name="LateUnits">Introduced after their target.</param>
/// <param name="LateReviews">Reviews that are held late or not at all.</param>
public sealed record CohortOutlook(Seconds LeftSeconds, int LateUnits, int LateReviews, DateOnly? Finish);

/// <summary>What one plan changes for a cohort against another.</summary>
/// <param name="ReviewsMoved">Reviews of units that stay, held in another lesson than before.</param>
public sealed record CohortChange(
    Guid CohortId,
    string Name,
    IReadOnlyList<UnitMove> Moves,
    int ReviewsMoved,
    CohortOutlook Before,
    CohortOutlook After
);

/// <summary>What moved between two plans of one class's term, why, and what each cohort gains or loses (domain.md 4.3,
/// "Re-planning").</summary>
public static class PlanChanges
{
    /// <returns>The cohorts for which something changed.</returns>
    public static IReadOnlyList<CohortChange> Between(SolvedTerm before, SolvedTerm after) =>
        [
            .. after
                .Problem.Cohorts.Select(cohort => Of(cohort, before, after))
                .Where(change => change.Moves.Count > 0 || change.ReviewsMoved > 0 || change.Before != change.After),
        ];

    private static CohortChange Of(CohortProblem cohort, SolvedTerm before, SolvedTerm after)
    {
        var (was, now) = (Placements(before, cohort.Id), Placements(after, cohort.Id));
        var left =
            after.Answered(cohort.Id)?.LeftOver.ToDictionary(unit => cohort.Units[unit.Unit].Key, unit => unit.Because)
            ?? [];
        var names = (before.Asked(cohort.Id)?.Units ?? [])
            .Concat(cohort.Units)
            .GroupBy(unit => unit.Key)
            .ToDictionary(same => same.Key, same => same.Last().Name);
        var moves =
            from key in names.Keys
            let place = (
                From: was.TryGetValue(key, out var old) ? before.DateOf(old.Lesson) : (DateOnly?)null,
                To: now.TryGetValue(key, out var here) ? after.DateOf(here.Lesson) : (DateOnly?)null
            )
            where place.From != place.To
            orderby place.To ?? DateOnly.MaxValue, place.From
            select new UnitMove(key, names[key], place.From, place.To, Because(key, place.From, now, left, after));
        var reviews = now.Where(placed =>
                was.TryGetValue(placed.Key, out var old)
                && before.DateOf(old.Lesson) == after.DateOf(placed.Value.Lesson)
            )
            .Sum(placed =>
                placed
                    .Value.Reviews.Select(review => after.DateOf(review.Lesson))
                    .Except(was[placed.Key].Reviews.Select(review => before.DateOf(review.Lesson)))
                    .Count()
            );
        return new(
            cohort.Id,
            cohort.Name,
            [.. moves],
            reviews,
            OutlookOf(before, cohort.Id),
            OutlookOf(after, cohort.Id)
        );
    }

    private static Dictionary<UnitKey, Placement> Placements(SolvedTerm term, Guid cohort) =>
        term.Asked(cohort) is { } asked && term.Answered(cohort) is { } plan
            ? plan.Placements.ToDictionary(placement => asked.Units[placement.Unit].Key)
            : [];

    private static string Because(
        UnitKey key,
        DateOnly? from,
        Dictionary<UnitKey, Placement> now,
        Dictionary<UnitKey, string> left,
        SolvedTerm after
    )
    {
        var gone =
            from is not { } date ? ""
            : after.Problem.Closed.FirstOrDefault(closure => closure.Date == date) is { } closure
                ? $"{Day(date)} is closed: {closure.Reason}."
            : after.Problem.Lessons.FirstOrDefault(lesson => lesson.Date == date) is not { } lesson
                ? $"There is no lesson on {Day(date)} any more."
            : lesson.Held ? $"It was not taught on {Day(date)}."
            : lesson.Kind == LessonKind.Test ? $"{Day(date)} is a test now."
            : lesson.Kind == LessonKind.Consolidation ? $"{Day(date)} comes before a test now and brings nothing new."
            : "";
        var here = now.TryGetValue(key, out var placement)
            ? placement.Because
            : left.GetValueOrDefault(key, "It is no longer part of what the cohort has been given.");
        return gone.Length > 0 ? $"{gone} {here}" : here;
    }

    /// <summary>What a cohort has of a plan; nothing when the plan does not know it.</summary>
    public static CohortOutlook OutlookOf(SolvedTerm term, Guid cohort)
    {
        if (term.Asked(cohort) is not { } asked || term.Answered(cohort) is not { } plan)
        {
            return new(default, 0, 0, null);
        }

        return new(
            plan.LeftSeconds,
            plan.Placements.Count(placement =>
                placement.Unit >= asked.IntroducedIn.Count && placement.Lesson > asked.TargetOf(placement.Unit)
            ),
            plan.Dropped.Count
                + plan.Placements.Sum(placement =>
                    placement.Reviews.Count(review => review.Late && !term.Problem.Lessons[review.Lesson].Held)
                ),
            plan.FinishLesson is { } finish ? term.DateOf(finish) : null
        );
    }

    private static string Day(DateOnly date) => date.ToString("d MMMM", CultureInfo.InvariantCulture);
}
