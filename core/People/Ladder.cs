using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>A ladder to begin with and to change afterwards: what its levels study is the school's own in any
/// case.</summary>
public enum LadderPattern
{
    /// <summary>Beginners, middle, seniors: a year or two each.</summary>
    ThreeSteps,

    /// <summary>Five sashes, those in the middle in halves: about half a year for each half.</summary>
    FiveSashes,

    /// <summary>A sash for every term of a long form learned section by section.</summary>
    SashATerm,
}

/// <summary>The sash ladder as a whole: what a change of it does to people and plans, said before it is done.</summary>
public static class Ladder
{
    /// <summary>From pale to dark, one for each sash of a ladder by terms.</summary>
    private static readonly string[] TermColours =
    [
        "#EFEAE0",
        "#D8C27A",
        "#C79A63",
        "#7A9460",
        "#5C8A8A",
        "#41557F",
        "#2B3036",
    ];

    /// <summary>The levels of a pattern, lowest first.</summary>
    public static IReadOnlyList<SashText> From(LadderPattern pattern) =>
        pattern switch
        {
            LadderPattern.ThreeSteps =>
            [
                Level("First sash", "#E4DCC3", 40, 32, Stage.Follows, Accepts.Shape),
                Level("Middle sash", "#7FA58C", 80, 60, Stage.Alone, Accepts.Finesse),
                Level("Senior sash", "#3F5A6B", 120, 90, Stage.Flowing, Accepts.Nothing),
            ],
            LadderPattern.FiveSashes =>
            [
                Level("White", "#EFEAE0", 13, 10, Stage.Follows, Accepts.Shape),
                Level("Straw", "#D8C27A", 26, 20, Stage.Alone, Accepts.Shape, halves: true),
                Level("Moss", "#7A9460", 39, 30, Stage.Alone, Accepts.Finesse, halves: true),
                Level("Indigo", "#41557F", 52, 40, Stage.Flowing, Accepts.Finesse, halves: true),
                Level("Ink", "#2B3036", 104, 80, Stage.Settled, Accepts.Nothing),
            ],
            _ =>
            [
                .. TermColours.Select(
                    (colour, at) =>
                        Level(
                            $"Sash {at + 1}",
                            colour,
                            13,
                            10,
                            at < 2 ? Stage.Follows
                                : at < 5 ? Stage.Alone
                                : Stage.Flowing,
                            at < 4 ? Accepts.Shape : Accepts.Finesse
                        )
                ),
            ],
        };

    private static SashText Level(
        string name,
        string colour,
        int weeks,
        int lessons,
        Stage stage,
        Accepts accepts,
        bool halves = false
    ) =>
        new(
            name,
            colour,
            halves,
            new()
            {
                Weeks = weeks,
                Lessons = lessons,
                Stage = stage,
                Accepts = accepts,
            }
        );

    /// <summary>What another order changes: who works towards another sash next, and whose assigned material then lies
    /// elsewhere.</summary>
    /// <param name="order">Every level of the ladder, lowest first.</param>
    public static IReadOnlyList<string> EffectsOfOrder(
        IReadOnlyList<SashLevel> ladder,
        IReadOnlyList<Guid> order,
        IReadOnlyList<Student> students,
        IReadOnlyList<Cohort> cohorts
    )
    {
        var now = ladder.OrderBy(sash => sash.Order).ToList();
        var then = order.Select(id => now.Single(sash => sash.Id == id)).ToList();
        List<string> effects = [];
        foreach (var sash in now)
        {
            var (before, after) = (Next(now, sash), Next(then, sash));
            var people = students.Count(student => student.SashId == sash.Id && student.Left is null);
            if (before != after && people > 0)
            {
                effects.Add(
                    $"{People(people)} at {sash.Name} would work towards {after?.Name ?? "nothing further"} next, not {before?.Name ?? "nothing further"}."
                );
            }

            var groups = cohorts.Where(cohort => cohort.SashId == sash.Id).Select(cohort => cohort.Name).ToList();
            if (groups.Count > 0 && now.IndexOf(sash) != then.IndexOf(sash))
            {
                effects.Add(
                    $"{string.Join(", ", groups)} would be level {then.IndexOf(sash) + 1} instead of {now.IndexOf(sash) + 1} for who may lead whom; what is assigned and planned stays."
                );
            }
        }

        return effects;
    }

    /// <summary>What writing a level anew changes for whoever is at it.</summary>
    public static IReadOnlyList<string> EffectsOfEdit(
        SashLevel sash,
        SashText text,
        IReadOnlyList<Student> students,
        IReadOnlyList<Cohort> cohorts
    )
    {
        var there = students.Where(student => student.SashId == sash.Id && student.Left is null).ToList();
        List<string> effects = [];
        if (sash.HasHalves && !text.HasHalves)
        {
            var halved = there.Count(student => student.Half != Half.None);
            var groups = cohorts
                .Where(cohort => cohort.SashId == sash.Id && cohort.Half != Half.None)
                .Select(cohort => cohort.Name)
                .ToList();
            effects.AddRange(halved == 0 ? [] : [$"{People(halved)} would lose their half."]);
            effects.AddRange(
                groups.Count == 0
                    ? []
                    :
                    [
                        $"{string.Join(" and ", groups)} would both be {text.Name.Trim()}; their assignments and plans stay.",
                    ]
            );
        }

        if (!sash.HasHalves && text.HasHalves && there.Count > 0)
        {
            effects.Add($"{People(there.Count)} at {sash.Name} would be in neither half until you say which.");
        }

        if (sash.Asks.Stage != text.Asks.Stage)
        {
            effects.Add(
                $"A pass from {sash.Name} would ask for {StageWords.Say(text.Asks.Stage)} on every posture instead of {StageWords.Say(sash.Asks.Stage)}."
            );
        }

        if (sash.Asks.Weeks != text.Asks.Weeks || sash.Asks.Lessons != text.Asks.Lessons)
        {
            effects.Add(
                $"The level would take at least {text.Asks.Weeks} weeks and {text.Asks.Lessons} lessons instead of {sash.Asks.Weeks} and {sash.Asks.Lessons}."
            );
        }

        if (sash.Asks.Accepts != text.Asks.Accepts)
        {
            effects.Add(
                text.Asks.Accepts == Accepts.Nothing
                    ? $"No fault would be accepted at {sash.Name} any more."
                    : $"Faults up to {text.Asks.Accepts.ToString().ToLowerInvariant()} would be accepted at {sash.Name}."
            );
        }

        if (!sash.Asks.Studies.SequenceEqual(text.Asks.Studies))
        {
            effects.Add("What the level studies changes for the next assignments; what is assigned now stays.");
        }

        return effects;
    }

    /// <summary>The level after this one; null at the top.</summary>
    public static SashLevel? Next(IReadOnlyList<SashLevel> ladder, SashLevel sash)
    {
        var at = ladder.Index().First(level => level.Item.Id == sash.Id).Index;
        return at + 1 < ladder.Count ? ladder[at + 1] : null;
    }

    private static string People(int count) => count == 1 ? "1 person" : $"{count} people";
}
