using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>
/// A lesson arranged as a careful teacher would do it on paper, minute by minute: whoever has been alone for longest is
/// looked after first, what is asked comes in its order, and nobody begins something long while somebody else would be
/// left for too long meanwhile. A little chance in the choices, and the best of several tries.
/// </summary>
internal sealed class FirstArrangement
{
    private readonly LessonFacts facts;
    private readonly LessonProblem problem;
    private readonly Random random;
    private readonly double chance;
    private readonly List<Step> steps = [];
    private readonly int[] ledUntil;
    private readonly int[] practisedUntil;
    private readonly int[] led;
    private readonly int[] freeFrom;
    private readonly HashSet<string> done = [];
    private readonly List<Step> reserved = [];

    private FirstArrangement(LessonFacts facts, Random random, double chance)
    {
        (this.facts, problem, this.random, this.chance) = (facts, facts.Problem, random, chance);
        var cohorts = problem.Cohorts.Count;
        led = new int[cohorts];
        practisedUntil = [.. problem.Cohorts.Select(cohort => facts.Begins + cohort.StillToPractise)];
        ledUntil = [.. facts.AloneFor.Select(minutes => facts.Begins - minutes)];
        freeFrom = [.. problem.Teachers.Select(teacher => Math.Max(facts.Begins, teacher.From))];
    }

    /// <summary>The best of so many tries; the first of them leaves nothing to chance.</summary>
    public static IReadOnlyList<Step> Best(LessonFacts facts, int tries)
    {
        var random = new Random(1);
        return Enumerable
            .Range(0, tries)
            .Select(at => new FirstArrangement(facts, random, at == 0 ? 0 : Chance).Run())
            .MinBy(steps => Measures.Of(facts, steps))!;
    }

    private const double Chance = 0.35;

    private List<Step> Run()
    {
        Reserve();
        StayWithThoseNeverAlone();
        for (var minute = facts.Begins; minute < facts.Ends; minute++)
        {
            foreach (var step in reserved.Where(step => step.Start == minute))
            {
                Begin(step);
            }

            while (Choose(minute) is { } step)
            {
                Add(step);
                Begin(step);
            }
        }

        return steps;
    }

    /// <summary>What is fixed to a minute has its place before anything else.</summary>
    private void Reserve()
    {
        foreach (
            var (task, start) in problem
                .Tasks.Select(task => (task, facts.PinOf(task)?.Start))
                .Where(pinned => pinned.Start is not null)
                .OrderBy(pinned => pinned.Start)
        )
        {
            var (from, to) = (start!.Value, start.Value + facts.Staying(task));
            var free = Teachers()
                .Where(teacher =>
                    facts.CanLead(teacher, task)
                    && IsThere(teacher, from, to)
                    && !reserved.Any(other =>
                        (other.Teacher == teacher || other.Cohorts.Intersect(facts.CohortsOf[task.Key]).Any())
                        && other.Start < to
                        && other.End > from
                    )
                )
                .ToList();
            if (free.Count > 0 && from >= facts.Begins && to <= facts.Ends)
            {
                reserved.Add(new(task, facts.CohortsOf[task.Key], from, to, free[0]));
            }
        }

        steps.AddRange(reserved);
        done.UnionWith(reserved.Select(step => step.Task!.Key));
    }

    private IEnumerable<int> Teachers() => Enumerable.Range(0, problem.Teachers.Count);

    private bool IsThere(int teacher, int from, int to) =>
        problem.Teachers[teacher].From <= from && problem.Teachers[teacher].Until >= to;

    /// <summary>Somebody is with them from beginning to end: whoever can do the least elsewhere.</summary>
    private void StayWithThoseNeverAlone()
    {
        foreach (var cohort in Enumerable.Range(0, led.Length).Where(at => facts.LongestAlone[at] == 0))
        {
            var minute = facts.Begins;
            while (minute < facts.Ends)
            {
                if (reserved.FirstOrDefault(step => step.Cohorts.Contains(cohort) && Covers(step, minute)) is { } there)
                {
                    minute = there.End;
                    continue;
                }

                var teacher = Teachers()
                    .Where(at =>
                        facts.MayLead[at][cohort]
                        && freeFrom[at] <= minute
                        && problem.Teachers[at].Until > minute
                        && !reserved.Any(step => step.Teacher == at && Covers(step, minute))
                    )
                    .OrderBy(at => facts.MayLead[at].Count(may => may))
                    .Select(at => (int?)at)
                    .FirstOrDefault();
                minute = teacher is { } who ? StayFrom(cohort, who, minute) : minute + 1;
            }
        }
    }

    private static bool Covers(Step step, int minute) => step.Start <= minute && step.End > minute;

    /// <returns>The minute at which the teacher is gone.</returns>
    private int StayFrom(int cohort, int teacher, int minute)
    {
        var until = reserved
            .Where(step => (step.Teacher == teacher || step.Cohorts.Contains(cohort)) && step.Start > minute)
            .Select(step => step.Start)
            .Append(Math.Min(facts.Ends, problem.Teachers[teacher].Until))
            .Min();
        if (
            minute == facts.Begins
            && Math.Min(problem.Cohorts[cohort].StillToPractise, until - minute) is > 0 and var owed
        )
        {
            Add(new(null, [cohort], minute, minute + owed, teacher));
            minute += owed;
        }

        var own = facts.Order[cohort].Where(task => !done.Contains(task.Key) && facts.CanLead(teacher, task)).ToList();
        var spare = until - minute - own.Sum(facts.Staying);
        foreach (var (at, task) in own.Index())
        {
            var minutes = facts.Staying(task);
            if (facts.CohortsOf[task.Key].Length > 1 || minute + minutes > until)
            {
                continue;
            }

            Add(new(task, [cohort], minute, minute + minutes, teacher));
            minute += minutes;
            var stays = spare / Math.Max(1, own.Count - at);
            if (stays >= 2)
            {
                Add(new(null, [cohort], minute, minute + stays, teacher));
                (minute, spare) = (minute + stays, spare - stays);
            }
        }

        if (until - minute >= 2)
        {
            Add(new(null, [cohort], minute, until, teacher));
        }

        freeFrom[teacher] = until;
        return until;
    }

    private void Add(Step step)
    {
        steps.Add(step);
        if (step.Task is { } task)
        {
            done.Add(task.Key);
        }
    }

    private void Begin(Step step)
    {
        freeFrom[step.Teacher] = Math.Max(freeFrom[step.Teacher], step.End);
        foreach (var cohort in step.Cohorts)
        {
            ledUntil[cohort] = step.End;
            led[cohort] += step.Minutes;
            practisedUntil[cohort] =
                step.Task?.Kind == BlockKind.New ? step.End + problem.Rules.PractiseAfterNew : step.End;
        }
    }

    private Step? Choose(int minute)
    {
        Step? best = null;
        var most = double.MinValue;
        foreach (var teacher in Teachers().Where(at => freeFrom[at] <= minute && problem.Teachers[at].Until > minute))
        {
            for (var cohort = 0; cohort < led.Length; cohort++)
            {
                if (
                    facts.LongestAlone[cohort] == 0
                    || !facts.MayLead[teacher][cohort]
                    || practisedUntil[cohort] > minute
                    || ledUntil[cohort] > minute
                )
                {
                    continue;
                }

                foreach (var step in Possible(cohort, teacher, minute))
                {
                    var worth = Worth(step, minute) * (1 + (chance * random.NextDouble()));
                    if (worth > most && LeavesNobody(step, minute))
                    {
                        (best, most) = (step, worth);
                    }
                }
            }
        }

        return best;
    }

    private IEnumerable<Step> Possible(int cohort, int teacher, int minute)
    {
        var task = facts.Order[cohort].FirstOrDefault(task => !done.Contains(task.Key));
        var until = Math.Min(
            Math.Min(facts.Ends, problem.Teachers[teacher].Until),
            reserved
                .Where(step => (step.Teacher == teacher || step.Cohorts.Contains(cohort)) && step.Start >= minute)
                .Select(step => step.Start)
                .DefaultIfEmpty(facts.Ends)
                .Min()
        );
        if (
            task is not null
            && facts.CanLead(teacher, task)
            && minute + facts.Staying(task) <= until
            && facts.CohortsOf[task.Key].All(other => practisedUntil[other] <= minute && ledUntil[other] <= minute)
            && (task.Kind != BlockKind.New || minute < problem.Minutes - problem.Rules.NoNewInLast)
            && minute + facts.Staying(task) + (task.Kind == BlockKind.New ? problem.Rules.PractiseAfterNew : 0)
                <= facts.Ends
            && facts.CohortsOf[task.Key].All(other => minute - ledUntil[other] != 1)
        )
        {
            yield return new(task, facts.CohortsOf[task.Key], minute, minute + facts.Staying(task), teacher);
        }

        var alone = minute - ledUntil[cohort];
        var least = problem.Rules.ShortestVisit(problem.Cohorts[cohort].People);
        if (alone >= 2 || (alone == 0 && minute == facts.Begins))
        {
            foreach (var minutes in new[] { least, Math.Max(least, 4), problem.Rules.LongestVisit }.Distinct())
            {
                if (
                    minute + minutes <= until
                    && (task is null || minutes == least || alone >= facts.LongestAlone[cohort] - 2)
                )
                {
                    yield return new(null, [cohort], minute, minute + minutes, teacher);
                }
            }
        }
    }

    /// <summary>How much it matters that this is done now.</summary>
    private double Worth(Step step, int minute)
    {
        var cohort = step.Cohorts.MinBy(at => facts.LongestAlone[at] - (minute - ledUntil[at]));
        var slack = facts.LongestAlone[cohort] - (minute - ledUntil[cohort]);
        var urgency =
            slack <= 1 ? 60
            : slack <= 3 ? 12
            : 3.0;
        var left = facts.Order[cohort].Where(task => !done.Contains(task.Key)).Sum(facts.Staying);
        var late = left > 0 ? 30.0 * left / Math.Max(1, facts.Ends - minute) : 0;
        var behind = Math.Max(0, facts.Share[cohort] - led[cohort]) / 10.0;
        var fewer = steps.Any(other => other.Teacher == step.Teacher && other.Cohorts.Contains(cohort)) ? 2 : 0;
        return step.Task is not null
            ? urgency + 12 + late + behind + fewer
            : urgency + behind + fewer - (0.3 * step.Minutes);
    }

    /// <summary>Whether the others can still be looked after in time once this teacher does that.</summary>
    private bool LeavesNobody(Step step, int minute)
    {
        var free = freeFrom.ToArray();
        free[step.Teacher] = step.End;
        foreach (
            var cohort in Enumerable
                .Range(0, led.Length)
                .Where(at => facts.LongestAlone[at] > 0 && !step.Cohorts.Contains(at) && ledUntil[at] <= step.End)
                .OrderBy(at => ledUntil[at] + facts.LongestAlone[at])
        )
        {
            var deadline = ledUntil[cohort] + facts.LongestAlone[cohort];
            if (
                deadline >= facts.Ends
                || reserved.Any(its => its.Cohorts.Contains(cohort) && its.Start >= minute && its.Start <= deadline)
            )
            {
                continue;
            }

            var who = Teachers()
                .Where(at => facts.MayLead[at][cohort] && problem.Teachers[at].Until > Math.Max(minute, free[at]))
                .OrderBy(at => free[at])
                .Select(at => (int?)at)
                .FirstOrDefault();
            var from = who is { } teacher ? Math.Max(minute, free[teacher]) : int.MaxValue;
            if (from > deadline)
            {
                // Nobody could have come in time anyway.
                if (who is null || freeFrom[who.Value] > deadline)
                {
                    continue;
                }

                return false;
            }

            free[who!.Value] =
                Math.Max(from, practisedUntil[cohort]) + problem.Rules.ShortestVisit(problem.Cohorts[cohort].People);
        }

        return true;
    }
}
