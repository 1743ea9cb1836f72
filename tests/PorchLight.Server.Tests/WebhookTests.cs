using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Webhooks;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Follow-throughs call other programs: signed, tried again, logged, and never into one's own network.</summary>
public sealed class WebhookTests
{
    [Fact]
    public async Task A_step_calls_a_webhook_once_with_what_is_on_file_and_the_other_side_can_check_the_signature()
    {
        await using var hook = await WebhookHost.StartAsync();
        await using var app = WithPrivate();
        var (webhook, secret) = await MakeAsync(app, hook.Address);
        var client = await CallFromARunAsync(app, webhook);
        await Task.WhenAll(app.WorkAsync(), app.WorkAsync());
        await app.WorkAsync();

        var call = hook.Calls.ShouldHaveSingleItem();
        // As a receiver would check it, by the system's own library.
        var signed = HMACSHA256.HashData(
            Encoding.UTF8.GetBytes(secret),
            Encoding.UTF8.GetBytes($"{call.Headers["Porch-Light-Time"]}.{call.Body}")
        );
        call.Headers["Porch-Light-Signature"].ShouldBe("sha256=" + Convert.ToHexStringLower(signed));
        call.Headers["Content-Type"].ShouldStartWith("application/json");
        using var body = JsonDocument.Parse(call.Body);
        var told = body.RootElement;
        told.GetProperty("client").Text("id").ShouldBe(client.ToString());
        told.GetProperty("client").Text("name").ShouldBe("Tilda Brackenridge");
        told.GetProperty("project").Text("stage").ShouldBe("new");
        told.Text("step").ShouldBe("call");
        told.GetProperty("values").GetProperty("client.name").Text("words").ShouldBe("Tilda Brackenridge");

        var log = (await app.Owner().WholeListAsync("/api/webhooks/calls")).GetProperty("rows");
        log.GetArrayLength().ShouldBe(1);
        log[0].Text("state").ShouldBe("taken");
        log[0].GetProperty("tries")[0].Text("sentence").ShouldBe("Taken (204).");
    }

    [Fact]
    public async Task A_call_that_fails_is_tried_again_under_its_name_then_given_up_and_sent_again_by_hand()
    {
        await using var hook = await WebhookHost.StartAsync(Enumerable.Repeat(503, 8));
        await using var app = WithPrivate();
        var (webhook, _) = await MakeAsync(app, hook.Address);
        var owner = app.Owner();
        (await owner.PostAsync($"/api/webhooks/{webhook}/test", null)).EnsureSuccessStatusCode();
        await app.WorkAsync();
        var pauses = new List<double>();
        while ((await app.AskAsync(db => db.WebhookCalls.SingleAsync())).NextTry is { } next)
        {
            pauses.Add((next - app.Now).TotalMinutes);
            await app.PassTimeAsync(next - app.Now);
        }

        pauses.ShouldBe([1, 2, 4, 8, 16, 32, 64]);
        hook.Calls.Select(call => call.Headers["Porch-Light-Delivery"]).Distinct().Count().ShouldBe(1, "one delivery, tried eight times");
        hook.Calls.Count.ShouldBe(8);
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("givenUpCalls").GetInt32().ShouldBe(1);
        var call = (await owner.WholeListAsync("/api/webhooks/calls")).GetProperty("rows")[0];
        call.Text("state").ShouldBe("failed");
        call.GetProperty("tries")[7].Text("sentence").ShouldBe("The other side has a fault of its own (503).");

        (await owner.PostAsync($"/api/webhooks/calls/{call.Text("id")}/again", null)).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (await owner.WholeListAsync("/api/webhooks/calls")).GetProperty("rows")[0].Text("state").ShouldBe("taken");
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("givenUpCalls").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task A_program_that_never_answers_keeps_no_step_no_message_and_no_other_program_waiting()
    {
        var silence = new TaskCompletionSource();
        await using var dead = await WebhookHost.StartAsync();
        dead.Silence = silence.Task;
        await using var well = await WebhookHost.StartAsync();
        await using var app = WithPrivate();
        var owner = app.Owner();
        foreach (var address in new[] { dead.Address, well.Address })
        {
            var (webhook, _) = await MakeAsync(app, address);
            (await owner.PostAsync($"/api/webhooks/{webhook}/test", null)).EnsureSuccessStatusCode();
        }

        await app.SendAsync(Answers());
        var work = app.Services.GetRequiredService<DueWork>();
        var calls = work.PassAsync(DueLane.Webhooks, CancellationToken.None);
        await Task.WhenAll(dead.Called, well.Called);
        foreach (var lane in work.Lanes.Except([DueLane.Webhooks]))
            await work.PassAsync(lane, CancellationToken.None);
        (await app.AskAsync(db => db.PracticeMail.AnyAsync(mail => mail.To == "tilda@bakes.example"))).ShouldBeTrue("the thank-you went");
        calls.IsCompleted.ShouldBeFalse("the dead one has not answered yet");
        silence.SetResult();
        await calls;
    }

    [Fact]
    public async Task No_call_goes_into_ones_own_network_and_no_redirect_is_followed()
    {
        await using var hook = await WebhookHost.StartAsync(302);
        await using (var guarded = new TestApp())
        {
            await MakeAndTestAsync(guarded, hook.Address);
            await SentenceAsync(guarded, "This address leads into your own network, where Porch Light does not call.");
            hook.Calls.ShouldBeEmpty();
        }

        await using var app = WithPrivate();
        await MakeAndTestAsync(app, hook.Address.Replace("127.0.0.1", "localhost", StringComparison.Ordinal));
        await SentenceAsync(app, "The other side sends elsewhere (302). Give the address it names.");
        hook.Calls.Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_call_to_a_name_that_leads_nowhere_stays_in_the_program()
    {
        await using var app = new TestApp();
        await MakeAndTestAsync(app, "https://studio-board.example/hooks/porch");
        await SentenceAsync(app, "Taken (200).");
        (await app.Owner().GetAsync("/api/webhooks").JsonAsync())[0].GetProperty("isPractice").GetBoolean().ShouldBeTrue();
    }

    [Fact]
    public async Task A_webhook_is_changed_gets_another_secret_and_goes_with_its_log()
    {
        await using var hook = await WebhookHost.StartAsync();
        await using var app = WithPrivate();
        var owner = app.Owner();
        var (webhook, secret) = await MakeAsync(app, "https://nowhere.example/");
        var was = new { name = "Board", address = "https://nowhere.example/" };
        var refused = await owner.PutAsync($"/api/webhooks/{webhook}", Body(new { was, now = new { name = "", address = "nowhere" } }));
        (await refused.PlacesAsync()).ShouldBe(["name", "address"]);
        (
            await owner.PutAsync($"/api/webhooks/{webhook}", Body(new { was, now = new { name = "Board", address = hook.Address } }))
        ).EnsureSuccessStatusCode();
        var renewed = (await owner.PostAsync($"/api/webhooks/{webhook}/secret", null).JsonAsync()).Text("secret");
        renewed.ShouldNotBe(secret);
        (await owner.PostAsync($"/api/webhooks/{webhook}/test", null)).EnsureSuccessStatusCode();
        await app.WorkAsync();
        var call = hook.Calls.ShouldHaveSingleItem();
        call.Headers["Porch-Light-Signature"]
            .ShouldBe(
                WebhookSignature.Sign(renewed, Instant.FromUnixTimeSeconds(long.Parse(call.Headers["Porch-Light-Time"], null)), call.Body)
            );
        (await owner.DeleteAsync($"/api/webhooks/{webhook}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await app.AskAsync(db => db.WebhookCalls.CountAsync())).ShouldBe(0);
        (await app.Member().GetAsync("/api/webhooks")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task What_a_webhook_was_told_of_somebody_goes_when_they_are_erased()
    {
        await using var app = new TestApp();
        var (webhook, _) = await MakeAsync(app, "https://nowhere.example/");
        var client = await CallFromARunAsync(app, webhook);
        await app.WorkAsync();
        (await app.AskAsync(db => db.WebhookCalls.SingleAsync())).Body.ShouldContain("Brackenridge");
        (await app.Owner().DeleteAsync($"/api/clients/{client}")).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.WebhookCalls.CountAsync())).ShouldBe(0);
    }

    internal static TestApp WithPrivate() => new() { Settings = { ["PorchLight:WebhooksMayCallPrivateAddresses"] = "true" } };

    internal static async Task<(Id<Webhook> Id, string Secret)> MakeAsync(TestApp app, string address)
    {
        var made = await app.Owner().PostAsync("/api/webhooks", Body(new { name = "Board", address })).JsonAsync();
        return (Id<Webhook>.Parse(made.Text("id"), null), made.Text("secret"));
    }

    private static async Task MakeAndTestAsync(TestApp app, string address)
    {
        var (webhook, _) = await MakeAsync(app, address);
        (await app.Owner().PostAsync($"/api/webhooks/{webhook}/test", null)).EnsureSuccessStatusCode();
        await app.WorkAsync();
    }

    private static async Task SentenceAsync(TestApp app, string sentence) =>
        (await app.Owner().WholeListAsync("/api/webhooks/calls"))
            .GetProperty("rows")[0]
            .GetProperty("tries")[0]
            .Text("sentence")
            .ShouldBe(sentence);

    private static async Task<Id<Client>> CallFromARunAsync(TestApp app, Id<Webhook> webhook)
    {
        await RunTests.OthersAreOffAsync(app);
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        await RunTests.StartAsync(
            app,
            RunTests.Content(RunTests.Step("call", new CallWebhook(webhook.Value))),
            new EventContext(client, project, inquiry)
        );
        return client;
    }
}
