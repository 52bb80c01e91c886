using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>Everything that follows from a form as it is written: what a screen shows beside the text itself.</summary>
/// <param name="Positions">In the order of the form.</param>
public sealed record FormStudy(
    IReadOnlyList<PositionStudy> Positions,
    FormAnalysis Analysis,
    IReadOnlyList<Finding> Findings,
    FloorPicture Floor,
    IReadOnlyList<SectionStudy> Sections,
    IReadOnlyList<CueLine> Cues
)
{
    /// <param name="walk">The form walked; made here when it is not at hand.</param>
    public static FormStudy Of(
        FormText form,
        IReadOnlyDictionary<Guid, Posture> postures,
        IReadOnlyList<Link> links,
        Conventions ways,
        FloorWalk? walk = null
    )
    {
        walk ??= FloorWalk.Of(form.Positions, postures, ways);
        return new(
            PositionStudy.Of(form.Positions, postures, links, ways, walk),
            FormAnalysis.Of(form.Positions, postures, walk),
            FormCheck.Run(form, postures, ways, walk),
            FloorPicture.Of(walk, (double)ways.FootMetres),
            SectionStudy.Of(form, walk, (double)ways.FootMetres),
            SayAndDo.Of(form.Positions, postures, links, ways.Demonstration)
        );
    }
}

/// <summary>What a place in a form amounts to.</summary>
/// <param name="Number">"3", "5–7", or null when the position has none of its own.</param>
/// <param name="FacingSaid">Where it ends, as this school says directions.</param>
/// <param name="IsRepeat">The posture has been done on this side before.</param>
/// <param name="Diagonal">How far its facing is from the one the posture has most often in the form, degrees clockwise;
/// 0 when it is the usual one.</param>
/// <param name="Seconds">One smooth, silent repetition.</param>
/// <param name="Demands">What the posture and the way into it ask for.</param>
/// <param name="Link">What is written about the join into it, as it reads on these sides.</param>
public sealed record PositionStudy(
    Guid Id,
    string Name,
    string? Number,
    string FacingSaid,
    bool IsRepeat,
    int Diagonal,
    int Counts,
    int Seconds,
    IReadOnlyList<Demand> Demands,
    LinkReading? Link
)
{
    public static IReadOnlyList<PositionStudy> Of(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        IReadOnlyList<Link> links,
        Conventions ways,
        FloorWalk walk
    )
    {
        var waysIn = DerivedDemands.OfWaysIn(positions, postures, walk);
        var numbers = Numbering.Of(positions, postures, ways.Numbering);
        var usual = positions
            .GroupBy(position => (position.PostureId, position.Side))
            .ToDictionary(
                same => same.Key,
                same =>
                    same.GroupBy(position => position.Facing).OrderByDescending(facing => facing.Count()).First().Key
            );
        HashSet<(Guid, Side)> met = [];
        return
        [
            .. positions.Select(
                (position, at) =>
                {
                    var posture = postures[position.PostureId];
                    var off = usual[(position.PostureId, position.Side)].TurnTo(position.Facing);
                    return new PositionStudy(
                        position.Id,
                        posture.NameOn(position.Side),
                        numbers[at]?.ToString(),
                        ways.Say(position.Facing),
                        !met.Add((position.PostureId, position.Side)),
                        Math.Abs(off) == 45 ? off : 0,
                        posture.Counts.Count,
                        FormAnalysis.SecondsOf(position, posture),
                        [.. posture.Demands.Union(waysIn[at])],
                        at == 0 ? null : LinkInto(positions[at - 1], position, links)
                    );
                }
            ),
        ];
    }

    private static LinkReading? LinkInto(Position from, Position to, IReadOnlyList<Link> links) =>
        links
            .Select(link => link.For(from, to) is { } text ? new LinkReading(link.Id, text) : null)
            .FirstOrDefault(entry => entry is not null);
}

/// <summary>The floor one section needs by itself.</summary>
public sealed record SectionStudy(Guid Id, FloorNeed Need)
{
    /// <summary>Sections without positions need none and are left out.</summary>
    public static IReadOnlyList<SectionStudy> Of(FormText form, FloorWalk walk, double footMetres) =>
        [
            .. from section in form.Sections
            let places = form
                .Positions.Index()
                .Where(place => place.Item.SectionId == section.Id)
                .Select(place => place.Index)
                .ToList()
            where places.Count > 0
            select new SectionStudy(section.Id, FloorNeed.Of(walk.Part(places[0], places[^1]), footMetres)),
        ];
}

/// <summary>A link as it reads on the sides of one place in a form.</summary>
public sealed record LinkReading(Guid Id, LinkText Text);

/// <summary>A walk as numbers for a picture.</summary>
/// <param name="Start">See <see cref="FloorFrame"/>.</param>
public sealed record FloorPicture(IReadOnlyList<double> Start, IReadOnlyList<FloorBeat> Beats, FloorNeed Need)
{
    public static FloorPicture Of(FloorWalk walk, double footMetres) =>
        new(FloorFrame.Of(walk.Start), [.. walk.Beats.Select(FloorBeat.Of)], FloorNeed.Of(walk, footMetres));
}

/// <summary>One count, or the way in (0), as the stands it goes through.</summary>
/// <param name="Steps">Its steps in notation, on the side they are done here.</param>
/// <param name="Says">The same in plain words.</param>
public sealed record FloorBeat(
    int At,
    int Repeat,
    int Count,
    string Steps,
    string Says,
    IReadOnlyList<IReadOnlyList<double>> Frames
)
{
    public static FloorBeat Of(Beat beat)
    {
        var steps = beat.Moments.Select(moment => moment.Action).ToList();
        return new(
            beat.At,
            beat.Repeat,
            beat.Count,
            StepNotation.Print(steps),
            StepWords.Say(steps),
            [.. beat.Moments.Select(moment => FloorFrame.Of(moment.After))]
        );
    }
}
