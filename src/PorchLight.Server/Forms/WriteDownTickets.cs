using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.DataProtection;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>An inquiry that somebody of the business writes down for a lead.</summary>
/// <param name="Channel">How it reached the business.</param>
/// <param name="Received">When it did.</param>
/// <param name="Answered">Whether the lead was answered already, so that no reply is owed.</param>
/// <param name="Starts">Whether a follow-through begins with it, as with any other.</param>
/// <param name="By">The user who writes it down.</param>
/// <param name="ByName">What they are called.</param>
internal sealed record WrittenDown(InquiryChannel Channel, Instant Received, bool Answered, bool Starts, Guid By, string ByName);

/// <summary>
/// Sealed tickets with which somebody of the business fills in a form for a lead through the public page, whatever its light and
/// admission are. The public side knows no sign-in, so the ticket is all that lets them in; it is good for a day.
/// </summary>
internal sealed class WriteDownTickets(IDataProtectionProvider protection, TimeProvider time)
{
    /// <summary>The header in which the public page shows its ticket.</summary>
    public const string Header = "Write-Down-Ticket";

    private static readonly Duration Lifetime = Duration.FromHours(24);
    private readonly IDataProtector _sealing = protection.CreateProtector("PorchLight.WritingDown");

    private sealed record Ticket(Id<Form> Form, WrittenDown What, Instant Made);

    /// <summary>A ticket for one form.</summary>
    public string Open(Id<Form> form, WrittenDown what) =>
        _sealing.Protect(JsonSerializer.Serialize(new Ticket(form, what, time.Now()), Json.Options));

    /// <summary>What a request writes down by a ticket for a form; null without one that is good.</summary>
    public WrittenDown? Read(Id<Form> form, HttpContext? http)
    {
        if (http?.Request.Headers[Header].ToString() is not { Length: > 0 } shown)
            return null;
        try
        {
            return
                JsonSerializer.Deserialize<Ticket>(_sealing.Unprotect(shown), Json.Options) is { } ticket
                && ticket.Form == form
                && time.Now() - ticket.Made < Lifetime
                ? ticket.What
                : null;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }
}
