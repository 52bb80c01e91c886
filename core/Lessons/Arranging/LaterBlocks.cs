namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>What of a lesson is left when it goes on later than arranged and nobody can arrange it anew, because the
/// network is gone: everything that was still to come comes so much later, and what reaches into what the whole class does
/// at the end gives way. Every teacher stays with the cohort they were to be with, so no rule is broken that was kept.</summary>
public static class LaterBlocks
{
    /// <summary>A stretch of the lesson: a part of a block, by its place in the list it was given in.</summary>
    public readonly record struct Part(int Block, int Start, int End);

    /// <param name="blocks">A whole lesson; what the whole class does at its end is without a gap up to the last
    /// minute.</param>
    /// <param name="from">The minute at which it stood still.</param>
    /// <param name="until">The minute at which it goes on.</param>
    public static IReadOnlyList<Part> Of(IReadOnlyList<ArrangedBlock> blocks, int from, int until)
    {
        var minutes = blocks.Select(block => block.End).DefaultIfEmpty(0).Max();
        var ends = EndOfOwnWork(blocks, minutes);
        var latest = Math.Max(ends, Math.Min(until, minutes));
        List<Part> parts = [];
        foreach (var (at, block) in blocks.Index())
        {
            if (block.Start < from)
            {
                parts.Add(new(at, block.Start, Math.Min(block.End, from)));
            }

            if (block.End <= from)
            {
                continue;
            }

            if (block.CohortId is null && block.Start >= ends)
            {
                // Quiet at the end stays where it is; it only begins later where the lesson still stands then.
                var start = Math.Max(Math.Max(block.Start, from), Math.Min(until, minutes));
                if (block.End > start)
                {
                    parts.Add(new(at, start, block.End));
                }

                continue;
            }

            var (later, end) = (Math.Max(block.Start, from) + until - from, Math.Min(block.End + until - from, latest));
            if (end > later)
            {
                parts.Add(new(at, later, end));
            }
        }

        return parts;
    }

    private static int EndOfOwnWork(IReadOnlyList<ArrangedBlock> blocks, int minutes)
    {
        var ends = minutes;
        while (
            blocks.FirstOrDefault(block => block.CohortId is null && block.End == ends && block.Start > 0) is { } last
        )
        {
            ends = last.Start;
        }

        return ends;
    }
}
