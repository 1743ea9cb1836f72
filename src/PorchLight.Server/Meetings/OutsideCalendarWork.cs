using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>Reads calendars from elsewhere again when they are due. Nothing is written while another machine is waited for.</summary>
internal sealed class OutsideCalendarWork(
    PorchDb db,
    OutsideCalendars calendars,
    OutsideCalendarReader reader,
    IPracticeCalendars practice,
    DueItems items,
    Tokens tokens,
    BusinessClock clock
) : IDueWork
{
    public DueClock Clock => DueClock.Business;

    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        var now = clock.GetCurrentInstant();
        var due = await db
            .OutsideCalendars.Where(calendar => calendar.Next <= now)
            .OrderBy(calendar => calendar.Next)
            .Select(calendar => calendar.Id)
            .ToListAsync(cancellationToken);
        var allWell = true;
        foreach (var id in due)
            allWell &= await items.TryAsync(
                "calendar",
                id,
                services => services.GetRequiredService<OutsideCalendarWork>().ReadAsync(id, cancellationToken)
            );
        if (!allWell)
            return null;
        return await db.OutsideCalendars.MinAsync(calendar => (Instant?)calendar.Next, cancellationToken);
    }

    /// <summary>Reads a calendar now, in a transaction of its own.</summary>
    public async Task ReadAsync(Id<OutsideCalendar> id, CancellationToken cancellationToken)
    {
        var address = await db
            .OutsideCalendars.Where(calendar => calendar.Id == id)
            .Select(calendar => calendar.AddressSealed)
            .SingleOrDefaultAsync(cancellationToken);
        var fetched = address is null ? null : await reader.FetchAsync(tokens.Open(address), practice, cancellationToken);
        await using var write = await db.WriteAsync(cancellationToken);
        // It may have been removed meanwhile.
        if (await db.OutsideCalendars.FindAsync([id], cancellationToken) is not { } calendar)
            return;
        await calendars.KeepAsync(calendar, fetched, clock.GetCurrentInstant(), cancellationToken);
        await write.SaveAsync(cancellationToken);
    }
}
