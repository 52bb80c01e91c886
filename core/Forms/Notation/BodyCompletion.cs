using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>What could be written next in a text of body notation.</summary>
public static class BodyCompletion
{
    public static IReadOnlyList<string> At(string text) =>
        Completion.At(text, line => BodyNotation.Parse(line).Problems);
}
