using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Server.Demo;

/// <summary>The demo school's made-up students.</summary>
internal static class DemoRoster
{
    /// <summary>Cohort by cohort; days since the first of them joined, counted back from the start of the
    /// term.</summary>
    public static IReadOnlyList<(string Cohort, string Sash, Half Half, int JoinedDaysAgo, string Names)> All { get; } =
    [
        (
            "Ivory",
            "Ivory",
            Half.None,
            0,
            "Adaeze Onwudiwe, Bernd Hollerbach, Carys Penhallow, Dai Yarrow, Elif Sandberg, Gwen Tallis, Ruben Aldaine, Sanna Wirtz"
        ),
        (
            "Fern, newer",
            "Fern",
            Half.Newer,
            200,
            "Emeka Nwafor, Filippa Strand, Goran Velic, Hanne Lorentz, Tomasz Brandys, Wilma Ekdahl"
        ),
        (
            "Fern, senior",
            "Fern",
            Half.Senior,
            420,
            "Ines Caldera, Lucia Tormes, Matteo Firth, Oskar Brenner, Yusuf Demirel"
        ),
        ("Copper", "Copper", Half.None, 800, "Imke Rademaker, Jorun Aasen, Kofi Mensah-Hale, Per Lundgren, Vera Quist"),
        ("Garnet", "Garnet", Half.None, 1500, "Anselm Kirchner, Beatrix Osei, Quentin Marsh, Solveig Nord"),
        (
            "Rail group",
            "Fern",
            Half.Newer,
            300,
            "Edda Thorne, Florian Asch, Greta Malmberg, Hollis Park, Marta Sobel, Rosalind Frey"
        ),
        (
            "Chair group",
            "Ivory",
            Half.None,
            150,
            "Agnes Whitlock, Conrad Beale, Dorothea Lindt, Ewan Strachan, Hedda Bruun, Leopold Wray, Mirjam Haas, Nils Tveit, Pauline Orr"
        ),
    ];

    /// <summary>They work with the senior half, and were away on the day of the test.</summary>
    public static IReadOnlySet<string> StillNewer { get; } = new HashSet<string> { "Matteo Firth", "Yusuf Demirel" };

    public static (IReadOnlyList<Limit> Limits, string Note) LimitsOf(string name) =>
        name switch
        {
            "Bernd Hollerbach" => ([new(Demand.OneLegBalance), new(Demand.Kick)], "Prefers a place near the wall."),
            "Kofi Mensah-Hale" => ([new(Demand.OneLegBalance, Side.Left)], ""),
            "Beatrix Osei" => ([new(Demand.OneLegBalance), new(Demand.Kick)], ""),
            "Vera Quist" => ([new(Demand.OverheadReach, Side.Right)], "Says when the arm is having a good day."),
            "Yusuf Demirel" => ([new(Demand.BackwardStep)], ""),
            "Edda Thorne" or "Hollis Park" => (
                [new(Demand.OneLegBalance), new(Demand.LongStanding)],
                "A chair stands ready beside the rail."
            ),
            "Ewan Strachan" => ([new(Demand.TrunkTwist, Side.Left)], ""),
            _ => ([], ""),
        };

    /// <summary>What somebody comes for, how they take part, whom to call and what they agreed to.</summary>
    public static StudentDetails DetailsOf(string name, string cohort) =>
        new()
        {
            Aim =
                cohort is "Rail group" or "Chair group" ? Aim.Health
                : name is "Anselm Kirchner" or "Solveig Nord" ? Aim.PartnerWork
                : Aim.TheArt,
            Scope = name switch
            {
                "Gwen Tallis" => "Section one is enough for now.",
                "Pauline Orr" => "The breath loop and the opening, daily.",
                _ => "",
            },
            Mode = cohort switch
            {
                "Rail group" => Mode.Supported,
                "Chair group" => Mode.Seated,
                _ => Mode.Standing,
            },
            HeldHand = name is "Greta Malmberg" ? Side.Left : Side.Symmetric,
            ContactName = cohort is "Rail group" or "Chair group" ? $"The {name.Split(' ')[1]} household" : "",
            ContactPhone = cohort is "Rail group" or "Chair group" ? $"+44 1632 960{100 + (name.Length * 7 % 90)}" : "",
            Consents =
                cohort is "Garnet" or "Copper"
                    ? [Consent.HandsOn, Consent.PartnerWork, Consent.Recording, Consent.Messages]
                : name.Length % 3 == 0 ? [Consent.Messages]
                : [Consent.HandsOn, Consent.Messages],
        };
}
