using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Server.Brand;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Identity;

/// <summary>The first page of an empty program: it makes the business and its owner, once.</summary>
internal static class FirstRunEndpoints
{
    private const string AlreadyDone = "This business is set up already. Please sign in.";

    /// <param name="Key">The key that stands in the terminal; it proves that whoever fills this in runs the program.</param>
    /// <param name="Password">At least ten characters.</param>
    /// <param name="Business">The owner's name and address are the owner's sign-in too.</param>
    /// <param name="Hours">When the business works.</param>
    /// <param name="Promise">How fast it answers.</param>
    internal sealed record FirstRun(string Key, string Password, BusinessCard Business, OpeningWords Hours, ReplyPromise Promise);

    public static void MapFirstRun(this IEndpointRouteBuilder api) =>
        api.MapPost("/first-run", MakeAsync).WithTags("Sign-in").For(Access.Public).RequireRateLimiting(RateLimits.SignIn);

    private static async Task<Results<NoContent, ProblemHttpResult>> MakeAsync(
        FirstRun first,
        PorchDb db,
        FirstRunKey key,
        UserManager<User> users,
        RoleManager<IdentityRole<Guid>> roles,
        SignInManager<User> signIn,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Businesses.AnyAsync(cancellationToken))
            return Problems.Conflict(AlreadyDone);
        if (!key.Fits(first.Key))
            return Problems.Invalid(
                new Finding(
                    "key",
                    "This key does not fit. You will find it in the terminal where you started Porch Light, and in the file first-run-key in the data folder."
                )
            );
        var card = first.Business.Normalise();
        var (hours, hourFindings) = first.Hours.Read();
        var user = new User
        {
            Id = Guid.CreateVersion7(),
            UserName = card.MailAddress,
            Email = card.MailAddress,
            DisplayName = card.OwnerName,
        };
        List<Finding> findings = [.. card.Check(), .. hourFindings, .. first.Promise.Check()];
        if (!await Passwords.IsGoodAsync(users, user, first.Password))
            findings.Add(new Finding("password", Passwords.TooShort));
        if (findings.Count > 0)
            return Problems.Invalid(findings);

        db.Businesses.Add(
            new Business
            {
                Name = card.Name,
                OwnerName = card.OwnerName,
                MailAddress = card.MailAddress,
                Region = card.Region,
                Currency = card.Currency,
                Zone = card.Zone,
                Hours = hours,
                PromiseHours = first.Promise.Hours,
                PromiseClock = first.Promise.Clock,
                Look = BrandLook.Plain,
                IsDemo = false,
                PublicAddress = card.PublicAddress,
            }
        );
        await users.MakeUserAsync(roles, user, first.Password, Roles.Owner);
        await write.SaveAsync(cancellationToken);
        address.Use(card.PublicAddress);
        key.Forget();
        await signIn.SignInAsync(user, isPersistent: true);
        return TypedResults.NoContent();
    }

    /// <summary>Makes the roles where they are missing, and a user.</summary>
    public static async Task MakeUserAsync(
        this UserManager<User> users,
        RoleManager<IdentityRole<Guid>> roles,
        User user,
        string password,
        string role
    )
    {
        foreach (var name in new[] { Roles.Owner, Roles.Member })
        {
            if (!await roles.RoleExistsAsync(name))
                await roles.CreateAsync(new IdentityRole<Guid>(name));
        }

        var made = await users.CreateAsync(user, password);
        if (!made.Succeeded)
            throw new InvalidOperationException(string.Join(" ", made.Errors.Select(error => error.Description)));
        await users.AddToRoleAsync(user, role);
    }
}

/// <summary>
/// The key of an empty program. Whoever can read the data folder or the terminal may make themselves the owner; whoever
/// only finds the address may not.
/// </summary>
internal sealed class FirstRunKey(DataFolder folder)
{
    public string File { get; } = Path.Combine(folder.Path, "first-run-key");

    /// <summary>Makes the key of a program without an owner, where there is none yet.</summary>
    public static async Task WriteAsync(IServiceProvider services)
    {
        await using var scope = services.CreateAsyncScope();
        var key = services.GetRequiredService<FirstRunKey>();
        if (!System.IO.File.Exists(key.File) && !await scope.ServiceProvider.GetRequiredService<PorchDb>().Businesses.AnyAsync())
            await System.IO.File.WriteAllTextAsync(key.File, Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(8)));
    }

    public bool Fits(string key) =>
        System.IO.File.Exists(File)
        && CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(key.Trim()), System.IO.File.ReadAllBytes(File));

    public void Forget() => System.IO.File.Delete(File);
}
