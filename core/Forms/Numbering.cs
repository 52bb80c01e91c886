namespace Zeitplan.Core.Forms;

/// <summary>Numbers of positions, computed and never typed (domain.md 4.1, "Counting").</summary>
public static class Numbering
{
    /// <summary>For every position its number from 1, or null where it goes under the number before it.</summary>
    public static IReadOnlyList<int?> Of(IReadOnlyList<Position> positions)
    {
        var next = 1;
        return [.. positions.Select(position => position.Numbered ? next++ : (int?)null)];
    }
}
