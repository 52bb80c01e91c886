namespace Zeitplan.Core.Forms;

/// <summary>How a derived form comes from its parent (domain.md 2): what it leaves out, what stands in another order, which sides it adds, and which links are new.</summary>
/// <param name="LeftOut">Positions of the parent that have no counterpart.</param>
/// <param name="Reordered">Positions whose counterpart stands after the counterpart of the position that follows.</param>
/// <param name="SidesAdded">Positions on a side on which the parent never does the posture.</param>
/// <param name="NewLinks">Positions whose join to the one before does not occur in the parent.</param>
public sealed record FormDerivation(IReadOnlyList<Guid> LeftOut, IReadOnlyList<Guid> Reordered, IReadOnlyList<Guid> SidesAdded, IReadOnlyList<Guid> NewLinks)
{
    public static FormDerivation Of(IReadOnlyList<Position> parent, IReadOnlyList<Position> derived)
    {
        var places = parent.Index().ToDictionary(place => place.Item.Id, place => place.Index);
        var taken = derived.Select(position => position.ParentId).ToHashSet();
        var sides = parent.Select(position => (position.PostureId, position.Side)).ToHashSet();
        var links = Joins(parent).Select(join => join.Key).ToHashSet();
        List<Guid> reordered = [];
        var furthest = -1;
        foreach (var position in derived)
        {
            if (position.ParentId is { } id && places.TryGetValue(id, out var place))
            {
                if (place < furthest)
                {
                    reordered.Add(position.Id);
                }

                furthest = Math.Max(furthest, place);
            }
        }

        return new(
            [.. parent.Where(position => !taken.Contains(position.Id)).Select(position => position.Id)],
            reordered,
            [.. derived.Where(position => !sides.Contains((position.PostureId, position.Side))).Select(position => position.Id)],
            [.. Joins(derived).Where(join => !links.Contains(join.Key)).Select(join => join.To)]);
    }

    private static IEnumerable<((Guid, Side, Guid, Side) Key, Guid To)> Joins(IReadOnlyList<Position> positions) =>
        positions.Zip(positions.Skip(1), (from, to) => ((from.PostureId, from.Side, to.PostureId, to.Side), to.Id));
}
