using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Lets the keeping period of the business run: says a week before who is erased, and erases them.</summary>
internal sealed class RetentionSweep(PorchDb db, ClientEraser eraser, BusinessClock clock) : IDueWork
{
    private const int MostAtOnce = 500;

    public DueClock Clock => DueClock.Business;

    // Each hour, and not each day: a client may be changed back to one whose time is over.
    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await SweepAsync(cancellationToken);
        return clock.GetCurrentInstant() + Duration.FromHours(1);
    }

    private async Task SweepAsync(CancellationToken cancellationToken)
    {
        var business = await db.BusinessAsync();
        if (business.KeepClientsMonths is null && !await db.Clients.AnyAsync(client => client.EraseOn != null, cancellationToken))
            return;
        List<string> files = [];
        await using (var write = await db.WriteAsync(cancellationToken))
        {
            business = await db.BusinessAsync();
            var (now, zone) = (clock.GetCurrentInstant(), business.DateTimeZone);
            var today = now.InZone(zone).Date;
            // A message may go by itself, or be somebody's own; which it was, it says itself.
            var mayBeByItself = DomainEvents.PerhapsByItself;
            var quiet = business.KeepClientsMonths is { } months
                ? zone.AtStartOfDay(today.PlusDays(ClientRetention.NoticeDays + 1).PlusMonths(-months)).ToInstant()
                : Instant.MinValue;
            var quietDay = quiet.InZone(zone).Date;
            var looked = await db
                .Clients.Where(client =>
                    client.EraseOn != null
                    || client.Since < quiet
                        && client.Standing != Standing.Active
                        && !db.Events.Any(logged =>
                            logged.ClientId == client.Id && logged.At >= quiet && !mayBeByItself.Contains(logged.Kind)
                        )
                        && !db.FieldValues.Any(value => value.ClientId == client.Id && value.At >= quiet)
                        && !db.Notes.Any(note => note.ClientId == client.Id && note.At >= quiet)
                        && !db.ClientTasks.Any(task =>
                            task.ClientId == client.Id && (task.At >= quiet || task.Done == null && task.On >= quietDay)
                        )
                )
                .OrderBy(client => client.Since)
                .Take(MostAtOnce)
                .ToListAsync(cancellationToken);
            foreach (var client in looked)
            {
                var last = await LastAsync(client, zone);
                var state = ClientRetention.Of(last, business.KeepClientsMonths, client.Standing, client.EraseOn, today);
                if (state.IsOver)
                    files.AddRange(await eraser.EraseAsync(client.Id, null, now, cancellationToken));
                else
                    client.EraseOn = state.Announced;
            }

            await write.SaveAsync(cancellationToken);
        }

        await eraser.CleanUpAsync(files);
    }

    /// <summary>The day on which something happened last, or will: what is still to do is no less than what was done.</summary>
    private async Task<LocalDate> LastAsync(Client client, DateTimeZone zone)
    {
        var id = client.Id;
        var happened = new[]
        {
            (await db.Events.AsNoTracking().Where(logged => logged.ClientId == id).OrderByDescending(logged => logged.Seq).ToListAsync())
                .FirstOrDefault(logged => logged.What.IsByAPerson())
                ?.At,
            await db.FieldValues.Where(value => value.ClientId == id).MaxAsync(value => (Instant?)value.At),
            await db.Notes.Where(note => note.ClientId == id).MaxAsync(note => (Instant?)note.At),
            await db.ClientTasks.Where(task => task.ClientId == id).MaxAsync(task => (Instant?)task.At),
        };
        var last = happened.OfType<Instant>().Append(client.Since).Max().InZone(zone).Date;
        return await db.ClientTasks.Where(task => task.ClientId == id && task.Done == null).MaxAsync(task => task.On) is { } planned
            ? LocalDate.Max(last, planned)
            : last;
    }
}
