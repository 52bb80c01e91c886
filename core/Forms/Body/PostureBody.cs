using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Body;

/// <summary>One posture by itself as a body: walked from the stand and the hands it starts with.</summary>
public static class PostureBody
{
    /// <summary>The posture on one side, as it is taught in a mode.</summary>
    /// <returns>Null while no version has been written for the mode.</returns>
    public static BodyWalk? Of(Posture posture, Side side, Mode mode, Conventions ways, Physique physique)
    {
        if (mode == Mode.Standing)
        {
            return Of(
                posture.StepsOn(side, posture.Text.Entry),
                posture.BodyOn(side, posture.Text.Start),
                posture.StepsOn(side),
                posture.BodiesOn(side),
                null,
                ways,
                physique
            );
        }

        if (posture.Versions.FirstOrDefault(version => version.Mode == mode) is not { } version)
        {
            return null;
        }

        var rail = version.Rail is { } written && side != posture.WrittenSide ? Mirror.Of(written) : version.Rail;
        return Of(
            posture.StepsOn(side, version.EntryFrom(posture.Text.Entry)),
            posture.BodyOn(side, version.Start),
            [.. version.Counts.Select(count => posture.StepsOn(side, count.Feet))],
            [.. version.Counts.Select(count => posture.BodyOn(side, count.Body))],
            AidKind.Of(mode, rail),
            ways,
            physique
        );
    }

    /// <summary>A compound posture on one side: its parts, each from where the one before ends.</summary>
    /// <param name="known">Its parts among them.</param>
    public static BodyWalk OfParts(
        Posture compound,
        Side side,
        IReadOnlyDictionary<Guid, Posture> known,
        Conventions ways,
        Physique physique
    )
    {
        var parts = compound.Reads(side).Parts.Select(part => (Posture: known[part.PostureId], part.Side)).ToList();
        var (first, its) = parts[0];
        return Of(
            first.StepsOn(its, first.Text.Entry),
            first.BodyOn(its, first.Text.Start),
            [.. parts.SelectMany(part => part.Posture.StepsOn(part.Side))],
            [.. parts.SelectMany(part => part.Posture.BodiesOn(part.Side))],
            null,
            ways,
            physique
        );
    }

    /// <param name="entry">Step notation into the stand before the first count.</param>
    /// <param name="start">Body notation of that moment.</param>
    public static BodyWalk Of(
        string entry,
        string start,
        IReadOnlyList<Count> counts,
        AidKind? aid,
        Conventions ways,
        Physique physique
    ) =>
        Of(
            StepNotation.Parse(entry).Actions,
            BodyNotation.Parse(start).Actions,
            [.. counts.Select(count => StepNotation.Parse(count.Feet).Actions)],
            [.. counts.Select(count => BodyNotation.Parse(count.Body).Actions)],
            aid,
            ways,
            physique
        );

    private static BodyWalk Of(
        IReadOnlyList<StepAction> entry,
        IReadOnlyList<BodyAction> start,
        IReadOnlyList<IReadOnlyList<StepAction>> feet,
        IReadOnlyList<IReadOnlyList<BodyAction>> bodies,
        AidKind? aid,
        Conventions ways,
        Physique physique
    )
    {
        // Whoever sits has both feet before the chair, whatever the posture's own entry does with them.
        var walk = FloorWalk.Of(aid?.Kind == Holding.Chair ? [] : entry, feet, ways);
        return new(walk, bodies, BodyState.AtRest.After(start), physique, aid?.At(walk.Start, physique));
    }
}

/// <summary>What a version is steadied by, before it is known where somebody stands.</summary>
/// <param name="Rail">On which side of the body a rail is; symmetric is before it.</param>
public sealed record AidKind(Holding Kind, Side Rail = Side.Symmetric)
{
    public static AidKind? Of(Mode mode, Side? rail) =>
        mode.Support switch
        {
            Support.Seat => new(Holding.Chair),
            Support.Touch or Support.Hold => new(Holding.Rail, rail ?? Side.Symmetric),
            _ => null,
        };

    public Aid At(Stand start, Physique physique) =>
        Kind switch
        {
            Holding.Rail => Aid.Rail(start, Rail, physique),
            Holding.Chair => Aid.Chair(start, physique),
            _ => Aid.Frame(start, physique),
        };
}
