using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Erases a client when the owner wants it, after a list of what goes and what stays.</summary>
internal static class ClientErasing
{
    private const string Gone = "This client is not here any more.";

    /// <param name="Goes">What is erased, a line each.</param>
    /// <param name="Stays">What stays, a line each.</param>
    internal sealed record ErasingPreview(string Name, IReadOnlyList<string> Goes, IReadOnlyList<string> Stays);

    public static void MapClientErasing(this IEndpointRouteBuilder api)
    {
        var clients = api.MapGroup("/clients").WithTags("Clients");
        clients.MapGet("/{id}/erasing", PreviewAsync).For(Access.Owner);
        clients.MapDelete("/{id}", EraseAsync).For(Access.Owner);
        clients.MapPut("/{id}/kept", KeepAsync).For(Access.Owner);
    }

    private static async Task<Results<Ok<ErasingPreview>, ProblemHttpResult>> PreviewAsync(
        Id<Client> id,
        PorchDb db,
        ClientEraser eraser,
        CancellationToken cancellationToken
    )
    {
        if (await db.Clients.SingleOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } client)
            return Problems.NotFound(Gone);
        var things = await eraser.LookAsync(id);
        var records = things.Records;
        var goes = new (int Count, string One, string Many)[]
        {
            (
                await db.Inquiries.CountAsync(one => records.Contains(one.ClientId), cancellationToken),
                "One inquiry with its answers",
                "{0} inquiries with their answers"
            ),
            (
                await db
                    .FieldValues.Where(one => records.Contains(one.ClientId))
                    .Select(one => one.Field)
                    .Distinct()
                    .CountAsync(cancellationToken),
                "One field, with its history",
                "{0} fields, with their history"
            ),
            (await db.Notes.CountAsync(one => records.Contains(one.ClientId), cancellationToken), "One note", "{0} notes"),
            (
                await db.ClientTasks.CountAsync(one => records.Contains(one.ClientId), cancellationToken),
                "One task or date",
                "{0} tasks and dates"
            ),
            (await db.Projects.CountAsync(one => records.Contains(one.ClientId), cancellationToken), "One project", "{0} projects"),
            (things.Files.Count, "One file they sent", "{0} files they sent"),
            (
                await db.OutgoingMail.CountAsync(mail => mail.ClientId != null && records.Contains(mail.ClientId.Value), cancellationToken),
                "One message to them, sent or waiting",
                "{0} messages to them, sent or waiting"
            ),
            (
                await db.IncomingMail.CountAsync(
                    mail => things.Emails.Contains(EF.Functions.Collate(mail.From, "NOCASE")),
                    cancellationToken
                ),
                "One message from them",
                "{0} messages from them"
            ),
            (
                await db.WebhookCalls.CountAsync(call => call.ClientId != null && records.Contains(call.ClientId.Value), cancellationToken),
                "One call of a webhook that told of them",
                "{0} calls of webhooks that told of them"
            ),
            (
                await db.Runs.CountAsync(
                    run => run.ClientId != null && records.Contains(run.ClientId.Value) && run.Active,
                    cancellationToken
                ),
                "One follow-through that is running",
                "{0} follow-throughs that are running"
            ),
            (things.Traces.TeamMail.Count, "One mail to your team that speaks of them", "{0} mails to your team that speak of them"),
            (things.Traces.Drafts.Count, "One form they left unfinished", "{0} forms they left unfinished"),
            (things.Traces.Uploads.Count, "One file they never sent", "{0} files they never sent"),
            (things.Traces.ImportFiles.Count, "One file of people that was never imported", "{0} files of people that were never imported"),
            (records.Count - 1, "One record that was made one with this", "{0} records that were made one with this"),
        };
        return TypedResults.Ok(
            new ErasingPreview(
                client.Name,
                [
                    "Name, address and everything they are known by",
                    .. goes.Where(line => line.Count > 0)
                        .Select(line =>
                            line.Count == 1
                                ? line.One
                                : string.Format(System.Globalization.CultureInfo.InvariantCulture, line.Many, line.Count)
                        ),
                ],
                [
                    "The counts: that someone sent a form, when, and how it was sorted",
                    "Files you put into the records yourself; they are in your files",
                    "Messages that are in your own mailbox or theirs already, and backups you made",
                ]
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EraseAsync(
        Id<Client> id,
        PorchDb db,
        ClientEraser eraser,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        IReadOnlyList<string> files;
        await using (var write = await db.WriteAsync(cancellationToken))
        {
            if (!await db.Clients.AnyAsync(client => client.Id == id, cancellationToken))
                return Problems.NotFound(Gone);
            files = await eraser.EraseAsync(id, who.UserId(), clock.GetCurrentInstant());
            await write.SaveAsync(cancellationToken);
        }

        await eraser.CleanUpAsync(files);
        return TypedResults.NoContent();
    }

    /// <summary>Keeps a client whose keeping period ends: it begins anew.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> KeepAsync(
        Id<Client> id,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Clients.SingleOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } client)
            return Problems.NotFound(Gone);
        if (client.EraseOn is null)
            return TypedResults.NoContent();
        client.EraseOn = null;
        await events.AppendAsync(new ClientKept(who.UserId()), clock.GetCurrentInstant(), new EventContext(id));
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
