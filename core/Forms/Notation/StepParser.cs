using System.Globalization;
using static Zeitplan.Core.Forms.Notation.StepWord;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>Reads step notation by recursive descent: one statement at a time, each problem with its place.</summary>
internal sealed class StepParser(string text)
{
    /// <summary>Nobody steps further than this many foot-lengths at once.</summary>
    private const decimal LongestStep = 6;

    /// <summary>Whoever reads a list of problems mends the first ones first; what comes after these is not
    /// read.</summary>
    private const int MostProblems = 20;

    private readonly List<StepAction> actions = [];
    private readonly List<StepProblem> problems = [];
    private int at;
    private int start;

    public StepText Run()
    {
        while (at < text.Length && problems.Count < MostProblems)
        {
            SkipBlanks();
            if (at < text.Length && !AtEnd())
            {
                try
                {
                    var action = Statement();
                    ExpectEnd();
                    actions.Add(action);
                }
                catch (UnreadableException unreadable)
                {
                    problems.Add(unreadable.Problem);
                    while (!AtEnd())
                    {
                        at++;
                    }
                }
            }

            at++;
        }

        return new(actions, problems);
    }

    private StepAction Statement()
    {
        var subject = Word(Subjects, "who moves");
        switch (subject)
        {
            case "hips" when Peek(Heights) is { } height:
                Next();
                return new StepAction.Height(height == "low");
            case "hips":
                return new StepAction.Hips(Degrees(Turns, Foot.Left, 360, Heights));
            case "chest":
                return new StepAction.Chest(Degrees(Turns, Foot.Left, 90));
            case "seat":
                return new StepAction.WeighSeat(
                    Word([new("L", "l"), new("R", "r")], "a side of the seat") == "L" ? Foot.Left : Foot.Right,
                    Percent()
                );
        }

        var foot = subject == "L" ? Foot.Left : Foot.Right;
        SkipBlanks();
        if (!AtEnd() && char.IsDigit(text[at]))
        {
            return new StepAction.Weigh(foot, Percent());
        }

        var verb = Word(Verbs, "what the foot does, or a load such as 70%");
        return verb == "pivot" ? PivotOf(foot) : MoveOf(foot, Enum.Parse<FootVerb>(verb, ignoreCase: true));
    }

    private StepAction.Pivot PivotOf(Foot foot)
    {
        PivotOn? on = Peek(PivotPoints) is { } point ? Enum.Parse<PivotOn>(point, ignoreCase: true) : null;
        if (on is not null)
        {
            Next();
        }

        return new(foot, on, Degrees(Sides, foot, 180, on is null ? PivotPoints : []), OptionalPercent());
    }

    private StepAction.Move MoveOf(Foot foot, FootVerb verb)
    {
        var move = new StepAction.Move(foot, verb);
        while (!AtEndOrLoad())
        {
            var detail = Word(Details, "a place, the toes, how it lands, a load or the end");
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

        if (move.LeavesFloor && move.Lands is not null)
        {
            throw Unreadable(
                $"A foot that is {(verb == FootVerb.Lift ? "lifted" : "kicking")} does not land; write set afterwards.",
                []
            );
        }

        return move with
        {
            Load = OptionalPercent(),
        };
    }

    private T Once<T>(bool first, string detail, T value) =>
        first ? value : throw Unreadable($"There is a {detail} already.", []);

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
        var side = Word(sides, "a direction", also);
        var degrees = Number("degrees", "45");
        if (degrees != decimal.Truncate(degrees) || degrees > most)
        {
            throw Unreadable($"{Shown(degrees)} degrees: whole degrees up to {most} are possible here.", ["45", "90"]);
        }

        return (int)degrees * Sign(side, foot);
    }

    private decimal Distance()
    {
        var distance = Number("a number of foot-lengths", "1");
        return decimal.Round(distance, 2) == distance && distance <= LongestStep
            ? distance
            : throw Unreadable(
                $"{Shown(distance)} foot-lengths: up to {LongestStep} with two decimals are possible.",
                ["1", "3"]
            );
    }

    private int Percent()
    {
        var load = Number("a load such as 70%", "70%");
        if (load != decimal.Truncate(load) || load > 100)
        {
            throw Unreadable($"A load of {Shown(load)} %: whole per cent from 0 to 100 are possible.", ["70%", "100%"]);
        }

        if (at < text.Length && text[at] == '%')
        {
            at++;
            return (int)load;
        }

        start = at;
        throw Unreadable("A load ends with the % sign.", ["%"]);
    }

    private int? OptionalPercent() => AtEnd() ? null : Percent();

    private bool AtEndOrLoad()
    {
        SkipBlanks();
        return AtEnd() || char.IsDigit(text[at]);
    }

    private decimal Number(string what, string example)
    {
        SkipBlanks();
        start = at;
        while (at < text.Length && (char.IsAsciiDigit(text[at]) || text[at] == '.'))
        {
            at++;
        }

        var digits = text[start..at];
        if (
            digits.Length is 0 or > 8
            || !decimal.TryParse(digits, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
        )
        {
            throw Unreadable($"Here should stand {what}; {Found()}.", [example]);
        }

        if (at < text.Length && text[at] == '°')
        {
            at++;
        }

        return number;
    }

    private string Word(Word[] words, string what, Word[]? also = null)
    {
        var found = Next();
        Word[] expected = [.. words, .. also ?? []];
        return Find(words, found)?.Full
            ?? throw Unreadable(
                $"Here should stand {what} ({List(expected)}); {Found()}.",
                [.. expected.Select(word => word.Full)]
            );
    }

    private string? Peek(Word[] words)
    {
        var (was, from) = (at, start);
        var found = Find(words, Next())?.Full;
        (at, start) = (was, from);
        return found;
    }

    private string Next()
    {
        SkipBlanks();
        start = at;
        while (at < text.Length && char.IsAsciiLetter(text[at]))
        {
            at++;
        }

        return text[start..at];
    }

    private void ExpectEnd()
    {
        SkipBlanks();
        start = at;
        if (!AtEnd())
        {
            throw Unreadable($"Here should stand a semicolon or the end; {Found()}.", [";"]);
        }
    }

    private string Found()
    {
        var end = start;
        while (end < text.Length && !char.IsWhiteSpace(text[end]) && text[end] != ';')
        {
            end++;
        }

        return end > start ? $"there is “{text[start..end]}”" : "the statement ends";
    }

    private bool AtEnd() => at >= text.Length || text[at] is ';' or '\n';

    private void SkipBlanks()
    {
        while (at < text.Length && text[at] != '\n' && char.IsWhiteSpace(text[at]))
        {
            at++;
        }
    }

    private static string Shown(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    private UnreadableException Unreadable(string message, IReadOnlyList<string> expected)
    {
        var before = text.AsSpan(0, Math.Min(start, text.Length));
        return new(new(before.Count('\n') + 1, before.Length - before.LastIndexOf('\n'), message, expected));
    }

    private sealed class UnreadableException(StepProblem problem) : Exception
    {
        public StepProblem Problem { get; } = problem;
    }
}
