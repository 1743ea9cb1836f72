using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Identity;

/// <summary>Sign-in by cookie, and the protection of what a cookie may do.</summary>
internal static class UserAccess
{
    public const string AntiforgeryHeader = "X-Porch-Light";
    private const string SignedOut = "You are signed out. Sign in again; what you typed is still here.";

    public static void AddUserAccess(this IServiceCollection services)
    {
        services.AddSingleton<SignInThrottle>();
        services
            .AddIdentityCore<User>(options =>
            {
                options.Password = new PasswordOptions
                {
                    RequiredLength = 10,
                    RequireDigit = false,
                    RequireLowercase = false,
                    RequireUppercase = false,
                    RequireNonAlphanumeric = false,
                };
                options.User.RequireUniqueEmail = true;
            })
            .AddRoles<IdentityRole<Guid>>()
            .AddEntityFrameworkStores<PorchDb>()
            .AddSignInManager()
            .AddClaimsPrincipalFactory<UserClaims>();
        services
            .AddAuthentication(IdentityConstants.ApplicationScheme)
            .AddCookie(
                IdentityConstants.ApplicationScheme,
                cookie =>
                {
                    cookie.Cookie.Name = "porch-light";
                    cookie.Cookie.SameSite = SameSiteMode.Lax;
                    cookie.ExpireTimeSpan = Sessions.Lifetime;
                    cookie.Events.OnValidatePrincipal = StillHereAsync;
                    cookie.Events.OnRedirectToLogin = context =>
                        Problems.Say(StatusCodes.Status401Unauthorized, SignedOut).ExecuteAsync(context.HttpContext);
                    cookie.Events.OnRedirectToAccessDenied = context =>
                        Problems.Say(StatusCodes.Status403Forbidden, "Only the owner can do this.").ExecuteAsync(context.HttpContext);
                }
            );
        services.AddAuthorizationBuilder().AddPolicy(AccessDeclarations.OwnerOnly, policy => policy.RequireRole(Roles.Owner));
        services.AddAntiforgery(options =>
        {
            options.HeaderName = AntiforgeryHeader;
            options.Cookie.Name = "porch-light-form";
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.SuppressXFrameOptionsHeader = true;
        });
    }

    /// <summary>A user that was removed, or got another role or password, is signed out with its next request.</summary>
    private static async Task StillHereAsync(CookieValidatePrincipalContext context)
    {
        if (
            await context.HttpContext.RequestServices.GetRequiredService<PorchDb>().HasEndedAsync(context.Principal)
            || await context
                .HttpContext.RequestServices.GetRequiredService<SignInManager<User>>()
                .ValidateSecurityStampAsync(context.Principal)
                is null
        )
            context.RejectPrincipal();
    }
}
