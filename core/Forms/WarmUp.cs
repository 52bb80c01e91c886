namespace Zeitplan.Core.Forms;

/// <summary>One piece of the warm-up (domain.md 4.4: joint by joint, in the order the school sets).</summary>
/// <param name="What">As it is called: "hips and waist".</param>
/// <param name="DrillId">The drill of the catalogue it is; null for what is none.</param>
public sealed record WarmUpPiece(string What, int Minutes, Guid? DrillId = null);

/// <summary>A piece on the minutes of a lesson.</summary>
/// <param name="Start">The minute of the lesson it begins at.</param>
public sealed record WarmUpPart(string What, int Start, int End, Guid? DrillId);

/// <summary>What a lesson begins with.</summary>
public static class WarmUp
{
    /// <summary>How long it takes: the term plan counts on it.</summary>
    public const int Minutes = 10;

    private const int MostPieces = 12;

    /// <summary>Until a school sets its own.</summary>
    public static IReadOnlyList<WarmUpPiece> Shipped { get; } =
    [
        new("ankles and knees", 2),
        new("hips and waist", 2),
        new("shoulders, elbows and wrists", 2),
        new("neck, turning only", 1),
        new("weight from foot to foot", 3),
    ];

    public static string Say(IEnumerable<WarmUpPiece> pieces) => string.Join("; ", pieces.Select(piece => piece.What));

    /// <summary>The pieces on whole minutes, each with its share where there is less time or more; a piece that is left none
    /// is left out.</summary>
    public static IReadOnlyList<WarmUpPart> Within(IReadOnlyList<WarmUpPiece> pieces, int start, int end)
    {
        var all = pieces.Sum(piece => piece.Minutes);
        int At(int places) =>
            start + (int)Math.Round((end - start) * (double)pieces.Take(places).Sum(piece => piece.Minutes) / all);
        return
        [
            .. pieces
                .Select((piece, place) => new WarmUpPart(piece.What, At(place), At(place + 1), piece.DrillId))
                .Where(part => part.End > part.Start),
        ];
    }

    internal static IEnumerable<Problem> Check(IReadOnlyList<WarmUpPiece> pieces, string path) =>
        [
            .. pieces.SelectMany((piece, at) => Problem.WithName(piece.What, $"{path}[{at}].what")),
            .. pieces
                .Index()
                .Where(piece => piece.Item.Minutes < 1)
                .Select(piece => new Problem($"{path}[{piece.Index}].minutes", "A piece takes a minute at least.")),
            .. pieces.Count is 0 or > MostPieces
                ? [new Problem(path, $"A warm-up has 1 to {MostPieces} pieces.")]
                : Array.Empty<Problem>(),
            .. pieces.Sum(piece => (long)piece.Minutes) is not Minutes and var sum
                ? [new Problem(path, $"A warm-up takes {Minutes} minutes; its pieces come to {sum}.")]
                : Array.Empty<Problem>(),
        ];
}
