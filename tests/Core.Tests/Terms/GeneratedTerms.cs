using FsCheck;
using FsCheck.Fluent;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests.Terms;

/// <summary>Problems of every kind a small school comes to.</summary>
internal static class GeneratedTerms
{
    /// <summary>Up to 4 cohorts, 3 to 14 lessons of 30 to 90 minutes, gaps of one to three weeks, 1 to 3 staff,
    /// some lessons held, in some of them minutes kept for watching; some
    /// cohorts keep what they know.</summary>
    public static Arbitrary<TermProblem> Problems() => Gen.Choose(0, int.MaxValue - 1).Select(Problem).ToArbitrary();

    public static TermProblem Problem(int seed)
    {
        var random = new Random(seed);
        var lessons = new List<LessonSlot>();
        // Of their own, so that a seed stays the term it was.
        var (watching, kept) = (new Random(~seed), new Random(seed / 2));
        var (count, held, staff, minutes) = (
            random.Next(3, 15),
            random.Next(0, 4),
            random.Next(1, 4),
            random.Next(30, 91)
        );
        var date = Material.FirstTuesday;
        for (var at = 0; at < count; at++, date = date.AddDays(7 * random.Next(1, random.Next(2, 4))))
        {
            var kind =
                at == count - 1 ? LessonKind.Test
                : at == count - 2 ? LessonKind.Consolidation
                : LessonKind.Ordinary;
            lessons.Add(
                new(date, LessonSlot.Teachable(minutes), staff, kind, at < Math.Min(held, count - 2))
                {
                    WatchSeconds = new(watching.Next(4) == 0 ? 60 * watching.Next(1, 15) : 0),
                    AgainSeconds = new(watching.Next(5) == 0 ? 60 * watching.Next(3, 10) : 0),
                }
            );
        }

        var done = lessons.Count(lesson => lesson.Held);
        var pool = Enumerable
            .Range(1, 16)
            .Select(number =>
                Material.Unit(number, random.Next(2, 8), random.Next(1, 4)) with
                {
                    Kind = random.Next(5) == 0 ? UnitKind.Drill : UnitKind.Posture,
                }
            )
            .ToList();
        return new(
            lessons,
            [
                .. Enumerable
                    .Range(0, random.Next(1, 5))
                    .Select(_ =>
                    {
                        var units = pool.Skip(random.Next(5)).Take(random.Next(0, 12)).ToList();
                        var introduced = Enumerable
                            .Range(0, Math.Min(units.Count, random.Next(0, (2 * done) + 1)))
                            .Select(_ => random.Next(0, Math.Max(1, done)))
                            .Order()
                            .ToList();
                        return Material.Cohort(
                            "A cohort",
                            units,
                            done == 0 ? [] : introduced,
                            random.Next(1, 3),
                            random.Next(4) switch
                            {
                                0 => int.MaxValue,
                                1 => 3,
                                _ => 0,
                            },
                            random.Next(-1, count + 2)
                        ) with
                        {
                            Again =
                                watching.Next(3) == 0 && lessons.Exists(lesson => lesson.AgainSeconds.Count > 0)
                                    ? [.. lessons.Select(lesson => lesson.AgainSeconds)]
                                    : [],
                            Pace = watching.Next(4) == 0 ? 1.2m : 1m,
                            Keeping = Keeping(kept, lessons, units),
                            Pins =
                            [
                                .. Enumerable
                                    .Range(0, units.Count == 0 ? 0 : random.Next(3))
                                    .Select(_ => new Pin(random.Next(units.Count), random.Next(count)))
                                    .DistinctBy(pin => pin.Unit),
                            ],
                        };
                    }),
            ]
        );
    }

    /// <summary>Up to four postures that are kept, some of them taught this term too, one perhaps to relearn; perhaps a run
    /// of those that come back.</summary>
    private static Keeping Keeping(Random random, List<LessonSlot> lessons, List<TeachingUnit> units)
    {
        List<KeptPosture> postures =
        [
            .. Enumerable
                .Range(0, random.Next(5))
                .Select(at => new KeptPosture(
                    units.Count > 0 && random.Next(3) == 0
                        ? units[random.Next(units.Count)].Of
                        : new(Guid.NewGuid(), Side.Left),
                    $"Kept {at}",
                    new(random.Next(1, 10) * 60),
                    lessons[0].Date.AddDays(random.Next(-20, 60)),
                    random.Next(4) == 0 ? null : 7 * random.Next(2, 8)
                ))
                .DistinctBy(kept => kept.Of),
        ];
        List<int> back =
        [
            .. postures.Index().Where(kept => kept.Item.HoldsDays is not null).Select(kept => kept.Index),
        ];
        return new(
            postures,
            back.Count > 0 && random.Next(2) == 0 ? [new("A run", back, new(random.Next(1, 12) * 60))] : []
        );
    }
}
