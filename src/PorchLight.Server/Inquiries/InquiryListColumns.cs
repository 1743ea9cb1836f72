using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Brand;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Keeps what lists show of each inquiry, and where it stands in them, true to its turn, to its project and to the records, whoever
/// changes any of them, or what a stage means.
/// </summary>
internal sealed class InquiryListColumns : IDerivedColumns
{
    private const string BudgetField = "project.budget";
    private static readonly string[] Shown = [BuiltInFields.Service.Key, BuiltInFields.Source.Key, BudgetField];

    public async Task RefreshAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var touched = await TouchedAsync(db, cancellationToken);
        if (touched.Count == 0)
            return;
        var lists = (await db.BusinessAsync()).Lists;
        var kinds = lists.Stages.ToDictionary(stage => stage.Key, stage => stage.Kind);
        foreach (var inquiry in touched)
        {
            var project = (await db.Projects.FindAsync([inquiry.ProjectId], cancellationToken))!;
            var client =
                await db.Clients.FindAsync([inquiry.ClientId], cancellationToken) ?? (await db.ClientOrMergedAsync(inquiry.ClientId))!;
            inquiry.Rank = InquiryRank.Of(
                inquiry.Turn,
                inquiry.Received,
                inquiry.PromisedBy,
                kinds.TryGetValue(project.Stage, out var kind) ? kind : null,
                project.ParkedUntil,
                inquiry.Aside
            );
            (inquiry.Stage, inquiry.LooksAfterId) = (project.Stage, project.LooksAfterId);
            if (inquiry.Aside is not null || client.IsAside)
                client.IsAside = await IsAsideAsync(db, client, cancellationToken);
            inquiry.SortName = client.SortName;
            var values = await ValuesAsync(db, client, project.Id, cancellationToken);
            inquiry.Service = Say(values.GetValueOrDefault(BuiltInFields.Service.Key));
            inquiry.Source = Say(values.GetValueOrDefault(BuiltInFields.Source.Key)) is { } written
                ? lists.SourceCalled(written)?.Name ?? written
                : null;
            inquiry.Budget = Say(values.GetValueOrDefault(BudgetField));
            inquiry.BudgetAmount = values.GetValueOrDefault(BudgetField)?.OrderNumber;
        }
    }

    private static async Task<bool> IsAsideAsync(PorchDb db, Client client, CancellationToken cancellationToken)
    {
        await db.Inquiries.Where(inquiry => inquiry.ClientId == client.Id).LoadAsync(cancellationToken);
        return AsideClients.IsAside([
            .. db
                .Inquiries.Local.Where(inquiry => inquiry.ClientId == client.Id)
                // Whom the business knew longer, in whichever record, no inquiry has made.
                .Select(inquiry => new ClientInquiry(inquiry.Aside is not null, inquiry.KnownBefore || client.Since < inquiry.Received)),
        ]);
    }

    /// <summary>Has the inquiries of clients looked at with this write, whose records it moves past what notices changes.</summary>
    public static async Task MarkAsync(PorchDb db, IReadOnlyCollection<Id<Client>> clients, CancellationToken cancellationToken)
    {
        foreach (var inquiry in await db.Inquiries.Where(inquiry => clients.Contains(inquiry.ClientId)).ToListAsync(cancellationToken))
            db.Entry(inquiry).State = EntityState.Modified;
    }

    private static async Task<HashSet<Inquiry>> TouchedAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var touched = db
            .ChangeTracker.Entries<Inquiry>()
            .Where(entry => entry.State is EntityState.Added or EntityState.Modified)
            .Select(entry => entry.Entity)
            .ToHashSet();
        var projects = db
            .ChangeTracker.Entries<Project>()
            .Where(entry =>
                entry.State == EntityState.Modified
                && (
                    entry.Property(project => project.Stage).IsModified
                    || entry.Property(project => project.ParkedUntil).IsModified
                    || entry.Property(project => project.LooksAfterId).IsModified
                )
            )
            .Select(entry => entry.Entity.Id)
            .ToHashSet();
        var clients = db
            .ChangeTracker.Entries<Client>()
            .Where(entry => entry.State == EntityState.Modified && entry.Property(client => client.SortName).IsModified)
            .Select(entry => entry.Entity.Id)
            .ToHashSet();
        // What this very write makes has no other inquiry yet.
        var made = db
            .ChangeTracker.Entries<Client>()
            .Where(entry => entry.State == EntityState.Added)
            .Select(entry => entry.Entity.Id)
            .ToHashSet();
        foreach (var entry in db.ChangeTracker.Entries<FieldValue>())
        {
            if (entry.State == EntityState.Unchanged || !Shown.Contains(entry.Entity.Field) || made.Contains(entry.Entity.ClientId))
                continue;
            if (entry.Entity.ProjectId is { } project)
                projects.Add(project);
            else
                clients.Add(entry.Entity.ClientId);
        }

        if (projects.Count > 0)
            touched.UnionWith(await db.Inquiries.Where(inquiry => projects.Contains(inquiry.ProjectId)).ToListAsync(cancellationToken));
        if (clients.Count > 0)
            touched.UnionWith(await db.Inquiries.Where(inquiry => clients.Contains(inquiry.ClientId)).ToListAsync(cancellationToken));
        if (db.ChangeTracker.Entries<Business>().Any(entry => entry.Property(business => business.Lists).IsModified))
            touched.UnionWith(await db.Inquiries.ToListAsync(cancellationToken));
        return touched;
    }

    /// <summary>What stands in the fields lists show, as it will be once the write is saved.</summary>
    private static async Task<Dictionary<string, FieldValue>> ValuesAsync(
        PorchDb db,
        Client client,
        Id<Project> project,
        CancellationToken cancellationToken
    )
    {
        if (db.Entry(client).State != EntityState.Added)
            await db
                .FieldValues.Where(value => value.ClientId == client.Id && value.IsCurrent && Shown.Contains(value.Field))
                .LoadAsync(cancellationToken);
        return db
            .FieldValues.Local.Where(value =>
                value.ClientId == client.Id
                && value.IsCurrent
                && Shown.Contains(value.Field)
                && (value.ProjectId is null || value.ProjectId == project)
            )
            .DistinctBy(value => value.Field)
            .ToDictionary(value => value.Field);
    }

    private static string? Say(FieldValue? value) => value?.Value is { } words ? AnswerWords.Say(words) : null;
}
