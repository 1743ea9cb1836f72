using System.Security.Claims;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Identity;

/// <summary>Signing in and out, and who is there.</summary>
internal static class SignInEndpoints
{
    internal sealed record SignIn(string Email, string Password);

    /// <param name="Name">Null when nobody is signed in.</param>
    /// <param name="Role">Owner or member; null when nobody is signed in.</param>
    /// <param name="Business">The business's name; null while the program has no owner yet.</param>
    /// <param name="IsDemo">Whether the business is made up, so that its clock can be moved.</param>
    /// <param name="Currency">The business's currency; null for who is not signed in.</param>
    /// <param name="PracticeMail">Whether mail stays in the program.</param>
    /// <param name="Antiforgery">To be sent in the header X-Porch-Light with everything that changes something.</param>
    internal sealed record Session(
        string? Name,
        string? Role,
        string? Business,
        string? Currency,
        bool IsDemo,
        bool PracticeMail,
        string Antiforgery
    );

    public static void MapSignIn(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Sign-in").For(Access.Public);
        group.MapGet("/session", ShowAsync);
        group.MapPost("/sign-in", SignInAsync).RequireRateLimiting(RateLimits.SignIn);
        group.MapPost("/sign-out", SignOutAsync);
    }

    /// <summary>The identifier of the signed-in user.</summary>
    public static Guid UserId(this ClaimsPrincipal who) => Guid.Parse(who.FindFirstValue(ClaimTypes.NameIdentifier)!);

    public static string DisplayName(this ClaimsPrincipal who) =>
        who.FindFirstValue(ClaimTypes.GivenName) ?? who.Identity?.Name ?? "Someone";

    private static async Task<Ok<Session>> ShowAsync(
        HttpContext http,
        PorchDb db,
        IAntiforgery antiforgery,
        CancellationToken cancellationToken
    )
    {
        var business = await db.Businesses.AsNoTracking().SingleOrDefaultAsync(cancellationToken);
        var signedIn = http.User.Identity is { IsAuthenticated: true };
        http.Response.Headers.CacheControl = "no-store";
        return TypedResults.Ok(
            new Session(
                signedIn ? http.User.DisplayName() : null,
                signedIn ? http.User.FindFirstValue(ClaimTypes.Role) : null,
                business?.Name,
                signedIn ? business?.Currency : null,
                business is { IsDemo: true },
                business is { Smtp: null },
                antiforgery.GetAndStoreTokens(http).RequestToken!
            )
        );
    }

    private const string WrongPair = "This e-mail address and password do not belong together. Please check both.";

    private static async Task<Results<NoContent, ProblemHttpResult>> SignInAsync(
        SignIn signIn,
        PorchDb db,
        SignInManager<User> manager,
        IPasswordHasher<User> hasher,
        SignInThrottle throttle,
        TimeProvider time,
        HttpContext http,
        CancellationToken cancellationToken
    )
    {
        var email = signIn.Email.Trim();
        if (signIn.Password.Length > Passwords.Most)
            return Problems.Say(StatusCodes.Status401Unauthorized, WrongPair);
        if (!throttle.MayTry(http, email))
            return Problems.Say(StatusCodes.Status429TooManyRequests, "Too many tries. Please wait five minutes and try again.");
        await Task.Delay(throttle.PauseBefore(http, email), time, cancellationToken);
        var user = await manager.UserManager.FindByNameAsync(email);
        if (
            user is null
            || hasher.VerifyHashedPassword(user, user.PasswordHash!, signIn.Password) is var verified
                && verified == PasswordVerificationResult.Failed
        )
        {
            // An address nobody has costs the same time as a wrong password, so that it is not given away.
            if (user is null)
                hasher.HashPassword(null!, signIn.Password);
            throttle.Failed(http, email);
            return Problems.Say(StatusCodes.Status401Unauthorized, WrongPair);
        }

        if (verified == PasswordVerificationResult.SuccessRehashNeeded)
        {
            await using var write = await db.WriteAsync(cancellationToken);
            if (await manager.UserManager.FindByNameAsync(email) is { } stored && stored.PasswordHash == user.PasswordHash)
            {
                stored.PasswordHash = hasher.HashPassword(stored, signIn.Password);
                await manager.UserManager.UpdateAsync(stored);
            }

            await write.SaveAsync(cancellationToken);
        }

        await manager.SignInAsync(user, isPersistent: true);
        throttle.Succeeded(http, email);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SignOutAsync(
        SignInManager<User> manager,
        PorchDb db,
        ClaimsPrincipal who,
        TimeProvider time,
        HubConnections connections
    )
    {
        await db.EndAsync(who, time, connections);
        await manager.SignOutAsync();
        return TypedResults.NoContent();
    }
}

/// <summary>Puts the display name into the sign-in.</summary>
internal sealed class UserClaims(
    UserManager<User> users,
    RoleManager<IdentityRole<Guid>> roles,
    Microsoft.Extensions.Options.IOptions<IdentityOptions> options
) : UserClaimsPrincipalFactory<User, IdentityRole<Guid>>(users, roles, options)
{
    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(User user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        identity.AddClaim(new Claim(ClaimTypes.GivenName, user.DisplayName));
        identity.AddClaim(Sessions.New());
        return identity;
    }
}

internal static class AntiforgeryGate
{
    /// <summary>Refuses what changes something without the antiforgery token, before it is even read.</summary>
    public static void UseAntiforgeryGate(this WebApplication app)
    {
        var antiforgery = app.Services.GetRequiredService<IAntiforgery>();
        app.Use(
            async (http, next) =>
            {
                if (
                    !HttpMethods.IsGet(http.Request.Method)
                    && http.Request.Path.StartsWithSegments("/api", StringComparison.OrdinalIgnoreCase)
                    && !await antiforgery.IsRequestValidAsync(http)
                )
                    await Problems
                        .Say(
                            StatusCodes.Status400BadRequest,
                            "You have signed in anew since this page was opened. Reload it and try again."
                        )
                        .ExecuteAsync(http);
                else
                    await next(http);
            }
        );
    }
}
