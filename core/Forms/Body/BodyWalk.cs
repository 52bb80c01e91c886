using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Body;

/// <summary>A body walked through counts: the steps of a <see cref="FloorWalk"/> with what hands, trunk and gaze do in
/// each of its beats. Feet and hands arrive together when a count ends.</summary>
public sealed class BodyWalk
{
    private readonly IReadOnlyList<Beat> beats;
    private readonly IReadOnlyList<IReadOnlyList<BodyAction>> does;
    private readonly BodyState[] states;
    private readonly Skeleton?[] ends;
    private readonly Placed?[] places;

    /// <param name="does">What the body does in each beat.</param>
    /// <param name="start">Before the first beat.</param>
    public BodyWalk(
        FloorWalk walk,
        IReadOnlyList<IReadOnlyList<BodyAction>> does,
        BodyState start,
        Physique physique,
        Aid? aid = null
    )
        : this(walk.Beats, does, walk.Start, start, physique, aid) { }

    /// <summary>One beat by itself.</summary>
    internal BodyWalk(Beat beat, IReadOnlyList<BodyAction> does, BodyState start, Physique physique)
        : this([beat], [does], beat.Before, start, physique, null) { }

    private BodyWalk(
        IReadOnlyList<Beat> beats,
        IReadOnlyList<IReadOnlyList<BodyAction>> does,
        Stand stand,
        BodyState start,
        Physique physique,
        Aid? aid
    )
    {
        (this.beats, this.does, Start, Physique, Aid) = (beats, does, stand, physique, aid);
        states = new BodyState[beats.Count + 1];
        ends = new Skeleton?[beats.Count + 1];
        places = new Placed?[beats.Count + 1];
        states[0] = start;
        for (var at = 0; at < beats.Count; at++)
        {
            states[at + 1] = states[at].After(does[at]);
        }
    }

    public Stand Start { get; }
    public IReadOnlyList<Beat> Beats => beats;
    public Physique Physique { get; }
    public Aid? Aid { get; }
    public int Count => beats.Count;

    /// <summary>What the body does in a beat, from 1.</summary>
    public IReadOnlyList<BodyAction> ActionsOf(int beat) => does[beat - 1];

    /// <summary>The same walk with something else done in one of its beats.</summary>
    public BodyWalk With(int beat, IReadOnlyList<BodyAction> actions) =>
        With(states[0], [.. does.Select((done, at) => at == beat - 1 ? actions : done)]);

    /// <summary>The same steps with something else done above them. Where that leaves the body as it was, it is not placed
    /// anew.</summary>
    public BodyWalk With(BodyState start, IReadOnlyList<IReadOnlyList<BodyAction>> actions)
    {
        var other = new BodyWalk(beats, actions, Start, start, Physique, Aid);
        for (var at = 0; at <= Count; at++)
        {
            if (other.states[at] == states[at])
            {
                (other.ends[at], other.places[at]) = (ends[at], places[at]);
            }
        }

        return other;
    }

    /// <summary>One beat more, by itself: from where this walk ends.</summary>
    internal BodyWalk Then(IReadOnlyList<StepAction> feet, IReadOnlyList<BodyAction> actions, Conventions ways)
    {
        var stand = StandAfter(Count);
        return new(
            [new Beat(0, 0, 1, stand, FloorWalk.Walk(stand, feet, ways))],
            [actions],
            stand,
            states[Count],
            Physique,
            Aid
        );
    }

    /// <summary>Hands, trunk and gaze when a beat ends; 0 is before the first.</summary>
    public BodyState StateAfter(int beat) => states[beat];

    public Stand StandAfter(int beat) => beat == 0 ? Start : beats[beat - 1].After;

    /// <summary>The body when a beat ends; 0 is before the first.</summary>
    public Skeleton After(int beat) => ends[beat] ??= End(beat);

    /// <summary>The body within a beat (from 1), a part of the way through it.</summary>
    public Skeleton Within(int beat, double part)
    {
        var eased = part * part * (3 - (2 * part));
        var (from, to) = (At(beat - 1), At(beat));
        var pose = PoseWithin(beats[beat - 1], eased);
        var (trunk, legs) = Skeleton.Below(
            pose,
            TrunkPose.Of(WithSteps(beat - 1)).Towards(TrunkPose.Of(WithSteps(beat)), eased),
            Physique,
            Aid
        );
        return Skeleton.Of(
            trunk,
            legs,
            Travel(Hand.Left, from, to, beat, eased),
            Travel(Hand.Right, from, to, beat, eased),
            pose.Hips,
            part < 0.5 ? states[beat - 1].Eyes : states[beat].Eyes,
            Physique,
            Aid
        );
    }

    /// <summary>Where a hand would be at a place in words when a beat ends.</summary>
    internal Vector PlaceAfter(int beat, Hand hand, HandPlace place) => At(beat).Places.InHall(hand, place);

    /// <summary>Where both palms would be, seen from the chest, if a beat ended with hands like these.</summary>
    internal (Vector Left, Vector Right) Palms(int beat, BodyState state)
    {
        var (left, right) = At(beat).Places.Of(state);
        return (left.At, right.At);
    }

    private sealed record Placed(HandPlacing Places, HandPose Left, HandPose Right, Trunk Trunk, Leg[] Legs)
    {
        public HandPose this[Hand hand] => hand == Hand.Left ? Left : Right;
    }

    private Skeleton End(int beat)
    {
        var at = At(beat);
        return Skeleton.Of(
            at.Trunk,
            at.Legs,
            at.Left,
            at.Right,
            StandAfter(beat).Hips,
            states[beat].Eyes,
            Physique,
            Aid
        );
    }

    private Placed At(int beat) => places[beat] ??= Place(beat);

    private Placed Place(int beat)
    {
        var (trunk, legs) = Skeleton.Below(Pose(beat), TrunkPose.Of(WithSteps(beat)), Physique, Aid);
        var placing = new HandPlacing(trunk, legs, Physique, Aid);
        var (left, right) = placing.Of(states[beat]);
        return new(placing, left, right, trunk, legs);
    }

    /// <summary>Whether a hand goes to where a beat (from 1) ends by way of something.</summary>
    internal bool PassesSomewhere(int beat) =>
        ByWayOf(Hand.Left, beat) is not null || ByWayOf(Hand.Right, beat) is not null;

    private HandPose Travel(Hand hand, Placed from, Placed to, int beat, double part)
    {
        var other = BodyAction.Other(hand);
        return from[hand]
            .Towards(
                to[hand],
                part,
                ByWayOf(hand, beat) is { } moves
                    ? to.Places.By(hand, moves, from[hand], to[hand], Arm.Of(other, to[other], to.Trunk, Physique))
                    : []
            );
    }

    /// <summary>What is said last of a hand in a beat, where that names something on its way.</summary>
    private BodyAction.Arm? ByWayOf(Hand hand, int beat)
    {
        var actions = does[beat - 1];
        for (var at = actions.Count - 1; at >= 0; at--)
        {
            if (actions[at] is BodyAction.Arm arm && arm.Hand == hand)
            {
                return arm is { First: null, Then: null } ? null : arm;
            }
        }

        return null;
    }

    private FloorPose Pose(int beat) => FloorPose.Of(StandAfter(beat));

    private static FloorPose PoseWithin(Beat beat, double part)
    {
        if (beat.Moments.Count == 0)
        {
            return FloorPose.Of(beat.Before);
        }

        var way = part * beat.Moments.Count;
        var at = Math.Min((int)way, beat.Moments.Count - 1);
        return FloorPose.Within(beat.Moments[at], way - at);
    }

    /// <summary>The chest's turn is said in the body notation; what older steps say of it is added.</summary>
    private BodyState WithSteps(int beat) => states[beat] with { Chest = states[beat].Chest + StandAfter(beat).Chest };
}
