using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Remembers to thank who sent somebody.</summary>
internal static class Referrals
{
    /// <summary>
    /// Adds a task for the next working day where an inquiry says that a person sent them, as part of the caller's write.
    /// </summary>
    public static void ThankFor(PorchDb db, LandingPlan plan, Client client, Project project, Business business, Instant now)
    {
        if (plan.Writes.FirstOrDefault(write => write.Field == BuiltInFields.Source.Key) is not { } source)
            return;
        if (
            ReferralThanks.For(AnswerWords.Say(source.Value), client.Name, business.Lists, business.Calendar, business.Calendar.Today(now))
            is not { } thanks
        )
            return;
        db.ClientTasks.Add(
            new ClientTask
            {
                Id = new Id<ClientTask>(Guid.CreateVersion7()),
                ClientId = client.Id,
                ProjectId = project.Id,
                Title = thanks.Title,
                IsDate = false,
                On = thanks.On,
                By = "Porch Light",
                At = now,
            }
        );
    }
}
