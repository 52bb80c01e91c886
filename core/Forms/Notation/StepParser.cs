using System.Globalization;
using static Zeitplan.Core.Forms.Notation.StepWord;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>Reads step notation by recursive descent: one statement at a time, each problem with its place.</summary>
internal sealed class StepParser(string source)
{
    /// <summary>Nobody steps further than this many foot-lengths at once.</summary>
    private const decimal LongestStep = 6;

    /// <summary>Nobody lifts a foot further than this many foot-lengths off the floor.</summary>
    private const decimal Highest = 6;

    private readonly NotationText text = new(source);

    public StepText Run()
    {
        var (actions, problems) = text.Read<StepAction>(() => [Statement()]);
        return new(actions, problems);
    }

    private StepAction Statement()
    {
        var subject = text.Next(Subjects, "who moves");
        switch (subject)
        {
            case "hips" when text.Take(Heights) is { } height:
                return new StepAction.Height(height == "low");
            case "hips":
                return new StepAction.Hips(Degrees(Turns, Foot.Left, 360, Heights));
            case "chest":
                return new StepAction.Chest(Degrees(Turns, Foot.Left, 90));
            case "seat":
                return new StepAction.WeighSeat(
                    text.Next([new("L", "l"), new("R", "r")], "a side of the seat") == "L" ? Foot.Left : Foot.Right,
                    Percent()
                );
        }

        var foot = subject == "L" ? Foot.Left : Foot.Right;
        if (text.HasNumber)
        {
            return new StepAction.Weigh(foot, Percent());
        }

        var verb = text.Next(Verbs, "what the foot does, or a load such as 70%");
        return verb == "pivot" ? PivotOf(foot) : MoveOf(foot, Enum.Parse<FootVerb>(verb, ignoreCase: true));
    }

    private StepAction.Pivot PivotOf(Foot foot)
    {
        PivotOn? on = text.Take(PivotPoints) is { } point ? Enum.Parse<PivotOn>(point, ignoreCase: true) : null;
        return new(foot, on, Degrees(Sides, foot, 180, on is null ? PivotPoints : []), OptionalPercent());
    }

    private StepAction.Move MoveOf(Foot foot, FootVerb verb)
    {
        var move = new StepAction.Move(foot, verb);
        while (!text.Ends && !text.HasNumber)
        {
            var detail = text.Next(Details, "a place, the toes, how it lands, a load or the end");
            move = detail switch
            {
                "toward" => move with
                {
                    To = Once(
                        move.To?.Toward is null or 0,
                        detail,
                        (move.To ?? default) with
                        {
                            Toward = Degrees(Turns, foot, 180),
                        }
                    ),
                },
                "fwd" or "back" => move with
                {
                    To = Once(
                        move.To?.Forward is null or 0,
                        detail,
                        (move.To ?? default) with
                        {
                            Forward = Distance() * (detail == "back" ? -1 : 1),
                        }
                    ),
                },
                "toes" => move with { Toes = Once(move.Toes is null, detail, Degrees(Sides, foot, 180)) },
                "up" => move with { Up = Once(move.Up is null, detail, Height()) },
                "cross" => move with { Crosses = Once(!move.Crosses, detail, true) },
                "left" or "right" or "out" or "in" => move with
                {
                    To = Once(
                        move.To?.Side is null or 0,
                        detail,
                        (move.To ?? default) with
                        {
                            Side = Distance() * Sign(detail, foot),
                        }
                    ),
                },
                _ => move with
                {
                    Lands = Once(move.Lands is null, detail, Enum.Parse<Contact>(detail, ignoreCase: true)),
                },
            };
        }

        if (move.Up is not null && !move.LeavesFloor)
        {
            throw text.Unreadable("Only a foot that is lifted or kicks is held up.", []);
        }

        if (move.LeavesFloor && move.Lands is Contact.Flat or Contact.Ball)
        {
            throw text.Unreadable(
                $"A foot that is {(verb == FootVerb.Lift ? "lifted" : "kicking")} does not land: heel or toe says what leads; write set afterwards.",
                ["heel", "toe"]
            );
        }

        return move with
        {
            Load = OptionalPercent(),
        };
    }

    private T Once<T>(bool first, string detail, T value) =>
        first ? value : throw text.Unreadable($"There is a {detail} already.", []);

    /// <summary>Out is away from the other foot, so left for the left foot; clockwise and right are positive.</summary>
    private static int Sign(string side, Foot foot) =>
        side switch
        {
            "left" => -1,
            "right" => 1,
            "out" => foot == Foot.Left ? -1 : 1,
            _ => foot == Foot.Left ? 1 : -1,
        };

    /// <param name="also">What else could have stood where the direction is missing.</param>
    private int Degrees(Word[] sides, Foot foot, int most, Word[]? also = null)
    {
        var side = text.Next(sides, "a direction", also);
        return text.Whole(
                "degrees",
                "45",
                most,
                degrees => $"{Shown(degrees)} degrees: whole degrees up to {most} are possible here."
            ) * Sign(side, foot);
    }

    private decimal Distance() => Length("a number of foot-lengths", LongestStep);

    private decimal Height() => Length("a height in foot-lengths", Highest);

    private decimal Length(string what, decimal most)
    {
        var length = text.Number(what, "1");
        return decimal.Round(length, 2) == length && length <= most
            ? length
            : throw text.Unreadable(
                $"{Shown(length)} foot-lengths: up to {most} with two decimals are possible.",
                ["1", "3"]
            );
    }

    private int Percent()
    {
        var load = text.Whole(
            "a load such as 70%",
            "70%",
            100,
            number => $"A load of {Shown(number)} %: whole per cent from 0 to 100 are possible."
        );
        text.Sign('%', "A load ends with the % sign.");
        return load;
    }

    private int? OptionalPercent() => text.Ends ? null : Percent();

    private static string Shown(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
