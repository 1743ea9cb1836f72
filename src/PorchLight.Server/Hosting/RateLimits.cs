using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Threading.RateLimiting;

namespace PorchLight.Server.Hosting;

/// <summary>How often one address may knock. A setting lifts it for tests.</summary>
internal static class RateLimits
{
    /// <summary>At public forms.</summary>
    public const string PublicForms = "forms";

    /// <summary>At the doors of the program: sign-in, links that let somebody in, the first run.</summary>
    public const string SignIn = "doors";

    /// <summary>Where a knock makes us write a mail.</summary>
    public const string Mail = "mail";

    /// <summary>Where files are left.</summary>
    public const string Uploads = "uploads";

    /// <summary>Who counts as one: an IPv4 address, or the /64 of an IPv6 address, which one household or server has to itself.</summary>
    public static string ClientNetwork(IPAddress? address) =>
        address switch
        {
            null => "unknown",
            { IsIPv4MappedToIPv6: true } => address.MapToIPv4().ToString(),
            { AddressFamily: AddressFamily.InterNetworkV6 } => new IPAddress([
                .. address.GetAddressBytes().Take(8),
                .. new byte[8],
            ]).ToString(),
            _ => address.ToString(),
        };

    private const int FormsAMinute = 240;
    private const int DoorsAMinute = 30;
    private const int MailsAMinute = 6;
    private const int UploadsAMinute = 30;

    public static void AddRateLimits(this IServiceCollection services, IConfiguration configuration) =>
        services.AddRateLimiter(limiter =>
        {
            var limited = configuration.GetValue("PorchLight:RateLimits", true);
            Add(PublicForms, FormsAMinute);
            Add(SignIn, DoorsAMinute);
            Add(Mail, MailsAMinute);
            Add(Uploads, UploadsAMinute);
            limiter.OnRejected = (rejected, _) =>
            {
                var wait = rejected.Lease.TryGetMetadata(MetadataName.RetryAfter, out var left) ? left : TimeSpan.FromMinutes(1);
                rejected.HttpContext.Response.Headers.RetryAfter = Math.Ceiling(Math.Max(1, wait.TotalSeconds))
                    .ToString(CultureInfo.InvariantCulture);
                return new ValueTask(
                    Problems
                        .Say(
                            StatusCodes.Status429TooManyRequests,
                            "That was a little fast. Please wait a minute and try again; what you typed is still here."
                        )
                        .ExecuteAsync(rejected.HttpContext)
                );
            };

            void Add(string policy, int permits) =>
                limiter.AddPolicy(
                    policy,
                    http =>
                        limited
                            ? RateLimitPartition.GetFixedWindowLimiter(
                                ClientNetwork(http.Connection.RemoteIpAddress),
                                _ => new FixedWindowRateLimiterOptions { PermitLimit = permits, Window = TimeSpan.FromMinutes(1) }
                            )
                            : RateLimitPartition.GetNoLimiter("lifted")
                );
        });
}
