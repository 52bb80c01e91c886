namespace Zeitplan.Core.Forms;

/// <summary>How long a cohort works without its teacher, and what it is that a teacher comes by (domain.md 4.4).</summary>
public sealed record TeachersEyes
{
    public static TeachersEyes Default { get; } = new();

    /// <summary>A cohort is never longer than this without a teacher's eye, minutes.</summary>
    public int LongestAlone { get; init; } = 8;

    /// <summary>A longer visit is as good as being led, minutes.</summary>
    public int LongestVisit { get; init; } = 6;

    /// <summary>A visit to so many people and more takes two minutes, to fewer one.</summary>
    public int ManyToVisit { get; init; } = 4;

    /// <summary>New material is not begun in so many last minutes of a lesson.</summary>
    public int NoNewInLast { get; init; } = 5;

    internal IEnumerable<Problem> Check(string path) =>
        [
            .. Within(LongestAlone, 3, 30, $"{path}.longestAlone", "A cohort is alone for 3 to 30 minutes at most."),
            .. Within(LongestVisit, 2, 15, $"{path}.longestVisit", "A visit lasts 2 to 15 minutes at most."),
            .. Within(ManyToVisit, 2, 40, $"{path}.manyToVisit", "From 2 to 40 people on, a visit takes two minutes."),
            .. Within(NoNewInLast, 0, 30, $"{path}.noNewInLast", "Nothing new in the last 0 to 30 minutes."),
        ];

    private static IEnumerable<Problem> Within(int value, int least, int most, string path, string says) =>
        value < least || value > most ? [new Problem(path, says)] : [];
}
