namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>A lesson in its middle (domain.md 4.4): what has happened stands, and the rest is asked for anew.</summary>
internal static class LessonSoFar
{
    /// <returns>The problem from <see cref="LessonEdit.Since.Until"/> on. What somebody says of minutes that stand already
    /// changes nothing.</returns>
    public static LessonProblem Since(this LessonProblem problem, LessonEdit.Since edit)
    {
        if (edit.Until <= problem.Now)
        {
            return problem;
        }

        var from = Math.Clamp(edit.From, problem.Now, problem.Minutes);
        var until = Math.Clamp(edit.Until, from, problem.Minutes);
        var stood = Stood(problem, edit.Stood, from).ToList();
        var left = problem.Tasks.SelectMany(task => Left(task, edit.Stood, edit.From)).ToList();
        var goesOn = left.Where(task => edit.Stood.Any(block => IsGoingOn(block, task, edit.From)))
            .Select(task => new TaskPin(
                task.Key,
                until,
                edit.Stood.First(block => IsGoingOn(block, task, edit.From)).LedBy is { } leader
                && problem.Teachers.Any(teacher => teacher.Id == leader && teacher.Until >= until + task.Minutes)
                    ? leader
                    : null
            ))
            .ToList();
        return problem with
        {
            Now = until,
            Stood = [.. problem.Stood, .. stood, .. Lost(problem, from, until, edit.What)],
            Tasks = left,
            Pins =
            [
                .. goesOn,
                .. problem
                    .Pins.Where(pin => left.Any(task => task.Key == pin.Key) && goesOn.All(its => its.Key != pin.Key))
                    .Select(pin => pin.Start < until ? pin with { Start = null } : pin),
            ],
            Whole = [.. AtTheBeginning(problem, from), .. AtTheEnd(problem, from, until)],
            Cohorts = [.. problem.Cohorts.Select(cohort => Now(cohort, problem.Rules, stood, from, until))],
        };
    }

    private static bool IsGoingOn(ArrangedBlock block, LessonTask task, int from) =>
        block.Task == task.Key && block.Start < from && block.End > from;

    /// <summary>What has been led is done, however long it took; of what is being led the rest is left.</summary>
    private static IEnumerable<LessonTask> Left(LessonTask task, IReadOnlyList<ArrangedBlock> stood, int from)
    {
        var its = stood.Where(block => block.Task == task.Key && block.Start < from).ToList();
        if (its.Count == 0)
        {
            yield return task;
        }
        else if (its.Max(block => block.End) is var end && end > from)
        {
            yield return task with
            {
                Minutes = end - from,
            };
        }
    }

    /// <summary>The minutes that have passed since what stood before, a cohort's without a gap.</summary>
    private static IEnumerable<ArrangedBlock> Stood(
        LessonProblem problem,
        IReadOnlyList<ArrangedBlock> blocks,
        int from
    )
    {
        List<ArrangedBlock> stood =
        [
            .. blocks
                .Where(block =>
                    block.Start < from
                    && block.End > problem.Now
                    && (block.CohortId is not { } id || problem.Cohorts.Any(cohort => cohort.Id == id))
                )
                .Select(block =>
                    block with
                    {
                        Start = Math.Max(block.Start, problem.Now),
                        End = Math.Min(block.End, from),
                        Task = null,
                    }
                )
                .OrderBy(block => block.Start),
        ];
        return stood.Concat(
            problem.Cohorts.SelectMany(cohort =>
                Gaps(Of(stood, cohort).Where(block => block.Kind != BlockKind.Visit), problem.Now, from)
                    .Select(gap => new ArrangedBlock(
                        gap.From,
                        gap.To,
                        cohort.Id,
                        BlockKind.OwnPractice,
                        cohort.Practises,
                        null,
                        [],
                        "Nobody has said what it did."
                    ))
            )
        );
    }

    private static IEnumerable<ArrangedBlock> Of(IEnumerable<ArrangedBlock> blocks, CohortHere cohort) =>
        blocks.Where(block => block.CohortId is not { } id || id == cohort.Id);

    private static IEnumerable<(int From, int To)> Gaps(IEnumerable<ArrangedBlock> blocks, int minute, int until)
    {
        foreach (var block in blocks)
        {
            if (block.Start > minute)
            {
                yield return (minute, block.Start);
            }

            minute = Math.Max(minute, block.End);
        }

        if (minute < until)
        {
            yield return (minute, until);
        }
    }

    private static IEnumerable<ArrangedBlock> Lost(LessonProblem problem, int from, int until, string what) =>
        until > from
            ?
            [
                new(
                    from,
                    until,
                    null,
                    BlockKind.Rest,
                    what,
                    problem.Teachers.FirstOrDefault(teacher => teacher.From <= from && teacher.Until >= until)?.Id,
                    [],
                    "Nothing was taught."
                ),
            ]
            : [];

    private static IEnumerable<WholeClass> AtTheBeginning(LessonProblem problem, int from)
    {
        var minute = problem.Now;
        foreach (var whole in problem.Whole.Where(block => !block.AtEnd))
        {
            minute += whole.Minutes;
            if (minute > from)
            {
                yield return whole with
                {
                    Minutes = Math.Min(whole.Minutes, minute - from),
                };
            }
        }
    }

    /// <summary>What no longer fits is taken from the first of it: quiet at the end is kept for longest.</summary>
    private static IEnumerable<WholeClass> AtTheEnd(LessonProblem problem, int from, int until)
    {
        List<WholeClass> left = [];
        var minute = problem.Ends;
        foreach (var whole in problem.Whole.Where(block => block.AtEnd))
        {
            minute += whole.Minutes;
            if (minute > from)
            {
                left.Add(whole with { Minutes = Math.Min(whole.Minutes, minute - from) });
            }
        }

        var tooMuch = Math.Max(0, left.Sum(whole => whole.Minutes) - (problem.Minutes - until));
        foreach (var whole in left)
        {
            var gone = Math.Min(tooMuch, whole.Minutes);
            tooMuch -= gone;
            if (whole.Minutes > gone)
            {
                yield return whole with
                {
                    Minutes = whole.Minutes - gone,
                };
            }
        }
    }

    private static CohortHere Now(CohortHere cohort, LessonRules rules, List<ArrangedBlock> stood, int from, int until)
    {
        var own = Of(stood, cohort).ToList();
        var looked = own.Where(block => block.LedBy is not null).Select(block => block.End).DefaultIfEmpty(-1).Max();
        var fresh = own.Where(block => block.Kind == BlockKind.New).Select(block => (int?)block.End).Max();
        var practised = own.Where(block =>
                block.Kind == BlockKind.OwnPractice && (fresh is null || block.Start >= fresh)
            )
            .Sum(block => block.Minutes);
        var seen = own.Sum(block => rules.SeenIn(block.Kind, block.Minutes));
        var owed = Math.Max(0, (fresh is null ? cohort.StillToPractise : rules.PractiseAfterNew) - practised);
        return cohort with
        {
            // While nothing is taught, everybody is together with whoever teaches.
            AloneFor =
                until > from ? 0
                : looked < 0 ? cohort.AloneFor + own.Sum(block => block.Minutes)
                : from - looked,
            StillToPractise =
                owed > 0 && !cohort.PractisesAlone ? Math.Max(owed, rules.ShortestVisit(cohort.People)) : owed,
            Due = Math.Max(0, cohort.Due - seen),
        };
    }
}
