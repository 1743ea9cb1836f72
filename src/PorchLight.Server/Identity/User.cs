using Microsoft.AspNetCore.Identity;

namespace PorchLight.Server.Identity;

/// <summary>A person who works for the business and can sign in.</summary>
internal sealed class User : IdentityUser<Guid>
{
    public required string DisplayName { get; set; }

    /// <summary>The last event this person has seen in the bell.</summary>
    public long BellSeen { get; set; }
}

/// <summary>What a seat may do.</summary>
internal static class Roles
{
    public const string Owner = "owner";
    public const string Member = "member";
}
