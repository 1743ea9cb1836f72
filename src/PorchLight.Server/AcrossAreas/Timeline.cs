using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <param name="ProjectId">The project it is about; null for none in particular.</param>
/// <param name="At">When, in words.</param>
/// <param name="Exactly">When, with date and zone.</param>
/// <param name="Sentence">What happened.</param>
/// <param name="Words">What somebody wrote, in their own words; else null.</param>
internal sealed record TimelineEntry(Id<Project>? ProjectId, string At, string Exactly, string Sentence, string? Words);

internal static class Timeline
{
    private const int Longest = 200;

    /// <summary>The newest events, newest first, as sentences.</summary>
    public static async Task<IReadOnlyList<TimelineEntry>> OfAsync(
        PorchDb db,
        IQueryable<LoggedEvent> events,
        Instant now,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var logged = await events
            .AsNoTracking()
            .OrderByDescending(happened => happened.At)
            .ThenByDescending(happened => happened.Seq)
            .Take(Longest)
            .ToListAsync(cancellationToken);
        var names = await NamesAsync(db, logged, cancellationToken);
        return
        [
            .. logged.Select(happened => new TimelineEntry(
                happened.ProjectId,
                TimeWords.At(happened.At, now, zone),
                TimeWords.Exactly(happened.At, zone),
                happened.What.Say(names(happened)),
                happened.What.Words()
            )),
        ];
    }

    /// <summary>What those are called whom events name, all asked for at once.</summary>
    public static async Task<Func<LoggedEvent, EventNames>> NamesAsync(
        PorchDb db,
        IReadOnlyList<LoggedEvent> logged,
        CancellationToken cancellationToken
    )
    {
        var clientIds = logged.Select(happened => happened.ClientId).Distinct().ToList();
        var clients = await db
            .Clients.IgnoreQueryFilters()
            .Where(client => clientIds.Contains(client.Id))
            .ToDictionaryAsync(client => client.Id, client => client.Name, cancellationToken);
        var mailIds = logged.Where(happened => happened.ClientId is null).Select(happened => happened.MailId).Distinct().ToList();
        var addresses =
            mailIds.Count == 0
                ? []
                : await db
                    .OutgoingMail.Where(mail => mailIds.Contains(mail.Id))
                    .ToDictionaryAsync(mail => mail.Id, mail => mail.To, cancellationToken);
        var users = await db
            .Users.Select(user => new { user.Id, user.DisplayName })
            .Concat(db.FormerUsers.Select(user => new { user.Id, user.DisplayName }))
            .ToDictionaryAsync(user => user.Id, user => user.DisplayName, cancellationToken);
        var runIds = logged.Select(happened => happened.RunId).OfType<Id<FollowThrough.Run>>().Distinct().ToList();
        var runs =
            runIds.Count == 0
                ? []
                : await db.RunsWithVersion()
                    .Where(one => runIds.Contains(one.Run.Id))
                    .ToDictionaryAsync(one => one.Run.Id, one => one.Version.Content, cancellationToken);
        var stages = (await db.BusinessAsync()).Lists.Stages;
        var titles = new Dictionary<(Guid, int), string>();
        foreach (
            var (form, number) in logged
                .Select(happened => happened.What)
                .OfType<InquiryReceived>()
                .Select(received => (received.Form, received.Version))
                .Distinct()
        )
            titles[(form, number)] = (await db.FormVersions.FindAsync([new Id<Forms.Form>(form), number], cancellationToken))!
                .Content
                .Title;

        return happened => new EventNames(
            happened.ClientId is { } client ? clients.GetValueOrDefault(client, "Someone")
                : happened.MailId is { } mail ? addresses[mail]
                : "Someone",
            happened.What is InquiryReceived received ? titles[(received.Form, received.Version)] : "",
            Content(happened)?.Name ?? "",
            step => Content(happened)?.AllSteps.FirstOrDefault(one => one.Key == step)?.Name ?? step,
            stage => stages.FirstOrDefault(one => one.Key == stage)?.Name ?? stage,
            user => users.GetValueOrDefault(user, "Someone")
        );

        FollowThroughContent? Content(LoggedEvent happened) => happened.RunId is { } run ? runs.GetValueOrDefault(run) : null;
    }
}
