using System.Globalization;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>Who wants to practise together, and what the hall has. Metres.</summary>
/// <param name="Standing">People doing the form on their feet.</param>
/// <param name="Seated">People on chairs.</param>
/// <param name="Frames">People with a frame or in a wheelchair.</param>
/// <param name="RailWall">Along which wall the rail runs.</param>
/// <param name="RailUsers">Of those standing, how many hold a rail.</param>
public sealed record HallAsk(
    double Width,
    double Depth,
    int Standing,
    int Seated = 0,
    int Frames = 0,
    int RailUsers = 0,
    int Chairs = 0,
    double Rail = 0,
    Wall RailWall = Wall.Back
);

/// <summary>The walls of a hall, seen from somebody who faces the front.</summary>
public enum Wall
{
    Back,
    Left,
    Right,
    Front,
}

/// <summary>People in straight lines who all do the form at once.</summary>
/// <param name="Turned">Where the form's zero points, degrees clockwise from the hall's front.</param>
/// <param name="StartFromFront">How far behind the front wall the first line stands at the start; metres.</param>
/// <param name="StartFromLeft">How far from the left wall the leftmost person of a line stands at the start;
/// metres.</param>
/// <param name="SpareWidth">Metres of width left over, negative when it does not fit.</param>
public sealed record HallPlan(
    int Turned,
    int Abreast,
    int Rows,
    int Waves,
    double StartFromFront,
    double StartFromLeft,
    double SpareWidth,
    double SpareDepth
)
{
    public bool Fits => SpareWidth >= 0 && SpareDepth >= 0;
}

/// <summary>What a hall does for so many people and one form: the best plan, the next best ways when it does not fit,
/// and what runs short.</summary>
public sealed record HallAnswer(
    HallPlan Best,
    IReadOnlyList<string> Says,
    IReadOnlyList<string> WouldFit,
    IReadOnlyList<string> Shortages
);

/// <summary>
/// Fits people who travel together into a hall (domain.md 4.1, "Floor"). As everybody moves at once, neighbours never
/// meet: they need only their own reach between them, and the whole block needs the form's travel once.
/// </summary>
public static class HallFit
{
    private static readonly int[] QuarterTurns = [0, 90, 180, 270];
    private const double SeatWidth = 1.5;
    private const double SeatDepth = 1.4;
    private const double FrameWidth = 1.8;
    private const double FrameDepth = 1.5;

    /// <summary>How far one bow step carries, foot-lengths (domain.md 4.1, "Floor").</summary>
    public const double BowStepFeet = 3;

    /// <summary>Metres of rail one person holds.</summary>
    public const double RailEach = 1.0;

    public static HallAnswer Of(FloorWalk walk, double footMetres, HallAsk ask)
    {
        var needs = QuarterTurns
            .Select(turned => (Turned: turned, Need: FloorNeed.Of(walk, footMetres, turned)))
            .ToList();
        var set = SetAside(ask);
        var best =
            Best(needs, ask.Width, ask.Depth - set, ask.Standing, waves: 1)
            ?? Closest(needs, ask.Width, ask.Depth - set, ask.Standing);
        List<string> says = [];
        List<string> would = [];
        if (best.Fits)
        {
            says.Add(
                ask.Standing == 0
                    ? "Nobody does the form on their feet."
                    : $"{ask.Standing} fit {best.Abreast} abreast in {Rows(best.Rows)}{Turned(best.Turned)}. The first line starts {best.StartFromFront:0.0} m from the front wall, its left end {best.StartFromLeft:0.0} m from the left wall."
            );
        }
        else
        {
            says.Add($"{ask.Standing} do not fit at once: {Lacks(best)}.");
            would.AddRange(WhatWouldFit(needs, ask with { Depth = ask.Depth - set }));
        }

        if (set > 0)
        {
            says.Add($"{SeatedSay(ask)} along the back wall take {set:0.0} m of the depth.");
        }

        if (ask is { RailUsers: > 0, Rail: > 0 })
        {
            says.Add(AtTheRail(ask));
        }

        return new(best, says, would, [.. Shortages(ask.Seated, ask.Chairs, ask.RailUsers, ask.Rail)]);
    }

    /// <summary>How many steps of a walking drill fit before it must turn round.</summary>
    /// <param name="stepFeet">How far one step carries, foot-lengths.</param>
    public static int StepsBeforeTurning(double roomMetres, double stepFeet, double footMetres) =>
        Math.Max(0, (int)Math.Floor((roomMetres - (2 * FloorNeed.ArmReach) - footMetres) / (stepFeet * footMetres)));

    private static HallPlan? Best(
        List<(int Turned, FloorNeed Need)> needs,
        double width,
        double depth,
        int people,
        int waves
    )
    {
        var each = (people + waves - 1) / waves;
        return Plans(needs, width, depth, each, waves)
            .Where(plan => plan.Fits)
            .OrderBy(plan => plan.Rows)
            .ThenByDescending(plan => Math.Min(plan.SpareWidth, plan.SpareDepth))
            .ThenBy(plan => plan.Turned)
            .FirstOrDefault();
    }

    private static HallPlan Closest(List<(int Turned, FloorNeed Need)> needs, double width, double depth, int people) =>
        Plans(needs, width, depth, people, 1)
            .OrderByDescending(plan => Math.Min(plan.SpareWidth, 0) + Math.Min(plan.SpareDepth, 0))
            .ThenBy(plan => plan.Turned)
            .First();

    private static IEnumerable<HallPlan> Plans(
        List<(int Turned, FloorNeed Need)> needs,
        double width,
        double depth,
        int people,
        int waves
    ) =>
        from need in needs
        from abreast in Enumerable.Range(1, Math.Max(1, people))
        let rows = (Math.Max(1, people) + abreast - 1) / abreast
        where abreast == 1 || (Math.Max(1, people) + abreast - 2) / (abreast - 1) > rows
        select Plan(need.Turned, need.Need, width, depth, abreast, rows, waves);

    private static HallPlan Plan(
        int turned,
        FloorNeed need,
        double width,
        double depth,
        int abreast,
        int rows,
        int waves
    )
    {
        var apart = 2 * FloorNeed.ArmReach;
        var (spareWidth, spareDepth) = (
            width - need.Reach.Width - ((abreast - 1) * apart),
            depth - need.Reach.Depth - ((rows - 1) * apart)
        );
        return new(
            turned,
            abreast,
            rows,
            waves,
            need.Reach.Front + Math.Max(0, spareDepth / 2),
            -need.Reach.Left + Math.Max(0, spareWidth / 2),
            spareWidth,
            spareDepth
        );
    }

    private static IEnumerable<string> WhatWouldFit(List<(int Turned, FloorNeed Need)> needs, HallAsk ask)
    {
        for (var waves = 2; waves <= 4; waves++)
        {
            if (Best(needs, ask.Width, ask.Depth, ask.Standing, waves) is { } plan)
            {
                yield return $"Split in {waves} waves of {(ask.Standing + waves - 1) / waves}: {plan.Abreast} abreast in {Rows(plan.Rows)}{Turned(plan.Turned)}.";
                break;
            }
        }

        for (var fewer = ask.Standing - 1; fewer > 0; fewer--)
        {
            if (Best(needs, ask.Width, ask.Depth, fewer, 1) is { } plan)
            {
                yield return $"{fewer} at once fit: {plan.Abreast} abreast in {Rows(plan.Rows)}{Turned(plan.Turned)}.";
                yield break;
            }
        }

        var least = needs.MinBy(need =>
            Math.Max(0, need.Need.Reach.Width - ask.Width) + Math.Max(0, need.Need.Reach.Depth - ask.Depth)
        );
        yield return $"Not even one person has room for all of it: it needs {least.Need.Reach.Width:0.0} × {least.Need.Reach.Depth:0.0} m{Turned(least.Turned)}. Practise a section, or take a larger hall.";
    }

    private static double SetAside(HallAsk ask)
    {
        var seats = Math.Max(1, (int)(ask.Width / SeatWidth));
        var frames = Math.Max(1, (int)(ask.Width / FrameWidth));
        return (((ask.Seated + seats - 1) / seats) * SeatDepth) + (((ask.Frames + frames - 1) / frames) * FrameDepth);
    }

    private static string SeatedSay(HallAsk ask) =>
        string.Join(
            " and ",
            new[]
            {
                ask.Seated > 0 ? $"{ask.Seated} seated" : "",
                ask.Frames > 0 ? $"{ask.Frames} with frames or wheelchairs" : "",
            }.Where(part => part.Length > 0)
        );

    /// <summary>Where those stand who hold on: along the rail's wall, with it on the side their versions ask for.</summary>
    private static string AtTheRail(HallAsk ask)
    {
        var (wall, left, right) = ask.RailWall switch
        {
            Wall.Left => ("left wall", "front", "back wall"),
            Wall.Right => ("right wall", "back wall", "front"),
            Wall.Front => ("front wall", "right wall", "left wall"),
            _ => ("back wall", "left wall", "right wall"),
        };
        return $"{(ask.RailUsers == 1 ? "Whoever holds" : "Those who hold")} the rail {(ask.RailUsers == 1 ? "stands" : "stand")} along the {wall}: facing the {left} it is on their left, facing the {right} on their right.";
    }

    /// <summary>What of the hall's equipment runs short, and what would do.</summary>
    /// <param name="chairs">What the hall has; <paramref name="rail"/> in metres.</param>
    public static IEnumerable<string> Shortages(int sitting, int chairs, int holding, double rail)
    {
        if (sitting > chairs)
        {
            var more = sitting - chairs;
            yield return $"{more} more {(more == 1 ? "chair is" : "chairs are")} needed: the hall has {chairs}.";
        }

        if (holding * RailEach > rail)
        {
            yield return rail == 0
                ? "The hall has no rail: use a wall or braced chairs."
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"The rail is {rail:0.0} m long and holds {(int)(rail / RailEach)} people; {holding} need it. Use a wall or braced chairs for the others."
                );
        }
    }

    private static string Lacks(HallPlan plan) =>
        string.Join(
            " and ",
            new[]
            {
                plan.SpareWidth < 0 ? $"{-plan.SpareWidth:0.0} m of width" : "",
                plan.SpareDepth < 0 ? $"{-plan.SpareDepth:0.0} m of depth" : "",
            }.Where(part => part.Length > 0)
        ) + $" are missing with {plan.Abreast} abreast in {Rows(plan.Rows)}{Turned(plan.Turned)}";

    private static string Rows(int rows) => rows == 1 ? "one line" : $"{rows} lines";

    private static string Turned(int degrees) =>
        degrees switch
        {
            0 => ", starting towards the front",
            90 => ", starting towards the right wall",
            180 => ", starting towards the back wall",
            _ => ", starting towards the left wall",
        };
}
