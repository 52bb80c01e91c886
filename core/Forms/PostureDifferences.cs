namespace Zeitplan.Core.Forms;

/// <summary>What stands differently in two versions of a posture, in sentences: shown to whoever saved
/// second.</summary>
public static class PostureDifferences
{
    public static IReadOnlyList<string> Between(PostureText kept, PostureText offered)
    {
        List<string> differences = [];
        Text("name", kept.Name, offered.Name);
        Text("key point", kept.KeyPoint, offered.KeyPoint);
        Text("entry", kept.Entry, offered.Entry);
        Text("start", kept.Start, offered.Start);
        for (var at = 0; at < Math.Max(kept.Counts.Count, offered.Counts.Count); at++)
        {
            var (own, other) = (kept.Counts.ElementAtOrDefault(at), offered.Counts.ElementAtOrDefault(at));
            if (own != other)
            {
                differences.Add(
                    $"Count {at + 1} reads “{own?.Cue ?? "nothing"}”; yours “{other?.Cue ?? "nothing"}”{(own?.Cue == other?.Cue ? ", with another layer" : "")}."
                );
            }
        }

        Lists("faults", kept.Faults.Select(fault => fault.Seen), offered.Faults.Select(fault => fault.Seen));
        Lists(
            "demands",
            kept.Demands.Select(demand => demand.ToString()),
            offered.Demands.Select(demand => demand.ToString())
        );
        Lists("cautions", kept.Cautions, offered.Cautions);
        Lists(
            "versions",
            kept.Versions.Select(version => version.Mode.Name),
            offered.Versions.Select(version => version.Mode.Name)
        );
        return differences;

        void Text(string what, string own, string other)
        {
            if (own != other)
            {
                differences.Add($"The {what} is “{own}”; you wrote “{other}”.");
            }
        }

        void Lists(string what, IEnumerable<string> own, IEnumerable<string> other)
        {
            if (!own.SequenceEqual(other))
            {
                differences.Add($"Its {what} are not the ones you wrote.");
            }
        }
    }
}
