using System.Globalization;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>Step notation read back in plain words, for sheets and for whoever never learns the notation.</summary>
public static class StepWords
{
    public static string Say(IEnumerable<StepAction> actions) => string.Join("; ", actions.Select(Say));

    public static string Say(StepAction action) =>
        action switch
        {
            StepAction.Move move => Join(
                $"{Name(move.Foot)} foot {Verb(move)}",
                Where(move),
                Toes(move),
                Landing(move),
                move.Up is { } up ? $"{Number(up)} up" : "",
                Load(move.Load)
            ),
            StepAction.Pivot pivot => Join(
                $"{Name(pivot.Foot)} foot turns {Turn(pivot.Turn)}{(pivot.On is { } on ? $" on the {on.ToString().ToLowerInvariant()}" : "")}",
                Load(pivot.Load)
            ),
            StepAction.Weigh { Load: 100 } all => $"all weight {Name(all.Foot)}",
            StepAction.Weigh { Load: 50 } => "weight even",
            StepAction.Weigh weigh => $"weight {weigh.Load} % {Name(weigh.Foot)}",
            StepAction.WeighSeat { Load: 50 } => "seat even",
            StepAction.WeighSeat seat => $"seat {seat.Load} % {Name(seat.Side)}",
            StepAction.Hips hips => $"hips turn {Turn(hips.Turn)}",
            StepAction.Chest chest => $"chest turns {Turn(chest.Turn)}",
            StepAction.Height { Low: true } => "sink low",
            _ => "rise to level",
        };

    private static string Verb(StepAction.Move move) =>
        move.Verb switch
        {
            FootVerb.Step => "steps",
            FootVerb.Adjust => "adjusts",
            FootVerb.Withdraw => "draws in",
            FootVerb.Follow => "follows",
            FootVerb.Lift => "lifts",
            FootVerb.Kick => "kicks",
            FootVerb.Drag => "drags",
            FootVerb.Stamp => "stamps",
            FootVerb.Hop => "hops",
            FootVerb.Jump => "jumps",
            _ => "sets down",
        };

    private static string Where(StepAction.Move move)
    {
        if (move.To is not { } to)
        {
            return "";
        }

        var ahead = to.Forward == 0 ? "" : $"{Number(to.Forward)} {(to.Forward < 0 ? "back" : "forward")}";
        var aside = to.Side == 0 ? "" : $"{Number(to.Side)} {(to.Side < 0 ? "left" : "right")}";
        var place = ahead.Length > 0 && aside.Length > 0 ? $"{ahead} and {aside}" : ahead + aside;
        return $"{(place.Length == 0 ? "beside the other" : place)}{(to.Toward == 0 ? "" : $", towards {Turn(to.Toward)}")}{(move.Crosses ? ", across" : "")}";
    }

    private static string Toes(StepAction.Move move) =>
        move.Toes switch
        {
            null => "",
            0 => "toes ahead",
            var toes => $"toes {Turn(toes.Value)}",
        };

    private static string Landing(StepAction.Move move) =>
        move.Lands switch
        {
            Contact.Heel when move.LeavesFloor => "heel ahead, toes drawn back",
            Contact.Toe when move.LeavesFloor => "toes long",
            Contact.Heel => move.To is null ? "on the heel" : "heel first",
            Contact.Ball => "on the ball",
            Contact.Toe => "toes touch",
            Contact.Flat => "flat",
            _ => "",
        };

    private static string Load(int? load) => load is { } percent ? $"{percent} % on it" : "";

    private static string Turn(int degrees) => $"{Math.Abs(degrees)}° {(degrees < 0 ? "left" : "right")}";

    private static string Number(decimal number) => decimal.Abs(number).ToString("0.##", CultureInfo.InvariantCulture);

    private static string Name(Foot foot) => foot == Foot.Left ? "left" : "right";

    private static string Join(string first, params string[] parts) =>
        parts is [var where, ..] && parts.Length > 2 && where.Length > 0
            ? string.Join(", ", parts.Skip(1).Where(part => part.Length > 0).Prepend($"{first} {where}"))
            : string.Join(", ", parts.Where(part => part.Length > 0).Prepend(first));
}
