using FsCheck;
using FsCheck.Fluent;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>Any steps the notation can say, and stands two feet may be in.</summary>
public sealed class Steps
{
    public static Arbitrary<StepAction[]> Lists() => Gen.ArrayOf(Step).Where(steps => steps.Length <= 8).ToArbitrary();

    public static Arbitrary<Stand> Stands() =>
        (
            from right in Gen.Choose(-60, 60)
            from ahead in Gen.Choose(-60, 60)
            from apart in Gen.Choose(10, 30)
            from toes in Gen.Choose(0, 359)
            from others in Gen.Choose(0, 359)
            from hips in Gen.Choose(0, 359)
            from load in Gen.Choose(0, 100)
            select new Stand(
                new(new(right / 10.0, ahead / 10.0), toes, Contact.Flat, load),
                new(new((right + apart) / 10.0, ahead / 10.0), others, Contact.Flat, 100 - load),
                hips
            )
        ).ToArbitrary();

    private static Gen<Foot> Feet => Gen.Elements(Foot.Left, Foot.Right);

    private static Gen<int?> Load => Gen.OneOf(Gen.Constant((int?)null), Gen.Choose(0, 100).Select(load => (int?)load));

    private static Gen<Place?> To =>
        Gen.OneOf(
            Gen.Constant((Place?)null),
            from forward in Gen.Choose(-60, 60)
            from side in Gen.Choose(-60, 60)
            from toward in Gen.Choose(-180, 180)
            where forward != 0 || side != 0 || toward != 0
            select (Place?)new Place(forward / 10m, side / 10m, toward)
        );

    private static Gen<StepAction> Step =>
        Gen.OneOf(
            from foot in Feet
            from verb in Gen.Elements(Enum.GetValues<FootVerb>())
            from to in To
            from toes in Gen.OneOf(Gen.Constant((int?)null), Gen.Choose(-180, 180).Select(turn => (int?)turn))
            from lands in Gen.OneOf(
                Gen.Constant((Contact?)null),
                Gen.Elements((Contact?)Contact.Flat, Contact.Heel, Contact.Ball, Contact.Toe)
            )
            from crosses in Gen.Elements(true, false)
            from load in Load
            select (StepAction)
                new StepAction.Move(
                    foot,
                    verb,
                    to,
                    toes,
                    verb is FootVerb.Lift or FootVerb.Kick && lands is Contact.Flat or Contact.Ball ? null : lands,
                    crosses,
                    load
                ),
            from foot in Feet
            from point in Gen.Elements((PivotOn?)null, PivotOn.Heel, PivotOn.Ball)
            from turn in Gen.Choose(-180, 180)
            from load in Load
            select (StepAction)new StepAction.Pivot(foot, point, turn, load),
            from foot in Feet
            from load in Gen.Choose(0, 100)
            select (StepAction)new StepAction.Weigh(foot, load),
            from foot in Feet
            from load in Gen.Choose(0, 100)
            select (StepAction)new StepAction.WeighSeat(foot, load),
            Gen.Choose(-360, 360).Select(turn => (StepAction)new StepAction.Hips(turn)),
            Gen.Choose(-90, 90).Select(turn => (StepAction)new StepAction.Chest(turn)),
            Gen.Elements((StepAction)new StepAction.Height(true), new StepAction.Height(false))
        );
}
