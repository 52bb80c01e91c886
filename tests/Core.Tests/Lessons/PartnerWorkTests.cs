using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;

namespace Zeitplan.Core.Tests.Lessons;

public sealed class PartnerWorkTests
{
    private static List<InPairs> Able(int count) =>
        [.. Enumerable.Range(0, count).Select(_ => new InPairs(Guid.NewGuid(), Support.None, true, true))];

    [Property]
    public void Everybody_is_in_one_place_and_nobody_works_with_a_partner_who_must_not(
        (Support Support, bool Agrees, bool IsSafe)[] asked,
        byte lesson
    )
    {
        var people = asked
            .Select(one => new InPairs(Guid.NewGuid(), one.Support, one.Agrees, one.IsSafe))
            .ToDictionary(one => one.StudentId);
        var work = PartnerWork.Of(people.Values, lesson);
        var paired = work.Groups.SelectMany(group => group).ToList();
        Assert.Equal(people.Keys.Order(), paired.Concat(work.Beside.Select(one => one.StudentId)).Order());
        Assert.All(
            paired.Select(id => people[id]),
            one => Assert.True(one is { Agrees: true, IsSafe: true, Support: Support.None or Support.Seat })
        );
        Assert.All(
            work.Groups,
            group =>
            {
                Assert.InRange(group.Count, 2, 3);
                Assert.Single(group.Select(id => people[id].Support).Distinct());
            }
        );
        Assert.All(
            work.Groups.GroupBy(group => people[group[0]].Support),
            same => Assert.True(same.Count(group => group.Count == 3) <= 1)
        );
        // Nobody stands beside for want of a partner where somebody else does, too.
        Assert.All(
            work.Beside.Where(one => one.Because == BesideBecause.Nobody).GroupBy(one => people[one.StudentId].Support),
            alone => Assert.Single(alone)
        );
        // In whatever order they came.
        Assert.Equal(work.Groups, PartnerWork.Of(people.Values.Reverse(), lesson).Groups);
    }

    [Theory]
    [InlineData(2)]
    [InlineData(4)]
    [InlineData(6)]
    [InlineData(10)]
    public void In_as_many_lessons_as_there_are_others_everybody_has_worked_with_everybody(int count)
    {
        var people = Able(count);
        var met = Enumerable
            .Range(7, count - 1)
            .SelectMany(lesson => PartnerWork.Of(people, lesson).Groups)
            .Select(pair => (pair.Min(), pair.Max()))
            .ToList();
        Assert.Equal(count * (count - 1) / 2, met.Count);
        Assert.Equal(met.Count, met.Distinct().Count());
    }

    [Theory]
    [InlineData(3)]
    [InlineData(5)]
    [InlineData(9)]
    public void An_odd_one_is_a_third_and_each_lesson_somebody_else(int count)
    {
        var people = Able(count);
        var rounds = Enumerable.Range(0, count).Select(lesson => PartnerWork.Of(people, lesson)).ToList();
        Assert.All(rounds, work => Assert.Single(work.Groups, group => group.Count == 3));
        Assert.All(rounds, work => Assert.Empty(work.Beside));
        Assert.Equal(
            count,
            rounds.Select(work => work.Groups.Single(group => group.Count == 3)[^1]).Distinct().Count()
        );
    }

    [Fact]
    public void Whoever_works_beside_has_a_reason()
    {
        var (able, shy, holds, unsettled) = (
            new InPairs(Guid.NewGuid(), Support.None, true, true),
            new InPairs(Guid.NewGuid(), Support.None, false, true),
            new InPairs(Guid.NewGuid(), Support.Hold, true, true),
            new InPairs(Guid.NewGuid(), Support.None, true, false)
        );
        var work = PartnerWork.Of([able, shy, holds, unsettled], 3);
        Assert.Empty(work.Groups);
        Assert.Equal(
            new Beside[]
            {
                new(able.StudentId, BesideBecause.Nobody),
                new(shy.StudentId, BesideBecause.NotAgreed),
                new(holds.StudentId, BesideBecause.HoldsOn),
                new(unsettled.StudentId, BesideBecause.NotSettled),
            }.OrderBy(one => one.StudentId),
            work.Beside.OrderBy(one => one.StudentId)
        );
    }
}
