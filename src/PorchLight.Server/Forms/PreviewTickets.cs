using System.Globalization;
using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;

namespace PorchLight.Server.Forms;

/// <summary>
/// Sealed tickets with which somebody of the business looks at a working copy through the public page, whatever its light and
/// admission are. The public side knows no sign-in, so the ticket is all that lets them in; it is good for a day.
/// </summary>
internal sealed class PreviewTickets(IDataProtectionProvider protection, TimeProvider time)
{
    /// <summary>The header in which the public page shows its ticket.</summary>
    public const string Header = "Preview-Ticket";

    private static readonly Duration Lifetime = Duration.FromHours(24);
    private readonly IDataProtector _sealing = protection.CreateProtector("PorchLight.Looks");

    /// <summary>A ticket for one form.</summary>
    public string Open(Id<Form> form) =>
        _sealing.Protect($"{form} {time.Now().ToUnixTimeSeconds().ToString(CultureInfo.InvariantCulture)}");

    /// <summary>Whether a request shows a ticket for a form.</summary>
    public bool Allows(Id<Form> form, HttpContext? http)
    {
        if (http?.Request.Headers[Header].ToString() is not { Length: > 0 } ticket)
            return false;
        try
        {
            return _sealing.Unprotect(ticket).Split(' ') is [var of, var at]
                && of == form.ToString()
                && time.Now() - Instant.FromUnixTimeSeconds(long.Parse(at, CultureInfo.InvariantCulture)) < Lifetime;
        }
        catch (CryptographicException)
        {
            return false;
        }
    }
}
