using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>The list of forms, with what came of each.</summary>
internal static class FormListEndpoints
{
    /// <param name="Shines">Whether it takes answers.</param>
    internal sealed record FormRow(
        Id<Form> Id,
        string Title,
        bool Shines,
        int Version,
        bool UnpublishedChanges,
        int Inquiries,
        int Questions
    );

    public static void MapFormList(this IEndpointRouteBuilder api) => api.MapGet("/forms", ListAsync).For(Access.Member).WithTags("Forms");

    private static async Task<Ok<List<FormRow>>> ListAsync(PorchDb db, FormAccess access, CancellationToken cancellationToken)
    {
        var counts = await db
            .Inquiries.GroupBy(inquiry => inquiry.FormId)
            .Select(group => new { group.Key, Count = group.Count() })
            .ToDictionaryAsync(group => group.Key, group => group.Count, cancellationToken);
        var business = await db.BusinessAsync();
        var forms = await db.Forms.AsNoTracking().ToListAsync(cancellationToken);
        var shining = new HashSet<Id<Form>>();
        foreach (var form in forms)
        {
            if (await access.LightAsync(form, business) == LightState.On)
                shining.Add(form.Id);
        }

        return TypedResults.Ok(
            forms
                .OrderBy(form => form.Id.Value)
                .Select(form => new FormRow(
                    form.Id,
                    form.Draft.Title,
                    shining.Contains(form.Id),
                    form.PublishedVersion,
                    form.DraftRevision != form.PublishedRevision,
                    counts.GetValueOrDefault(form.Id),
                    form.Draft.Questions.Count()
                ))
                .ToList()
        );
    }
}
