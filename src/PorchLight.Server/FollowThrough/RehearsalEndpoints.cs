using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>Every date and message of a follow-through before it is live.</summary>
internal static class RehearsalEndpoints
{
    private const int LongestDays = 3653;
    private const int MostPeople = 60;

    /// <summary>What somebody is assumed to do.</summary>
    internal enum AssumedAct
    {
        Replies,
        Books,
    }

    /// <summary>How nods are assumed to be given.</summary>
    internal enum AssumedNods
    {
        AtOnce,
        ADayLater,
        Never,
    }

    /// <param name="Act">What they do.</param>
    /// <param name="Day">On which day, the start being day 0; at noon, or an hour after the start on its own day.</param>
    internal sealed record Assumed(AssumedAct Act, int Day);

    /// <param name="ClientId">Whom it is played with; null for an example.</param>
    /// <param name="Start">When it starts, in the business's zone; null for now.</param>
    /// <param name="Assumed">What they do; empty for silence.</param>
    internal sealed record RehearsalRequest(Id<Client>? ClientId, LocalDateTime? Start, IReadOnlyList<Assumed> Assumed, AssumedNods Nods);

    /// <param name="Step">The step's key.</param>
    /// <param name="Name">What the step is called.</param>
    /// <param name="Does">What it does, as a part of a sentence.</param>
    /// <param name="Status">How it ends.</param>
    /// <param name="When">When that is, in words; of a cancelled one when it would have been; null for never.</param>
    /// <param name="Exactly">The same with date and zone.</param>
    /// <param name="Asked">When it asked for a nod, in words; null where it needs none.</param>
    /// <param name="Message">The message as they would get it; null for a step that sends none.</param>
    internal sealed record RehearsedRow(
        string Step,
        string Name,
        string Does,
        StepStatus Status,
        string? When,
        string? Exactly,
        string? Asked,
        MessageDraft? Message
    );

    /// <param name="With">Whom it was played with.</param>
    /// <param name="Starts">When it started, in words.</param>
    /// <param name="Start">The same as it was asked for.</param>
    /// <param name="Rows">The steps in order.</param>
    /// <param name="Before">How many rows stand before what ends it early; null where nothing does.</param>
    /// <param name="Ends">How it ends, as a sentence.</param>
    internal sealed record RehearsalView(
        string With,
        string Starts,
        LocalDateTime Start,
        IReadOnlyList<RehearsedRow> Rows,
        int? Before,
        string Ends
    );

    internal sealed record RehearsalPerson(Id<Client> Id, string Name);

    public static void MapRehearsals(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/follow-throughs/{id}/rehearse").For(Access.Member).WithTags("FollowThrough");
        group.MapPost("", RehearseAsync);
        group.MapGet("/people", ListPeopleAsync);
    }

    /// <summary>With whom it can be played: those on it, then those who wrote last.</summary>
    private static async Task<IReadOnlyList<RehearsalPerson>> ListPeopleAsync(
        Id<StoredFollowThrough> id,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var on = await db
            .Runs.Where(run => run.FollowThroughId == id && run.Active && run.ClientId != null)
            .Select(run => run.ClientId!.Value)
            .ToListAsync(cancellationToken);
        var last = await db
            .CountingInquiries.OrderByDescending(inquiry => inquiry.Received)
            .Select(inquiry => inquiry.ClientId)
            .Take(MostPeople)
            .ToListAsync(cancellationToken);
        var ids = on.Concat(last).Distinct().Take(MostPeople).ToList();
        return await db
            .Clients.Where(client => ids.Contains(client.Id))
            .OrderBy(client => client.SortName)
            .Select(client => new RehearsalPerson(client.Id, client.Name))
            .ToListAsync(cancellationToken);
    }

    private static async Task<Results<Ok<RehearsalView>, ProblemHttpResult>> RehearseAsync(
        Id<StoredFollowThrough> id,
        RehearsalRequest asked,
        PorchDb db,
        FollowThroughPartsLoader loader,
        RunFactsLoader factsLoader,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(FollowThroughEndpoints.Gone);
        if (asked.Assumed.Any(one => one.Day is < 0 or > LongestDays))
            return Problems.Invalid(new Finding("day", $"A day is a whole number from 0 to {LongestDays}."));
        var content = await FollowThroughDraftEndpoints.WorkedOnAsync(db, stored);
        if (content.Steps.Count == 0)
            return Problems.Unprocessable("It has no steps yet, so there is nothing to rehearse.");
        var business = await db.BusinessAsync();
        var now = clock.GetCurrentInstant();
        var start = asked.Start is { } wanted ? business.Calendar.ToInstant(wanted) : now;
        var (subject, refusal) = await SubjectAsync(db, asked.ClientId, factsLoader, content, cancellationToken);
        if (refusal is not null)
            return refusal;
        var rehearsed = new Rehearsal(content, business.Calendar, business.Window, subject!.Facts).Play(
            start,
            [.. asked.Assumed.Select(one => new Assumption(MomentOf(one, start, business), EventOf(one.Act)))],
            asked.Nods switch
            {
                AssumedNods.AtOnce => Duration.Zero,
                AssumedNods.ADayLater => Duration.FromDays(1),
                _ => null,
            }
        );
        return TypedResults.Ok(await SayAsync(content, rehearsed, subject, start, now, business, stored.Id, loader, cancellationToken));
    }

    /// <param name="Name">What they are called.</param>
    /// <param name="Facts">What is known of them and their latest piece of work.</param>
    /// <param name="PromisedBy">By when they have an answer.</param>
    /// <param name="Signatures">What stands below messages to them.</param>
    private sealed record Subject(PersonNameAnswer? Name, IRunFacts Facts, Instant? PromisedBy, Signatures Signatures);

    private static async Task<(Subject? Subject, ProblemHttpResult? Refusal)> SubjectAsync(
        PorchDb db,
        Id<Client>? id,
        RunFactsLoader loader,
        FollowThroughContent content,
        CancellationToken cancellationToken
    )
    {
        var signatures = await db.SignaturesAsync();
        if (id is null)
            return (new Subject(new PersonNameAnswer("Alex", "Example"), NoFacts.Instance, null, signatures), null);
        if (await db.Clients.FindAsync([id], cancellationToken) is not { } client)
            return (null, Problems.NotFound("This client is not here any more. Choose someone else."));
        var project = await db.Projects.FirstOrDefaultAsync(one => one.ClientId == id && one.IsLatest, cancellationToken);
        if (project is null)
            return (null, Problems.Unprocessable("They have no project yet, and a follow-through is about one. Choose someone else."));
        var inquiry = await db
            .Inquiries.Where(one => one.ProjectId == project.Id)
            .OrderByDescending(one => one.Received)
            .FirstOrDefaultAsync(cancellationToken);
        var facts = await loader.LoadAsync(client, project.Id, inquiry, content.Judges);
        return (
            new Subject(facts.OnFile.GetValueOrDefault(BuiltInFields.Name.Key) as PersonNameAnswer, facts, inquiry?.PromisedBy, signatures),
            null
        );
    }

    private static Instant MomentOf(Assumed one, Instant start, Business business)
    {
        var noon = business.Calendar.ToInstant(business.Calendar.Today(start).PlusDays(one.Day) + new LocalTime(12, 0));
        return one.Day == 0 ? start + Duration.FromHours(1) : noon;
    }

    private static DomainEvent EventOf(AssumedAct act) => act == AssumedAct.Books ? new MeetingBooked() : new ReplyReceived(null);

    private static async Task<RehearsalView> SayAsync(
        FollowThroughContent content,
        Rehearsed rehearsed,
        Subject subject,
        Instant start,
        Instant now,
        Business business,
        Id<StoredFollowThrough> id,
        FollowThroughPartsLoader loader,
        CancellationToken cancellationToken
    )
    {
        var zone = business.DateTimeZone;
        var names = (await loader.LoadAsync(content, id, cancellationToken)).Names;
        var rows = rehearsed
            .Steps.Select(one =>
            {
                var step = content.Step(one.Step);
                return new RehearsedRow(
                    step.Key,
                    step.Name,
                    step.SayAction(names),
                    one.Status,
                    one.At is { } at ? TimeWords.At(at, now, zone) : null,
                    one.At is { } exact ? TimeWords.Exactly(exact, zone) : null,
                    one.Asked is { } asked ? TimeWords.At(asked, now, zone) : null,
                    step.Action is SendMessage send ? send.Message.Draft(ValuesAt(one.At ?? start, send.Message.Enclosed.Sender)) : null
                );
            })
            .ToList();
        var run = rehearsed.Run;
        var early = run.StoppedBy is null ? (int?)null : rows.FindIndex(row => row.Status == StepStatus.Cancelled);
        return new RehearsalView(
            subject.Name?.Full ?? "someone without a name",
            TimeWords.At(start, now, zone),
            business.Calendar.ToLocal(start),
            rows,
            early is -1 ? rows.Count : early,
            run switch
            {
                { StoppedBy: { } why, Ended: { } at } =>
                    $"{TimeWords.At(at, now, zone)}: {(why == RunEnd.Booked ? "they book" : "they answer")}. It ends; what is left is never sent.",
                { Ended: { } at } => $"Finishes {TimeWords.At(at, now, zone)}.",
                _ when rows.Find(row => row.Status is StepStatus.Planned or StepStatus.Later) is { } open =>
                    $"“{open.Name}” has no date yet: the day it counts from is not known.",
                _ => "It does not come to an end.",
            }
        );

        Dictionary<string, string> ValuesAt(Instant at, Guid? sender) =>
            RunContext
                .ValuesOf(
                    business,
                    subject.Name,
                    subject.PromisedBy is { } deadline && deadline > at ? DeadlineWords.ToLead(deadline, at, business.Calendar) : "",
                    subject.Signatures.Of(sender)
                )
                .Concat(OfTheForm())
                .ToDictionary();

        // What is known only once somebody has left a form is shown by examples.
        IEnumerable<KeyValuePair<string, string>> OfTheForm() =>
            content.Starts is LeftUnfinishedStart left
                ? BuiltInMessages
                    .Find(BuiltInMessage.StillUnfinished)
                    .Values.Select(value =>
                        KeyValuePair.Create(value.Name, value.Name == "form" && left.Form is { } form ? names.Form(form) : value.Example)
                    )
                : [];
    }
}
