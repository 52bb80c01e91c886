using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Lessons;

/// <summary>Somebody who is there when a cohort works in pairs.</summary>
/// <param name="Support">What they hold on to or sit on in the mode they take part in.</param>
/// <param name="Agrees">To work with a partner, contact included.</param>
/// <param name="IsSafe">Nothing is asked of them that they must not be asked for, as far as anybody knows.</param>
public readonly record struct InPairs(Guid StudentId, Support Support, bool Agrees, bool IsSafe);

/// <summary>Why somebody works beside the pairs.</summary>
public enum BesideBecause
{
    /// <summary>They have not agreed to work with a partner.</summary>
    NotAgreed,

    /// <summary>A hand that holds on is not free for anybody.</summary>
    HoldsOn,

    /// <summary>It is not settled how they do what is done, or what it asks of them is not known.</summary>
    NotSettled,

    /// <summary>There is nobody for them.</summary>
    Nobody,
}

public readonly record struct Beside(Guid StudentId, BesideBecause Because);

/// <summary>
/// Who works with whom in a partner block (domain.md 4.4): two by two, three where one would be left over; only who has
/// agreed to it and is asked for nothing they must not be asked for. Standing with standing, seated with seated.
/// </summary>
/// <param name="Groups">Two people each, one of them three where their number is odd.</param>
/// <param name="Beside">Everybody else, each with the reason.</param>
public sealed record PartnerWork(IReadOnlyList<IReadOnlyList<Guid>> Groups, IReadOnlyList<Beside> Beside)
{
    /// <summary>The floor that two who face each other need, metres: an arm's reach about both, and a step between
    /// them.</summary>
    public static readonly Area Reach = new(-FloorNeed.ArmReach, -1.25, FloorNeed.ArmReach, 1.25);

    /// <param name="people">Whoever is there, in any order.</param>
    /// <param name="lesson">The lesson's number: with each, everybody has another partner, until they have had all.</param>
    public static PartnerWork Of(IEnumerable<InPairs> people, int lesson)
    {
        List<IReadOnlyList<Guid>> groups = [];
        List<Beside> beside = [];
        foreach (
            var same in people.OrderBy(one => one.StudentId).GroupBy(one => (Because(one), one.Support == Support.Seat))
        )
        {
            if (same.Key.Item1 is { } because)
            {
                beside.AddRange(same.Select(one => new Beside(one.StudentId, because)));
            }
            else if (same.ToList() is [var alone])
            {
                beside.Add(new(alone.StudentId, BesideBecause.Nobody));
            }
            else
            {
                groups.AddRange(Round([.. same.Select(one => one.StudentId)], lesson));
            }
        }

        return new(groups, beside);
    }

    private static BesideBecause? Because(InPairs one) =>
        !one.Agrees ? BesideBecause.NotAgreed
        : one.Support is Support.Touch or Support.Hold ? BesideBecause.HoldsOn
        : !one.IsSafe ? BesideBecause.NotSettled
        : null;

    /// <summary>One round of all against all: the first stays, the others move on by one place each round, and who faces whom
    /// works with them. Whoever faces the gap of an odd number is a third.</summary>
    private static IReadOnlyList<IReadOnlyList<Guid>> Round(IReadOnlyList<Guid> people, int round)
    {
        var places = people.Count + people.Count % 2;
        Guid? At(int place)
        {
            var who = place == 0 ? 0 : 1 + (place - 1 + round) % (places - 1);
            return who < people.Count ? people[who] : null;
        }

        var facing = Enumerable
            .Range(0, places / 2)
            .Select(place => new[] { At(place), At(places - 1 - place) }.OfType<Guid>().ToList())
            .ToList();
        if (facing.FindIndex(pair => pair.Count == 1) is >= 0 and var odd)
        {
            var third = facing[odd][0];
            facing.RemoveAt(odd);
            facing[round % facing.Count].Add(third);
        }

        return facing;
    }
}
