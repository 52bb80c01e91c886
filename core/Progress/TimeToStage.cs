using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>How long it takes from meeting a posture to being seen at a stage: by oneself, where there are enough cases, or
/// else as others have taken.</summary>
public sealed class TimeToStage
{
    /// <summary>Below so many nothing is claimed (domain.md 4.5).</summary>
    public const int FewestCases = 5;

    private readonly Dictionary<Stage, int> everybody;
    private readonly Dictionary<(Guid, Stage), int> own;

    private TimeToStage(Dictionary<Stage, int> everybody, Dictionary<(Guid, Stage), int> own) =>
        (this.everybody, this.own) = (everybody, own);

    /// <param name="students">Whose postures count.</param>
    public static TimeToStage Of(IEnumerable<Guid> students, ProgressBook book)
    {
        List<(Guid Student, Stage Stage, int Days)> cases =
        [
            .. from student in students
            from of in book.MetBy(student)
            let reached = book.LearnedHere(student, of)
            where reached.Count > 0
            let met = reached[0].On
            from stage in new[] { Stage.Follows, Stage.Alone, Stage.Flowing, Stage.Settled }
            let day = reached.FirstOrDefault(its => its.Stage >= stage).On
            // Whoever does it alone on the day they meet it has met it elsewhere.
            where day != default && (stage < Stage.Alone || day > met)
            select (student, stage, day.DayNumber - met.DayNumber),
        ];
        return new(Medians(cases, its => its.Stage), Medians(cases, its => (its.Student, its.Stage)));
    }

    /// <returns>Days; null of too few cases.</returns>
    public int? Days(Guid student, Stage stage) =>
        stage <= Stage.Shown ? 0
        : own.TryGetValue((student, stage), out var its) || everybody.TryGetValue(stage, out its) ? its
        : null;

    private static Dictionary<TKey, int> Medians<TKey>(
        List<(Guid Student, Stage Stage, int Days)> cases,
        Func<(Guid Student, Stage Stage, int Days), TKey> by
    )
        where TKey : notnull =>
        cases
            .GroupBy(by, its => its.Days)
            .Where(same => same.Count() >= FewestCases)
            .ToDictionary(same => same.Key, same => same.Order().ElementAt(same.Count() / 2));
}
