namespace Zeitplan.Core.Forms;

/// <summary>How a derived form comes from its parent (domain.md 2): what it leaves out, what stands in another order,
/// which sides it adds, and which links are new.</summary>
/// <param name="LeftOut">Positions of the parent that have no counterpart.</param>
/// <param name="Reordered">The fewest positions that would have to move for the others to stand in the parent's
/// order.</param>
/// <param name="SidesAdded">Positions on a side on which the parent never does the posture.</param>
/// <param name="NewLinks">Positions whose join to the one before does not occur in the parent.</param>
public sealed record FormDerivation(
    IReadOnlyList<Guid> LeftOut,
    IReadOnlyList<Guid> Reordered,
    IReadOnlyList<Guid> SidesAdded,
    IReadOnlyList<Guid> NewLinks
)
{
    public static FormDerivation Of(IReadOnlyList<Position> parent, IReadOnlyList<Position> derived)
    {
        var places = parent.Index().ToDictionary(place => place.Item.Id, place => place.Index);
        var taken = derived.Select(position => position.ParentId).ToHashSet();
        var sides = parent.Select(position => (position.PostureId, position.Side)).ToHashSet();
        var links = Joins(parent).Select(join => join.Key).ToHashSet();
        return new(
            [.. parent.Where(position => !taken.Contains(position.Id)).Select(position => position.Id)],
            Reorder(derived, places),
            [
                .. derived
                    .Where(position => !sides.Contains((position.PostureId, position.Side)))
                    .Select(position => position.Id),
            ],
            [.. Joins(derived).Where(join => !links.Contains(join.Key)).Select(join => join.To)]
        );
    }

    /// <summary>Whatever is not in the longest run that keeps the parent's order.</summary>
    private static List<Guid> Reorder(IReadOnlyList<Position> derived, Dictionary<Guid, int> places)
    {
        var mapped = derived
            .Where(position => position.ParentId is { } id && places.ContainsKey(id))
            .Select(position => (position.Id, Place: places[position.ParentId!.Value]))
            .ToList();
        var longest = new int[mapped.Count];
        var previous = new int[mapped.Count];
        for (var at = 0; at < mapped.Count; at++)
        {
            (longest[at], previous[at]) = (1, -1);
            for (var before = 0; before < at; before++)
            {
                if (mapped[before].Place < mapped[at].Place && longest[before] + 1 > longest[at])
                {
                    (longest[at], previous[at]) = (longest[before] + 1, before);
                }
            }
        }

        HashSet<Guid> kept = [];
        for (var at = mapped.Count == 0 ? -1 : Array.IndexOf(longest, longest.Max()); at >= 0; at = previous[at])
        {
            kept.Add(mapped[at].Id);
        }

        return [.. mapped.Where(position => !kept.Contains(position.Id)).Select(position => position.Id)];
    }

    private static IEnumerable<((Guid, Side, Guid, Side) Key, Guid To)> Joins(IReadOnlyList<Position> positions) =>
        positions.Zip(positions.Skip(1), (from, to) => ((from.PostureId, from.Side, to.PostureId, to.Side), to.Id));
}
