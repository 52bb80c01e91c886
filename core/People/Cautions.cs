using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>The cautions every sheet carries (domain.md 6). Zeitplan plans lessons; it is not medical advice.</summary>
public static class Cautions
{
    public static IReadOnlyList<string> Always { get; } =
    [
        "Work within a comfortable range. Stop at pain, dizziness, breathlessness or chest discomfort, and get help.",
        "Never hold or force the breath. Knee in line with the toes, no twist under load.",
        "First aid, safeguarding, hall capacity and accessibility follow local rules, and those come first. After illness, surgery or a fall, ask your own clinician before starting or changing mode.",
    ];

    /// <summary>Before a partner block.</summary>
    public const string WithAPartner =
        "Each says first what contact is all right tonight, and anybody stops at any time. Never push against a joint, nor anybody who is unsteady.";

    /// <summary>Beside <see cref="Always"/> in a lesson.</summary>
    public static IReadOnlyList<string> For(Mode mode) =>
        [
            .. mode.Support == Support.None
                ? Array.Empty<string>()
                : ["Somebody who can help stays with the group the whole time."],
            .. Of(mode),
        ];

    /// <summary>Beside <see cref="Always"/> on what is taken home, where nobody watches.</summary>
    public static IReadOnlyList<string> AtHome(Mode mode) =>
        [
            "A clear, dry floor without loose edges, and something firm to hold within reach. Keep any tool in your hand under control.",
            .. Of(mode),
            .. mode.Support == Support.None ? Array.Empty<string>() : ["Practise while somebody who can help is near."],
        ];

    private static string[] Of(Mode mode) =>
        mode.Support switch
        {
            Support.Seat =>
            [
                "Chair: firm, no wheels, not deep, on a non-slip floor; feet flat, back supported if needed. Take care when leaning forward and rising.",
                "Wheelchair brakes on; never push on footplates.",
            ],
            Support.Touch or Support.Hold =>
            [
                "Within reach of a rail, wall or braced chair. A rolling frame is for getting there, not a support to practise on.",
            ],
            _ =>
            [
                "Backward steps, one-leg postures and kicks within reach of a rail, wall or braced chair for anyone unsteady.",
            ],
        };
}
