using System.Security.Claims;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Data;

namespace PorchLight.Server.Identity;

/// <summary>Signing in and out, and who is there.</summary>
internal static class SignInEndpoints
{
    internal sealed record SignIn(string Email, string Password);

    /// <param name="Name">Null when nobody is signed in.</param>
    /// <param name="Role">Owner or member; null when nobody is signed in.</param>
    /// <param name="Business">The business's name.</param>
    /// <param name="Antiforgery">To be sent in the header X-Porch-Light with everything that changes something.</param>
    internal sealed record Session(string? Name, string? Role, string Business, string Antiforgery);

    public static void MapSignIn(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Sign-in").AllowAnonymous();
        group.MapGet("/session", ShowAsync);
        group.MapPost("/sign-in", SignInAsync);
        group.MapPost("/sign-out", SignOutAsync);
    }

    public static string DisplayName(this ClaimsPrincipal who) => who.FindFirstValue(ClaimTypes.GivenName) ?? who.Identity?.Name ?? "Somebody";

    private static async Task<Ok<Session>> ShowAsync(HttpContext http, PorchDb db, IAntiforgery antiforgery, CancellationToken stop)
    {
        var business = await db.Businesses.AsNoTracking().Select(business => business.Name).SingleAsync(stop);
        var signedIn = http.User.Identity is { IsAuthenticated: true };
        http.Response.Headers.CacheControl = "no-store";
        return TypedResults.Ok(new Session(
            signedIn ? http.User.DisplayName() : null,
            signedIn ? http.User.FindFirstValue(ClaimTypes.Role) : null,
            business, antiforgery.GetAndStoreTokens(http).RequestToken!));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SignInAsync(SignIn signIn, SignInManager<Seat> manager)
    {
        var result = await manager.PasswordSignInAsync(signIn.Email.Trim(), signIn.Password, isPersistent: true, lockoutOnFailure: true);
        return result switch
        {
            { Succeeded: true } => TypedResults.NoContent(),
            { IsLockedOut: true } => Problems.Say(StatusCodes.Status429TooManyRequests, "Too many tries. Please wait five minutes and try again."),
            _ => Problems.Say(StatusCodes.Status401Unauthorized, "This e-mail address and password do not belong together. Please check both."),
        };
    }

    private static async Task<NoContent> SignOutAsync(SignInManager<Seat> manager)
    {
        await manager.SignOutAsync();
        return TypedResults.NoContent();
    }
}

/// <summary>Puts the display name into the sign-in.</summary>
internal sealed class SeatClaims(UserManager<Seat> users, RoleManager<IdentityRole<Guid>> roles, Microsoft.Extensions.Options.IOptions<IdentityOptions> options)
    : UserClaimsPrincipalFactory<Seat, IdentityRole<Guid>>(users, roles, options)
{
    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Seat user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        identity.AddClaim(new Claim(ClaimTypes.GivenName, user.DisplayName));
        return identity;
    }
}

/// <summary>Refuses what changes something without the antiforgery token.</summary>
internal sealed class AntiforgeryFilter(IAntiforgery antiforgery) : IEndpointFilter
{
    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        if (!HttpMethods.IsGet(http.Request.Method) && !await antiforgery.IsRequestValidAsync(http))
            return Problems.Say(StatusCodes.Status400BadRequest, "This window is out of step with your sign-in. Reload the page and try again.");
        return await next(context);
    }
}
