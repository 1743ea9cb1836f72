using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>When the people of the business can be met.</summary>
internal static class UserHoursEndpoints
{
    private const string NotYours = "Only the owner can change the hours of someone else.";

    /// <param name="MayChange">Whether whoever looks may change them.</param>
    internal sealed record UserHoursRow(Guid User, string Name, bool IsYou, bool MayChange, PersonHoursWords Hours);

    /// <param name="Business">The hours of the business, which hold for whoever has none of their own.</param>
    internal sealed record UserHoursView(WeekWords Business, string Closed, IReadOnlyList<UserHoursRow> People);

    public static void MapUserHours(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/user-hours").For(Access.Member).WithTags("Calendar");
        group.MapGet("", ShowAsync);
        group.MapPut("/{user}", ChangeAsync);
    }

    private static async Task<Ok<UserHoursView>> ShowAsync(PorchDb db, ClaimsPrincipal who, CancellationToken cancellationToken)
    {
        var hours = (await db.BusinessAsync()).Hours;
        var kept = await db.UserHours.ToDictionaryAsync(one => one.UserId, one => one.Hours, cancellationToken);
        var users = await db
            .Users.OrderBy(user => user.DisplayName)
            .ThenBy(user => user.Id)
            .Select(user => new { user.Id, user.DisplayName })
            .ToListAsync(cancellationToken);
        return TypedResults.Ok(
            new UserHoursView(
                WeekWords.Of(hours.Weekly),
                HoursWords.SayDays(hours.Closed),
                [
                    .. users.Select(user => new UserHoursRow(
                        user.Id,
                        user.DisplayName,
                        user.Id == who.UserId(),
                        MayChange(user.Id, who),
                        PersonHoursWords.Of(kept.GetValueOrDefault(user.Id) ?? PersonHours.AsBusiness)
                    )),
                ]
            )
        );
    }

    private static async Task<Results<Ok<PersonHoursWords>, ProblemHttpResult>> ChangeAsync(
        Guid user,
        Edit<PersonHoursWords> edit,
        PorchDb db,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (!MayChange(user, who))
            return Problems.Say(StatusCodes.Status403Forbidden, NotYours);
        await using var write = await db.WriteAsync(cancellationToken);
        if (!await db.Users.AnyAsync(one => one.Id == user, cancellationToken))
            return Problems.NotFound("This person is not here any more.");
        var stored = await db.UserHours.FindAsync([user], cancellationToken);
        var (merged, refusal) = edit.Onto(PersonHoursWords.Of(stored?.Hours ?? PersonHours.AsBusiness));
        if (refusal is not null)
            return refusal;
        var (hours, findings) = merged.Read();
        if (findings.Count > 0)
            return Problems.Invalid(findings);
        if (stored is null)
            db.UserHours.Add(new UserHours { UserId = user, Hours = hours });
        else
            stored.Hours = hours;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(PersonHoursWords.Of(hours));
    }

    private static bool MayChange(Guid user, ClaimsPrincipal who) => user == who.UserId() || who.IsInRole(Roles.Owner);
}
