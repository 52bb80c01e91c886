using Zeitplan.Core.Lessons;

namespace Zeitplan.Arranger;

/// <summary>What it costs at least that not everything can come first.</summary>
internal static class LaterAtLeast
{
    public static long Of(LessonFacts facts) => Math.Max(InTheirOrder(facts), OneAfterTheOther(facts));

    /// <summary>Before something new comes at least what its cohort does before it, and practises in between. What several
    /// do together is waited for by each of them, and costs once.</summary>
    private static long InTheirOrder(LessonFacts facts)
    {
        Dictionary<string, long> latest = [];
        for (var cohort = 0; cohort < facts.Order.Count; cohort++)
        {
            var (minute, hadNew) = (0, false);
            foreach (var task in facts.Order[cohort])
            {
                var isNew = task.Kind == BlockKind.New && facts.LongestAlone[cohort] > 0;
                minute += isNew && hadNew ? facts.Problem.Rules.PractiseAfterNew : 0;
                hadNew |= isNew;
                latest[task.Key] = Math.Max(latest.GetValueOrDefault(task.Key), minute);
                minute += facts.Staying(task);
            }
        }

        return facts.Problem.Tasks.Sum(task => latest.GetValueOrDefault(task.Key) * Measures.Later(task.Kind));
    }

    /// <summary>There are only so many teachers. However they divide it among them, it is no better than if all of them
    /// together did one thing after the other, what weighs most for its minutes first (Eastman, Even and Isaacs).</summary>
    private static long OneAfterTheOther(LessonFacts facts)
    {
        var teachers = facts.Problem.Teachers.Count;
        if (teachers == 0)
        {
            return 0;
        }

        var (sum, beside, minutes) = (0L, 0L, 0L);
        foreach (
            var (weight, length) in facts
                .Problem.Tasks.Select(task => (Weight: Measures.Later(task.Kind), Length: facts.Staying(task)))
                .Where(task => task.Weight > 0)
                .OrderByDescending(task => (double)task.Weight / task.Length)
        )
        {
            minutes += length;
            sum += weight * minutes;
            beside += weight * length;
        }

        // Weighted ends, on so many teachers, less the weighted lengths: weighted beginnings. Twice, to stay whole.
        var doubled = ((2 * sum) + ((teachers - 1) * beside)) - (2 * teachers * beside);
        return Math.Max(0, doubled / (2 * teachers));
    }
}
