using Microsoft.AspNetCore.DataProtection;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Identity;

/// <summary>
/// Slows guessing of passwords down, by the address it comes from and the account it is aimed at. An account that is guessed at from
/// many addresses is never closed, for its owner may sit at a new device: each guess of a stranger takes longer instead. A device on which
/// somebody has signed in before counts for itself; and an account there is not is treated like one there is.
/// </summary>
internal sealed class SignInThrottle(Quotas quotas, IDataProtectionProvider protection)
{
    private const string What = "password";
    private const string DeviceCookie = "porch-light-device";
    private const int Most = 8;
    private const int MostByAll = 200;

    /// <summary>How long a guess takes at an account that strangers guess at from everywhere.</summary>
    internal static readonly TimeSpan Slowed = TimeSpan.FromSeconds(3);
    private static readonly Duration Pause = Duration.FromMinutes(5);
    private readonly IDataProtector _devices = protection.CreateProtector("PorchLight.Devices");

    /// <summary>Whether another guess is listened to.</summary>
    public bool MayTry(HttpContext http, string email) =>
        Device(http, email) is { } device ? quotas.IsLeft(What, device, Most) : quotas.IsLeft(What, From(http, email), Most);

    /// <summary>How long this guess waits before it is looked at.</summary>
    public TimeSpan PauseBefore(HttpContext http, string email) =>
        Device(http, email) is null && !quotas.IsLeft(What, EmailAddress.Key(email), MostByAll) ? Slowed : TimeSpan.Zero;

    /// <summary>Whether another guess of the password of who is signed in is listened to, and counts it.</summary>
    public bool MayGuessCurrent(Guid user) => quotas.Use("current password", user.ToString(), Most, Pause);

    /// <summary>They knew it.</summary>
    public void KnewCurrent(Guid user) => quotas.GiveBack("current password", user.ToString());

    public void Failed(HttpContext http, string email)
    {
        quotas.Use(What, Device(http, email) ?? From(http, email), Most, Pause);
        if (Device(http, email) is null)
            quotas.Use(What, EmailAddress.Key(email), MostByAll, Pause);
    }

    /// <summary>Remembers the device, and that whoever sits there knew the password.</summary>
    public void Succeeded(HttpContext http, string email)
    {
        quotas.GiveBack(What, Device(http, email) ?? From(http, email));
        http.Response.Cookies.Append(
            DeviceCookie,
            _devices.Protect(EmailAddress.Key(email)),
            new CookieOptions
            {
                HttpOnly = true,
                IsEssential = true,
                SameSite = SameSiteMode.Strict,
                Secure = http.Request.IsHttps,
                MaxAge = TimeSpan.FromDays(365),
                Path = "/api/sign-in",
            }
        );
    }

    private string? Device(HttpContext http, string email)
    {
        if (http.Request.Cookies[DeviceCookie] is not { } cookie)
            return null;
        try
        {
            return _devices.Unprotect(cookie) == EmailAddress.Key(email) ? $"device {cookie}" : null;
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return null;
        }
    }

    private static string From(HttpContext http, string email) =>
        $"{RateLimits.ClientNetwork(http.Connection.RemoteIpAddress)} {EmailAddress.Key(email)}";
}
