using FsCheck;
using FsCheck.Fluent;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>Anything the body notation can say.</summary>
public sealed class Bodies
{
    public static Arbitrary<BodyAction[]> Lists() =>
        Gen.ArrayOf(Action).Where(actions => actions.Length <= 6).ToArbitrary();

    private static Gen<T?> Maybe<T>(Gen<T> some)
        where T : struct => Gen.OneOf(Gen.Constant((T?)null), some.Select(value => (T?)value));

    private static Gen<T> One<T>()
        where T : struct, Enum => Gen.Elements(Enum.GetValues<T>());

    private static Gen<Aim> Aims =>
        from first in One<Way>()
        from second in Maybe(One<Way>())
        select new Aim(first, second) is { IsCorner: true } corner ? corner : new(first);

    private static Gen<HandPlace> Places =>
        Gen.OneOf(
            from height in Maybe(One<Height>())
            from line in Maybe(One<Line>())
            from reach in Maybe(One<Reach>())
            select new HandPlace(height, line, reach),
            from relation in One<Relation>()
            from landmark in One<Landmark>()
            from other in Gen.Elements(true, false)
            select new HandPlace(Against: new(relation, landmark, other && landmark >= Landmark.Ear))
        );

    private static Gen<Passing> Passings =>
        Gen.OneOf(
            Places.Where(place => !place.IsEmpty).Select(place => new Passing(place)),
            One<Way>().Select(arc => new Passing(default, arc))
        );

    private static Gen<BodyAction> Arms =>
        from hand in One<Hand>()
        from place in Places
        from palm in Maybe(Aims)
        from fingers in Maybe(Aims)
        from shape in Maybe(One<HandShape>())
        from elbow in Maybe(One<Elbow>())
        from holds in Maybe(One<Holding>())
        from first in Maybe(Passings)
        from then in Maybe(Passings)
        let arm = new BodyAction.Arm(
            hand,
            place,
            palm,
            fingers,
            shape,
            elbow,
            holds,
            first,
            first is null ? null : then
        )
        where arm != new BodyAction.Arm(hand)
        select (BodyAction)arm;

    private static Gen<BodyAction> Action =>
        Gen.OneOf(
            Arms,
            Gen.Choose(-90, 90).Select(turn => (BodyAction)new BodyAction.Chest(turn)),
            from forward in Gen.Choose(-60, 60)
            from right in Gen.Choose(-60, 60)
            select (BodyAction)new BodyAction.Lean(forward, right),
            Gen.Choose(-60, 60).Select(centimetres => (BodyAction)new BodyAction.Rise(centimetres)),
            One<Hand>().Select(hand => (BodyAction)new BodyAction.GazeAtHand(hand)),
            from turn in Gen.Choose(-120, 120)
            from up in Gen.Choose(-1, 1)
            select (BodyAction)new BodyAction.Gaze(turn, up)
        );
}
