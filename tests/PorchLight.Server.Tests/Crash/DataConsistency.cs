using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests.Crash;

/// <summary>What holds at rest, whatever has become of it before.</summary>
internal static class DataConsistency
{
    public static async Task ShouldBeSoundAsync(PorchDb db, string because)
    {
        (await db.Database.SqlQueryRaw<string>("SELECT integrity_check AS Value FROM pragma_integrity_check").ToListAsync()).ShouldBe(
            ["ok"],
            because
        );
        (await db.Database.SqlQueryRaw<string>("SELECT \"table\" AS Value FROM pragma_foreign_key_check").ToListAsync()).ShouldBeEmpty(
            because
        );
        await RunsAndMessagesAgreeAsync(db, because);
        await InquiriesStandWhereTheyBelongAsync(db, because);
    }

    /// <summary>What lists are in order of is what the turn of each inquiry and the stage of its project say.</summary>
    private static async Task InquiriesStandWhereTheyBelongAsync(PorchDb db, string because)
    {
        var kinds = (await db.BusinessAsync()).Lists.Stages.ToDictionary(stage => stage.Key, stage => stage.Kind);
        foreach (
            var one in await db
                .Inquiries.AsNoTracking()
                .Join(db.Projects, inquiry => inquiry.ProjectId, project => project.Id, (inquiry, project) => new { inquiry, project })
                .ToListAsync()
        )
        {
            one.inquiry.Rank.ShouldBe(
                InquiryRank.Of(
                    one.inquiry.Turn,
                    one.inquiry.Received,
                    one.inquiry.PromisedBy,
                    kinds[one.project.Stage],
                    one.project.ParkedUntil,
                    one.inquiry.Aside
                ),
                because
            );
            (one.inquiry.Stage, one.inquiry.LooksAfterId).ShouldBe((one.project.Stage, one.project.LooksAfterId), because);
            one.inquiry.About.ShouldNotBeEmpty(because);
            var (client, project) = (one.inquiry.ClientId, one.inquiry.ProjectId);
            var values = await db
                .FieldValues.AsNoTracking()
                .Where(value => value.ClientId == client && value.IsCurrent && (value.ProjectId == null || value.ProjectId == project))
                .ToDictionaryAsync(value => value.Field);
            one.inquiry.BudgetAmount.ShouldBe(values.GetValueOrDefault("project.budget")?.OrderNumber, because);
            (one.inquiry.Service is null).ShouldBe(!values.ContainsKey("project.service"), because);
            (one.inquiry.Source is null).ShouldBe(!values.ContainsKey("client.source"), because);
            one.inquiry.SortName.ShouldBe(
                await db.Clients.IgnoreQueryFilters().Where(one => one.Id == client).Select(one => one.SortName).SingleAsync(),
                because
            );
        }
    }

    /// <summary>Each step that is done made one message, no other did, and each message reached the practice mailbox once.</summary>
    private static async Task RunsAndMessagesAgreeAsync(PorchDb db, string because)
    {
        // What tells colleagues is no step of its own.
        var mails = await db.OutgoingMail.Where(mail => mail.ClientId != null).ToListAsync();
        var byEffect = mails.ToLookup(mail => mail.EffectKey);
        var steps = 0;
        foreach (var run in await db.Runs.ToListAsync())
        {
            run.Active.ShouldBe(run.State.Status == RunStatus.Active, because);
            run.Active.ShouldBe(run.State.Current is not null, because);
            run.NodStatus.ShouldBe(
                run.State.Current is { Status: StepStatus.Waiting or StepStatus.Approved } asks ? asks.Status : null,
                because
            );
            run.State.Steps.SkipWhile(step => !step.IsPending)
                .ShouldAllBe(step => step.IsPending, "what comes after is not settled before; " + because);
            var content = (await db.FollowThroughVersions.FindAsync(run.FollowThroughId, run.FollowThroughNumber))!.Content;
            foreach (var step in run.State.Steps.Where(step => content.Step(step.Key).Action is SendMessage))
            {
                // The word at once to what somebody just did goes under a name of its own.
                var done = byEffect[$"run {run.Id} step {step.Key}"].Concat(byEffect[$"answer of run {run.Id} step {step.Key}"]);
                done.Count().ShouldBe(step.Status == StepStatus.Done ? 1 : 0, because);
                steps += step.Status == StepStatus.Done ? 1 : 0;
            }
        }

        mails.Count.ShouldBe(steps, because);
        var practice = await db.PracticeMail.Where(mail => !mail.Incoming && mail.ClientId != null).ToListAsync();
        practice
            .Select(mail => mail.MessageId)
            .ShouldBe(mails.Where(mail => mail.State == MailState.HandedOver).Select(mail => mail.MessageId), ignoreOrder: true, because);
        practice.GroupBy(mail => (mail.To, mail.Subject)).ShouldAllBe(copies => copies.Count() == 1, because);
        (await db.Events.ToListAsync()).Count(logged => logged.What is MessageSent).ShouldBe(mails.Count, because);
    }
}
