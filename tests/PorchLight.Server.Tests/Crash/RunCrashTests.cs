using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests.Crash;

/// <summary>The program dies once at either side of every commit while a run acts and its person answers.</summary>
public sealed class RunCrashTests : IDisposable
{
    private static readonly Guid Press = new("019abc00-0000-7000-8000-000000000003");

    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-run-crash-").FullName;

    [Fact]
    public async Task A_task_a_hand_over_a_call_and_a_reply_in_flight_take_effect_once_wherever_it_dies()
    {
        await using var hook = await WebhookHost.StartAsync();
        var points = new CommitPoints(_folder);
        Dictionary<string, long> undisturbed;
        await using (var app = CommitPointTests.Watched(points, ("PorchLight:WebhooksMayCallPrivateAddresses", "true")))
        {
            await BeginAsync(app, hook.Address);
            points.Watched = app.Folder;
            await app.WorkAsync();
            await AnswerAsync(app);
            await app.WorkAsync();
            points.Watched = null;
            undisturbed = await app.AskAsync(CommitPointTests.CountsAsync);
        }

        points.Taken.Count.ShouldBeGreaterThan(8, "a task, a hand-over, a call and how it ended, and a reply");
        undisturbed["ClientTasks"].ShouldBe(1);
        undisturbed["ProjectWatchers"].ShouldBe(1);
        undisturbed["WebhookCalls"].ShouldBe(1);
        hook.Calls.Count.ShouldBe(1);
        foreach (var copy in points.Taken)
        {
            var because = $"it died at commit point {Path.GetFileName(copy)}";
            var before = hook.Calls.Count;
            await using var app = CommitPointTests.Revived(copy, 0, ("PorchLight:WebhooksMayCallPrivateAddresses", "true"));
            await app.Services.GetRequiredService<DueWork>().LookAfterStartAsync(CancellationToken.None);
            await app.WorkAsync();
            await AnswerAsync(app);
            await app.WorkAsync();
            await app.AskAsync(async db =>
            {
                (await CommitPointTests.CountsAsync(db)).ShouldBe(undisturbed, ignoreOrder: true, because);
                var call = await db.WebhookCalls.SingleAsync();
                call.State.ShouldBe(WebhookState.Taken, because);
                // A call whose end nobody saw is made again, under the name by which the other side knows it.
                hook.Calls.Skip(before)
                    .Select(one => one.Headers[WebhookSignature.DeliveryHeader])
                    .ShouldAllBe(name => name == call.Id.ToString(), because);
                hook.Calls.Count.ShouldBeLessThanOrEqualTo(before + 1, because);
                (await db.Runs.Where(run => run.Active).CountAsync()).ShouldBe(0, because);
                await DataConsistency.ShouldBeSoundAsync(db, because);
                return 0;
            });
        }
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private static async Task BeginAsync(TestApp app, string address)
    {
        await RunTests.OthersAreOffAsync(app);
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        var (webhook, _) = await WebhookTests.MakeAsync(app, address);
        var sunil = await app.AskAsync(db => db.Users.SingleAsync(user => user.Email == Demo.DemoBusiness.MemberMail));
        await app.ChangeAsync(async db =>
            (await db.Projects.SingleAsync()).LooksAfterId = (await db.Users.SingleAsync(user => user.Id != sunil.Id)).Id
        );
        await RunTests.StartAsync(
            app,
            RunTests.Content(
                RunTests.Mail("hello"),
                RunTests.Step("task", new MakeTask("Measure", 0, null)),
                RunTests.Step("give", new HandOverProject(sunil.Id, KeepWatching: true)),
                RunTests.Step("call", new CallWebhook(webhook.Value)),
                RunTests.Mail("later", new Schedule(Anchor.PreviousSettled, 5, TimeUnit.Days))
            ),
            new EventContext(client, project, inquiry)
        );
        await app.AskAsync(db => new Inquiries.ClientSearch(db, new AlikeClients(db)).CatchUpAsync(CancellationToken.None));
    }

    /// <summary>The person answers, once: whoever got no answer presses again, under the same send key.</summary>
    private static async Task AnswerAsync(TestApp app)
    {
        var mail = await app.AskAsync(db => db.PracticeMail.SingleAsync(one => !one.Incoming && one.Subject == "hello"));
        var owner = app.Owner();
        owner.DefaultRequestHeaders.Add(SendOnce.Header, Press.ToString());
        var pressed = await owner.PostAsync($"/api/practice/mail/{mail.Id}/answer", Body(new { text = "Yes, gladly." }));
        // Whoever presses again what was done in the moment it died is told so.
        new[] { HttpStatusCode.NoContent, HttpStatusCode.Conflict }.ShouldContain(pressed.StatusCode);
    }
}
