using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>The calendars that people of the business keep elsewhere. Everybody adds their own; an owner can take one out.</summary>
internal static class OutsideCalendarEndpoints
{
    private const string Gone = "This calendar is not here any more.";
    private const string NotYours = "Only the owner can take out the calendar of someone else.";
    private const string NoFile = "This file is no calendar. Choose a file that ends in .ics, as other programs save them.";
    private const int LongestName = 80;
    private const int MostOfOne = 10;

    /// <param name="IsFile">Whether it was given as a file, which is not read again.</param>
    /// <param name="Read">When it was read last, in words.</param>
    /// <param name="Fault">Why the last try failed, as a sentence; null where it did not.</param>
    /// <param name="Faults">What in it could not be read, a sentence each.</param>
    /// <param name="Holds">How many times of it are still to come, in words.</param>
    internal sealed record CalendarRow(
        Id<OutsideCalendar> Id,
        Guid User,
        string Name,
        bool IsFile,
        string Read,
        string? Fault,
        IReadOnlyList<string> Faults,
        string Holds
    );

    /// <param name="Address">Where it is read.</param>
    internal sealed record CalendarAtAddress(string Name, string Address);

    /// <param name="Text">What stands in the file.</param>
    internal sealed record CalendarInFile(string Name, string Text);

    public static void MapOutsideCalendars(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/outside-calendars").For(Access.Member).WithTags("Calendar");
        group.MapGet("", ListAsync);
        group.MapPost("", AddAddressAsync).Once();
        group.MapPost("/file", AddFileAsync).Once();
        group.MapPost("/{id}/read", ReadAsync);
        group.MapDelete("/{id}", RemoveAsync);
    }

    /// <summary>Those of whoever asks; an owner sees everybody's.</summary>
    private static async Task<IReadOnlyList<CalendarRow>> ListAsync(
        PorchDb db,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var (user, isOwner, now) = (who.UserId(), who.IsInRole(Roles.Owner), clock.GetCurrentInstant());
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var calendars = await db
            .OutsideCalendars.Where(calendar => isOwner || calendar.UserId == user)
            .Select(calendar => new
            {
                calendar,
                ToCome = db.OutsideEntries.Count(entry => entry.CalendarId == calendar.Id && entry.To > now),
            })
            .ToListAsync(cancellationToken);
        return
        [
            .. calendars
                .OrderBy(one => one.calendar.Name, StringComparer.CurrentCultureIgnoreCase)
                .ThenBy(one => one.calendar.Id.Value)
                .Select(one => new CalendarRow(
                    one.calendar.Id,
                    one.calendar.UserId,
                    one.calendar.Name,
                    one.calendar.AddressSealed is null,
                    TimeWords.At(one.calendar.Read, now, zone),
                    one.calendar.Fault,
                    one.calendar.Faults.Sentences,
                    BusyTimeWords.ToCome(one.ToCome)
                )),
        ];
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AddAddressAsync(
        CalendarAtAddress wanted,
        PorchDb db,
        OutsideCalendars calendars,
        OutsideCalendarReader reader,
        IPracticeCalendars practice,
        Tokens tokens,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var name = CheckName(wanted.Name);
        var findings = new[] { name, OutsideCalendarReader.Check(wanted.Address) is { } wrong ? new Finding("address", wrong) : null };
        if (findings.OfType<Finding>().ToList() is { Count: > 0 } found)
            return Problems.Invalid(found);
        // Another machine is waited for before anything is written.
        var fetched = await reader.FetchAsync(wanted.Address, practice, cancellationToken);
        var sealedAddress = tokens.Seal(wanted.Address.Trim());
        return fetched.Text is { } text
            ? await AddAsync(
                wanted.Name,
                sealedAddress,
                text,
                new Finding("address", OutsideCalendarReader.NoCalendar),
                db,
                calendars,
                clock,
                who,
                cancellationToken
            )
            : Problems.Invalid(new Finding("address", fetched.Fault!));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AddFileAsync(
        CalendarInFile wanted,
        PorchDb db,
        OutsideCalendars calendars,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (CheckName(wanted.Name) is { } wrong)
            return Problems.Invalid(wrong);
        return wanted.Text.Length > OutsideCalendarReader.Largest
            ? Problems.Invalid(new Finding("file", $"This file is larger than {OutsideCalendarReader.Largest >> 20} MB."))
            : await AddAsync(wanted.Name, null, wanted.Text, new Finding("file", NoFile), db, calendars, clock, who, cancellationToken);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AddAsync(
        string name,
        string? addressSealed,
        string text,
        Finding unreadable,
        PorchDb db,
        OutsideCalendars calendars,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var (user, now) = (who.UserId(), clock.GetCurrentInstant());
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.OutsideCalendars.CountAsync(calendar => calendar.UserId == user, cancellationToken) >= MostOfOne)
            return Problems.Conflict($"You have {MostOfOne} calendars here already. Take one out first.");
        if (await calendars.ReadAsync(text, now, cancellationToken) is not { } times)
            return Problems.Invalid(unreadable);
        calendars.Add(user, name.Trim(), addressSealed, text, times, now);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Reads a calendar now, without waiting until it is due.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> ReadAsync(
        Id<OutsideCalendar> id,
        PorchDb db,
        OutsideCalendarWork work,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (await db.OutsideCalendars.FindAsync([id], cancellationToken) is not { } calendar || !MayChange(calendar, who))
            return Problems.NotFound(Gone);
        await work.ReadAsync(id, cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(
        Id<OutsideCalendar> id,
        PorchDb db,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.OutsideCalendars.FindAsync([id], cancellationToken) is not { } calendar)
            return TypedResults.NoContent();
        if (!MayChange(calendar, who))
            return Problems.Say(StatusCodes.Status403Forbidden, NotYours);
        db.OutsideCalendars.Remove(calendar);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static Finding? CheckName(string name) =>
        name.Trim().Length is 0 or > LongestName
            ? new Finding("name", $"Give it a name of at most {LongestName} characters, like “Family”.")
            : null;

    private static bool MayChange(OutsideCalendar calendar, ClaimsPrincipal who) =>
        calendar.UserId == who.UserId() || who.IsInRole(Roles.Owner);
}
