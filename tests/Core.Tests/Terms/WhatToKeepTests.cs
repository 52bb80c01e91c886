using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests.Terms;

public sealed class WhatToKeepTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly Guid Garnet = Guid.NewGuid();
    private static readonly Guid[] Students = [.. Enumerable.Range(0, 6).Select(_ => Guid.NewGuid())];
    private static readonly Posture Opening = Material.Posture("Opening", Side.Symmetric, 3);
    private static readonly Posture Push = Material.Posture("Push", Side.Right, 5);
    private static readonly Posture Press = Material.Posture("Press", Side.Right, 4, seatedCounts: 4);

    [Fact]
    public void It_is_due_before_it_fades_with_a_third_and_holds_as_long_as_it_does_with_them()
    {
        // Seen 1, 2, 3 … weeks ago: the second of six is a third.
        var seen = Students.SelectMany(
            (student, at) => new[] { Opening, Push }.Select(of => Saw(student, of, 7 * (at + 1)))
        );
        var keep = Of([Maintain(Opening, Push)], seen);
        Assert.Empty(keep.Left);
        Assert.All(
            keep.Keeping.Postures,
            kept => Assert.Equal((Today.AddDays((-7 * 5) + 42), 42), (kept.Due, kept.HoldsDays))
        );
        var run = Assert.Single(keep.Keeping.Runs);
        Assert.Equal(("Opening to Push, right", (3 + 5) * Pace.Smooth), (run.Name, run.Seconds.Count));
    }

    [Fact]
    public void What_most_have_not_met_cannot_be_kept_and_what_is_new_is_kept_by_its_reviews()
    {
        var seen = Students.Take(3).Select(student => Saw(student, Opening, 7)).ToList();
        var keep = Of([Maintain(Opening)], seen);
        Assert.Empty(keep.Keeping.Postures);
        Assert.Equal("Opening", Assert.Single(keep.Left).Name);

        var fresh = Of([Maintain(Opening), Maintain(Opening) with { Purpose = Purpose.New }], seen);
        Assert.Empty(fresh.Keeping.Postures);
        Assert.Empty(fresh.Left);
    }

    [Fact]
    public void Without_a_version_for_the_mode_it_is_left_out_and_said()
    {
        var seen = Students.SelectMany(student => new[] { Saw(student, Press, 7), Saw(student, Push, 7) });
        var keep = Of([Maintain(Press, Push)], seen, Mode.Seated);
        Assert.Equal(Press.Id, Assert.Single(keep.Keeping.Postures).Of.PostureId);
        Assert.Equal("Push, right", Assert.Single(keep.Left).Name);
        Assert.Empty(keep.Keeping.Runs);
    }

    [Fact]
    public void A_difference_is_planned_for_a_third_until_they_are_taught_it_which_no_run_through_does()
    {
        var change = new StandardChange(Guid.NewGuid(), Today.AddDays(-28), "the palms arrive last");
        var changed = Posture.Create(Push.Id, Push.Text with { Changes = [change] });
        var seen = Students.Select((student, at) => Saw(student, changed, at < 4 ? 7 : 60)).ToList();
        var kept = Assert.Single(Of([], seen, changed: changed).Keeping.Postures);
        Assert.Equal((change.From, change.Difference), (kept.Changed!.Since, kept.Changed.Difference));
        Assert.Null(kept.HoldsDays);
        Assert.Equal(120, kept.Seconds.Count);

        Assert.Empty(Of([], [.. seen.Skip(1)], changed: changed, students: Students[1..4]).Keeping.Postures);
        Assert.Single(Of([], seen, changed: changed, taught: TaughtHow.RunThrough).Keeping.Postures);
        Assert.Empty(Of([], seen, changed: changed, taught: TaughtHow.Reviewed).Keeping.Postures);
        Assert.Empty(Of([], seen, changed: changed, told: [kept.Of]).Keeping.Postures);
    }

    private static WhatToKeep Of(
        IReadOnlyList<GivenRun> runs,
        IEnumerable<Observation> seen,
        Mode? mode = null,
        Posture? changed = null,
        TaughtHow? taught = null,
        Guid[]? students = null,
        PostureSide[]? told = null
    )
    {
        var (classId, date) = (Guid.NewGuid(), Today.AddDays(-5));
        List<TaughtFact> facts = taught is { } how
            ? [Material.Taught(new(Push.Id, Side.Right), date) with { ClassId = classId, CohortId = Garnet, How = how }]
            : [];
        var book = new ProgressBook(
            Students.ToDictionary(who => who, _ => (IReadOnlyList<Place>)[new(Garnet, DateOnly.MinValue)]),
            [.. Students.Select(who => new Attendance(Guid.NewGuid(), classId, date, who, true, Guid.Empty, default))],
            facts,
            [.. seen],
            Today
        );
        return WhatToKeep.Of(
            runs,
            new[] { Opening, changed ?? Push, Press }.ToDictionary(posture => posture.Id, posture => posture.Outline),
            new HashSet<Guid>(),
            TeachingWay.Of(mode ?? Mode.Standing),
            students ?? Students,
            book,
            Today,
            (told ?? []).ToHashSet()
        );
    }

    private static GivenRun Maintain(params Posture[] postures) =>
        new(
            [
                .. postures.Select(of => new Position(
                    Guid.NewGuid(),
                    Guid.Empty,
                    of.Id,
                    of.Text.WrittenSide,
                    0,
                    default
                )),
            ],
            Purpose.Maintain
        );

    private static Observation Saw(Guid student, Posture of, int daysAgo) =>
        Material.Saw(new(of.Id, of.Text.WrittenSide), Today.AddDays(-daysAgo), Sign.Stage) with
        {
            StudentId = student,
            Stage = Stage.Alone,
        };
}
