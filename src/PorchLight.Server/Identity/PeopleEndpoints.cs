using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Identity;

/// <summary>Who works here: users, roles, and the links that let people in.</summary>
internal static class PeopleEndpoints
{
    private const string Gone = "This person is not here any more.";
    private const string LastOwner = "This is the only owner. Make someone else an owner first.";

    internal sealed record PeopleView(IReadOnlyList<UserRow> Users, IReadOnlyList<InviteRow> Invites);

    internal sealed record UserRow(Guid Id, string Name, string Email, string Role, bool You);

    /// <param name="NewPassword">Whether it renews a password; else it opens a new user.</param>
    /// <param name="GoodUntil">In words.</param>
    internal sealed record InviteRow(
        Id<Invite> Id,
        string Name,
        string Email,
        string Role,
        bool NewPassword,
        string Link,
        string GoodUntil
    );

    internal sealed record NewInvite(string Name, string Email, string Role);

    internal sealed record RoleChange(string Role);

    internal sealed record PasswordChange(string Current, string Next);

    public static void MapPeople(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/people").WithTags("People").For(Access.Owner);
        group.MapGet("", ListAsync);
        group.MapPost("/invites", InviteAsync).Once();
        group.MapDelete("/invites/{id}", WithdrawAsync);
        group.MapPost("/{user}/role", ChangeRoleAsync);
        group.MapPost("/{user}/password-link", LinkForPasswordAsync).Once();
        group.MapDelete("/{user}", RemoveAsync);
        api.MapPost("/me/password", ChangePasswordAsync).For(Access.Member).WithTags("People");
        api.MapGet(
                "/me/notifications",
                async (PorchDb db, ClaimsPrincipal who) => TypedResults.Ok((await db.Users.FindAsync(who.UserId()))!.NotificationTime)
            )
            .For(Access.Member)
            .WithTags("People");
        api.MapPut("/me/notifications", ChangeNotificationTimeAsync).For(Access.Member).WithTags("People");
    }

    /// <summary>Says when this person wants mails about inquiries, for what comes in from then on.</summary>
    private static async Task<Results<Ok<NotificationTime>, ProblemHttpResult>> ChangeNotificationTimeAsync(
        Edit<NotificationTime> edit,
        PorchDb db,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var user = (await db.Users.FindAsync([who.UserId()], cancellationToken))!;
        var (merged, refusal) = edit.Onto(user.NotificationTime);
        if (refusal is not null)
            return refusal;
        user.NotificationTime = merged;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(merged);
    }

    private static async Task<Ok<PeopleView>> ListAsync(
        PorchDb db,
        Tokens tokens,
        TimeProvider time,
        ClaimsPrincipal who,
        UserManager<User> users,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        var me = users.GetUserId(who);
        var rows = await (
            from user in db.Users.AsNoTracking()
            join given in db.UserRoles on user.Id equals given.UserId
            join role in db.Roles on given.RoleId equals role.Id
            orderby user.Id
            select new
            {
                user.Id,
                user.DisplayName,
                user.Email,
                Role = role.Name,
            }
        ).ToListAsync(cancellationToken);
        var now = time.Now();
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var invites = await db
            .Invites.AsNoTracking()
            .Where(invite => invite.GoodUntil > now)
            .OrderBy(invite => invite.Id)
            .ToListAsync(cancellationToken);
        return TypedResults.Ok(
            new PeopleView(
                [.. rows.Select(row => new UserRow(row.Id, row.DisplayName, row.Email!, row.Role!, row.Id.ToString() == me))],
                [.. invites.Select(invite => Row(invite, tokens, now, zone, address))]
            )
        );
    }

    private static async Task<Results<Ok<InviteRow>, ProblemHttpResult>> InviteAsync(
        NewInvite invite,
        PorchDb db,
        Tokens tokens,
        TimeProvider time,
        UserManager<User> users,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        var (name, email) = (invite.Name.Trim(), invite.Email.Trim());
        if (name.Length is 0 or > 100 || name.Any(char.IsControl))
            return Problems.Invalid(new Finding("name", "Please give their name, in at most 100 characters."));
        if (EmailAddress.Check(email) is { } wrong)
            return Problems.Invalid(new Finding("email", wrong));
        if (invite.Role is not (Roles.Owner or Roles.Member))
            return Problems.Unprocessable("Please choose whether they join as a member or as an owner.");
        await using var write = await db.WriteAsync(cancellationToken);
        if (await users.FindByEmailAsync(email) is not null)
            return Problems.Conflict("Someone with this e-mail address already works here.");
        var made = await OpenAsync(db, tokens, time, name, email, invite.Role, null, cancellationToken);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(Row(made, tokens, time.Now(), (await db.BusinessAsync()).DateTimeZone, address));
    }

    private static async Task<NoContent> WithdrawAsync(Id<Invite> id, PorchDb db, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        await db.Invites.Where(invite => invite.Id == id).ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangeRoleAsync(
        Guid user,
        RoleChange change,
        PorchDb db,
        UserManager<User> users,
        CancellationToken cancellationToken
    )
    {
        if (change.Role is not (Roles.Owner or Roles.Member))
            return Problems.Unprocessable("A person is a member or an owner.");
        await using var write = await db.WriteAsync(cancellationToken);
        if (await users.FindByIdAsync(user.ToString()) is not { } person)
            return Problems.NotFound(Gone);
        if (change.Role != Roles.Owner && await IsLastOwnerAsync(users, person))
            return Problems.Conflict(LastOwner);
        await users.RemoveFromRolesAsync(person, await users.GetRolesAsync(person));
        await users.AddToRoleAsync(person, change.Role);
        await users.UpdateSecurityStampAsync(person);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<InviteRow>, ProblemHttpResult>> LinkForPasswordAsync(
        Guid user,
        PorchDb db,
        Tokens tokens,
        TimeProvider time,
        UserManager<User> users,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await users.FindByIdAsync(user.ToString()) is not { } person)
            return Problems.NotFound(Gone);
        var made = await OpenPasswordLinkAsync(db, tokens, time, users, person, cancellationToken);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(Row(made, tokens, time.Now(), (await db.BusinessAsync()).DateTimeZone, address));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(
        Guid user,
        PorchDb db,
        UserManager<User> users,
        HubConnections connections,
        TimeProvider time,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await users.FindByIdAsync(user.ToString()) is not { } person)
            return Problems.NotFound(Gone);
        if (await IsLastOwnerAsync(users, person))
            return Problems.Conflict(LastOwner);
        await db.Invites.Where(invite => invite.UserId == user).ExecuteDeleteAsync(cancellationToken);
        db.FormerUsers.Add(
            new FormerUser
            {
                Id = person.Id,
                DisplayName = person.DisplayName,
                Left = time.Now(),
            }
        );
        await users.DeleteAsync(person);
        await write.SaveAsync(cancellationToken);
        connections.Close(user);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangePasswordAsync(
        PasswordChange change,
        ClaimsPrincipal who,
        PorchDb db,
        UserManager<User> users,
        IPasswordHasher<User> hasher,
        SignInManager<User> signIn,
        SignInThrottle throttle,
        CancellationToken cancellationToken
    )
    {
        if (change.Current.Length > Passwords.Most || change.Next.Length > Passwords.Most)
            return Problems.Invalid(new Finding("next", Passwords.TooShort));
        if (!throttle.MayGuessCurrent(who.UserId()))
            return Problems.Say(StatusCodes.Status429TooManyRequests, "Too many tries. Please wait five minutes and try again.");
        await using var write = await db.WriteAsync(cancellationToken);
        var person = (await users.GetUserAsync(who))!;
        if (hasher.VerifyHashedPassword(person, person.PasswordHash!, change.Current) == PasswordVerificationResult.Failed)
            return Problems.Invalid(new Finding("current", "This is not the password you have now."));
        if (await users.ChangePasswordAsync(person, change.Current, change.Next) is { Succeeded: false })
            return Problems.Invalid(new Finding("next", Passwords.TooShort));
        await write.SaveAsync(cancellationToken);
        throttle.KnewCurrent(person.Id);
        await signIn.RefreshSignInAsync(person);
        return TypedResults.NoContent();
    }

    internal static async Task<Invite> OpenPasswordLinkAsync(
        PorchDb db,
        Tokens tokens,
        TimeProvider time,
        UserManager<User> users,
        User person,
        CancellationToken cancellationToken
    ) =>
        await OpenAsync(
            db,
            tokens,
            time,
            person.DisplayName,
            person.Email!,
            (await users.GetRolesAsync(person)).Single(),
            person.Id,
            cancellationToken
        );

    /// <summary>Opens a link as part of the caller's write; an earlier one for the same address is withdrawn.</summary>
    private static async Task<Invite> OpenAsync(
        PorchDb db,
        Tokens tokens,
        TimeProvider time,
        string name,
        string email,
        string role,
        Guid? user,
        CancellationToken cancellationToken
    )
    {
        await db.Invites.Where(earlier => earlier.Email == email).ExecuteDeleteAsync(cancellationToken);
        var link = tokens.Create();
        var invite = new Invite
        {
            Id = new Id<Invite>(Guid.CreateVersion7()),
            Name = name,
            Email = email,
            Role = role,
            UserId = user,
            LinkHash = link.Hash,
            LinkSealed = link.Sealed,
            GoodUntil = time.Now() + Invite.GoodFor,
        };
        db.Invites.Add(invite);
        return invite;
    }

    private static async Task<bool> IsLastOwnerAsync(UserManager<User> users, User person) =>
        await users.GetUsersInRoleAsync(Roles.Owner) is [var only] && only.Id == person.Id;

    private static InviteRow Row(Invite invite, Tokens tokens, Instant now, DateTimeZone zone, PublicAddress address) =>
        new(
            invite.Id,
            invite.Name,
            invite.Email,
            invite.Role,
            invite.UserId is not null,
            $"{address.Site}/join/{tokens.Open(invite.LinkSealed)}",
            TimeWords.At(invite.GoodUntil, now, zone)
        );
}
