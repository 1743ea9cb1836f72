using System.Threading.RateLimiting;
using PorchLight.Server.Data;

namespace PorchLight.Server.Inquiries;

/// <summary>How often one address may knock. A setting lifts it for tests.</summary>
internal static class PublicLimits
{
    private const int KnocksAMinute = 240;

    public static void AddPublicLimits(this IServiceCollection services, IConfiguration configuration) => services.AddRateLimiter(limiter =>
    {
        var limit = configuration.GetValue("PorchLight:RateLimits", true);
        limiter.AddPolicy(PublicEndpoints.RateLimit, http => limit
            ? RateLimitPartition.GetFixedWindowLimiter(http.Connection.RemoteIpAddress?.ToString() ?? "unknown", _ => new FixedWindowRateLimiterOptions
            {
                PermitLimit = KnocksAMinute, Window = TimeSpan.FromMinutes(1),
            })
            : RateLimitPartition.GetNoLimiter("lifted"));
        limiter.OnRejected = (rejected, _) => new ValueTask(Problems.Say(StatusCodes.Status429TooManyRequests,
            "That was a little fast. Please wait a minute and try again; what you typed is still here.").ExecuteAsync(rejected.HttpContext));
    });
}
