using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Fields;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>How the views of clients and projects are put together, once for the business.</summary>
internal static class ArrangementEndpoints
{
    /// <param name="Project">How projects are shown of services that have no arrangement of their own.</param>
    /// <param name="Services">Every service of the business, in order.</param>
    internal sealed record ArrangementsView(Arrangement Client, Arrangement Project, IReadOnlyList<ServiceArrangement> Services);

    /// <param name="Service">The key of the service.</param>
    /// <param name="Name">Its name.</param>
    /// <param name="Own">How its projects are shown; null where that is as all others.</param>
    internal sealed record ServiceArrangement(string Service, string Name, Arrangement? Own);

    public static void MapArrangements(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/arrangements").WithTags("Fields");
        group.MapGet("", ShowAsync).For(Access.Member);
        group
            .MapPut(
                "/client",
                (Edit<Arrangement> edit, PorchDb db, FieldCatalogues catalogues, CancellationToken cancellationToken) =>
                    KeepAsync(RecordScope.Client, "", edit, db, catalogues, cancellationToken)
            )
            .For(Access.Owner);
        group
            .MapPut(
                "/project/{service?}",
                (string? service, Edit<Arrangement> edit, PorchDb db, FieldCatalogues catalogues, CancellationToken cancellationToken) =>
                    KeepAsync(RecordScope.Project, service ?? "", edit, db, catalogues, cancellationToken)
            )
            .For(Access.Owner);
        group
            .MapDelete(
                "/client",
                (PorchDb db, CancellationToken cancellationToken) => ForgetAsync(RecordScope.Client, "", db, cancellationToken)
            )
            .For(Access.Owner);
        group
            .MapDelete(
                "/project/{service?}",
                (string? service, PorchDb db, CancellationToken cancellationToken) =>
                    ForgetAsync(RecordScope.Project, service ?? "", db, cancellationToken)
            )
            .For(Access.Owner);
    }

    private static async Task<Ok<ArrangementsView>> ShowAsync(PorchDb db, FieldCatalogues catalogues, CancellationToken cancellationToken)
    {
        var fields = await catalogues.ReadAsync(db);
        var stored = (await db.Arrangements.AsNoTracking().ToListAsync(cancellationToken)).ToDictionary(
            one => (one.Scope, one.Service),
            one => one.Arrangement
        );
        return TypedResults.Ok(
            new ArrangementsView(
                Of(RecordScope.Client),
                Of(RecordScope.Project),
                [
                    .. (await db.BusinessAsync()).Lists.Services.Select(service => new ServiceArrangement(
                        service.Key,
                        service.Name,
                        stored.GetValueOrDefault((RecordScope.Project, service.Key))?.Completed(RecordScope.Project, fields)
                    )),
                ]
            )
        );

        Arrangement Of(RecordScope scope) => (stored.GetValueOrDefault((scope, "")) ?? Arrangement.Usual(scope)).Completed(scope, fields);
    }

    /// <summary>Keeps an arrangement. What stands at the glance for all is what the fields say of themselves from then on.</summary>
    /// <param name="scope">Clients or projects.</param>
    /// <param name="service">The key of the service it is for; empty for clients, and for all other projects.</param>
    private static async Task<Results<Ok<Arrangement>, ProblemHttpResult>> KeepAsync(
        RecordScope scope,
        string service,
        Edit<Arrangement> edit,
        PorchDb db,
        FieldCatalogues catalogues,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (service.Length > 0 && (await db.BusinessAsync()).Lists.Services.All(one => one.Key != service))
            return Problems.NotFound("This service is not in your list any more.");
        var fields = await catalogues.ReadAsync(db);
        var all = await db.Arrangements.FindAsync([scope, ""], cancellationToken);
        var own = service.Length == 0 ? all : await db.Arrangements.FindAsync([scope, service], cancellationToken);
        var stored = (own ?? all)?.Arrangement ?? Arrangement.Usual(scope);
        var (merged, refusal) = edit.Onto(stored.Completed(scope, fields));
        if (refusal is not null)
            return refusal;
        var kept = merged.Tidied();
        if (kept.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        kept = kept.Completed(scope, fields);
        if (own is not null)
            own.Arrangement = kept;
        else
            db.Arrangements.Add(
                new StoredArrangement
                {
                    Scope = scope,
                    Service = service,
                    Arrangement = kept,
                }
            );
        if (service.Length == 0)
        {
            foreach (var one in await db.Fields.ToListAsync(cancellationToken))
            {
                var isAtAGlance = kept.AtAGlance.Contains(one.Key);
                if (one.Field.Scope == scope && one.Field.Key != ClientPeople.Field.Key && one.Field.AtAGlance != isAtAGlance)
                    one.Field = one.Field with { AtAGlance = isAtAGlance };
            }
        }

        await write.SaveAsync(cancellationToken);
        catalogues.Forget();
        return TypedResults.Ok(kept);
    }

    /// <summary>Shows them as before anybody arranged them; the projects of a service as all others.</summary>
    /// <param name="scope">Clients or projects.</param>
    /// <param name="service">The key of the service; empty for clients, and for all other projects.</param>
    private static async Task<NoContent> ForgetAsync(RecordScope scope, string service, PorchDb db, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Arrangements.FindAsync([scope, service], cancellationToken) is { } stored)
            db.Arrangements.Remove(stored);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
