using System.Globalization;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>A demand, and where it comes from.</summary>
/// <param name="Count">The first count that asks for it, 0 where it starts; null where a head has added it.</param>
/// <param name="Because">What asks for it, as a sentence about the body.</param>
public sealed record AskedFor(Demand Demand, int? Count, string Because);

/// <summary>What a posture or a version of it asks of a body (domain.md 4.1, "Demands follow").</summary>
/// <param name="IsKnown">Whether it is notated, so that it is known what it asks for. Otherwise it may ask for
/// anything.</param>
/// <param name="TakenOff">What follows from the notation and a head says it does not ask for, with the reason.</param>
public sealed record AskedOfBody(IReadOnlyList<AskedFor> Asks, bool IsKnown, IReadOnlyList<NotAsked> TakenOff)
{
    public IReadOnlyList<Demand> Demands { get; } = [.. Asks.Select(asked => asked.Demand)];
}

/// <summary>A demand that follows from the notation and is not asked for all the same, because of this.</summary>
public sealed record NotAsked(Demand Demand, string Reason);

/// <summary>Demands as they follow from steps and body, count by count.</summary>
public static class DerivedDemands
{
    /// <summary>What the posture itself, or the version of it in a mode, asks for; null while none is written.</summary>
    public static AskedOfBody? Of(PostureText text, IReadOnlyList<Count> counts, Mode mode)
    {
        if (mode == Mode.Standing)
        {
            return Of(text.Entry, text.Start, counts, mode, null, text.Demands, text.NotAsked);
        }

        return text.Versions.FirstOrDefault(version => version.Mode == mode) is { } version
            ? Of(
                version.EntryFrom(text.Entry),
                version.Start,
                version.Counts,
                mode,
                version.Rail,
                version.Demands,
                version.NotAsked
            )
            : null;
    }

    /// <summary>What feet and hands have to do on the way into each place of a form, by the stand and the hands they really
    /// come from.</summary>
    public static ILookup<int, Demand> OfWaysIn(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        FloorWalk walk
    )
    {
        var first = walk.Beats.DistinctBy(beat => beat.At).ToDictionary(beat => beat.At);
        return positions
            .Index()
            .Where(place => first.ContainsKey(place.Index))
            .SelectMany(place =>
                Feet(first[place.Index])
                    .Concat(place.Item.WayInBody.Length > 0 ? Hands(place.Index, first[place.Index]) : [])
                    .Select(asked => (place.Index, asked.Demand))
            )
            .Distinct()
            .ToLookup(asked => asked.Index, asked => asked.Demand);

        // What the stand asks for in which somebody is already, the posture before has asked for.
        IEnumerable<AskedFor> Feet(Beat beat) =>
            beat.Count == 0 ? beat.Moments.SelectMany(moment => Step(moment, 0)).Concat(Turned(beat.After, 0)) : [];

        IEnumerable<AskedFor> Hands(int at, Beat beat) =>
            Above(
                new(
                    beat.Count == 0 ? beat : beat with { Moments = [] },
                    BodyNotation.Parse(positions[at].WayInBody).Actions,
                    at == 0 ? BodyState.AtRest : EndOf(positions[at - 1], postures),
                    Physique.Standard
                ),
                1,
                Mode.Standing
            );
    }

    private static BodyState EndOf(Position position, IReadOnlyDictionary<Guid, Posture> postures)
    {
        var posture = postures[position.PostureId];
        return posture
            .BodiesOn(position.Side)
            .Aggregate(
                BodyState.AtRest.After(posture.BodyOn(position.Side, posture.Text.Start)),
                (state, does) => state.After(does)
            );
    }

    /// <param name="added">What a head has added.</param>
    /// <param name="takenOff">What a head has taken off.</param>
    public static AskedOfBody Of(
        string entry,
        string start,
        IReadOnlyList<Count> counts,
        Mode mode,
        Side? rail,
        IReadOnlyList<Demand> added,
        IReadOnlyList<NotAsked> takenOff
    )
    {
        var known = IsNotated(entry, start, counts);
        IReadOnlyList<AskedFor> derived = known
            ?
            [
                .. Of(
                    PostureBody.Of(
                        entry,
                        start,
                        counts,
                        AidKind.Of(mode, rail),
                        Conventions.Default,
                        Physique.Standard
                    ),
                    mode
                ),
            ]
            : [];
        var off = takenOff.Where(not => derived.Any(asked => asked.Demand == not.Demand)).ToList();
        return new(
            [
                .. derived.Where(asked => off.All(not => not.Demand != asked.Demand)),
                .. added
                    .Except(derived.Select(asked => asked.Demand))
                    .Distinct()
                    .Select(demand => new AskedFor(demand, null, "added by hand")),
            ],
            known,
            off
        );
    }

    /// <summary>Every count says in notation what it does, and can be read: words alone tell nobody what a body has to
    /// do.</summary>
    private static bool IsNotated(string entry, string start, IReadOnlyList<Count> counts) =>
        counts.Count > 0
        && (start.Length > 0 || counts.Any(count => count.Body.Length > 0))
        && StepNotation.Parse(entry).Problems.Count == 0
        && BodyNotation.Parse(start).Problems.Count == 0
        && counts.All(count =>
            (count.Feet.Length > 0 || count.Body.Length > 0 || (count.Hands + count.Waist + count.Gaze).Length == 0)
            && StepNotation.Parse(count.Feet).Problems.Count == 0
            && BodyNotation.Parse(count.Body).Problems.Count == 0
        );

    /// <summary>Each demand once, with the first count that asks for it.</summary>
    private static IEnumerable<AskedFor> Of(BodyWalk walk, Mode mode) =>
        Enumerable
            .Range(0, walk.Count + 1)
            .SelectMany(count =>
                (mode.Support == Support.Seat ? [] : Below(walk, count)).Concat(Above(walk, count, mode))
            )
            .Concat(mode.Support == Support.Seat ? [] : Standing(walk))
            .DistinctBy(asked => asked.Demand)
            .OrderBy(asked => asked.Demand);

    /// <summary>What feet and legs have to do.</summary>
    private static IEnumerable<AskedFor> Below(BodyWalk walk, int count)
    {
        var (body, stand) = (walk.After(count), walk.StandAfter(count));
        if (body.LeftLeg.InAir || body.RightLeg.InAir)
        {
            yield return new(Demand.OneLegBalance, count, "one foot is in the air when the count ends");
        }

        var knee = new[] { body.LeftLeg, body.RightLeg }.Where(leg => leg.Load > Loaded).Max(Flexion);
        if (knee >= DeepKnee)
        {
            yield return new(Demand.DeepBend, count, $"a loaded knee bends {Math.Round(knee)}°");
        }

        if (
            (stand.Left.Heel - stand.Right.Heel).Length is > Wide and var apart
            && !stand.Left.InAir
            && !stand.Right.InAir
        )
        {
            yield return new(
                Demand.WideStep,
                count,
                string.Create(CultureInfo.InvariantCulture, $"the feet stand {apart:0.#} foot-lengths apart")
            );
        }

        foreach (var asked in Turned(stand, count))
        {
            yield return asked;
        }

        foreach (var moment in count == 0 ? [] : walk.Beats[count - 1].Moments)
        {
            foreach (var asked in Step(moment, count))
            {
                yield return asked;
            }
        }
    }

    private static IEnumerable<AskedFor> Turned(Stand stand, int count)
    {
        foreach (var foot in new[] { Foot.Left, Foot.Right })
        {
            var inward = Inward(stand, foot);
            if (inward > InwardMost && !stand[foot].InAir)
            {
                yield return new(
                    Demand.InwardHipTurn,
                    count,
                    $"the {Name(foot)} foot points {inward}° inward of the pelvis"
                );
            }
        }
    }

    private static IEnumerable<AskedFor> Step(Moment moment, int count)
    {
        switch (moment.Action)
        {
            case StepAction.Move move:
                if (move.Verb == FootVerb.Kick)
                {
                    yield return new(Demand.Kick, count, $"the {Name(move.Foot)} foot kicks");
                    yield return new(Demand.OneLegBalance, count, $"the {Name(move.Foot)} foot is in the air");
                }

                if (move.Springs || move.Verb == FootVerb.Stamp)
                {
                    yield return new(Demand.FastMove, count, $"the {Name(move.Foot)} foot comes down fast");
                }

                if (move.Springs)
                {
                    yield return new(
                        Demand.OneLegBalance,
                        count,
                        $"the body lands on the {Name(move.Foot)} foot alone"
                    );
                }

                if (move.Crosses && !move.LeavesFloor)
                {
                    yield return new(Demand.CrossStep, count, $"the {Name(move.Foot)} foot crosses the other");
                }

                if (
                    move is { To.Forward: < 0, LeavesFloor: false }
                    && (moment.After[move.Foot].Heel - moment.Before[move.Foot].Heel)
                        .SeenFacing(moment.After.Hips)
                        .Ahead < -Back
                )
                {
                    yield return new(Demand.BackwardStep, count, $"the {Name(move.Foot)} foot steps back");
                }

                break;
            case StepAction.Pivot pivot
                when Math.Abs(pivot.Turn) > SmallPivot
                    && Math.Max(moment.Before[pivot.Foot].Load, moment.After[pivot.Foot].Load) > HalfLoaded:
                yield return new(
                    Demand.PivotUnderLoad,
                    count,
                    $"the {Name(pivot.Foot)} foot turns {Math.Abs(pivot.Turn)}° under load"
                );
                break;
        }
    }

    /// <summary>What trunk, head and arms have to do.</summary>
    private static IEnumerable<AskedFor> Above(BodyWalk walk, int count, Mode mode)
    {
        var (body, state, physique) = (walk.After(count), walk.StateAfter(count), walk.Physique);
        if (Math.Abs(state.Chest) >= Twist)
        {
            yield return new(Demand.TrunkTwist, count, $"the chest turns {Math.Abs(state.Chest)}° against the pelvis");
        }

        var offFeet = OffTheFeet(walk.StandAfter(count), state.Chest);
        if (mode.Support != Support.Seat && offFeet >= TwistOffFeet)
        {
            yield return new(Demand.TrunkTwist, count, $"the chest turns {Math.Round(offFeet)}° against the feet");
        }

        if (state.LeanForward >= Bend)
        {
            yield return new(Demand.ForwardBend, count, $"the trunk leans {state.LeanForward}° forward");
        }

        var turned = Math.Abs(
            Math.Atan2(body.Face.Dot(body.Trunk.ChestRight), body.Face.Dot(body.Trunk.ChestAhead)) * 180 / Math.PI
        );
        if (turned >= HeadTurn)
        {
            yield return new(Demand.HeadTurning, count, $"the head turns {Math.Round(turned)}° against the chest");
        }

        foreach (var hand in new[] { Hand.Left, Hand.Right })
        {
            var (arm, name) = (body.ArmOf(hand), ArmRules.Name(hand));
            if (arm.Palm.Up > body.Trunk.Neck.Up + physique.Of(Overhead))
            {
                yield return new(Demand.OverheadReach, count, $"the {name} hand is at the brow or higher");
            }

            if (!arm.Holds && Math.Max(arm.Wrist.Up, arm.Palm.Up) > arm.Shoulder.Up - physique.Of(ShoulderHeight))
            {
                yield return new(Demand.ArmsAtShoulderHeight, count, $"the {name} arm is held at shoulder height");
            }
        }

        if (count > 0 && Moves(walk, count, Hand.Left) && Moves(walk, count, Hand.Right))
        {
            yield return new(Demand.BothHandsFree, count, "both hands move, and neither holds on");
        }
    }

    private static bool Moves(BodyWalk walk, int count, Hand hand)
    {
        // Seen from the chest: what only turns with it does nothing.
        var (before, after) = (walk.After(count - 1), walk.After(count));
        return !after.ArmOf(hand).Holds && (Seen(after) - Seen(before)).Length > HandHasMoved;
        Vector Seen(Skeleton body) => body.Trunk.InChest(body.ArmOf(hand).Palm - body.Trunk.Neck);
    }

    /// <summary>Long standing: the feet stay where they are through many counts and the weight hardly moves.</summary>
    private static IEnumerable<AskedFor> Standing(BodyWalk walk)
    {
        var still = 0;
        foreach (var beat in walk.Beats)
        {
            still =
                beat.Moments.All(moment => moment.Action is not StepAction.Move)
                && Math.Abs(beat.After.Left.Load - beat.Before.Left.Load) <= HardlyMoves
                    ? still + 1
                    : 0;
            if (still == ManyCounts)
            {
                yield return new(
                    Demand.LongStanding,
                    beat.Count,
                    $"the weight stays where it is through {ManyCounts} counts"
                );
            }
        }
    }

    /// <summary>How far the chest has turned from where both feet point, taken together; degrees.</summary>
    private static double OffTheFeet(Stand stand, int chest)
    {
        if (stand.Left.InAir || stand.Right.InAir)
        {
            return 0;
        }

        var middle = stand.Left.Toes + (FootPose.TurnBetween(stand.Left.Toes, stand.Right.Toes) / 2);
        return Math.Abs(FootPose.TurnBetween(middle, stand.Hips + chest));
    }

    /// <summary>How far a knee is bent, degrees; 0 is straight.</summary>
    private static double Flexion(Leg leg) =>
        Math.Acos(Math.Clamp((leg.Knee - leg.Hip).Unit().Dot((leg.Ankle - leg.Knee).Unit()), -1, 1)) * 180 / Math.PI;

    /// <summary>How far a foot points inward of the pelvis, degrees.</summary>
    private static int Inward(Stand stand, Foot foot)
    {
        var turn = Facing.FromDegrees(stand.Hips).TurnTo(Facing.FromDegrees(stand[foot].Toes));
        return foot == Foot.Left ? turn : -turn;
    }

    private static string Name(Foot foot) => foot == Foot.Left ? "left" : "right";

    private const double DeepKnee = 95;
    private const int InwardMost = 25;
    private const int Loaded = 20;
    private const int HalfLoaded = 50;
    private const int SmallPivot = 30;
    private const double Back = 0.4;
    private const double Wide = 2.2;
    private const int Twist = 25;
    private const int TwistOffFeet = 45;
    private const int Bend = 15;
    private const int HeadTurn = 40;
    private const double Overhead = 0.23;
    private const double ShoulderHeight = 0.06;
    private const double HandHasMoved = 0.06;
    private const int HardlyMoves = 20;
    private const int ManyCounts = 6;
}
