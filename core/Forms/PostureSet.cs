namespace Zeitplan.Core.Forms;

/// <summary>A school's postures together: what one needs of another.</summary>
public static class PostureSet
{
    /// <summary>Whatever is built from a changed posture takes over what changed, and so on.</summary>
    public static void Rebuild(IReadOnlyCollection<Guid> changed, IReadOnlyCollection<Posture> all)
    {
        var known = all.ToDictionary(posture => posture.Id);
        var builtOn = all.ToLookup(posture => posture.Text.BuiltFrom?.PostureId);
        Queue<Guid> next = new(changed);
        while (next.TryDequeue(out var id))
        {
            foreach (var posture in builtOn[id].Where(_ => known.ContainsKey(id)))
            {
                posture.Rebuild(known[id]);
                next.Enqueue(posture.Id);
            }
        }
    }

    /// <summary>The postures with the counts that others lend them.</summary>
    /// <exception cref="InvalidOperationException">A posture is built from one that is not there, or from itself by a
    /// detour; see <see cref="Check"/>.</exception>
    public static Dictionary<Guid, Posture> Build(IEnumerable<Entry<PostureText>> texts)
    {
        var waiting = texts.ToDictionary(entry => entry.Id, entry => entry.Text);
        Dictionary<Guid, Posture> built = [];
        while (waiting.Count > 0)
        {
            var ready = waiting
                .Where(entry => entry.Value.BuiltFrom is not { } basis || built.ContainsKey(basis.PostureId))
                .ToList();
            if (ready.Count == 0)
            {
                throw new InvalidOperationException(
                    $"{waiting.Values.First().Name} is built from a posture that is not there."
                );
            }

            foreach (var (id, text) in ready)
            {
                built[id] = Posture.Create(id, text, text.BuiltFrom is { } basis ? built[basis.PostureId] : null);
                waiting.Remove(id);
            }
        }

        return built;
    }

    /// <summary>What a posture names that is not there, or that would go round in a circle.</summary>
    /// <param name="all">Every posture of the school as it would be, this one included.</param>
    public static IEnumerable<Problem> Check(Guid id, PostureText text, IReadOnlyDictionary<Guid, PostureText> all)
    {
        if (text.BuiltFrom is { } built)
        {
            if (!all.TryGetValue(built.PostureId, out var basis))
            {
                yield return new("builtFrom.postureId", "The school has no such posture to build from.");
            }
            else if (LeadsBack(id, built.PostureId, all))
            {
                yield return new(
                    "builtFrom.postureId",
                    $"{text.Name} would be built from itself: {basis.Name} is built from it."
                );
            }
            else
            {
                foreach (var (at, count) in text.Counts.Index().Where(count => count.Item.As > basis.Counts.Count))
                {
                    yield return new(
                        $"counts[{at}].as",
                        $"{basis.Name} has {basis.Counts.Count} counts; there is no count {count.As} to take."
                    );
                }
            }
        }

        foreach (var (at, need) in text.Needs.Index().Where(need => need.Item == id || !all.ContainsKey(need.Item)))
        {
            yield return new(
                $"needs[{at}]",
                need == id ? "A posture cannot be needed before itself." : "The school has no such posture."
            );
        }

        foreach (var (at, part) in text.Parts.Index())
        {
            if (!all.TryGetValue(part.PostureId, out var posture))
            {
                yield return new($"parts[{at}].postureId", "The school has no such posture.");
            }
            else if (posture.Parts.Count > 0 || part.PostureId == id)
            {
                yield return new($"parts[{at}].postureId", "A compound posture is made of simple ones.");
            }
            else if ((posture.WrittenSide == Side.Symmetric) != (part.Side == Side.Symmetric))
            {
                yield return new(
                    $"parts[{at}].side",
                    posture.WrittenSide == Side.Symmetric
                        ? $"{posture.Name} has no left or right."
                        : $"Say which side {posture.Name} is done on."
                );
            }
        }
    }

    private static bool LeadsBack(Guid id, Guid from, IReadOnlyDictionary<Guid, PostureText> all)
    {
        var at = (Guid?)from;
        for (var steps = 0; at is { } here && steps <= all.Count; steps++)
        {
            if (here == id)
            {
                return true;
            }

            at = all.TryGetValue(here, out var text) ? text.BuiltFrom?.PostureId : null;
        }

        return at is not null;
    }
}
