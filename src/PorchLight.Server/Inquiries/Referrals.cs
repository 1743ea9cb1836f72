using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Remembers to thank who sent somebody.</summary>
internal static class Referrals
{
    private const int LongestTitle = 200;

    /// <summary>
    /// Adds a task for the next working day where an inquiry says that a person sent them, as part of the caller's write.
    /// </summary>
    public static void ThankFor(PorchDb db, LandingPlan plan, Client client, Project project, Business business, Instant now)
    {
        if (plan.Writes.FirstOrDefault(write => write.Field == BuiltInFields.Source.Key) is not { } source)
            return;
        var words = AnswerWords.Say(source.Value);
        if (business.Lists.SourceCalled(words) is not { IsReferral: true } way)
            return;
        var title = string.Equals(way.Name, words, StringComparison.OrdinalIgnoreCase)
            ? $"Thank who sent {client.Name}"
            : $"Thank who sent {client.Name}: {words}";
        db.ClientTasks.Add(
            new ClientTask
            {
                Id = new Id<ClientTask>(Guid.CreateVersion7()),
                ClientId = client.Id,
                ProjectId = project.Id,
                Title = title.Length <= LongestTitle ? title : title[..LongestTitle],
                IsDate = false,
                On = business.Calendar.WorkingDaysAfter(business.Calendar.Today(now), 1),
                By = "Porch Light",
                At = now,
            }
        );
    }
}
