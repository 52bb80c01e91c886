using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Tests.Forms;

namespace Zeitplan.Core.Tests.Terms;

public sealed class AssignmentTests
{
    private static readonly Term Winter = Term.Create(
        Guid.NewGuid(),
        new("Winter term", new(2026, 10, 21), new(2027, 1, 19), [], [])
    );
    private static readonly Form Lantern = Form.Create(Guid.NewGuid(), Starter.Long);
    private static readonly IReadOnlyDictionary<Guid, PostureOutline> Outlines = Starter.Postures.ToDictionary(
        entry => entry.Key,
        entry => entry.Value.Outline
    );

    [Fact]
    public void Every_problem_of_a_segment_stands_at_its_field()
    {
        string[] Fields(params AssignedSegment[] segments) =>
            [
                .. Assignment
                    .Check(segments, new Dictionary<Guid, Form> { [Lantern.Id] = Lantern }, Winter)
                    .Select(problem => problem.Field),
            ];
        Assert.Empty(Fields(Segment(1, 11), Segment(12, 17)));
        Assert.Equal(["segments[0].toId"], Fields(Segment(11, 1)));
        Assert.Equal(["segments[1].target"], Fields(Segment(1, 3), Segment(4, 5) with { Target = new(2027, 3, 1) }));
        Assert.Equal(["segments[0].fromId"], Fields(Segment(1, 3) with { FromId = Guid.NewGuid() }));
        Assert.Equal(["segments[0].formId"], Fields(Segment(1, 3) with { FormId = Guid.NewGuid() }));
        Assert.Equal(["segments[0].leftOut"], Fields(Segment(1, 1) with { LeftOut = [Lantern.Positions[0].Id] }));
        Assert.Equal(["segments[1]"], Fields(Segment(1, 3), Segment(1, 3)));
    }

    [Fact]
    public void An_edit_of_the_form_that_turns_a_segment_round_is_noticed()
    {
        var segment = Segment(1, 2);
        Assert.True(segment.StillFits(Lantern.Positions));
        Assert.False(segment.StillFits([Lantern.Positions[1], Lantern.Positions[0]]));
    }

    [Property]
    public void A_groups_own_run_still_joins_up_or_says_where_it_does_not(byte from, byte length, byte[] missing)
    {
        var first = from % 60;
        var whole = Lantern.Positions.Skip(first).Take(4 + (length % 12)).ToList();
        var left = missing.Take(3).Select(at => whole[at % whole.Count].Id).ToHashSet();
        var own = GroupSegment.Of(whole, left, Starter.Postures, Mode.Standing, Conventions.Default);
        Assert.Equal(
            whole.Where(position => !left.Contains(position.Id)).Select(position => position.Id),
            own.Positions.Select(position => position.Id)
        );
        Assert.Equal(left.Count == 0, own.Changes.Count == 0);
        Assert.All(
            own.Positions.Zip(own.Positions.Skip(1)),
            pair => Assert.Equal(pair.Second.Facing, pair.First.Facing.Turn(pair.Second.Turn))
        );
    }

    [Fact]
    public void A_repaired_link_starts_the_next_posture_where_it_should_start()
    {
        // Without Crane Cools Wings, Brush Knee follows Single Whip.
        var whole = Lantern.Positions.Take(11).ToList();
        var own = GroupSegment.Of(whole, [whole[8].Id], Starter.Postures, Mode.Standing, Conventions.Default);
        Assert.StartsWith(
            "Crane Cools Wings, left is left out; Brush Knee, left follows Single Whip, left",
            Assert.Single(own.Changes),
            StringComparison.Ordinal
        );
        var joined = own.Positions.Single(position => position.Id == whole[9].Id);
        if (own.Changes[0].Contains("repaired", StringComparison.Ordinal))
        {
            var findings = FormCheck.Run(
                Starter.Long with
                {
                    Positions = own.Positions,
                    Segments = [],
                    Accepted = [],
                },
                Starter.Postures,
                Conventions.Default
            );
            Assert.DoesNotContain(
                findings,
                finding => finding.PositionId == joined.Id && finding.Severity >= Severity.Error
            );
        }
    }

    [Fact]
    public void What_is_needed_first_what_is_settled_and_what_has_no_version_is_said_on_the_spot()
    {
        Guid[] students = [Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid()];
        var opening = new PostureSide(Starter.Called("Opening").Id, Side.Symmetric);
        string[] unwritten = ["Embrace Tiger", "Fist under Elbow"];
        var outlines = Outlines.ToDictionary(
            entry => entry.Key,
            entry => unwritten.Contains(entry.Value.Name) ? entry.Value with { Versions = [] } : entry.Value
        );
        IReadOnlyList<AssignmentFinding> Check(Mode mode, params AssignedSegment[] segments) =>
            AssignmentCheck.Of(
                segments,
                new Dictionary<Guid, Form> { [Lantern.Id] = Lantern },
                outlines,
                mode,
                students,
                (_, of) => of == opening ? Stage.Settled : Stage.NotMet,
                [("Thursday practice", 2, new HashSet<PostureSide> { opening })]
            );
        var first = Check(Mode.Standing, Segment(1, 11));
        Assert.Contains(
            first,
            finding =>
                finding.Kind == AssignmentFindingKind.Settled
                && finding.Message.Contains("Opening", StringComparison.Ordinal)
        );
        Assert.Contains(
            first,
            finding =>
                finding.Kind == AssignmentFindingKind.Overlap
                && finding.Message.StartsWith(
                    "2 of the cohort have 1 of these postures in Thursday practice",
                    StringComparison.Ordinal
                )
        );
        Assert.DoesNotContain(
            first,
            finding =>
                finding.Kind == AssignmentFindingKind.Prerequisite && finding.PositionId == Lantern.Positions[0].Id
        );
        Assert.Contains(
            Check(Mode.Standing, Segment(18, 31)),
            finding =>
                finding.Kind == AssignmentFindingKind.Prerequisite
                && finding.Message.Contains("postures of Section one", StringComparison.Ordinal)
        );
        Assert.DoesNotContain(
            Check(Mode.Standing, Segment(1, 17), Segment(18, 31)),
            finding =>
                finding.Kind == AssignmentFindingKind.Prerequisite
                && finding.Message.Contains("postures of Section one", StringComparison.Ordinal)
        );
        Assert.Equal(
            unwritten,
            Check(Mode.Seated, Segment(16, 23))
                .Where(finding => finding.Kind == AssignmentFindingKind.NoVersion)
                .Select(finding => Outlines[finding.PostureId!.Value].Name)
        );
    }

    [Fact]
    public void A_new_term_may_begin_from_the_last_one_or_from_the_ladder()
    {
        var ivory = SashLevel.Create(
            Guid.NewGuid(),
            1,
            new(
                "Ivory",
                "#D9CCA6",
                false,
                new() { Studies = [new(Lantern.Id, Lantern.Positions[0].Id, Lantern.Positions[10].Id)] }
            )
        );
        var cohort = Cohort.Create(
            Guid.NewGuid(),
            Guid.NewGuid(),
            new("Ivory", 0, ivory.Id, Half.None, Mode.Standing, "#D9CCA6", true, false)
        );
        IReadOnlyList<AssignedSegment> Propose(AssignmentTemplate template, params AssignedSegment[] had) =>
            Assert
                .Single(
                    AssignmentTemplates.Propose(
                        template,
                        [cohort],
                        new Dictionary<Guid, IReadOnlyList<AssignedSegment>> { [cohort.Id] = had },
                        new Dictionary<Guid, Form> { [Lantern.Id] = Lantern },
                        new Dictionary<Guid, SashLevel> { [ivory.Id] = ivory },
                        new(2026, 12, 29),
                        Guid.NewGuid
                    )
                )
                .Segments;
        Assert.Equal(Lantern.Positions[10].Id, Assert.Single(Propose(AssignmentTemplate.Ladder)).ToId);
        Assert.Equal(new(2026, 12, 29), Assert.Single(Propose(AssignmentTemplate.LastTerm, Segment(1, 5))).Target);
        var next = Assert.Single(Propose(AssignmentTemplate.NextSection, Segment(1, 5)));
        Assert.Equal(Lantern.Positions.First(position => position.SectionId == Lantern.Sections[1].Id).Id, next.FromId);
        Assert.Empty(Propose(AssignmentTemplate.LastTerm));
        Assert.Empty(Propose(AssignmentTemplate.NextSection, Segment(60, 75)));
    }

    private static AssignedSegment Segment(int from, int to) =>
        new(
            Guid.NewGuid(),
            Lantern.Id,
            Lantern.Positions[from - 1].Id,
            Lantern.Positions[to - 1].Id,
            new(2026, 12, 29),
            Purpose.New,
            []
        );
}
