using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Projects;
using PorchLight.Core.Workbench;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;
using PorchLight.Server.Webhooks;

namespace PorchLight.Server.FollowThrough;

/// <summary>Something that can be picked.</summary>
internal sealed record Choice(string Key, string Name);

/// <summary>What follow-throughs are made of beside their own words: what they may name, and what that is called.</summary>
internal sealed record FollowThroughParts(
    IReadOnlyList<Choice> Forms,
    IReadOnlyList<Choice> Services,
    IReadOnlyList<Stage> Stages,
    IReadOnlyList<Field> Fields,
    IReadOnlyList<Choice> People,
    IReadOnlyList<Choice> Others,
    IReadOnlyList<Choice> Webhooks,
    FollowThroughNames Names,
    FollowThroughSurroundings Around
);

internal sealed class FollowThroughPartsLoader(PorchDb db, FieldCatalogues catalogues)
{
    private static readonly FormContent NoForm = new("", "", [], [], new SendOff("end", "", ""));
    private (Rows Read, long Mark)? _rows;

    /// <summary>All a follow-through may name.</summary>
    /// <param name="content">The follow-through whose conditions are said; null for none.</param>
    /// <param name="itself">The follow-through that is worked on, which cannot start itself.</param>
    public async Task<FollowThroughParts> LoadAsync(
        FollowThroughContent? content,
        Id<StoredFollowThrough>? itself,
        CancellationToken cancellationToken
    )
    {
        var lists = (await db.BusinessAsync()).Lists;
        var catalogue = await catalogues.ReadAsync(db);
        var (forms, users, webhooks, inForce, on) = await RowsAsync(cancellationToken);
        var others = inForce.Where(one => one.FollowThroughId != itself).ToList();
        var asked = content?.Starts.FormAsked is { } id ? forms.Find(form => form.Id.Value == id) : null;
        var about = asked is null ? NoForm : lists.Into(asked.Draft);
        return new FollowThroughParts(
            [
                .. forms
                    .Where(form => form.Archived is null || form == asked)
                    .Select(form => new Choice(form.Id.ToString(), form.Draft.Title))
                    .OrderBy(form => form.Name, StringComparer.CurrentCulture),
            ],
            [.. lists.Services.Select(service => new Choice(service.Key, service.Name))],
            lists.Stages,
            [.. catalogue.Offered],
            [.. users.Select(user => new Choice(user.Id.ToString(), user.DisplayName))],
            [.. others.Select(one => new Choice(one.FollowThroughId.ToString(), one.Content.Name))],
            [.. webhooks.Select(webhook => new Choice(webhook.Id.ToString(), webhook.Name))],
            new FollowThroughNames(
                form => forms.Find(one => one.Id.Value == form)?.Draft.Title ?? "a form that is gone",
                service => lists.Services.FirstOrDefault(one => one.Key == service)?.Name ?? "a service that is gone",
                stage => lists.Stages.FirstOrDefault(one => one.Key == stage)?.Name ?? "a stage that is gone",
                field => catalogue.Find(field)?.Label ?? "a field that is gone",
                user => users.Find(one => one.Id == user)?.DisplayName ?? "someone who has left",
                other => others.Find(one => one.FollowThroughId.Value == other)?.Content.Name ?? "a follow-through that is gone",
                webhook => webhooks.Find(one => one.Id.Value == webhook)?.Name ?? "a deleted one",
                condition => condition.Say(about, catalogue)
            ),
            new FollowThroughSurroundings(
                forms.Select(form => form.Id.Value).ToHashSet(),
                lists.Services.Select(service => service.Key).ToHashSet(),
                lists.Stages,
                catalogue.All.ToDictionary(field => field.Key),
                users.Select(user => user.Id).ToHashSet(),
                others.Select(one => one.FollowThroughId.Value).ToHashSet(),
                webhooks.Select(webhook => webhook.Id.Value).ToHashSet()
            )
            {
                Itself = itself?.Value ?? Guid.Empty,
                Others =
                [
                    .. others.Select(one => new OtherFollowThrough(
                        one.FollowThroughId.Value,
                        one.Content,
                        on.Contains(one.FollowThroughId),
                        itself is not { } id || one.FollowThroughId.Value.CompareTo(id.Value) < 0
                    )),
                ],
            }
        );
    }

    /// <summary>What is the same for all of them: asked once for a whole list, and again when somebody has written anything.</summary>
    private async Task<Rows> RowsAsync(CancellationToken cancellationToken)
    {
        var mark = db.Mark();
        if (db.CurrentWrite is null && _rows is { } known && known.Mark == mark)
            return known.Read;
        var rows = new Rows(
            await db.Forms.AsNoTracking().ToListAsync(cancellationToken),
            await db.Users.AsNoTracking().OrderBy(user => user.DisplayName).ToListAsync(cancellationToken),
            await db.Webhooks.AsNoTracking().OrderBy(webhook => webhook.Name).ToListAsync(cancellationToken),
            await InForceAsync(cancellationToken),
            [.. await db.FollowThroughs.Where(one => one.Archived == null && one.IsOn).Select(one => one.Id).ToListAsync(cancellationToken)]
        );
        _rows = (rows, mark);
        return rows;
    }

    private sealed record Rows(
        List<Form> Forms,
        List<User> Users,
        List<Webhook> Webhooks,
        List<FollowThroughVersion> InForce,
        HashSet<Id<StoredFollowThrough>> On
    );

    private async Task<List<FollowThroughVersion>> InForceAsync(CancellationToken cancellationToken) =>
        await (
            from one in db.FollowThroughs.AsNoTracking()
            where one.Archived == null
            join version in db.FollowThroughVersions.AsNoTracking()
                on new { one.Id, one.Number } equals new { Id = version.FollowThroughId, version.Number }
            select version
        ).ToListAsync(cancellationToken);
}
