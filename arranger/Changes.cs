using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>Proposes small changes of an arrangement: what goes, and what comes instead. A visit that is in the way of what
/// comes gives way.</summary>
internal sealed class Changes(
    LessonFacts facts,
    Random random,
    List<Step> steps,
    List<Step>[] own,
    List<Step>[] led,
    List<LessonTask> left
)
{
    private const int FurthestMove = 6;
    private const int FurthestBorder = 3;
    private const int FurthestVisit = 8;
    private const int FurthestPlace = 4;

    /// <summary>One change in so many is an exchange of a stretch between two teachers.</summary>
    private const int Exchanges = 8;

    public List<Step> Gone { get; } = [];
    public List<Step> Added { get; } = [];

    /// <summary>Whose time what is proposed is about.</summary>
    public bool[] TouchesTeacher { get; } = new bool[led.Length];
    public bool[] TouchesCohort { get; } = new bool[own.Length];

    /// <returns>False where nothing sensible came up.</returns>
    public bool Come()
    {
        Gone.Clear();
        Added.Clear();
        if (!Propose())
        {
            return false;
        }

        Array.Clear(TouchesTeacher);
        Array.Clear(TouchesCohort);
        Touch(Gone);
        Touch(Added);
        return true;
    }

    private void Touch(List<Step> changed)
    {
        foreach (var step in changed)
        {
            TouchesTeacher[step.Teacher] = true;
            foreach (var cohort in step.Cohorts)
            {
                TouchesCohort[cohort] = true;
            }
        }
    }

    private bool Propose()
    {
        if (left.Count > 0 && random.Next(4) == 0)
        {
            return PutIn(left[random.Next(left.Count)]);
        }

        if (steps.Count == 0 || random.Next(8) == 0)
        {
            return ComeBy();
        }

        var step = steps[random.Next(steps.Count)];
        if (random.Next(Exchanges) == 0)
        {
            return InExchange(step);
        }

        return random.Next(step.Task is null ? 11 : 4) switch
        {
            0 => ByAnother(step),
            1 => Elsewhere(step, random.Next(1, FurthestMove + 1) * EitherWay()),
            2 => InTheOtherOrder(step),
            3 => AcrossTheBorder(step),
            4 => Instead(step, step with { End = step.End + EitherWay() }),
            5 => Instead(step, step with { Start = step.Start + EitherWay() }),
            6 => InTwo(step),
            7 => WithTheNext(step),
            8 or 9 => FromOneToAnother(step),
            _ => random.Next(3) == 0 ? Without(step) : WithAnotherCohort(step),
        };
    }

    public bool IsGone(Step step) => Gone.Contains(step);

    private int EitherWay() => random.Next(2) == 0 ? 1 : -1;

    private bool Without(Step visit)
    {
        Gone.Add(visit);
        return true;
    }

    private bool Instead(Step visit, Step changed)
    {
        Gone.Add(visit);
        Added.Add(changed);
        return changed.End > changed.Start;
    }

    /// <summary>Somebody who is busy meanwhile changes places, or gives up a visit.</summary>
    private bool ByAnother(Step step)
    {
        var teacher = random.Next(led.Length);
        if (teacher == step.Teacher)
        {
            return false;
        }

        Gone.Add(step);
        Added.Add(step with { Teacher = teacher });
        var changesPlaces = random.Next(2) == 0;
        foreach (var other in led[teacher])
        {
            if (!other.Overlaps(step))
            {
                continue;
            }

            Gone.Add(other);
            if (changesPlaces)
            {
                Added.Add(other with { Teacher = step.Teacher });
            }
            else if (other.Task is not null)
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>From a minute on two teachers do what the other would have done: for a while, or to the end.</summary>
    private bool InExchange(Step first)
    {
        var (teacher, other) = (first.Teacher, random.Next(led.Length));
        var until = random.Next(3) == 0 ? facts.Ends : first.End + random.Next(facts.Window / 2);
        return other != teacher && Give(teacher, other, first.Start, until) && Give(other, teacher, first.Start, until);
    }

    private bool Give(int teacher, int to, int from, int until)
    {
        foreach (var step in led[teacher])
        {
            if (step.Start >= until || step.End <= from)
            {
                continue;
            }

            if (step.Start < from || step.End > until)
            {
                return false;
            }

            Gone.Add(step);
            Added.Add(step with { Teacher = to });
        }

        return true;
    }

    private bool Elsewhere(Step step, int by)
    {
        Gone.Add(step);
        return !facts.IsFixed(step) && Place(step.Later(by));
    }

    private bool WithAnotherCohort(Step visit)
    {
        Gone.Add(visit);
        return Place(visit with { Cohorts = [random.Next(own.Length)] });
    }

    private bool ComeBy()
    {
        var problem = facts.Problem;
        var cohort = random.Next(own.Length);
        var (from, until) = LongestAlone(cohort);
        var start = random.Next(from, until);
        var minutes = problem.Rules.ShortestVisit(problem.Cohorts[cohort].People) + random.Next(3);
        return Place(new(null, [cohort], start, start + minutes, random.Next(led.Length)));
    }

    /// <summary>Where a cohort is by itself for too long, and longest; anywhere, where it is not.</summary>
    private (int From, int Until) LongestAlone(int cohort)
    {
        var (longest, found, minute) = (facts.LongestAlone[cohort], (facts.Begins, facts.Ends), facts.Begins);
        foreach (var step in own[cohort])
        {
            Alone(step.Start);
            minute = step.End;
        }

        Alone(facts.Ends);
        return found;

        void Alone(int until)
        {
            if (until - minute > longest)
            {
                (longest, found) = (until - minute, (minute, until));
            }
        }
    }

    private bool PutIn(LessonTask task)
    {
        var problem = facts.Problem;
        var start = facts.PinOf(task)?.Start ?? random.Next(facts.Begins, facts.Ends);
        return Place(new(task, facts.CohortsOf[task.Key], start, start + facts.Staying(task), random.Next(led.Length)));
    }

    /// <summary>A teacher does one thing after what comes next, or the other way round; or after several.</summary>
    private bool InTheOtherOrder(Step step)
    {
        var its = led[step.Teacher];
        var first = its.IndexOf(step);
        var last = first + 1 + (random.Next(2) == 0 ? 0 : random.Next(FurthestPlace));
        if (last >= its.Count)
        {
            return false;
        }

        var isLater = random.Next(2) == 0;
        var (moved, from, to) = isLater ? (its[first], first + 1, last) : (its[last], first, last - 1);
        var by = isLater ? its[first].Start - its[from].Start : its[last].End - its[to].End;
        Gone.Add(moved);
        Added.Add(moved.Later((isLater ? its[last].End - moved.Minutes : its[first].Start) - moved.Start));
        for (var at = from; at <= to; at++)
        {
            Gone.Add(its[at]);
            Added.Add(its[at].Later(by));
        }

        return Gone.TrueForAll(gone => !facts.IsFixed(gone));
    }

    /// <summary>One thing ends later and the next begins later, or both earlier; of a teacher, or of a cohort.</summary>
    private bool AcrossTheBorder(Step step)
    {
        var among = random.Next(2) == 0 ? led[step.Teacher] : own[step.Cohorts[0]];
        if (Next(among, step) is not { } next || facts.IsFixed(step) || facts.IsFixed(next))
        {
            return false;
        }

        var by = EitherWay() * random.Next(1, FurthestBorder + 1);
        Gone.Add(step);
        Gone.Add(next);
        Added.Add(step.Task is null && random.Next(3) > 0 ? step with { End = step.End + by } : step.Later(by));
        Added.Add(next.Task is null && random.Next(3) > 0 ? next with { Start = next.Start + by } : next.Later(by));
        return Added.TrueForAll(changed => changed.Minutes > 0);
    }

    /// <summary>A teacher stays with one cohort for a minute less and with another for one more, and what is done between comes
    /// a minute earlier or later.</summary>
    private bool FromOneToAnother(Step visit)
    {
        var its = led[visit.Teacher];
        var (first, by) = (its.IndexOf(visit), EitherWay());
        var last = first + 1 + random.Next(FurthestVisit);
        if (last >= its.Count || its[last].Task is not null)
        {
            return false;
        }

        var between = its.GetRange(first + 1, last - first - 1);
        Gone.AddRange(its.GetRange(first, last - first + 1));
        Added.Add(visit with { End = visit.End + by });
        foreach (var step in between)
        {
            Added.Add(step.Later(by));
        }

        Added.Add(its[last] with { Start = its[last].Start + by });
        return Added[0].Minutes > 0 && Added[^1].Minutes > 0 && !between.Exists(facts.IsFixed);
    }

    /// <summary>Somebody else comes for a part of a visit.</summary>
    private bool InTwo(Step visit)
    {
        if (visit.Minutes < 2)
        {
            return false;
        }

        var at = visit.Start + random.Next(1, visit.Minutes);
        Step[] parts = [visit with { End = at }, visit with { Start = at }];
        var other = random.Next(2);
        Gone.Add(visit);
        Added.Add(parts[1 - other]);
        return Place(parts[other] with { Teacher = random.Next(led.Length) });
    }

    /// <summary>One teacher stays for two visits of a cohort that follow one another.</summary>
    private bool WithTheNext(Step visit)
    {
        if (Next(own[visit.Cohorts[0]], visit) is not { Task: null } next || next.Start != visit.End)
        {
            return false;
        }

        Gone.Add(visit);
        Gone.Add(next);
        return Place((random.Next(2) == 0 ? visit : next) with { Start = visit.Start, End = next.End });
    }

    private static Step? Next(List<Step> among, Step step)
    {
        var at = among.IndexOf(step);
        return at + 1 < among.Count ? among[at + 1] : null;
    }

    private bool Place(Step step)
    {
        Added.Add(step);
        foreach (var other in led[step.Teacher])
        {
            if (!GivesWay(other, step))
            {
                return false;
            }
        }

        foreach (var cohort in step.Cohorts)
        {
            foreach (var other in own[cohort])
            {
                if (!GivesWay(other, step))
                {
                    return false;
                }
            }
        }

        return true;
    }

    private bool GivesWay(Step other, Step to)
    {
        if (!other.Overlaps(to) || IsGone(other))
        {
            return true;
        }

        if (other.Task is not null)
        {
            return false;
        }

        Gone.Add(other);
        if (to.Start - other.Start >= Math.Max(1, other.Minutes / 2))
        {
            Added.Add(other with { End = to.Start });
        }
        else if (other.End - to.End >= Math.Max(1, other.Minutes / 2))
        {
            Added.Add(other with { Start = to.End });
        }

        return true;
    }
}
