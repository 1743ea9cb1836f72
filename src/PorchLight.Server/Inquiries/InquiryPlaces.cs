using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Keeps what each inquiry needs true to its turn and to the stage of its project, whoever changes either of them, or what a stage
/// means.
/// </summary>
internal sealed class InquiryPlaces : IDerivedColumns
{
    public async Task RefreshAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var touched = db
            .ChangeTracker.Entries<Inquiry>()
            .Where(entry => entry.State is EntityState.Added or EntityState.Modified)
            .Select(entry => entry.Entity)
            .ToHashSet();
        var moved = db
            .ChangeTracker.Entries<Project>()
            .Where(entry =>
                entry.State == EntityState.Modified
                && (entry.Property(project => project.Stage).IsModified || entry.Property(project => project.ParkedUntil).IsModified)
            )
            .Select(entry => entry.Entity.Id)
            .ToList();
        if (moved.Count > 0)
            touched.UnionWith(await db.Inquiries.Where(inquiry => moved.Contains(inquiry.ProjectId)).ToListAsync(cancellationToken));
        if (db.ChangeTracker.Entries<Business>().Any(entry => entry.Property(business => business.Lists).IsModified))
            touched.UnionWith(await db.Inquiries.ToListAsync(cancellationToken));
        if (touched.Count == 0)
            return;
        var kinds = (await db.BusinessAsync()).Lists.Stages.ToDictionary(stage => stage.Key, stage => stage.Kind);
        foreach (var inquiry in touched)
        {
            var project = (await db.Projects.FindAsync([inquiry.ProjectId], cancellationToken))!;
            inquiry.Place = InquiryPlace.Of(
                inquiry.Turn,
                inquiry.Received,
                inquiry.PromisedBy,
                kinds.TryGetValue(project.Stage, out var kind) ? kind : null,
                project.ParkedUntil
            );
        }
    }

    /// <summary>Fills what lists show of inquiries that an earlier release kept; a business that has it already is left alone.</summary>
    public static async Task UpgradeAsync(PorchDb db)
    {
        if (!await db.Inquiries.AnyAsync(inquiry => inquiry.About == ""))
            return;
        await using var write = await db.WriteAsync(CancellationToken.None);
        foreach (var inquiry in await db.Inquiries.Where(inquiry => inquiry.About == "").ToListAsync())
        {
            var sent = (await db.Submissions.FindAsync(inquiry.SubmissionId))!;
            var content = (await db.FormVersionAsync(inquiry.FormId, inquiry.FormVersion))!.Content;
            inquiry.About = InquirySummary.Of(content, sent.Answers.ByQuestion);
            (inquiry.Score, inquiry.Flags) = (inquiry.Verdict.Score, inquiry.Verdict.Flags);
        }

        await write.SaveAsync(CancellationToken.None);
        db.ChangeTracker.Clear();
    }
}
