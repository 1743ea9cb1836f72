using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>The list of forms, with what came of each, and what is done to several at once.</summary>
internal static class FormListEndpoints
{
    /// <param name="Forms">The forms.</param>
    /// <param name="On">Whether their light is to be on.</param>
    internal sealed record Lights(IReadOnlyList<Id<Form>> Forms, bool On);

    /// <param name="Forms">The forms.</param>
    /// <param name="Archived">Whether they are to be put away.</param>
    internal sealed record Archive(IReadOnlyList<Id<Form>> Forms, bool Archived);

    /// <param name="Service">The key of a service of the business; null for none in particular.</param>
    internal sealed record FormService(string? Service);

    /// <param name="Service">The key of the service it asks about; null for none in particular.</param>
    /// <param name="Services">The business's services.</param>
    internal sealed record FormServiceView(string? Service, IReadOnlyList<Service> Services);

    public static void MapFormList(this IEndpointRouteBuilder api)
    {
        var forms = api.MapGroup("/forms").For(Access.Member).WithTags("Forms");
        forms.MapGet("", async (FormList list, CancellationToken cancellationToken) => await list.ReadAsync(cancellationToken));
        forms.MapPut("/lights", SwitchLightsAsync);
        forms.MapPut("/archive", ArchiveAsync);
        forms.MapGet("/{id}/service", ShowServiceAsync);
        forms.MapPut("/{id}/service", SetServiceAsync);
    }

    /// <summary>The light of several forms; those that were never published, or are put away, stay dark.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SwitchLightsAsync(
        Lights lights,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var forms = await db.Forms.Where(form => lights.Forms.Contains(form.Id)).ToListAsync(cancellationToken);
        if (lights.On && forms.Find(form => form.PublishedVersion == 0) is { } unready)
            return Problems.Unprocessable($"Publish “{unready.Draft.Title}” first; until then there is nothing to show.");
        foreach (var form in forms)
            form.LightOn = lights.On && form.Archived is null;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Puts forms away, with their light off, or brings them back, with their light still off. Nothing of them is lost.</summary>
    private static async Task<NoContent> ArchiveAsync(Archive archive, PorchDb db, BusinessClock clock, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        foreach (var form in await db.Forms.Where(form => archive.Forms.Contains(form.Id)).ToListAsync(cancellationToken))
        {
            form.Archived = archive.Archived ? form.Archived ?? clock.GetCurrentInstant() : null;
            if (archive.Archived)
                form.LightOn = false;
        }

        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<FormServiceView>, ProblemHttpResult>> ShowServiceAsync(
        Id<Form> id,
        PorchDb db,
        CancellationToken cancellationToken
    ) =>
        await db.Forms.FindAsync([id], cancellationToken) is { } form
            ? TypedResults.Ok(new FormServiceView(form.Service, (await db.BusinessAsync()).Lists.Services))
            : Problems.NotFound(ContentEndpoints.Gone);

    private static async Task<Results<NoContent, ProblemHttpResult>> SetServiceAsync(
        Id<Form> id,
        FormService service,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(ContentEndpoints.Gone);
        if (service.Service is { } key && (await db.BusinessAsync()).Lists.Services.All(one => one.Key != key))
            return Problems.Unprocessable("This service is not on your list any more. Please choose another.");
        form.Service = service.Service;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
