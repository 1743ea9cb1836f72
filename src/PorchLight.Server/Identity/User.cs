using System.ComponentModel.DataAnnotations.Schema;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Server.Identity;

/// <summary>A person who works for the business and can sign in.</summary>
internal sealed class User : IdentityUser<Guid>
{
    public required string DisplayName { get; set; }

    /// <summary>What stands below messages in their name; empty for what stands below the business's.</summary>
    public string Signature { get; set; } = "";

    /// <summary>The last event this person has seen in the bell.</summary>
    public long BellSeen { get; set; }

    /// <summary>When they get mails about inquiries; see <see cref="NotificationTime"/>.</summary>
    public LocalTime? NotifiedDailyAt { get; set; }
    public bool NotifiedAtNight { get; set; }

    [NotMapped]
    public NotificationTime NotificationTime
    {
        get => new(NotifiedDailyAt, NotifiedAtNight);
        set => (NotifiedDailyAt, NotifiedAtNight) = (value.DailyAt, value.AtNight);
    }
}

/// <summary>Somebody who was a user once, so that what they did still has a name.</summary>
internal sealed class FormerUser
{
    /// <summary>The identifier they had as a user.</summary>
    public required Guid Id { get; init; }
    public required string DisplayName { get; init; }
    public required Instant Left { get; init; }
}

/// <summary>What a user may do.</summary>
internal static class Roles
{
    public const string Owner = "owner";
    public const string Member = "member";
}
