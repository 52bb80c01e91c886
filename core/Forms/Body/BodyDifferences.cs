namespace Zeitplan.Core.Forms.Body;

/// <summary>A joint that is elsewhere in another body.</summary>
/// <param name="Joint">As it is said: "left hand".</param>
/// <param name="Apart">Metres, seen from the pelvis.</param>
/// <param name="Here">Where it is in the one body, in the hall.</param>
/// <param name="There">Where it is in the other.</param>
public sealed record JointDifference(string Joint, double Apart, Vector Here, Vector There);

/// <summary>Two bodies laid over each other at the pelvis: what is elsewhere.</summary>
public static class BodyDifferences
{
    private const double Elsewhere = 0.1;

    /// <summary>The joints that are more than a hand's breadth apart, the farthest first.</summary>
    public static IReadOnlyList<JointDifference> Between(Skeleton one, Skeleton other) =>
        [
            .. Joints(one)
                .Zip(Joints(other))
                .Select(pair => new JointDifference(
                    pair.First.Name,
                    (FromPelvis(one, pair.First.At) - FromPelvis(other, pair.Second.At)).Length,
                    pair.First.At,
                    pair.Second.At
                ))
                .Where(difference => difference.Apart > Elsewhere)
                .OrderByDescending(difference => difference.Apart),
        ];

    private static Vector FromPelvis(Skeleton body, Vector at)
    {
        var from = at - body.Trunk.Pelvis;
        return new(from.Dot(body.Trunk.PelvisRight), from.Dot(body.Trunk.PelvisAhead), from.Up);
    }

    private static IEnumerable<(string Name, Vector At)> Joints(Skeleton body)
    {
        yield return ("head", body.Head);
        foreach (var (side, name) in new[] { (Hand.Left, "left"), (Hand.Right, "right") })
        {
            var (arm, leg) = (body.ArmOf(side), body.LegOf(side));
            yield return ($"{name} shoulder", arm.Shoulder);
            yield return ($"{name} elbow", arm.Elbow);
            yield return ($"{name} hand", arm.Palm);
            yield return ($"{name} knee", leg.Knee);
            yield return ($"{name} foot", leg.Ankle);
        }
    }
}
