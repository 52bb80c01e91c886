namespace Zeitplan.Core.Forms;

/// <summary>A text of the school's material and the identifier it keeps wherever it goes.</summary>
public sealed record Entry<T>(Guid Id, T Text);
