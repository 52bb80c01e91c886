using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger.Tests;

/// <summary>Lessons of a made-up school, the same for the same seed: cohorts of all levels and an adapted group, with what a
/// term plan would ask of them.</summary>
public static class GeneratedLesson
{
    private static readonly string[] Names =
    [
        "Rail group",
        "Ivory",
        "Fern, newer",
        "Fern, senior",
        "Copper",
        "Garnet",
        "Slate",
        "Chair group",
        "Ivory, late",
        "Copper, late",
    ];
    private static readonly string[] Teachers = ["Noor", "Jonas", "Odile", "Mirja", "Aurel"];

    public static LessonProblem Of(int seed, int cohorts, int teachers, int minutes)
    {
        var random = new Random(seed);
        List<CohortHere> here = [.. Enumerable.Range(0, cohorts).Select(at => Cohort(at, random))];
        List<TeacherHere> staff =
        [
            .. Enumerable
                .Range(0, teachers)
                .Select(at => new TeacherHere(
                    Id(200 + at),
                    Teachers[at],
                    at != 1 || teachers == 1,
                    at == 1 ? 5 : null,
                    0,
                    minutes
                )),
        ];
        return new(
            minutes,
            here,
            staff,
            [.. here.SelectMany(cohort => Tasks(cohort, Room(here, cohort, teachers, minutes - 25), random))],
            [
                new(BlockKind.WarmUp, 10, "joint by joint", "", false),
                new(BlockKind.Together, 10, "section one, each to where it knows", "", true),
                new(BlockKind.Settle, 5, "standing quietly", "", true),
            ],
            LessonRules.Default
        );
    }

    private static CohortHere Cohort(int at, Random random)
    {
        var adapted = Names[at].EndsWith("group", StringComparison.Ordinal);
        var people = random.Next(2, 9);
        return new(
            Id(at + 1),
            Names[at],
            adapted ? null : Math.Min(5, at),
            people,
            adapted,
            adapted ? "" : "what it knows, to the end of the section",
            random.Next(0, Math.Min(4, people + 1)),
            people * (at == 1 ? 2 : 1)
        );
    }

    /// <summary>What a term planner would give a cohort of the teachers' minutes, visits left over.</summary>
    private static double Room(List<CohortHere> here, CohortHere cohort, int teachers, int window)
    {
        var attended = here.Count(its => its.NeverAlone);
        return cohort.NeverAlone
            ? window * 0.6
            : Math.Min(window * 0.6, ((0.75 * teachers) - attended) * window / (here.Count - attended));
    }

    private static IEnumerable<LessonTask> Tasks(CohortHere cohort, double room, Random random)
    {
        var left = room;
        LessonTask? Task(BlockKind kind, int minutes, string what)
        {
            if (left < minutes)
            {
                return null;
            }

            left -= minutes;
            return new($"{cohort.Name} {kind} {what}", kind, [cohort.Id], minutes, what, "The term plan asks for it.");
        }

        LessonTask?[] tasks =
        [
            Task(BlockKind.LeadIn, 3, "Push"),
            Task(BlockKind.New, random.Next(6, 11), "Single Whip"),
            random.Next(3) == 0 ? Task(BlockKind.New, random.Next(5, 8), "Raise Hands") : null,
            Task(BlockKind.Review, random.Next(3, 6), "Press"),
            random.Next(2) == 0 ? Task(BlockKind.Review, random.Next(3, 5), "Roll Back") : null,
            random.Next(3) == 0 ? Task(BlockKind.ReTeach, 4, "Brush Knee") : null,
            random.Next(2) == 0 ? Task(BlockKind.Watch, 4, "all it knows") : null,
        ];
        return tasks.OfType<LessonTask>();
    }

    private static Guid Id(int number) => new(number, 0, 0, [0, 0, 0, 0, 0, 0, 0, 0]);
}
