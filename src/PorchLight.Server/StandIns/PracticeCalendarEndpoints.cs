using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.StandIns;

/// <summary>One's own practice calendar, played by hand.</summary>
internal static class PracticeCalendarEndpoints
{
    private const int LongestTitle = 100;
    private const int DaysShown = 14;

    /// <param name="Address">Where it is read, as that of a calendar kept elsewhere.</param>
    /// <param name="Days">What stands in it in the next two weeks.</param>
    /// <param name="Own">What was written into it by hand.</param>
    internal sealed record CalendarView(string Address, IReadOnlyList<ShownEntry> Days, IReadOnlyList<OwnEntry> Own);

    internal sealed record ShownEntry(string When, string Title);

    internal sealed record OwnEntry(Id<PracticeCalendarEntry> Id, string When, string Title);

    /// <param name="From">On the business's clock.</param>
    internal sealed record NewEntry(string Title, LocalDate Day, LocalTime From, int Minutes, bool IsWeekly);

    public static void MapPracticeCalendar(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/practice/calendar").For(Access.Member).WithTags("Practice");
        group.MapGet("", ShowAsync);
        group.MapPost("", AddAsync).Once();
        group.MapDelete("/{id}", RemoveAsync);
    }

    private static async Task<Ok<CalendarView>> ShowAsync(
        PorchDb db,
        PracticeCalendars practice,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var (email, now, zone) = (
            await EmailAsync(db, who, cancellationToken),
            clock.GetCurrentInstant(),
            (await db.BusinessAsync()).DateTimeZone
        );
        var address = PracticeCalendars.AddressOf(email);
        var text = (await practice.ReadAsync(new Uri(address), cancellationToken))!;
        var times = BusyTimes.Read(text, zone, new Span(now, now + Duration.FromDays(DaysShown)))!;
        var own = await db.PracticeCalendarEntries.Where(entry => entry.Email == email).ToListAsync(cancellationToken);
        return TypedResults.Ok(
            new CalendarView(
                address,
                [.. times.Entries.Select(entry => new ShownEntry(TimeWords.At(entry.When.From, now, zone), entry.Title))],
                [
                    .. own.OrderBy(entry => entry.Start)
                        .Select(entry => new OwnEntry(
                            entry.Id,
                            entry.IsWeekly ? $"Weekly from {TimeWords.At(entry.Start, now, zone)}" : TimeWords.At(entry.Start, now, zone),
                            entry.Title
                        )),
                ]
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AddAsync(
        NewEntry wanted,
        PorchDb db,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (wanted.Title.Trim().Length is 0 or > LongestTitle)
            return Problems.Invalid(new Finding("title", $"Give it a title of at most {LongestTitle} characters."));
        if (wanted.Minutes is < 5 or > 24 * 60)
            return Problems.Invalid(new Finding("minutes", "It lasts from 5 minutes to a day."));
        await using var write = await db.WriteAsync(cancellationToken);
        db.PracticeCalendarEntries.Add(
            new PracticeCalendarEntry
            {
                Id = new Id<PracticeCalendarEntry>(Guid.CreateVersion7()),
                Email = await EmailAsync(db, who, cancellationToken),
                Title = wanted.Title.Trim(),
                Start = (await db.BusinessAsync()).Calendar.ToInstant(wanted.Day.At(wanted.From)),
                Minutes = wanted.Minutes,
                IsWeekly = wanted.IsWeekly,
            }
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveAsync(
        Id<PracticeCalendarEntry> id,
        PorchDb db,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var email = await EmailAsync(db, who, cancellationToken);
        if (await db.PracticeCalendarEntries.FindAsync([id], cancellationToken) is { } entry && entry.Email == email)
            db.PracticeCalendarEntries.Remove(entry);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<string> EmailAsync(PorchDb db, ClaimsPrincipal who, CancellationToken cancellationToken) =>
        (await db.Users.SingleAsync(user => user.Id == who.UserId(), cancellationToken)).Email!.ToLowerInvariant();
}
