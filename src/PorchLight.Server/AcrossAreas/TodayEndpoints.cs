using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Meetings;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>The day's note and the bell.</summary>
internal static class TodayEndpoints
{
    private const int BellLength = 20;

    /// <summary>More than anybody works through at a sitting; the lists hold the rest.</summary>
    private const int MostRows = 60;

    /// <param name="Kept">How many promises were kept lately, as a sentence; null where nothing is decided.</param>
    /// <param name="MorePromised">How many more are waiting than are shown.</param>
    /// <param name="MoreNods">How many more messages wait for a nod than are shown.</param>
    /// <param name="GivenUpCalls">How many calls to webhooks wait for somebody to look.</param>
    /// <param name="Meetings">The meetings that are still to come today, else the next one.</param>
    /// <param name="FirstSteps">What a new business still sets up; empty once all of it is done.</param>
    /// <param name="Warning">What is wrong with the program itself, for whoever looks after it; else null.</param>
    internal sealed record TodayView(
        string Note,
        string Clock,
        string? Kept,
        IReadOnlyList<InquiryRow> Promised,
        int MorePromised,
        IReadOnlyList<NodEndpoints.NodRow> Nods,
        int MoreNods,
        string? Gaps,
        IReadOnlyList<MailEndpoints.StuckRow> Stuck,
        IReadOnlyList<RunEndpoints.FailedRow> Failed,
        int GivenUpCalls,
        IReadOnlyList<ErasedSoon> ErasedSoon,
        IReadOnlyList<TaskOnFile> Tasks,
        IReadOnlyList<CalendarEndpoints.UpcomingMeeting> Meetings,
        IReadOnlyList<FirstStepView> FirstSteps,
        string? Warning
    );

    internal sealed record FirstStepView(FirstStep Step, bool IsDone);

    /// <summary>A client who is erased soon because the keeping period ends.</summary>
    /// <param name="On">The day, in words.</param>
    internal sealed record ErasedSoon(Id<Client> Id, string Name, string On);

    /// <param name="Unseen">How many rang since this person last looked.</param>
    /// <param name="Entries">The newest first.</param>
    internal sealed record BellView(int Unseen, IReadOnlyList<BellEntry> Entries);

    internal sealed record BellEntry(string At, string Sentence, Id<Inquiry>? InquiryId, bool Unseen);

    public static void MapToday(this IEndpointRouteBuilder api)
    {
        api.MapGet("/today", TodayAsync).For(Access.Member).WithTags("Today");
        api.MapGet("/bell", BellAsync).For(Access.Member).WithTags("Today");
        api.MapPost("/bell/seen", SeenAsync).For(Access.Member).WithTags("Today");
    }

    private static async Task<Ok<TodayView>> TodayAsync(
        PorchDb db,
        BusinessClock clock,
        StorageQuota storageQuota,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        var now = clock.GetCurrentInstant();
        var business = await db.BusinessAsync();
        // Whom an answer is on its way to waits no more, unless it is taken back.
        var owed = db.CountingInquiries.Where(inquiry =>
            inquiry.Need == InquiryNeed.Reply
            && !db.OutgoingMail.Any(mail => mail.State == MailState.Queued && mail.Held != null && mail.ClientId == inquiry.ClientId)
        );
        var nods = await NodEndpoints.RowsAsync(db, now, cancellationToken);
        var stuck = await MailEndpoints.RowsAsync(db, now, business.DateTimeZone, cancellationToken);
        var waiting = await owed.Select(inquiry => new
            {
                inquiry.ClientId,
                inquiry.PromisedBy,
                Stopped = inquiry.PromiseStopped != null,
                Wrote = inquiry.WroteBack != null,
            })
            .ToListAsync(cancellationToken);
        return TypedResults.Ok(
            new TodayView(
                TodayNote.Say(
                    [.. waiting.Where(one => !one.Stopped).Select(one => new OwedReply(one.ClientId.Value, one.PromisedBy))],
                    [.. waiting.Where(one => one.Wrote).Select(one => one.ClientId.Value)],
                    nods.Count(nod => nod.Goes is null),
                    stuck.Count,
                    now,
                    business.Calendar
                ),
                $"{(business.PromiseClock == PromiseClock.WorkingDays ? "working-day" : "open-hours")} clock, {business.Zone}",
                await KeptAsync(db, now, cancellationToken),
                await InquiryRows.OfAsync(
                    db,
                    await owed.AsNoTracking()
                        .OrderBy(inquiry => inquiry.Urgency)
                        .ThenBy(inquiry => inquiry.Id)
                        .Take(MostRows)
                        .ToListAsync(cancellationToken),
                    now,
                    cancellationToken
                ),
                Math.Max(0, waiting.Count - MostRows),
                [.. nods.Take(MostRows)],
                Math.Max(0, nods.Count - MostRows),
                TodayNote.SayGaps(nods.Count(nod => nod.Gaps > 0)),
                stuck,
                await RunEndpoints.FailedAsync(db, cancellationToken),
                await db.WebhookCalls.CountAsync(call => call.State == WebhookState.Failed, cancellationToken),
                [
                    .. (
                        await db
                            .Clients.Where(client => client.EraseOn != null)
                            .OrderBy(client => client.EraseOn)
                            .ThenBy(client => client.SortName)
                            .Take(100)
                            .ToListAsync(cancellationToken)
                    ).Select(client => new ErasedSoon(
                        client.Id,
                        client.Name,
                        TimeWords.Day(client.EraseOn!.Value, now.InZone(business.DateTimeZone).Date)
                    )),
                ],
                await TasksOnFile.DueAsync(db, now, business.DateTimeZone, cancellationToken),
                await CalendarEndpoints.UpcomingAsync(db, now, business.Calendar.Tomorrow(now), cancellationToken),
                await FirstStepsAsync(db, business, address, cancellationToken),
                storageQuota.DiskIsLow
                    ? "The disk Porch Light runs on is nearly full. Files that people want to send are refused until there is room again."
                    : null
            )
        );
    }

    private static async Task<IReadOnlyList<FirstStepView>> FirstStepsAsync(
        PorchDb db,
        Business business,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        if (business.IsDemo)
            return [];
        var steps = new FirstSteps(
            business.Lists.Services.Count > 0,
            business.Smtp is not null,
            !new Uri(address.Site).IsLoopback,
            await db.Forms.AnyAsync(form => form.LightOn && form.Archived == null, cancellationToken),
            await db.Submissions.AnyAsync(cancellationToken)
        );
        return steps.AreDone ? [] : [.. steps.All.Select(one => new FirstStepView(one.Step, one.IsDone))];
    }

    private static async Task<string?> KeptAsync(PorchDb db, Instant now, CancellationToken cancellationToken)
    {
        var since = now - PromiseRecord.Span;
        var promised = await db
            .CountingInquiries.Where(inquiry => inquiry.PromisedBy != null && inquiry.Received >= since)
            .Select(inquiry => new
            {
                By = inquiry.PromisedBy!.Value,
                inquiry.PromiseStopped,
                inquiry.Closed,
            })
            .ToListAsync(cancellationToken);
        return PromiseRecord.Of(promised.Select(one => new PromisedReply(one.By, one.PromiseStopped, one.Closed)), now).Say();
    }

    private static async Task<Ok<BellView>> BellAsync(
        PorchDb db,
        BusinessClock clock,
        ClaimsPrincipal who,
        UserManager<User> users,
        CancellationToken cancellationToken
    )
    {
        var now = clock.GetCurrentInstant();
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var seen = (await users.GetUserAsync(who))!.BellSeen;
        var newest = await db
            .Events.AsNoTracking()
            .Where(logged => logged.Rings)
            .OrderByDescending(logged => logged.Seq)
            .Take(BellLength)
            .ToListAsync(cancellationToken);
        var names = await Timeline.NamesAsync(db, newest, cancellationToken);
        return TypedResults.Ok(
            new BellView(
                await db.Events.CountAsync(logged => logged.Rings && logged.Seq > seen, cancellationToken),
                [
                    .. newest.Select(logged => new BellEntry(
                        TimeWords.At(logged.At, now, zone),
                        logged.What is NodAsked
                            ? $"{logged.What.Say(names(logged))} For {names(logged).Client}."
                            : logged.What.Say(names(logged)),
                        logged.InquiryId,
                        logged.Seq > seen
                    )),
                ]
            )
        );
    }

    private static async Task<NoContent> SeenAsync(
        PorchDb db,
        ClaimsPrincipal who,
        UserManager<User> users,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var user = (await users.GetUserAsync(who))!;
        user.BellSeen = await db.Events.MaxAsync(logged => (long?)logged.Seq, cancellationToken) ?? 0;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
