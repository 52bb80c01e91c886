using FsCheck.Xunit;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Tests.Forms;

public sealed class FormCheckTests
{
    private static readonly Conventions Ways = Conventions.Default;

    [Property]
    public void What_is_found_in_a_broken_form_is_found_mirrored_in_its_mirror(int at, int turn, int swap)
    {
        var form = Broken(at, turn, swap);
        var found = Found(form).Select(Seen).Order().ToList();
        Assert.Equal(
            found,
            Found(Starter.Mirrored(form))
                .Select(finding =>
                    Seen(
                        finding with
                        {
                            Foot = finding.Foot is { } foot ? Core.Forms.Notation.StepAction.Other(foot) : null,
                        }
                    )
                )
                .Order()
        );

        // How far a broken form ends from its start depends on the foot with which the opening, which has no side,
        // begins.
        static IEnumerable<Finding> Found(FormText form) =>
            FormCheck.Run(form, Starter.Postures, Ways).Where(finding => finding.Rule != Rule.HomeComing);

        static string Seen(Finding finding) =>
            $"{finding.PositionId} {finding.Rule} {finding.Severity} {finding.Count} {finding.Foot}";
    }

    [Fact]
    public void A_way_in_that_is_missing_is_offered_and_mends()
    {
        var form = With(Starter.Long, 12, position => position with { WayIn = "" });
        var findings = FormCheck
            .Run(form, Starter.Postures, Ways)
            .Where(finding => finding.PositionId == form.Positions[12].Id)
            .ToList();
        Assert.NotEmpty(findings);
        var mend = findings.SelectMany(finding => finding.Mends).First(offer => offer.WayIn is not null);
        Assert.Empty(
            FormCheck.Run(With(form, 12, position => position with { WayIn = mend.WayIn! }), Starter.Postures, Ways)
        );
    }

    [Fact]
    public void Both_sides_of_a_disagreement_are_said()
    {
        var form = With(Starter.Long, 12, position => position with { WayIn = "" });
        Assert.Contains(
            FormCheck.Run(form, Starter.Postures, Ways),
            finding =>
                finding.Message == "Brush Knee, left leaves 70 % on the left foot; Brush Knee, right starts with 100 %."
        );
    }

    [Fact]
    public void What_the_school_keeps_as_its_way_stays_listed_with_its_reason()
    {
        var form = With(Starter.Long, 7, position => position with { Facing = Facing.FromDegrees(315) });
        var finding = FormCheck.Run(form, Starter.Postures, Ways)[0];
        var kept = form with
        {
            Accepted = [new(finding.Rule, finding.PositionId, finding.Count, "we have always ended in the corner")],
        };
        Assert.Equal(
            "we have always ended in the corner",
            FormCheck
                .Run(kept, Starter.Postures, Ways)
                .First(other => other.Rule == finding.Rule && other.PositionId == finding.PositionId)
                .AcceptedBecause
        );
    }

    [Fact]
    public void A_form_that_wanders_off_is_told_how_far()
    {
        var wandering = Starter.Long with { Positions = [.. Starter.Long.Positions.Take(16)], Segments = [] };
        Assert.Contains(FormCheck.Run(wandering, Starter.Postures, Ways), finding => finding.Rule == Rule.HomeComing);
    }

    [Property]
    public void Numbers_rise_by_one_and_never_change_the_order(bool compound, byte repeats, bool ends)
    {
        var switches = new NumberingSwitches(compound, (RepeatCount)(repeats % 4), ends);
        var numbers = Numbering
            .Of(Starter.Long.Positions, Starter.Postures, switches)
            .OfType<PositionNumber>()
            .ToList();
        Assert.Equal(1, numbers[0].First);
        Assert.All(numbers.Zip(numbers.Skip(1)), pair => Assert.Equal(pair.First.Last + 1, pair.Second.First));
        Assert.All(numbers, number => Assert.True(number.Last >= number.First));
    }

    [Fact]
    public void A_compound_counts_as_one_or_by_its_parts_and_repeats_once_or_each_time()
    {
        Assert.Equal(["4", null, null, null], Numbers(new(), 3, 4));
        Assert.Equal(["4", "5", "6", "7"], Numbers(new(CompoundAsOne: false), 3, 4));
        var cloud = Starter.Long.Positions.Index().First(place => place.Item.Repeats > 1).Index;
        Assert.Matches("^[0-9]+–[0-9]+$", Numbers(new(), cloud, 1)[0]);
        Assert.Matches("^[0-9]+$", Numbers(new(Repeats: RepeatCount.Once), cloud, 1)[0]);
        Assert.Null(Numbers(new(EndsCounted: false), 0, 1)[0]);
    }

    [Fact]
    public void Facing_the_class_the_teacher_says_the_students_sides_and_does_the_mirror()
    {
        var mirrored = SayAndDo.Of(
            Starter.Long.Positions,
            Starter.Postures,
            Starter.Links,
            Demonstration.FacingMirrored
        );
        var line = mirrored.First(cue => cue.At == 2 && cue.Count == 2);
        Assert.Equal(("step left, heel first", "step right, heel first"), (line.Say, line.Do));
        Assert.Equal((0, 180), (line.Students.Degrees, line.Teacher.Degrees));
        var last = mirrored.First(cue => cue.At == 3 && cue.Count == 4);
        Assert.Equal((90, 90), (last.Students.Degrees, last.Teacher.Degrees));
        Assert.All(
            SayAndDo.Of(Starter.Long.Positions, Starter.Postures, Starter.Links, Demonstration.BackToClass),
            cue => Assert.Equal(cue.Say, cue.Do)
        );
    }

    [Fact]
    public void Moving_up_teaches_what_is_new_and_only_the_difference_of_what_is_not()
    {
        var comparison = FormComparison.Of(
            Starter.Long.Positions,
            Knowledge.OfForm(Starter.Short.Positions),
            Starter.Postures,
            Mode.Standing
        );
        Assert.DoesNotContain(
            comparison.NewPostures,
            posture => posture.Name.StartsWith("Single Whip", StringComparison.Ordinal)
        );
        Assert.Contains(comparison.OtherSides, posture => posture.Name == "Brush Knee, right");
        Assert.Contains(comparison.Variants, posture => posture.Name == "Single Whip, left");
        Assert.Contains(
            comparison.NewLinks,
            link =>
                link
                    is { From: "Raise Hands, right", To: "Ward Off, left" }
                        or { From: "Play the Pipa, left", To: "Brush Knee, left" }
        );
        Assert.Equal(
            comparison.Minutes,
            comparison.NewPostures.Concat(comparison.OtherSides).Concat(comparison.Variants).Sum(item => item.Minutes)
                + comparison.NewLinks.Sum(link => link.Minutes)
        );
        var nothing = FormComparison.Of(
            Starter.Long.Positions,
            Knowledge.OfForm(Starter.Long.Positions),
            Starter.Postures,
            Mode.Standing
        );
        Assert.Equal((0, 0, 0m), (nothing.NewPostures.Count, nothing.NewLinks.Count, nothing.Minutes));
    }

    [Fact]
    public void A_posture_built_from_another_writes_only_the_difference_and_is_only_that_to_learn()
    {
        var snake = Starter.Called("White Snake Darts Its Tongue");
        var chop = Starter.Called("Turn and Chop");
        Assert.Equal(chop.Counts.Take(3).Select(count => count.Cue), snake.Counts.Take(3).Select(count => count.Cue));
        Assert.Equal(chop.Counts[3].Feet, snake.Counts[3].Feet);
        Assert.NotEqual(chop.Counts[3].Cue, snake.Counts[3].Cue);
        Position[] form = [new(Guid.NewGuid(), Guid.Empty, snake.Id, Side.Right, 0, default)];
        var comparison = FormComparison.Of(
            form,
            Knowledge.OfForm([form[0] with { PostureId = chop.Id }]),
            Starter.Postures,
            Mode.Standing
        );
        Assert.Equal(2, Assert.Single(comparison.Variants).Difference.Count);
    }

    private static string?[] Numbers(NumberingSwitches switches, int from, int count) =>
        [
            .. Numbering
                .Of(Starter.Long.Positions, Starter.Postures, switches)
                .Skip(from)
                .Take(count)
                .Select(number => number?.ToString()),
        ];

    private static FormText With(FormText form, int at, Func<Position, Position> change) =>
        form with
        {
            Positions = [.. form.Positions.Select((position, index) => index == at ? change(position) : position)],
            Segments = [],
        };

    /// <summary>The long form with one way in forgotten, one turn changed and two positions exchanged.</summary>
    private static FormText Broken(int at, int turn, int swap)
    {
        var positions = Starter.Long.Positions.ToList();
        var place = 1 + (int)((uint)at % (uint)(positions.Count - 2));
        positions[place] = positions[place] with { WayIn = "", Turn = positions[place].Turn + (45 * (turn % 3)) };

        // The opening and the close stay where they are: they have no side, so a mirror cannot say with which foot they
        // begin.
        var other = 1 + (int)((uint)swap % (uint)(positions.Count - 3));
        (positions[other], positions[other + 1]) = (positions[other + 1], positions[other]);
        return Starter.Long with { Positions = positions, Segments = [] };
    }
}
