namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>A line of the arrangement's table (docs/formats/arrangement.md). Minutes are counted from the lesson's
/// beginning.</summary>
/// <param name="Cohort">A name, or <c>all</c> for what holds everybody.</param>
/// <param name="LedBy">A name; empty for own practice.</param>
/// <param name="With">Names of cohorts that are led together with this one, apart by semicolons.</param>
public sealed record ArrangementRow(
    int StartMinute,
    int EndMinute,
    string Cohort,
    string Kind,
    string What,
    string LedBy,
    string With
)
{
    public const string Everybody = "all";
}

public static class ArrangementTable
{
    public static IReadOnlyList<ArrangementRow> Of(
        Arrangement arrangement,
        IReadOnlyDictionary<Guid, string> cohorts,
        IReadOnlyDictionary<Guid, string> teachers
    ) =>
        [
            .. arrangement.Blocks.Select(block => new ArrangementRow(
                block.Start,
                block.End,
                block.CohortId is { } cohort ? cohorts[cohort] : ArrangementRow.Everybody,
                KindWord(block.Kind),
                block.What,
                block.LedBy is { } teacher ? teachers.GetValueOrDefault(teacher, "") : "",
                string.Join(';', block.With.Select(with => cohorts[with]))
            )),
        ];

    public static string KindWord(BlockKind kind) =>
        kind switch
        {
            BlockKind.WarmUp => "warm-up",
            BlockKind.LeadIn => "lead-in",
            BlockKind.OwnPractice => "own-practice",
            BlockKind.ReTeach => "re-teach",
            BlockKind.RunThrough => "run-through",
            _ => kind.ToString().ToLowerInvariant(),
        };
}
