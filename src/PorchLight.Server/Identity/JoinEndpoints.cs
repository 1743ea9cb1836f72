using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Identity;

/// <summary>Coming in by a link: a new user, or a new password for the one somebody has.</summary>
internal static class JoinEndpoints
{
    private const string NoLongerGood =
        "This link is not good any more: it was used, withdrawn, or is older than seven days. Please ask for a new one.";

    internal sealed record JoinView(string Business, string Name, string Email, bool NewPassword);

    internal sealed record Joining(string Name, string Password);

    public static void MapJoin(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/join/{token}").WithTags("Sign-in").For(Access.Public).RequireRateLimiting(RateLimits.SignIn);
        group.MapGet("", ShowAsync);
        group.MapPost("", JoinAsync);
    }

    private static async Task<Results<Ok<JoinView>, ProblemHttpResult>> ShowAsync(
        string token,
        PorchDb db,
        TimeProvider time,
        CancellationToken cancellationToken
    ) =>
        await FindAsync(db, token, time, cancellationToken) is { } invite
            ? TypedResults.Ok(new JoinView((await db.BusinessAsync()).Name, invite.Name, invite.Email, invite.UserId is not null))
            : Problems.NotFound(NoLongerGood);

    private static async Task<Results<NoContent, ProblemHttpResult>> JoinAsync(
        string token,
        Joining joining,
        PorchDb db,
        TimeProvider time,
        UserManager<User> users,
        SignInManager<User> signIn,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await FindAsync(db, token, time, cancellationToken) is not { } invite)
            return Problems.NotFound(NoLongerGood);
        var name = joining.Name.Trim();
        if (name.Length is 0 or > 100 || name.Any(char.IsControl))
            return Problems.Invalid(new Finding("name", "Please give your name, in at most 100 characters."));
        var user = invite.UserId is { } known
            ? await users.FindByIdAsync(known.ToString())
            : new User
            {
                Id = Guid.CreateVersion7(),
                UserName = invite.Email,
                Email = invite.Email,
                DisplayName = name,
            };
        if (user is null)
            return Problems.NotFound(NoLongerGood);
        if (!await Passwords.IsGoodAsync(users, user, joining.Password))
            return Problems.Invalid(new Finding("password", Passwords.TooShort));
        if (invite.UserId is null)
        {
            if (!(await users.CreateAsync(user, joining.Password)).Succeeded)
                return Problems.Conflict("Someone with this e-mail address already works here.");
            await users.AddToRoleAsync(user, invite.Role);
        }
        else
        {
            user.DisplayName = name;
            await users.RemovePasswordAsync(user);
            await users.AddPasswordAsync(user, joining.Password);
            await users.SetLockoutEndDateAsync(user, null);
        }

        db.Invites.Remove(invite);
        await write.SaveAsync(cancellationToken);
        await signIn.SignInAsync(user, isPersistent: true);
        return TypedResults.NoContent();
    }

    private static async Task<Invite?> FindAsync(PorchDb db, string token, TimeProvider time, CancellationToken cancellationToken)
    {
        var (hash, now) = (Tokens.Hash(token), time.Now());
        return await db.Invites.SingleOrDefaultAsync(invite => invite.LinkHash == hash && invite.GoodUntil > now, cancellationToken);
    }
}

/// <summary>What a password must be.</summary>
internal static class Passwords
{
    public const int Least = 10;

    /// <summary>The one limit, wherever a password is given: a longer one would only cost time.</summary>
    public const int Most = 200;
    public const string TooShort = "A password needs ten to 200 characters. A few words in a row are good.";

    public static async Task<bool> IsGoodAsync(UserManager<User> users, User user, string password)
    {
        foreach (var validator in users.PasswordValidators)
        {
            if (!(await validator.ValidateAsync(users, user, password)).Succeeded)
                return false;
        }

        return password.Length <= Most;
    }
}
