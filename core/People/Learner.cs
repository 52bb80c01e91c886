using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>A student, for what can be asked of them.</summary>
/// <param name="Mode">As they usually take part.</param>
/// <param name="Limits">What they must not be asked for.</param>
public sealed record Learner(Guid StudentId, Mode Mode, IReadOnlyList<Limit> Limits);
