using System.Net;
using Microsoft.AspNetCore.HttpOverrides;

namespace Zeitplan.Server.Web;

/// <summary>Behind a reverse proxy that ends TLS: who asked, by which scheme and for which host is what the proxy says,
/// and only the proxies of <c>ZEITPLAN_PROXIES</c> (addresses and networks, with commas between) are believed.</summary>
internal static class BehindProxy
{
    /// <summary>Long enough that browsers never ask in the open again.</summary>
    private static readonly TimeSpan Strictly = TimeSpan.FromDays(365);

    /// <exception cref="FormatException">It is written, and is no list of addresses and networks.</exception>
    public static void Add(IServiceCollection services, IConfiguration configuration)
    {
        services.AddHsts(hsts => hsts.MaxAge = Strictly);
        if (configuration["ZEITPLAN_PROXIES"] is not { Length: > 0 } said)
        {
            return;
        }

        services.Configure<ForwardedHeadersOptions>(headers =>
        {
            headers.ForwardedHeaders =
                ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedHost;
            headers.KnownProxies.Clear();
            headers.KnownIPNetworks.Clear();
            foreach (var one in said.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
            {
                if (IPAddress.TryParse(one, out var address))
                {
                    headers.KnownProxies.Add(address);
                }
                else if (System.Net.IPNetwork.TryParse(one, out var network))
                {
                    headers.KnownIPNetworks.Add(network);
                }
                else
                {
                    throw new FormatException(
                        $"ZEITPLAN_PROXIES holds {one}; write addresses and networks, such as 127.0.0.1,10.0.0.0/8."
                    );
                }
            }
        });
    }

    /// <summary>Whether people reach the installation by TLS, as it is set up: then no cookie travels in the
    /// open.</summary>
    public static CookieSecurePolicy CookiePolicy(IConfiguration configuration) =>
        configuration["ZEITPLAN_ADDRESS"]?.StartsWith("https:", StringComparison.OrdinalIgnoreCase) == true
            ? CookieSecurePolicy.Always
            : CookieSecurePolicy.SameAsRequest;
}
