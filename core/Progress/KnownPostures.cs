using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>What a cohort already holds, and so need not be taught as new.</summary>
public static class KnownPostures
{
    /// <summary>The postures that more than half of the cohort do alone or better.</summary>
    public static IReadOnlySet<PostureSide> By(
        IReadOnlyCollection<Guid> students,
        IEnumerable<PostureSide> postures,
        ProgressBook book
    ) =>
        postures
            .Distinct()
            .Where(of =>
                students.Count(student => book.StandingOf(student, of).Stage >= Stage.Alone) * 2 > students.Count
            )
            .ToHashSet();
}
