namespace Zeitplan.Core.Forms;

/// <summary>A requirement that holds in every posture (domain.md 2): one list per school, so that one habit is not
/// written down twenty times.</summary>
public sealed class Principle
{
    private Principle() { }

    public Guid Id { get; private set; }
    public PrincipleText Text { get; private set; } = new();

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Principle Create(Guid id, PrincipleText text)
    {
        var principle = new Principle { Id = id };
        principle.Rewrite(text);
        return principle;
    }

    public void Rewrite(PrincipleText text) =>
        Text = text with { Name = text.Name.Trim(), KeyPoint = text.KeyPoint.Trim() };
}

/// <summary>Everything a head writes about a principle.</summary>
/// <remarks>A fault of a principle is written without a side: it is the same habit in every posture.</remarks>
public sealed record PrincipleText
{
    /// <summary>Its place in the school's list, from 1.</summary>
    public int Order { get; init; } = 1;
    public string Name { get; init; } = "";
    public string KeyPoint { get; init; } = "";
    public IReadOnlyList<Fault> Faults { get; init; } = [];
    public IReadOnlyList<string> Images { get; init; } = [];

    public IEnumerable<Problem> Check() =>
        [
            .. Problem.WithName(Name, "name"),
            .. Problem.WithText(KeyPoint, "keyPoint", Problem.LongestText, "key point"),
            .. Fault.Check(Faults, "faults"),
        ];
}
