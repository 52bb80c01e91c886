using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Bench;

/// <summary>Made-up terms of one class, the same for the same seed: cohorts of every kind, weekly lessons with
/// closures, a test at the end.</summary>
internal static class GeneratedTerm
{
    private static readonly DateOnly FirstTuesday = new(2026, 9, 1);

    /// <param name="sharing">Some of the cohorts' postures are the same.</param>
    public static TermProblem Of(
        int seed,
        int cohorts,
        int lessons,
        int units,
        int minutes = 90,
        int staff = 3,
        bool sharing = true
    )
    {
        var random = new Random(seed);
        var postures = Enumerable
            .Range(1, units * (sharing ? 2 : cohorts))
            .Select(number => Unit(random, number))
            .ToList();
        List<LessonSlot> slots = [];
        var date = FirstTuesday;
        for (var at = 0; at < lessons; at++, date = date.AddDays(random.Next(10) == 0 ? 14 : 7))
        {
            slots.Add(
                new(
                    date,
                    LessonSlot.Teachable(minutes),
                    staff,
                    at == lessons - 1 ? LessonKind.Test
                        : at == lessons - 2 ? LessonKind.Consolidation
                        : LessonKind.Ordinary,
                    false
                )
            );
        }

        return new(
            slots,
            [
                .. Enumerable
                    .Range(0, cohorts)
                    .Select(at =>
                    {
                        var adapted = at % 6 == 5;
                        var from = sharing ? random.Next(units) : at * units;
                        return new CohortProblem(
                            new Guid(seed, (short)at, 0, new byte[8]),
                            $"Cohort {at + 1}",
                            random.Next(4, 12),
                            [.. postures.Skip(from).Take(units)],
                            [],
                            adapted ? 1
                                : at % 4 == 0 ? 1
                                : 2,
                            adapted ? int.MaxValue
                                : at % 4 == 0 ? CohortProblem.BeginnersAttended
                                : 0,
                            lessons - 1 - random.Next(lessons / 3),
                            [],
                            new(0)
                        )
                        {
                            Mode = adapted ? Mode.Supported : Mode.Standing,
                        };
                    }),
            ]
        );
    }

    private static TeachingUnit Unit(Random random, int number)
    {
        var (counts, difficulty) = (
            random.Next(3, 8),
            random.Next(5) switch
            {
                0 => 3,
                1 or 2 => 2,
                _ => 1,
            }
        );
        var effort = new Effort(TeachingPattern.ShowTogetherWatch, counts, difficulty, Mode.Standing);
        var kind = random.Next(8) switch
        {
            0 => UnitKind.Drill,
            _ => UnitKind.Posture,
        };
        return new(
            new Guid(number, 0, 0, new byte[8]),
            Side.Left,
            $"Posture {number}",
            difficulty,
            counts,
            effort.IntroduceSeconds,
            effort.ReviewSeconds,
            effort.RunThroughSeconds,
            effort.Explain()
        )
        {
            Kind = kind,
        };
    }
}
