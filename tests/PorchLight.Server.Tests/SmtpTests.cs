using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using MimeKit;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Messages;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class SmtpTests
{
    private static readonly Duration OneMinute = Duration.FromMinutes(1);

    [Fact]
    public async Task A_message_goes_out_as_it_was_written_and_says_that_nobody_wrote_it()
    {
        await using var server = new SmtpHost();
        await using var app = new TestApp();
        await SendByAsync(app, server);
        var answers = Answers();
        answers["name"] = new PersonNameAnswer("Tíldà", "Brackenridge");
        await app.SendAsync(answers);
        await app.WorkAsync();
        using var raw = new MemoryStream(System.Text.Encoding.UTF8.GetBytes(server.Taken.Single()));
        var message = await MimeMessage.LoadAsync(raw);
        var mail = await OnlyMailAsync(app);
        message.Subject.ShouldBe("Your wall: thank you, Tíldà");
        message
            .From.Mailboxes.Single()
            .ShouldSatisfyAllConditions(from => from.Address.ShouldBe("hello@ochrewren.example"), from => from.Name.ShouldBe("Ochre Wren"));
        message.To.Mailboxes.Single().Address.ShouldBe("tilda@bakes.example");
        $"<{message.MessageId}>".ShouldBe(mail.MessageId);
        message.TextBody!.ReplaceLineEndings("\n").Trim().ShouldBe(mail.Text.Trim());
        message.Headers[HeaderId.AutoSubmitted].ShouldBe("auto-replied", "RFC 3834, 5");
        mail.State.ShouldBe(MailState.HandedOver);
        (await app.AskAsync(db => db.PracticeMail.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task A_refusal_for_now_is_tried_again_after_growing_pauses_until_it_goes()
    {
        await using var server = new SmtpHost(SmtpBehaviour.RefusesForNow, SmtpBehaviour.RefusesForNow, SmtpBehaviour.RefusesForNow);
        await using var app = new TestApp();
        await SendByAsync(app, server);
        await app.SendAsync(Answers());
        var tries = new List<int>();
        for (var minute = 0; minute < 9; minute++)
        {
            await app.WorkAsync();
            tries.Add(server.Connections);
            app.Time.Advance(TimeSpan.FromMinutes(1));
        }

        tries.ShouldBe([1, 2, 2, 3, 3, 3, 3, 4, 4], "after one, two and four minutes");
        (await OnlyMailAsync(app)).State.ShouldBe(MailState.HandedOver);
        server.Taken.Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_message_refused_too_often_waits_for_a_person_with_its_reason()
    {
        await using var server = new SmtpHost(Enumerable.Repeat(SmtpBehaviour.RefusesForNow, 20));
        await using var app = new TestApp();
        await SendByAsync(app, server);
        await app.SendAsync(Answers());
        for (var n = 0; n < 12; n++)
            await app.PassTimeAsync(Duration.FromHours(3));
        var mail = await OnlyMailAsync(app);
        (mail.State, mail.Tries, mail.LastFailure).ShouldBe((MailState.Failed, 8, "The mail server says: 4.7.1 Please come back later."));
        server.Connections.ShouldBe(8);
    }

    [Fact]
    public async Task A_refusal_for_good_is_not_repeated_and_rings_and_a_person_can_send_it_again()
    {
        await using var server = new SmtpHost(SmtpBehaviour.RefusesForGood);
        await using var app = new TestApp();
        await SendByAsync(app, server);
        await app.SendAsync(Answers());
        await app.WorkAsync();
        await app.PassTimeAsync(Duration.FromDays(1));
        server.Connections.ShouldBe(1);
        var owner = app.Owner();
        var today = await owner.GetAsync("/api/today").JsonAsync();
        var row = today.GetProperty("stuck")[0];
        (row.GetProperty("perhaps").GetBoolean(), row.Text("why")).ShouldBe(
            (false, "The mail server says: 5.1.1 There is no such mailbox.")
        );
        (await owner.GetAsync("/api/bell").JsonAsync())
            .GetProperty("entries")
            .EnumerateArray()
            .ShouldContain(entry => entry.Text("sentence").Contains("no such mailbox", StringComparison.Ordinal));

        (await owner.PostAsync($"/api/mail/{row.Text("id")}/again", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.PostAsync($"/api/mail/{row.Text("id")}/again", null)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        await app.WorkAsync();
        server.Seen.ToArray().ShouldBe([(await OnlyMailAsync(app)).MessageId]);
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("stuck").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_server_that_hangs_is_given_up_and_asked_again()
    {
        await using var server = new SmtpHost(SmtpBehaviour.Hangs);
        await using var app = new TestApp { Settings = { ["PorchLight:SmtpTimeoutSeconds"] = "0.3" } };
        await SendByAsync(app, server);
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var mail = await OnlyMailAsync(app);
        (mail.State, mail.LastFailure).ShouldBe((MailState.Queued, "The mail server does not answer."));
        await app.PassTimeAsync(OneMinute);
        (await OnlyMailAsync(app)).State.ShouldBe(MailState.HandedOver);
        server.Taken.Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_message_that_cannot_be_made_ready_waits_for_a_person_and_not_on_the_line()
    {
        await using var server = new SmtpHost();
        await using var app = new TestApp();
        await SendByAsync(app, server);
        await app.SendAsync(Answers());
        await app.ChangeAsync(db => db.OutgoingMail.ExecuteUpdateAsync(mail => mail.SetProperty(one => one.To, "no address at all <")));
        await app.WorkAsync();
        var mail = await OnlyMailAsync(app);
        mail.State.ShouldBe(MailState.Failed);
        mail.LastFailure!.ShouldStartWith("The message could not be made ready");
        server.Connections.ShouldBe(0);
    }

    [Fact]
    public async Task One_dead_server_holds_up_one_message_a_pass_and_steps_of_runs_not_at_all()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await using (var server = new SmtpHost())
            await SendByAsync(app, server);
        for (var n = 0; n < 3; n++)
            await app.SendAsync(Answers($"lead{n}@bakes.example"));
        await app.PassTimeAsync(Duration.FromDays(1));
        (await app.AskAsync(db => db.OutgoingMail.Select(mail => mail.Tries).ToListAsync())).ShouldBe([1, 0, 0], ignoreOrder: true);
        (await app.AskAsync(db => db.Events.ToListAsync())).Count(logged => logged.What is NodAsked).ShouldBe(3);
    }

    [Fact]
    public async Task A_line_that_breaks_in_mid_message_means_the_server_does_not_have_it()
    {
        await using var server = new SmtpHost(SmtpBehaviour.DropsInMidMessage);
        await using var app = new TestApp();
        _ = app.Server;
        // More than the buffers of the line hold, so that the end mark cannot have left before the line breaks.
        var long1 = SmtpCarrier.Compose(
            "Ochre Wren",
            "a@b.example",
            "c@d.example",
            "Long",
            string.Concat(Enumerable.Repeat("A wall is a wall.\n", 3_000_000))
        );
        var ended = await CarryAsync(app, server, long1);
        ended.ShouldBe(new HandOver.Refused("The line to the mail server broke.", LineIsDown: true));
    }

    [Fact]
    public async Task A_line_that_breaks_after_the_end_is_perhaps_sent_and_never_repeated_by_itself()
    {
        await using var server = new SmtpHost(SmtpBehaviour.DropsAfterTheEnd);
        await using var app = new TestApp();
        await SendByAsync(app, server);
        await app.SendAsync(Answers());
        await app.WorkAsync();
        await app.PassTimeAsync(Duration.FromHours(20));
        server.Connections.ShouldBe(1, "RFC 1047: a second copy would be the price of trying again");
        var mail = await OnlyMailAsync(app);
        mail.State.ShouldBe(MailState.PerhapsSent);
        var owner = app.Owner();
        (await owner.GetAsync($"/api/mail/{mail.Id}").JsonAsync()).GetProperty("perhaps").GetBoolean().ShouldBeTrue();

        (await owner.PostAsync($"/api/mail/{mail.Id}/again", null)).EnsureSuccessStatusCode();
        await app.WorkAsync();
        server.Seen.ToArray().ShouldBe([mail.MessageId, mail.MessageId], "a mailbox can tell the second copy");
    }

    [Fact]
    public async Task A_server_that_takes_the_message_but_hangs_at_the_goodbye_has_it()
    {
        await using var server = new SmtpHost(SmtpBehaviour.TakesAndHangsAtQuit);
        await using var app = new TestApp { Settings = { ["PorchLight:SmtpTimeoutSeconds"] = "1" } };
        await SendByAsync(app, server);
        await app.SendAsync(Answers());
        await app.WorkAsync();
        (await OnlyMailAsync(app)).State.ShouldBe(MailState.HandedOver);
    }

    [Fact]
    public async Task What_was_on_the_line_when_the_program_went_down_is_perhaps_sent_please_look()
    {
        await using var server = new SmtpHost();
        await using var app = new TestApp();
        await SendByAsync(app, server);
        await app.SendAsync(Answers());
        await app.ChangeAsync(db => db.OutgoingMail.ExecuteUpdateAsync(mail => mail.SetProperty(one => one.State, MailState.HandingOver)));
        await app.Services.GetRequiredService<DueWork>().LookAfterStartAsync(CancellationToken.None);
        await app.PassTimeAsync(Duration.FromHours(1));
        server.Connections.ShouldBe(0);
        var owner = app.Owner();
        var mail = await OnlyMailAsync(app);
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("stuck")[0].GetProperty("perhaps").GetBoolean().ShouldBeTrue();
        (await owner.PostAsync($"/api/mail/{mail.Id}/leave", null)).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("stuck").GetArrayLength().ShouldBe(0);
        var inquiry = await app.AskAsync(db => db.Inquiries.Select(one => one.Id).SingleAsync());
        (await owner.GetAsync($"/api/inquiries/{inquiry}").JsonAsync())
            .GetProperty("timeline")
            .EnumerateArray()
            .ShouldContain(entry => entry.Text("sentence").Contains("perhaps sent", StringComparison.Ordinal));
    }

    [Fact]
    public async Task The_owner_tries_settings_before_they_are_kept_and_hears_what_the_server_says()
    {
        await using var server = new SmtpHost(SmtpBehaviour.RefusesSignIn, SmtpBehaviour.Takes);
        await using var app = new TestApp();
        var owner = app.Owner();
        var setting = Setting(server, user: "maren", password: "hush");
        var refused = await owner.PostAsync("/api/settings/mail/test", Body(setting)).JsonAsync();
        (refused.GetProperty("arrived").GetBoolean(), refused.Text("sentence")).ShouldBe(
            (false, "The mail server does not accept the user name and password.")
        );
        var taken = await owner.PostAsync("/api/settings/mail/test", Body(setting)).JsonAsync();
        (taken.GetProperty("arrived").GetBoolean(), taken.Text("sentence")).ShouldBe(
            (true, "The mail server took the test message to maren@ochrewren.example. Look whether it arrives.")
        );
        server.Taken.Single().ShouldContain("Subject: A test from Ochre Wren");
        (await owner.GetAsync("/api/settings/mail").JsonAsync())
            .GetProperty("setting")
            .GetProperty("practice")
            .GetBoolean()
            .ShouldBeTrue("trying keeps nothing");
    }

    [Fact]
    public async Task The_password_is_sealed_never_told_and_only_kept_for_its_own_server()
    {
        await using var server = new SmtpHost();
        await using var app = new TestApp();
        var owner = app.Owner();
        var practice = Practice();
        var setting = Setting(server, user: "maren", password: "hush-hush");
        (await owner.PutAsync("/api/settings/mail", Body(new { was = practice, now = setting }))).EnsureSuccessStatusCode();
        var stored = await owner.GetAsync("/api/settings/mail");
        (await stored.Content.ReadAsStringAsync()).ShouldNotContain("hush-hush");
        (await app.AskAsync(db => db.Businesses.Select(business => business.Smtp).SingleAsync()))!.PasswordSealed!.ShouldNotContain(
            "hush-hush"
        );

        var known = setting with { Password = "" };
        (await owner.PutAsync("/api/settings/mail", Body(new { was = known, now = known with { Port = 2525 } }))).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Businesses.Select(business => business.Smtp).SingleAsync()))!.PasswordSealed.ShouldNotBeNull();
        (
            await owner.PutAsync(
                "/api/settings/mail",
                Body(new { was = known with { Port = 2525 }, now = known with { Port = 2525, Host = "elsewhere.example" } })
            )
        ).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Businesses.Select(business => business.Smtp).SingleAsync()))!.PasswordSealed.ShouldBeNull(
            "it was given for another server"
        );
        var bad = await owner.PutAsync(
            "/api/settings/mail",
            Body(new { was = known with { Port = 2525, Host = "elsewhere.example" }, now = known with { Host = "no such host", Port = 0 } })
        );
        (await bad.PlacesAsync()).ShouldBe(["host", "port"]);
    }

    private static MailSettingsEndpoints.MailSetting Practice() => new(true, "", 587, MailSecurity.StartTls, "", "");

    private static MailSettingsEndpoints.MailSetting Setting(SmtpHost server, string user = "", string password = "") =>
        new(false, "127.0.0.1", server.Port, MailSecurity.None, user, password);

    private static async Task SendByAsync(TestApp app, SmtpHost server) =>
        (await app.Owner().PutAsync("/api/settings/mail", Body(new { was = Practice(), now = Setting(server) }))).EnsureSuccessStatusCode();

    private static Task<OutgoingMail> OnlyMailAsync(TestApp app) => app.AskAsync(db => db.OutgoingMail.SingleAsync());

    private static Task<HandOver> CarryAsync(TestApp app, SmtpHost server, MimeMessage message) =>
        app
            .Services.GetRequiredService<SmtpCarrier>()
            .CarryAsync(new SmtpSettings("127.0.0.1", server.Port, MailSecurity.None, null, null), null, message, CancellationToken.None);
}
