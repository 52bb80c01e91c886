namespace Zeitplan.Server.School;

/// <summary>Seconds as a head reads them: minutes with one decimal.</summary>
internal static class Minutes
{
    public static decimal Of(int seconds) => decimal.Round(seconds / 60m, 1, MidpointRounding.AwayFromZero);
}
