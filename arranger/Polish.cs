using Zeitplan.Core.Lessons;

namespace Zeitplan.Arranger;

/// <summary>Makes an arrangement better by little: a visit a minute longer or earlier, another teacher, a visit more or
/// less, a task somewhat sooner. Only what keeps every hard rule that is kept already, and never for the worse.</summary>
internal sealed class Polish
{
    private const int FurthestMove = 5;
    private const int ShortestPractice = 2;
    private readonly LessonFacts facts;
    private readonly Random random = new(1);
    private readonly List<Step> steps;

    /// <summary>What is done with each cohort, in its order, and what that costs.</summary>
    private readonly List<Step>[] own;
    private readonly long[] points;

    private Polish(LessonFacts facts, IEnumerable<Step> steps)
    {
        (this.facts, this.steps) = (facts, [.. steps]);
        own = [.. facts.Problem.Cohorts.Select((_, cohort) => Measures.Own(this.steps, cohort))];
        points = [.. own.Select((steps, cohort) => Measures.OfCohort(facts, steps, cohort))];
    }

    public static IReadOnlyList<Step> Of(LessonFacts facts, IReadOnlyList<Step> steps, int tries)
    {
        var polish = new Polish(facts, steps);
        if (facts.Problem.Teachers.Count > 0 && facts.Problem.Cohorts.Count > 0)
        {
            for (var at = 0; at < tries; at++)
            {
                polish.Try();
            }
        }

        return [.. polish.steps.OrderBy(step => step.Start)];
    }

    private void Try()
    {
        var place = random.Next(steps.Count + 1);
        var before = place < steps.Count ? steps[place] : null;
        var isMore = before is null || random.Next(8) == 0;
        var after =
            random.Next(3) == 0 && LeftOut(before is { Task: null } ? before : null) is { } task ? task
            : isMore ? NewVisit()
            : Changed(before!);
        if (before is not null && after == before)
        {
            return;
        }

        // Another task, or a visit beside a task, replaces nothing.
        var isAdded =
            before is null || (after is not null && before.Task is not null && before.Task.Key != after.Task?.Key);
        var gone = isAdded ? null : before;
        if ((after is null || IsAllowed(after, gone)) && Cost(gone, after) is { } change)
        {
            Take(place, gone, after, change);
        }
    }

    /// <summary>What becomes of each cohort it is about; null where a rule is broken, or it would be for the
    /// worse.</summary>
    private List<(int Cohort, List<Step> Own, long Points)>? Cost(Step? gone, Step? added)
    {
        var worse =
            (added is null ? 0 : Measures.OfStep(facts, added)) - (gone is null ? 0 : Measures.OfStep(facts, gone));
        if (added?.Task is { } task && gone?.Task is null)
        {
            worse -= Measures.LeftOut(task.Kind);
        }

        List<(int, List<Step>, long)> change = [];
        foreach (var cohort in (gone?.Cohorts ?? []).Union(added?.Cohorts ?? []))
        {
            List<Step> now = [.. own[cohort].Where(step => !ReferenceEquals(step, gone))];
            if (added is not null && added.Cohorts.Contains(cohort))
            {
                var at = now.FindIndex(step => step.Start > added.Start);
                now.Insert(at < 0 ? now.Count : at, added);
            }

            if (!IsAllowedIn(cohort, now))
            {
                return null;
            }

            var cost = Measures.OfCohort(facts, now, cohort);
            worse += cost - points[cohort];
            change.Add((cohort, now, cost));
        }

        return worse <= 0 ? change : null;
    }

    private void Take(int place, Step? gone, Step? added, List<(int Cohort, List<Step> Own, long Points)> change)
    {
        if (gone is null)
        {
            steps.Add(added!);
        }
        else if (added is null)
        {
            steps.RemoveAt(place);
        }
        else
        {
            steps[place] = added;
        }

        foreach (var (cohort, now, cost) in change)
        {
            (own[cohort], points[cohort]) = (now, cost);
        }
    }

    /// <summary>A task that has no place yet, instead of a visit or somewhere; null where there is none.</summary>
    private Step? LeftOut(Step? visit)
    {
        var problem = facts.Problem;
        var left = problem.Tasks.Where(task => steps.All(step => step.Task?.Key != task.Key)).ToList();
        if (left.Count == 0)
        {
            return null;
        }

        var task = left[random.Next(left.Count)];
        var start =
            facts.PinOf(task)?.Start
            ?? visit?.Start
            ?? random.Next(problem.Begins, Math.Max(problem.Begins + 1, problem.Ends));
        return new(
            task,
            facts.CohortsOf[task.Key],
            start,
            start + facts.Staying(task),
            visit?.Teacher ?? random.Next(problem.Teachers.Count)
        );
    }

    private Step NewVisit()
    {
        var problem = facts.Problem;
        var cohort = random.Next(problem.Cohorts.Count);
        var start = random.Next(problem.Begins, Math.Max(problem.Begins + 1, problem.Ends));
        return new(
            null,
            [cohort],
            start,
            start + problem.Rules.ShortestVisit(problem.Cohorts[cohort].People),
            random.Next(problem.Teachers.Count)
        );
    }

    /// <summary>The step somewhat different; null for a visit that is left out.</summary>
    private Step? Changed(Step step)
    {
        var by = random.Next(1, FurthestMove + 1) * (random.Next(2) == 0 ? 1 : -1);
        return (step.Task is null ? random.Next(5) : random.Next(3)) switch
        {
            0 => step with { Teacher = random.Next(facts.Problem.Teachers.Count) },
            1 or 2 => facts.IsFixed(step) ? step : step with { Start = step.Start + by, End = step.End + by },
            3 => random.Next(4) == 0 ? null
            : random.Next(2) == 0 ? step with { End = step.End + by }
            : step with { Start = step.Start + by },
            _ => step with { End = step.End + (by > 0 ? 1 : -1) },
        };
    }

    private bool IsAllowed(Step changed, Step? gone)
    {
        var problem = facts.Problem;
        var teacher = problem.Teachers[changed.Teacher];
        if (
            changed.Start < Math.Max(problem.Begins, teacher.From)
            || changed.End > Math.Min(problem.Ends, teacher.Until)
            || !changed.Cohorts.All(cohort => facts.MayLead[changed.Teacher][cohort])
            || (changed.Task is { } task && !facts.CanLead(changed.Teacher, task))
        )
        {
            return false;
        }

        foreach (var other in steps)
        {
            if (
                !ReferenceEquals(other, gone)
                && other.Teacher == changed.Teacher
                && other.Start < changed.End
                && other.End > changed.Start
            )
            {
                return false;
            }
        }

        return true;
    }

    private bool IsAllowedIn(int cohort, List<Step> own)
    {
        var problem = facts.Problem;
        var owes = problem.Cohorts[cohort].StillToPractise;
        var (minute, place) = (problem.Begins, 0);
        var sinceNew = owes > 0 ? problem.Rules.PractiseAfterNew - owes : int.MaxValue;
        var longest = facts.LongestAlone[cohort];
        if (longest == 0 && owes > 0 && own is [var next, ..] && (next.Task is not null || next.Minutes < owes))
        {
            return false;
        }

        foreach (var step in own)
        {
            var alone = step.Start - minute;
            if (alone < 0 || alone is > 0 and < ShortestPractice || (alone > 0 && longest == 0))
            {
                return false;
            }

            sinceNew = sinceNew == int.MaxValue ? sinceNew : sinceNew + alone;
            if (step.Task is { } task)
            {
                var at = facts.PlaceOf(cohort, task);
                if (
                    at < place
                    || (task.Kind == BlockKind.New && longest > 0 && sinceNew < problem.Rules.PractiseAfterNew)
                )
                {
                    return false;
                }

                (place, sinceNew) = (at, task.Kind == BlockKind.New && longest > 0 ? 0 : sinceNew);
                if (task.Kind == BlockKind.New && step.Start >= problem.Minutes - problem.Rules.NoNewInLast)
                {
                    return false;
                }
            }
            else if (
                longest > 0
                && (
                    step.Minutes < problem.Rules.ShortestVisit(problem.Cohorts[cohort].People)
                    || step.Minutes > problem.Rules.LongestVisit
                )
            )
            {
                return false;
            }
            else if (step.Minutes < ShortestPractice && longest == 0)
            {
                return false;
            }

            minute = step.End;
        }

        var end = problem.Ends - minute;
        return end == 0 || (end >= ShortestPractice && longest > 0);
    }
}
