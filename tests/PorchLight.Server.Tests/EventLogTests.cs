using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.AcrossAreas;
using PorchLight.Server.Brand;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>The one place where things happen.</summary>
public sealed partial class EventLogTests
{
    [Fact]
    public async Task Every_event_carries_its_kind_and_what_went_out_names_its_mail()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        await app.PassTimeAsync(NodaTime.Duration.FromDays(1));
        var events = await app.AskAsync(db => db.Events.OrderBy(logged => logged.Seq).ToListAsync());
        events.Select(logged => logged.Kind).ShouldBe(["inquiryReceived", "runStarted", "messageSent", "answersLanded", "nodAsked"]);
        events.ShouldAllBe(logged => logged.Kind == logged.What.Kind());
        var mail = await app.AskAsync(db => db.OutgoingMail.SingleAsync());
        events.Single(logged => logged.Kind == "messageSent").MailId.ShouldBe(mail.Id);
    }

    [Fact]
    public async Task A_mail_to_somebody_who_is_no_client_that_cannot_be_delivered_is_an_event_too_and_rings_no_bell()
    {
        await using var app = new TestApp();
        await app.ChangeAsync(async db =>
        {
            var business = await db.BusinessAsync();
            business.Smtp = new SmtpSettings("127.0.0.1", 1, MailSecurity.None, null, null);
            await using var scope = app.Services.CreateAsyncScope();
            ActivatorUtilities
                .CreateInstance<MailQueue>(scope.ServiceProvider, db)
                .Queue("test", business, "no address at all", null, new MailContent("Your code", "1"), automatic: true, app.Now);
        });
        await app.WorkAsync();
        var failed = await app.AskAsync(db => db.Events.SingleAsync());
        (failed.Kind, failed.ClientId, failed.Rings).ShouldBe(("deliveryFailed", null, false));
        failed.MailId.ShouldNotBeNull();
        var sentence = await app.AskAsync(async db =>
            failed.What.Say((await Timeline.NamesAsync(db, [failed], CancellationToken.None))(failed))
        );
        sentence.ShouldStartWith("“Your code” could not be delivered to no address at all:");
    }

    [Fact]
    public async Task Reactions_that_call_each_other_without_end_are_stopped_and_nothing_is_stored()
    {
        await using var app = new TestApp { Change = services => services.AddScoped<IEventReaction, Echo>() };
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        await using (await db.WriteAsync(CancellationToken.None))
        {
            var endless = await Should.ThrowAsync<InvalidOperationException>(() =>
                scope.ServiceProvider.GetRequiredService<EventLog>().AppendAsync(new CallAsked(), app.Now, new EventContext(null))
            );
            endless.Message.ShouldContain("callAsked");
        }

        (await app.AskAsync(db => db.Events.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task Who_has_left_still_has_a_name_in_what_they_did()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        (await app.Member().PostAsync($"/api/inquiries/{inquiry.Id}/answered-elsewhere", null)).EnsureSuccessStatusCode();
        var sunil = await app.AskAsync(db => db.Users.SingleAsync(user => user.DisplayName == "Sunil Abara"));
        (await app.Owner().DeleteAsync($"/api/people/{sunil.Id}")).EnsureSuccessStatusCode();
        var shown = await app.Owner().GetAsync($"/api/inquiries/{inquiry.Id}").JsonAsync();
        shown.GetProperty("timeline")[0].Text("sentence").ShouldBe("Sunil Abara answered Tilda Brackenridge elsewhere.");
    }

    [Fact]
    public void Nothing_but_the_log_adds_an_event()
    {
        var source = Directory
            .EnumerateFiles(Repository.Find("src/PorchLight.Server"), "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Contains("/obj/", StringComparison.Ordinal));
        source.Where(file => Adds().IsMatch(File.ReadAllText(file))).Select(Path.GetFileName).ShouldBe(["EventLog.cs"]);
    }

    [GeneratedRegex(@"\bEvents\.Add|new LoggedEvent")]
    private static partial Regex Adds();

    private sealed class Echo(EventLog events) : IEventReaction
    {
        public Task ReactAsync(LoggedEvent logged) => events.AppendAsync(new CallAsked(), logged.At, new EventContext(null));
    }
}
