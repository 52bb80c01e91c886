using System.Text.Json.Serialization;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Forms;

/// <summary>What coverage and safety need of a form: a small part that follows from its text and its postures, kept
/// beside it. Computed whenever one of those changes.</summary>
/// <param name="WaysIn">What the way into a posture asks for, where it asks for something, once for each posture and side.</param>
/// <param name="Revision">By which way of computing outlines it came about.</param>
public sealed record FormOutline(IReadOnlyList<WayInAsks> WaysIn, int Revision = 0)
{
    /// <summary>Grows when outlines are computed differently, so that those kept before are computed anew.</summary>
    private const int Latest = 1;

    [JsonIgnore]
    public bool IsLatest => Revision == Latest;

    public static FormOutline Of(FormText form, IReadOnlyDictionary<Guid, Posture> postures, Conventions ways)
    {
        var asked = DerivedDemands.OfWaysIn(form.Positions, postures, FloorWalk.Of(form.Positions, postures, ways));
        return new(
            [
                .. form
                    .Positions.Index()
                    .SelectMany(place =>
                        asked[place.Index].Select(demand => (place.Item.PostureId, place.Item.Side, Demand: demand))
                    )
                    .GroupBy(way => (way.PostureId, way.Side), way => way.Demand)
                    .Select(same => new WayInAsks(same.Key.PostureId, same.Key.Side, [.. same.Distinct().Order()])),
            ],
            Latest
        );
    }
}

/// <summary>What is asked of somebody before the first count of a posture, coming from the one before it.</summary>
public sealed record WayInAsks(Guid PostureId, Side Side, IReadOnlyList<Demand> Demands);
