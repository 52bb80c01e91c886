using System.Globalization;

namespace Zeitplan.Core.Forms;

/// <summary>
/// The time it takes to teach something to a cohort (domain.md 4.2). Seconds of a pass are repetitions × counts × pace;
/// minutes to introduce are talk + passes × difficulty × mode factor × the cohort's own pace.
/// </summary>
/// <param name="BothSides">The posture has two sides and this school teaches both, whatever the form asks for
/// (domain.md 5).</param>
public sealed record Effort(
    TeachingPattern Pattern,
    int Counts,
    int Difficulty,
    Mode Mode,
    decimal CohortPace = 1m,
    bool BothSides = false
)
{
    /// <summary>Minutes of talk before a new posture.</summary>
    public const decimal TalkMinutes = 1.5m;

    /// <summary>The second side of a posture comes easier than the first.</summary>
    public const decimal BothSidesFactor = 1.6m;

    /// <summary>A link is taught by the last count of one posture and the first of the next.</summary>
    public const int CountsOfALink = 2;

    public decimal DifficultyFactor =>
        Difficulty switch
        {
            <= 1 => 1.0m,
            2 => 1.3m,
            _ => 1.7m,
        };

    private decimal PatternSeconds => Pattern.Seconds(Counts);

    private decimal Factors => DifficultyFactor * Mode.Factor * CohortPace * (BothSides ? BothSidesFactor : 1m);

    /// <summary>The first lesson uses the whole pattern.</summary>
    public Seconds IntroduceSeconds => Seconds.Rounded((TalkMinutes * 60) + (PatternSeconds * Factors));

    /// <summary>A review uses half of the pattern, without the talk.</summary>
    public Seconds ReviewSeconds => Seconds.Rounded(PatternSeconds * Factors / 2);

    /// <summary>What is taught again takes the whole pattern, without the talk.</summary>
    public Seconds AgainSeconds => Seconds.Rounded(PatternSeconds * Factors);

    /// <summary>A run-through is one smooth repetition.</summary>
    public Seconds RunThroughSeconds => new(Counts * Pace.Smooth);

    /// <summary>A link takes the whole pattern on its two counts, at the difficulty of the posture it leads
    /// into.</summary>
    public Seconds LinkSeconds => Seconds.Rounded(Pattern.Seconds(CountsOfALink) * Factors);

    /// <summary>The sum as a head would check it.</summary>
    public string Explain()
    {
        var passes = Pattern.Passes.Select(pass =>
            pass.Minutes is { } minutes
                ? string.Create(CultureInfo.InvariantCulture, $"{pass.Name} {minutes:0.#} min")
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"{pass.Name} {pass.Repetitions} × {Counts} counts × {pass.SecondsPerCount} s"
                )
        );
        List<string> factors = [string.Create(CultureInfo.InvariantCulture, $"difficulty {DifficultyFactor:0.0}")];
        if (Mode.IsAdapted)
        {
            factors.Add(string.Create(CultureInfo.InvariantCulture, $"{Mode.Name} {Mode.Factor:0.0}"));
        }

        if (BothSides)
        {
            factors.Add(string.Create(CultureInfo.InvariantCulture, $"both sides {BothSidesFactor:0.0}"));
        }

        if (CohortPace != 1m)
        {
            factors.Add(string.Create(CultureInfo.InvariantCulture, $"the cohort's pace {CohortPace:0.0}"));
        }

        return string.Create(
            CultureInfo.InvariantCulture,
            $"{IntroduceSeconds.Minutes:0.0} min: talk {TalkMinutes:0.0}; {string.Join(", ", passes)}, together {PatternSeconds / 60m:0.0}; {string.Join("; ", factors)}"
        );
    }
}
