namespace Zeitplan.Core.Forms;

/// <summary>One of the five layers a count may carry (domain.md 2).</summary>
public enum Layer
{
    Feet,
    Waist,
    Hands,
    Gaze,
    Breath,
}
