using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Server.Identity;

/// <summary>
/// A link that lets one person in once: to become a user, or to choose a new password.
/// </summary>
internal sealed class Invite
{
    /// <summary>How long a link is good for, in real time.</summary>
    public static readonly Duration GoodFor = Duration.FromDays(7);

    public required Id<Invite> Id { get; init; }
    public required string Name { get; init; }
    public required string Email { get; init; }
    public required string Role { get; init; }

    /// <summary>Whose password it renews; null for a new user.</summary>
    public required Guid? UserId { get; init; }
    public required string LinkHash { get; init; }
    public required string LinkSealed { get; init; }
    public required Instant GoodUntil { get; init; }
}
