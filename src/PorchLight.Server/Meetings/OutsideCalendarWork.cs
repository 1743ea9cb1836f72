using Microsoft.EntityFrameworkCore;
using NodaTime;
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
            .ToListAsync(cancellationToken);
        foreach (var calendar in due)
            await ReadAsync(calendar, cancellationToken);
        return await db.OutsideCalendars.MinAsync(calendar => (Instant?)calendar.Next, cancellationToken);
    }

    /// <summary>Reads a calendar now, in a transaction of its own.</summary>
    public async Task ReadAsync(OutsideCalendar calendar, CancellationToken cancellationToken)
    {
        var fetched = calendar.AddressSealed is { } address
            ? await reader.FetchAsync(tokens.Open(address), practice, cancellationToken)
            : null;
        await using var write = await db.WriteAsync(cancellationToken);
        await db.Entry(calendar).ReloadAsync(cancellationToken);
        // It may have been removed meanwhile.
        if (db.Entry(calendar).State == EntityState.Detached)
            return;
        await calendars.KeepAsync(calendar, fetched, clock.GetCurrentInstant(), cancellationToken);
        await write.SaveAsync(cancellationToken);
    }
}
