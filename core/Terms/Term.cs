namespace Zeitplan.Core.Terms;

/// <summary>A run of weeks with its closures and test days.</summary>
public sealed class Term
{
    private Term() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";

    /// <summary>The first day; the weeks of the term are counted from it.</summary>
    public DateOnly Start { get; private set; }

    /// <summary>The last day, included.</summary>
    public DateOnly End { get; private set; }
    public IReadOnlyList<Closure> Closures { get; private set; } = [];
    public IReadOnlyList<DateOnly> TestDays { get; private set; } = [];

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Term Create(Guid id, TermText text)
    {
        var term = new Term { Id = id };
        term.Rewrite(text);
        return term;
    }

    public void Rewrite(TermText text) =>
        (Name, Start, End, Closures, TestDays) = (text.Name.Trim(), text.Start, text.End, text.Closures, text.TestDays);

    public bool Contains(DateOnly date) => date >= Start && date <= End;

    /// <summary>The week of the term a date lies in, from 1.</summary>
    public int WeekOf(DateOnly date) => ((date.DayNumber - Start.DayNumber) / 7) + 1;
}

/// <summary>A day on which no lesson is held, and why.</summary>
public sealed record Closure(DateOnly Date, string Reason);

/// <summary>Everything a head writes about a term, before it has been checked.</summary>
public sealed record TermText(
    string Name,
    DateOnly Start,
    DateOnly End,
    IReadOnlyList<Closure> Closures,
    IReadOnlyList<DateOnly> TestDays
)
{
    public const int LongestWeeks = 60;

    /// <param name="others">The school's other terms, without this one.</param>
    public IEnumerable<Problem> Check(IEnumerable<Term> others)
    {
        foreach (var problem in Problem.WithName(Name, "name"))
        {
            yield return problem;
        }

        if (End < Start)
        {
            yield return new("end", "The term ends before it starts.");
        }
        else if (End.DayNumber - Start.DayNumber > LongestWeeks * 7)
        {
            yield return new("end", $"A term has at most {LongestWeeks} weeks.");
        }

        foreach (var (at, closure) in Closures.Index().Where(c => c.Item.Date < Start || c.Item.Date > End))
        {
            yield return new($"closures[{at}].date", $"{closure.Date:yyyy-MM-dd} is outside the term.");
        }

        foreach (var (at, day) in TestDays.Index().Where(d => d.Item < Start || d.Item > End))
        {
            yield return new($"testDays[{at}]", $"{day:yyyy-MM-dd} is outside the term.");
        }

        foreach (var (at, closure) in Closures.Index().Where(c => string.IsNullOrWhiteSpace(c.Item.Reason)))
        {
            yield return new($"closures[{at}].reason", $"Say why the school is closed on {closure.Date:yyyy-MM-dd}.");
        }

        foreach (var same in Closures.Index().GroupBy(c => c.Item.Date).Where(same => same.Count() > 1))
        {
            yield return new($"closures[{same.Last().Index}].date", $"{same.Key:yyyy-MM-dd} is closed twice.");
        }

        foreach (var other in others.Where(other => other.Start <= End && Start <= other.End))
        {
            yield return new("start", $"{other.Name} runs from {other.Start:yyyy-MM-dd} to {other.End:yyyy-MM-dd}.");
        }
    }
}
