namespace Zeitplan.Core.Forms;

/// <summary>The faults that postures and links are known for.</summary>
public sealed class KnownFaults(IReadOnlyDictionary<Guid, Posture> postures, IReadOnlyCollection<Link> links)
{
    /// <param name="of">A posture on a side, or a link.</param>
    /// <returns>As they read on that side; none of what the school does not have.</returns>
    public IReadOnlyList<Fault> Of(UnitKey of)
    {
        if (of.From() is { } from)
        {
            return
                links.Select(link => link.For(from, new(of.PostureId, of.Side))).OfType<LinkText>().FirstOrDefault()
                    is { } text
                ? text.Faults
                : [];
        }

        return postures.TryGetValue(of.PostureId, out var posture)
            ? [.. posture.Faults.Select(fault => posture.On(of.Side, fault))]
            : [];
    }

    public Fault? Find(UnitKey of, Guid? id) => id is null ? null : Of(of).FirstOrDefault(fault => fault.Id == id);
}
