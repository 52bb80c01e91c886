namespace Zeitplan.Core.Forms;

/// <summary>What steadies a person.</summary>
public enum Support
{
    None,
    Touch,
    Hold,
    Seat,
}

/// <summary>What the feet do.</summary>
public enum FeetUse
{
    FullSteps,
    ShortSteps,
    Still,
}

/// <summary>How somebody takes part (domain.md 2, "mode"): support and feet together.</summary>
public readonly record struct Mode(Support Support, FeetUse Feet)
{
    public static readonly Mode Standing = new(Support.None, FeetUse.FullSteps);
    public static readonly Mode ShortStep = new(Support.None, FeetUse.ShortSteps);
    public static readonly Mode NoStep = new(Support.None, FeetUse.Still);
    public static readonly Mode Supported = new(Support.Hold, FeetUse.ShortSteps);
    public static readonly Mode Seated = new(Support.Seat, FeetUse.Still);

    /// <summary>The modes a version can be written for, the least adapted first.</summary>
    public static IReadOnlyList<Mode> Named { get; } = [Standing, ShortStep, NoStep, Supported, Seated];

    /// <summary>The common name; anything held or touched is supported, anything on a seat is seated.</summary>
    public string Name =>
        this switch
        {
            { Support: Support.Seat } => "seated",
            { Support: Support.Touch or Support.Hold } => "supported",
            { Feet: FeetUse.Still } => "no-step",
            { Feet: FeetUse.ShortSteps } => "short-step",
            _ => "standing",
        };

    /// <summary>How much longer an introduction takes than standing (domain.md 4.2).</summary>
    public decimal Factor =>
        Name switch
        {
            "short-step" => 1.1m,
            "no-step" => 0.9m,
            "supported" => 1.3m,
            "seated" => 1.1m,
            _ => 1m,
        };

    public bool IsAdapted => this != Standing;

    /// <summary>How far a mode is from standing: its place among the named ones.</summary>
    public int Adapted =>
        Name switch
        {
            "standing" => 0,
            "short-step" => 1,
            "no-step" => 2,
            "supported" => 3,
            _ => 4,
        };

    public static Mode MoreAdapted(Mode one, Mode other) => other.Adapted > one.Adapted ? other : one;

    /// <summary>
    /// What the mode by its nature does not ask for, whatever the posture: nobody on a seat steps back. A version that
    /// is still to be written cannot ask for these. A hand that touches or holds is not available to the posture
    /// (domain.md 4.6), so a version written for it leaves it out.
    /// </summary>
    public IReadOnlyList<Demand> TakesAway =>
        Name switch
        {
            "standing" => [],
            "short-step" => [Demand.WideStep],
            "no-step" => StepDemands,
            "supported" => [Demand.WideStep, Demand.BothHandsFree],
            _ => [.. StepDemands, Demand.OneLegBalance, Demand.DeepBend, Demand.InwardHipTurn, Demand.LongStanding],
        };

    private static readonly Demand[] StepDemands =
    [
        Demand.WideStep,
        Demand.BackwardStep,
        Demand.CrossStep,
        Demand.PivotUnderLoad,
        Demand.Kick,
    ];

    /// <summary>The mode with this common name, or null when there is none.</summary>
    public static Mode? FromName(string name) =>
        Named.Select(mode => (Mode?)mode).FirstOrDefault(mode => mode!.Value.Name == name);
}
