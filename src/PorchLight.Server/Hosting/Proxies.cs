using System.Net;
using Microsoft.AspNetCore.HttpOverrides;

namespace PorchLight.Server.Hosting;

/// <summary>Whom to believe about the visitor's address and scheme: a reverse proxy on this machine, and those the setting names.</summary>
internal static class Proxies
{
    public static void TrustProxies(this IServiceCollection services, IConfiguration configuration) =>
        services.Configure<ForwardedHeadersOptions>(options =>
        {
            options.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
            foreach (
                var address in (configuration["PorchLight:TrustedProxies"] ?? "").Split(
                    ',',
                    StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries
                )
            )
                options.KnownProxies.Add(IPAddress.Parse(address));
        });
}
