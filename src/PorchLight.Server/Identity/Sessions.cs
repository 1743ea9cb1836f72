using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Identity;

/// <summary>A session that was signed out. Its cookie may have been copied, and is worth nothing any more.</summary>
internal sealed class EndedSession
{
    public required string Session { get; init; }
    public required Instant At { get; init; }
}

/// <summary>Names each sign-in, so that it can be ended for good.</summary>
internal static class Sessions
{
    /// <summary>The claim that names the session.</summary>
    public const string Claim = "porch-light-session";

    /// <summary>How long a cookie lasts at most; so long an ended session is remembered.</summary>
    public static readonly TimeSpan Lifetime = TimeSpan.FromDays(14);

    public static Claim New() => new(Claim, Guid.NewGuid().ToString("N"));

    /// <summary>Whether the session was signed out, or has no name.</summary>
    public static async Task<bool> HasEndedAsync(this PorchDb db, ClaimsPrincipal? who) =>
        who?.FindFirstValue(Claim) is not { } session || await db.EndedSessions.AsNoTracking().AnyAsync(ended => ended.Session == session);

    /// <summary>Ends the session of who asks, and closes its windows' news.</summary>
    public static async Task EndAsync(this PorchDb db, ClaimsPrincipal who, TimeProvider time, HubConnections connections)
    {
        if (who.FindFirstValue(Claim) is not { } session || await db.HasEndedAsync(who))
            return;
        await using var write = await db.WriteAsync(CancellationToken.None);
        db.EndedSessions.Add(new EndedSession { Session = session, At = time.Now() });
        await write.SaveAsync(CancellationToken.None);
        if (Guid.TryParse(who.FindFirstValue(ClaimTypes.NameIdentifier), out var user))
            connections.Close(user, session);
    }
}

/// <summary>Asks the store whether a session has ended.</summary>
internal sealed class SignedOut(PorchDb db) : ISignedOut
{
    public Task<bool> HasEndedAsync(ClaimsPrincipal? who) => db.HasEndedAsync(who);
}
