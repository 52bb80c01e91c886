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

/// <summary>A day, or several in a row, on which no lesson is held, and why.</summary>
/// <param name="Until">The last of several days, included; null for a single one.</param>
public sealed record Closure(DateOnly Date, string Reason, DateOnly? Until = null)
{
    public bool Covers(DateOnly date) => Date <= date && date <= (Until ?? Date);

    /// <summary>What of it stays when one day is open after all: the days before and the days after.</summary>
    public IEnumerable<Closure> Without(DateOnly date)
    {
        if (!Covers(date))
        {
            return [this];
        }

        var last = Until ?? Date;
        return
        [
            .. Date < date ? [Between(Date, date.AddDays(-1))] : Array.Empty<Closure>(),
            .. date < last ? [Between(date.AddDays(1), last)] : Array.Empty<Closure>(),
        ];
    }

    private Closure Between(DateOnly from, DateOnly to) => new(from, Reason, from == to ? null : to);
}

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

        foreach (var (at, closure) in Closures.Index())
        {
            if (closure.Date < Start || closure.Date > End)
            {
                yield return new($"closures[{at}].date", $"{closure.Date:yyyy-MM-dd} is outside the term.");
            }
            else if (closure.Until < closure.Date)
            {
                yield return new($"closures[{at}].until", "The last day is before the first.");
            }
            else if (closure.Until > End)
            {
                yield return new($"closures[{at}].until", $"{closure.Until:yyyy-MM-dd} is outside the term.");
            }
        }

        foreach (var (at, day) in TestDays.Index().Where(d => d.Item < Start || d.Item > End))
        {
            yield return new($"testDays[{at}]", $"{day:yyyy-MM-dd} is outside the term.");
        }

        foreach (var (at, closure) in Closures.Index().Where(c => string.IsNullOrWhiteSpace(c.Item.Reason)))
        {
            yield return new($"closures[{at}].reason", $"Say why the school is closed on {closure.Date:yyyy-MM-dd}.");
        }

        foreach (var (at, closure) in Closures.Index())
        {
            if (Closures.Take(at).Any(earlier => earlier.Covers(closure.Date) || closure.Covers(earlier.Date)))
            {
                yield return new($"closures[{at}].date", $"{closure.Date:yyyy-MM-dd} is closed twice.");
            }
        }

        foreach (var other in others.Where(other => other.Start <= End && Start <= other.End))
        {
            yield return new("start", $"{other.Name} runs from {other.Start:yyyy-MM-dd} to {other.End:yyyy-MM-dd}.");
        }
    }
}
