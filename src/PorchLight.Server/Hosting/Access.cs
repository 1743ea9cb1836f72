namespace PorchLight.Server.Hosting;

/// <summary>Who may use an endpoint.</summary>
internal enum Access
{
    /// <summary>Everybody, signed in or not.</summary>
    Public,

    /// <summary>Everybody who works for the business.</summary>
    Member,

    /// <summary>Owners alone.</summary>
    Owner,
}

/// <summary>Says of an endpoint who may use it. Every endpoint has it, from its group or of its own; the innermost counts.</summary>
internal sealed record AccessMetadata(Access Access);

internal static class AccessDeclarations
{
    /// <summary>The policy that lets owners in alone.</summary>
    public const string OwnerOnly = "owner only";

    /// <summary>Declares who may use an endpoint, or those of a group, and sees to it.</summary>
    public static TBuilder For<TBuilder>(this TBuilder endpoints, Access access)
        where TBuilder : IEndpointConventionBuilder
    {
        endpoints.WithMetadata(new AccessMetadata(access));
        return access switch
        {
            Access.Public => endpoints.AllowAnonymous(),
            Access.Member => endpoints.RequireAuthorization(),
            Access.Owner => endpoints.RequireAuthorization(OwnerOnly),
            _ => throw new ArgumentOutOfRangeException(nameof(access)),
        };
    }
}
