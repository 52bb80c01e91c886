using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Progress;

public sealed class MissedIntroductionTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly (Guid Room, Guid Fern) School = (Guid.NewGuid(), Guid.NewGuid());
    private static readonly PostureSide Press = new(Guid.NewGuid(), Side.Right);
    private static readonly Guid[] People = [.. Enumerable.Range(0, 6).Select(_ => Guid.NewGuid())];

    [Fact]
    public void Who_was_away_makes_up_for_it_and_a_tick_does_not_end_it()
    {
        var missed = Assert.Single(Missed([Taught(14, TaughtHow.Introduced)], Present(14, 1, 2, 3, 4, 5)));
        Assert.Equal(new Missing(People[0], false), Assert.Single(missed.Away));
        Assert.False(missed.Again);

        var again = Assert.Single(
            Missed(
                [Taught(14, TaughtHow.Introduced), Taught(7, TaughtHow.Reviewed)],
                [.. Present(14, 1, 2, 3, 4, 5), .. Present(7, 0, 1, 2, 3, 4, 5)]
            )
        );
        Assert.Equal(new Missing(People[0], true), Assert.Single(again.Away));
        Assert.Empty(
            Missed([Taught(14, TaughtHow.Introduced)], Present(14, 1, 2, 3, 4, 5), Saw(People[0], 7, Stage.Follows))
        );
    }

    [Fact]
    public void If_a_third_was_away_and_has_not_been_shown_it_since_it_is_better_introduced_again()
    {
        Assert.True(Assert.Single(Missed([Taught(14, TaughtHow.Introduced)], Present(14, 2, 3, 4, 5))).Again);
        Assert.False(
            Assert
                .Single(
                    Missed(
                        [Taught(14, TaughtHow.Introduced), Taught(7, TaughtHow.Reviewed)],
                        [.. Present(14, 2, 3, 4, 5), .. Present(7, 0, 2, 3, 4, 5)]
                    )
                )
                .Again
        );
    }

    [Fact]
    public void Nobody_makes_up_for_what_was_reviewed_for_what_others_were_taught_or_where_nothing_is_said()
    {
        Assert.Empty(Missed([Taught(14, TaughtHow.Reviewed)], Present(14, 1, 2, 3, 4, 5)));
        Assert.Empty(Missed([Taught(14, TaughtHow.Introduced)], []));
        Assert.Empty(
            Missed([Taught(14, TaughtHow.Introduced) with { CohortId = Guid.NewGuid() }], Present(14, 1, 2, 3, 4, 5))
        );
    }

    [Property]
    public void Nobody_seen_in_one_of_their_last_two_lessons_is_overlooked_nor_who_was_away(bool[] present, bool[] seen)
    {
        // One lesson a week, the latest last.
        var lessons = present.Zip(seen).Index().ToList();
        DateOnly On(int at) => Today.AddDays(-7 * (lessons.Count - at));
        var attendance = lessons.Select(its => There(On(its.Index), 0, its.Item.First)).ToList();
        var observed = lessons
            .Where(its => its.Item is { First: true, Second: true })
            .Select(its => Saw(People[0], Today.DayNumber - On(its.Index).DayNumber, Stage.Alone))
            .ToList();
        var last = lessons.Where(its => its.Item.First).TakeLast(FairEyes.Lessons).ToList();
        Assert.Equal(
            last.Count == FairEyes.Lessons && last.TrueForAll(its => !its.Item.Second),
            FairEyes.Overlooked(attendance, observed, Today).Contains(People[0])
        );
    }

    [Property]
    public void The_fair_share_is_half_of_the_lessons_of_six_weeks_in_which_somebody_was_there(
        bool[] present,
        bool[] seen
    )
    {
        var lessons = present.Zip(seen).Index().ToList();
        DateOnly On(int at) => Today.AddDays(-7 * at);
        var share = FairEyes
            .Shares(
                lessons.Select(its => There(On(its.Index), 0, its.Item.First)),
                lessons.Where(its => its.Item.Second).Select(its => Saw(People[0], 7 * its.Index, Stage.Alone)),
                Today
            )
            .GetValueOrDefault(People[0], new(0, 0));
        var lately = lessons.Take(FairEyes.ShareWeeks).ToList();
        var (was, watched) = (
            lately.Count(its => its.Item.First || its.Item.Second),
            lately.Count(its => its.Item.Second)
        );
        Assert.Equal((watched, was, watched * 2 >= was - (was % 2)), (share.Seen, share.Here, share.IsFair));
    }

    [Theory]
    [InlineData(0, 0)]
    [InlineData(1, 1)]
    [InlineData(5, 3)]
    public void It_says_how_many_minutes_of_watching_are_missing(int people, int minutes) =>
        Assert.Equal(minutes, FairEyes.MinutesToSee(people, 2));

    private static IReadOnlyList<MissedIntroduction> Missed(
        TaughtFact[] taught,
        Attendance[] attendance,
        params Observation[] seen
    )
    {
        var places = People.ToDictionary(
            person => person,
            IReadOnlyList<Place> (_) => [new(School.Fern, Today.AddDays(-100))]
        );
        return MissedIntroduction.In(
            ProgressBook.Records(taught),
            places,
            attendance,
            new(places, attendance, taught, seen, Today)
        );
    }

    private static TaughtFact Taught(int days, TaughtHow how) =>
        Material.Taught(Press, Today.AddDays(-days)) with
        {
            ClassId = School.Room,
            CohortId = School.Fern,
            How = how,
        };

    private static Attendance[] Present(int days, params int[] here) =>
        [.. People.Index().Select(person => There(Today.AddDays(-days), person.Index, here.Contains(person.Index)))];

    private static Attendance There(DateOnly date, int person, bool present) =>
        new(Guid.NewGuid(), School.Room, date, People[person], present, Guid.Empty, DateTimeOffset.UnixEpoch);

    private static Observation Saw(Guid person, int days, Stage stage) =>
        new(
            Guid.NewGuid(),
            School.Room,
            Today.AddDays(-days),
            person,
            Press.PostureId,
            Press.Side,
            Sign.Stage,
            stage,
            null,
            "",
            null,
            Guid.Empty,
            DateTimeOffset.UnixEpoch
        );
}
