using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Engine;

/// <summary>A run of counts as the page says it: one text, because each text that crosses from the page costs as much as
/// drawing a limb.</summary>
internal sealed record Run(
    string Entry,
    string Start,
    Mode Mode,
    Side? Rail,
    PivotOn PivotOn,
    IReadOnlyList<string> Feet,
    IReadOnlyList<string> Bodies
)
{
    /// <summary>Between the parts of a text; nobody types it.</summary>
    public const char Apart = '\u001f';

    /// <param name="text">Entry, how the body starts, the name of the mode, the side a rail is on and a word where feet turn on
    /// the ball; then feet and body of each count. All apart by <see cref="Apart"/>.</param>
    public static Run Read(string text)
    {
        var parts = text.Split(Apart);
        var counts = (parts.Length - 5) / 2;
        var (feet, bodies) = (new string[counts], new string[counts]);
        for (var at = 0; at < counts; at++)
        {
            (feet[at], bodies[at]) = (parts[5 + (2 * at)], parts[6 + (2 * at)]);
        }

        return new(
            parts[0],
            parts[1],
            Mode.FromName(parts[2]) ?? Mode.Standing,
            parts[3] switch
            {
                "left" => Side.Left,
                "right" => Side.Right,
                _ => null,
            },
            parts[4].Length > 0 ? PivotOn.Ball : PivotOn.Heel,
            feet,
            bodies
        );
    }

    public IReadOnlyList<Count> Counts => [.. Feet.Zip(Bodies, (feet, body) => new Count("", feet, Body: body))];

    /// <summary>The body notation of a count; 0 is where it starts.</summary>
    public string BodyOf(int count) => count == 0 ? Start : Bodies[count - 1];

    /// <summary>All that the feet go by.</summary>
    public string Steps { get; } = string.Join(Apart, [Entry, Mode.Name, $"{Rail}", $"{PivotOn}", .. Feet]);

    public Conventions Ways => Conventions.Default with { PivotOn = PivotOn };

    public AidKind? Aid => AidKind.Of(Mode, Rail);
}
