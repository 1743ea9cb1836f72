using System.Globalization;
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
internal static class ClientErasingEndpoints
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
        IEnumerable<IClientPart> parts,
        CancellationToken cancellationToken
    )
    {
        if (await db.Clients.SingleOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } client)
            return Problems.NotFound(Gone);
        var person = await db.WholePersonAsync(id, cancellationToken);
        var goes = new List<string>();
        foreach (var rows in parts.SelectMany(part => part.RowsOf(person)))
        {
            if (rows.Goes is var (one, many) && await rows.CountAsync(cancellationToken) is > 0 and var count)
                goes.Add(count == 1 ? one : string.Format(CultureInfo.InvariantCulture, many, count));
        }

        return TypedResults.Ok(
            new ErasingPreview(
                client.Name,
                ["Name, address and everything they are known by", .. goes],
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
            files = await eraser.EraseAsync(id, who.UserId(), clock.GetCurrentInstant(), cancellationToken);
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
