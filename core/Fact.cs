namespace Zeitplan.Core;

/// <summary>Something that was said once and is never changed. It is named by whoever says it, so that one sent twice
/// lands once.</summary>
public interface IFact<in TFact>
{
    Guid Id { get; }

    /// <summary>Whether the same was sent again: who sent it, and when, does not count.</summary>
    bool SaysTheSame(TFact other);
}
