using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Screening;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>What became of inquiries.</summary>
internal static class InquiryOutcomes
{
    /// <summary>What became of each of the inquiries of a query.</summary>
    public static async Task<Dictionary<Id<Inquiry>, Outcome>> OfAsync(
        PorchDb db,
        IQueryable<Inquiry> inquiries,
        CancellationToken cancellationToken
    )
    {
        var stages = (await db.BusinessAsync()).Lists.Stages.ToDictionary(stage => stage.Key);
        var rows = await (
            from inquiry in inquiries
            join project in db.Projects on inquiry.ProjectId equals project.Id
            join submission in db.Submissions on inquiry.SubmissionId equals submission.Id
            select new
            {
                inquiry.Id,
                inquiry.FormId,
                inquiry.FormVersion,
                inquiry.Closed,
                project.Stage,
                submission.SendOff,
            }
        ).ToListAsync(cancellationToken);
        var outcomes = new Dictionary<Id<Inquiry>, Outcome>();
        foreach (var row in rows)
        {
            var sendOff = (await db.FormVersionAsync(row.FormId, row.FormVersion))!.Content.FindSendOff(row.SendOff);
            outcomes[row.Id] = stages.GetValueOrDefault(row.Stage).OutcomeOf(sendOff is { TurnsAway: true }, row.Closed is not null);
        }

        return outcomes;
    }
}
