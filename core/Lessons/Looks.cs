using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Lessons;

/// <summary>A look at one student, in a block of a lesson.</summary>
/// <param name="Start">The minute the block begins at.</param>
public sealed record Look(int Start, int End, Guid TeacherId, Guid CohortId, Watched At);

/// <summary>
/// Who looks at whom in which block (domain.md 4.5): as many of the most urgent as the arrangement has looks for, each at
/// something that is done in the block, at most so many in each as one teacher truly sees.
/// </summary>
/// <param name="All">In the order of the lesson.</param>
/// <param name="Unseen">Whoever has to be seen in this lesson, so that nobody goes unseen in two, and finds no look.</param>
public sealed record Looks(IReadOnlyList<Look> All, IReadOnlyList<Watched> Unseen)
{
    /// <summary>A block in which a teacher can look at people, and at how many.</summary>
    /// <param name="Material">Empty where it may be anything they do tonight.</param>
    /// <param name="NotYet">What is new only later in the lesson.</param>
    private sealed record Chance(
        ArrangedBlock Block,
        Guid TeacherId,
        int Places,
        IReadOnlyList<PostureSide> Material,
        IReadOnlyList<PostureSide> NotYet
    );

    /// <param name="people">Who is there, or expected.</param>
    /// <param name="book">What was known before the lesson.</param>
    public static Looks Of(
        LessonProblem lesson,
        Arrangement arrangement,
        IReadOnlyList<Watchable> people,
        ProgressBook book,
        DateOnly today
    )
    {
        var chances = Chances(lesson, arrangement).ToList();
        var known = people.ToDictionary(student => student.StudentId);
        var inOrder = WatchList.Of(people, book, today);
        var offers = inOrder.ToDictionary(
            watched => watched.StudentId,
            watched => Offers(known[watched.StudentId], chances, book, today)
        );

        // Whoever is more urgent keeps a look once they have one, and moves to another so that somebody else has one, too.
        var taken = chances.ConvertAll(_ => new List<Guid>());
        foreach (var watched in inOrder)
        {
            Place(watched.StudentId, offers, chances, taken, []);
        }

        var placed = taken.SelectMany(students => students).ToHashSet();
        return new(
            [
                .. chances
                    .Index()
                    .SelectMany(chance =>
                        taken[chance.Index]
                            .Select(student => new Look(
                                chance.Item.Block.Start,
                                chance.Item.Block.End,
                                chance.Item.TeacherId,
                                known[student].CohortId,
                                offers[student].First(offer => offer.Chance == chance.Index).At
                            ))
                    )
                    .OrderBy(look => look.Start)
                    .ThenBy(look => look.TeacherId)
                    .ThenBy(look => look.At.Reason)
                    .ThenBy(look => look.At.StudentId),
            ],
            [
                .. inOrder.Where(watched =>
                    watched.Reason <= WatchReason.Overlooked && !placed.Contains(watched.StudentId)
                ),
            ]
        );
    }

    /// <summary>How many minutes of watching are missing.</summary>
    public int MissingMinutes(LessonRules rules) => FairEyes.MinutesToSee(Unseen.Count, rules.SeenAMinute);

    private static bool Place(
        Guid student,
        Dictionary<Guid, List<(int Chance, Watched At)>> offers,
        List<Chance> chances,
        List<List<Guid>> taken,
        HashSet<int> tried
    )
    {
        // Where there is room nobody has to move.
        if (offers[student].FirstOrDefault(offer => HasRoom(offer.Chance), (-1, null!)) is (>= 0 and var free, _))
        {
            taken[free].Add(student);
            return true;
        }

        foreach (var (chance, _) in offers[student].Where(offer => tried.Add(offer.Chance)))
        {
            var there = taken[chance];
            for (var at = there.Count - 1; at >= 0; at--)
            {
                var other = there[at];
                there.RemoveAt(at);
                if (Place(other, offers, chances, taken, tried))
                {
                    there.Add(student);
                    return true;
                }

                there.Insert(at, other);
            }
        }

        return false;

        bool HasRoom(int chance) => !tried.Contains(chance) && taken[chance].Count < chances[chance].Places;
    }

    /// <summary>Where somebody can be looked at: first where it is at what they need most, then as early as can be.</summary>
    private static List<(int Chance, Watched At)> Offers(
        Watchable student,
        List<Chance> chances,
        ProgressBook book,
        DateOnly today
    ) =>
        [
            .. chances
                .Index()
                .Where(chance => chance.Item.Block.CohortId is not { } cohort || cohort == student.CohortId)
                .Select(chance =>
                    (
                        chance.Index,
                        There: student
                            .Does.Where(of =>
                                (chance.Item.Material.Count == 0 || chance.Item.Material.Contains(of))
                                && !chance.Item.NotYet.Contains(of)
                            )
                            .ToList()
                    )
                )
                .Where(chance => chance.There.Count > 0)
                .Select(chance => (chance.Index, At: WatchList.Look(student, chance.There, book, today)))
                .OrderByDescending(chance => book.StandingOf(student.StudentId, chance.At.Of).IsDueASecondLook)
                .ThenByDescending(chance => book.StandingOf(student.StudentId, chance.At.Of).Stage == Stage.Follows)
                .ThenBy(chance => chances[chance.Index].Block.Start),
        ];

    private static IEnumerable<Chance> Chances(LessonProblem lesson, Arrangement arrangement)
    {
        foreach (var block in arrangement.Blocks.Where(block => block.Start >= lesson.Now))
        {
            if (
                block is { CohortId: not null, LedBy: { } leader }
                && lesson.Rules.SeenIn(block.Kind, block.Minutes) is > 0 and var places
            )
            {
                yield return new(block, leader, places, MaterialOf(block, arrangement), NotYet(block, arrangement));
            }
            else if (block is { CohortId: null, Kind: BlockKind.Together })
            {
                foreach (var teacher in lesson.Teachers.Where(teacher => Watches(teacher, block)))
                {
                    yield return new(block, teacher.Id, lesson.Rules.SeenInABlock, [], []);
                }
            }
        }
    }

    /// <summary>One leads what all do together, the others watch.</summary>
    private static bool Watches(TeacherHere teacher, ArrangedBlock together) =>
        teacher.Id != together.LedBy && teacher.From <= together.Start && teacher.Until >= together.End;

    /// <summary>A visit looks at what is practised.</summary>
    private static IReadOnlyList<PostureSide> MaterialOf(ArrangedBlock block, Arrangement arrangement) =>
        block.Kind != BlockKind.Visit ? block.Material
        : arrangement.Blocks.LastOrDefault(before =>
            before.CohortId == block.CohortId
            && before.What == block.What
            && before.Material.Count > 0
            && before.Start < block.Start
        )
            is { } practised
            ? practised.Material
        : [];

    private static IReadOnlyList<PostureSide> NotYet(ArrangedBlock block, Arrangement arrangement) =>
        [
            .. arrangement
                .Blocks.Where(later =>
                    later.Kind == BlockKind.New && later.CohortId == block.CohortId && later.Start > block.Start
                )
                .SelectMany(later => later.Material),
        ];
}
