namespace Zeitplan.Core.Forms;

/// <summary>The join between two consecutive postures, learned in its own right (domain.md 2, "link"). Written once; it
/// serves the mirrored pair too.</summary>
public sealed class Link
{
    private Link() { }

    public Guid Id { get; private set; }
    public LinkText Text { get; private set; } = new();

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Link Create(Guid id, LinkText text)
    {
        var link = new Link { Id = id };
        link.Rewrite(text);
        return link;
    }

    public void Rewrite(LinkText text) => Text = text with { KeyPoint = text.KeyPoint.Trim() };

    /// <summary>The text as it reads for this pair, or null when the link joins another one.</summary>
    public LinkText? For(Position from, Position to) =>
        For(new PostureSide(from.PostureId, from.Side), new PostureSide(to.PostureId, to.Side));

    /// <inheritdoc cref="For(Position, Position)"/>
    public LinkText? For(PostureSide from, PostureSide to) =>
        (from.PostureId, to.PostureId) != (Text.FromId, Text.ToId) ? null
        : (from.Side, to.Side) == (Text.FromSide, Text.ToSide) ? Text
        : (from.Side, to.Side) == (Mirror.Of(Text.FromSide), Mirror.Of(Text.ToSide)) ? Text.Mirrored()
        : null;
}

/// <summary>Everything a head writes about a link.</summary>
public sealed record LinkText
{
    public Guid FromId { get; init; }
    public Side FromSide { get; init; }
    public Guid ToId { get; init; }
    public Side ToSide { get; init; }
    public string KeyPoint { get; init; } = "";
    public IReadOnlyList<string> Cues { get; init; } = [];
    public IReadOnlyList<Fault> Faults { get; init; } = [];

    public LinkText Mirrored() =>
        this with
        {
            FromSide = Mirror.Of(FromSide),
            ToSide = Mirror.Of(ToSide),
            KeyPoint = Mirror.Of(KeyPoint),
            Cues = [.. Cues.Select(Mirror.Of)],
            Faults = [.. Faults.Select(fault => fault.Mirror())],
        };

    public IEnumerable<Problem> Check(IReadOnlyDictionary<Guid, Posture> postures) =>
        [
            .. CheckEnd(FromId, FromSide, "from", postures),
            .. CheckEnd(ToId, ToSide, "to", postures),
            .. Problem.WithText(KeyPoint, "keyPoint", Problem.LongestText, "key point"),
            .. Cues.SelectMany((cue, at) => Problem.WithName(cue, $"cues[{at}]")),
            .. Fault.Check(Faults, "faults"),
        ];

    private static IEnumerable<Problem> CheckEnd(
        Guid id,
        Side side,
        string end,
        IReadOnlyDictionary<Guid, Posture> postures
    ) =>
        !postures.TryGetValue(id, out var posture) ? [new($"{end}Id", "The school has no such posture.")]
        : !posture.HasSide(side)
            ?
            [
                new(
                    $"{end}Side",
                    posture.WrittenSide == Side.Symmetric
                        ? $"{posture.Name} has no left or right."
                        : $"Say which side {posture.Name} is done on."
                ),
            ]
        : [];
}
