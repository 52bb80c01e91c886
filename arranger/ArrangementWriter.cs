using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>From what the teachers do to blocks: who is where from minute to minute, and why.</summary>
internal static class ArrangementWriter
{
    public static Arrangement Write(LessonFacts facts, IReadOnlyList<Step> steps, long points, long bound)
    {
        var problem = facts.Problem;
        List<ArrangedBlock> blocks = [.. problem.Stood, .. WholeClassBlocks(problem)];
        List<Shortfall> shortfalls =
        [
            .. problem
                .Tasks.Where(task => steps.All(step => step.Task?.Key != task.Key))
                .Select(task => LeftOut(problem, task)),
        ];
        foreach (var (at, cohort) in problem.Cohorts.Index())
        {
            var (own, alone) = Cohort(facts, steps, at);
            blocks.AddRange(own);
            var allowed = facts.LongestAlone[at];
            if (alone > allowed)
            {
                shortfalls.Add(
                    new(
                        cohort.Id,
                        null,
                        alone,
                        allowed == 0
                            ? $"{cohort.Name} would be without anybody for {alone} minutes."
                            : $"{cohort.Name} would be {alone} minutes without a teacher's eye; {allowed} are the most."
                    )
                );
            }
        }

        return new(
            [
                .. blocks
                    .OrderBy(block => block.Start)
                    .ThenBy(block => Order(problem, block))
                    .ThenBy(block => block.Kind),
            ],
            shortfalls,
            points,
            bound
        );
    }

    private static int Order(LessonProblem problem, ArrangedBlock block) =>
        block.CohortId is { } id ? problem.Cohorts.Index().First(cohort => cohort.Item.Id == id).Index : -1;

    private static Shortfall LeftOut(LessonProblem problem, LessonTask task)
    {
        var cohorts = task.CohortIds.Select(problem.Cohort).ToList();
        var names = string.Join(" and ", cohorts.Select(cohort => cohort.Name));
        var wanted = problem.Pins.FirstOrDefault(pin => pin.Key == task.Key)?.TeacherId;
        var may = problem.Teachers.Any(teacher =>
            (wanted is null || wanted == teacher.Id) && cohorts.All(teacher.MayLead)
        );
        return new(
            task.CohortIds[0],
            task.Key,
            task.Minutes,
            may ? $"{names}: {task.What} has no room ({task.Minutes} {(task.Minutes == 1 ? "minute" : "minutes")})."
                : wanted is null ? $"{names}: nobody who is there may lead {task.What}."
                : $"{names}: {task.What} is fixed to somebody who may not lead it, or is not there."
        );
    }

    private static (IReadOnlyList<ArrangedBlock> Blocks, int LongestAlone) Cohort(
        LessonFacts facts,
        IReadOnlyList<Step> steps,
        int at
    )
    {
        var (problem, cohort) = (facts.Problem, facts.Problem.Cohorts[at]);
        List<ArrangedBlock> blocks = [];
        var minute = problem.Begins;
        void Practise(int until, string what)
        {
            if (until <= minute)
            {
                return;
            }

            if (
                blocks.FindLastIndex(block => block.Kind != BlockKind.Visit) is >= 0 and var last
                && blocks[last] is { Kind: BlockKind.OwnPractice } before
                && before.End == minute
            )
            {
                blocks[last] = before with { End = until };
            }
            else
            {
                blocks.Add(
                    new(minute, until, cohort.Id, BlockKind.OwnPractice, what, null, [], "It can do this by itself.")
                );
            }

            minute = until;
        }

        foreach (var step in steps.Where(step => step.Cohorts.Contains(at)).OrderBy(step => step.Start))
        {
            Practise(step.Start, cohort.Practises);
            var teacher = problem.Teachers[step.Teacher];
            if (step.Task is not { } task)
            {
                blocks.Add(Visit(step.Start, step.End, "a look at each", teacher, "A teacher's eye."));
                Practise(step.End, cohort.Practises);
                continue;
            }

            minute = step.Start + Math.Min(step.Minutes, task.Minutes);
            blocks.Add(
                new(
                    step.Start,
                    minute,
                    cohort.Id,
                    task.Kind,
                    task.What,
                    teacher.Id,
                    [.. task.CohortIds.Where(id => id != cohort.Id)],
                    task.Because,
                    task.Key
                )
                {
                    Material = task.Material,
                }
            );
            if (step.End > minute)
            {
                blocks.Add(Visit(minute, step.End, task.What, teacher, "Practised with the teacher still there."));
                Practise(step.End, task.What);
            }
        }

        Practise(problem.Ends, cohort.Practises);
        return (blocks, facts.LongestAlone[at] + Measures.TooLongIn(facts, Measures.Own(steps, at), at).Longest);

        ArrangedBlock Visit(int start, int end, string what, TeacherHere teacher, string because) =>
            new(start, end, cohort.Id, BlockKind.Visit, what, teacher.Id, [], because);
    }

    /// <summary>What holds everybody, led by whoever may lead everything, at the beginning and at the end.</summary>
    private static IEnumerable<ArrangedBlock> WholeClassBlocks(LessonProblem problem)
    {
        var minute = problem.Now;
        foreach (var whole in problem.Whole.Where(block => !block.AtEnd))
        {
            yield return Block(whole, minute);
            minute += whole.Minutes;
        }

        minute = problem.Ends;
        foreach (var whole in problem.Whole.Where(block => block.AtEnd))
        {
            yield return Block(whole, minute);
            minute += whole.Minutes;
        }

        ArrangedBlock Block(WholeClass whole, int start) =>
            new(
                start,
                start + whole.Minutes,
                null,
                whole.Kind,
                whole.What,
                problem
                    .Teachers.Where(teacher => teacher.From <= start && teacher.Until >= start + whole.Minutes)
                    .OrderByDescending(teacher => teacher.LeadsEverything)
                    .Select(teacher => (Guid?)teacher.Id)
                    .FirstOrDefault(),
                [],
                whole.Because
            );
    }
}
