using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using MimeKit;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Mail that comes in: replies stop what is pending, automatic answers and bounces are shown and are none.</summary>
public sealed class IncomingMailTests
{
    private const string Lead = "tilda@pell.example";

    /// <summary>RFC 3834, appendix-like: a vacation note as 3.1 and 5 have it.</summary>
    private const string Vacation = """
        From: Tilda <tilda@pell.example>
        To: maren@ochrewren.example
        Subject: Auto: Your wall
        Message-ID: <vacation-1@pell.example>
        In-Reply-To: NAMED
        References: NAMED
        Auto-Submitted: auto-replied
        Date: Mon, 23 Nov 2026 10:30:00 +0000
        MIME-Version: 1.0
        Content-Type: text/plain; charset=utf-8

        I am away until December.
        """;

    /// <summary>The shape of the example in RFC 3464, appendix E.1, with our names in it.</summary>
    private const string Bounce = """
        Return-Path: <>
        Date: Mon, 23 Nov 2026 10:40:00 +0000
        From: Mail Delivery Subsystem <MAILER-DAEMON@pell.example>
        Message-Id: <bounce-1@pell.example>
        To: <maren@ochrewren.example>
        MIME-Version: 1.0
        Content-Type: multipart/report; report-type=delivery-status;
              boundary="RAA14128.773615765/CS.UTK.EDU"
        Subject: Returned mail: Cannot send message for 5 days

        --RAA14128.773615765/CS.UTK.EDU

        The original message was received at Mon, 23 Nov 2026 10:30:00 +0000

           ----- The following addresses had delivery problems -----
        <tilda@pell.example>  (unrecoverable error)

        --RAA14128.773615765/CS.UTK.EDU
        content-type: message/delivery-status

        Reporting-MTA: dns; cs.utk.edu

        Original-Recipient: rfc822;tilda@pell.example
        Final-Recipient: rfc822;tilda@pell.example
        Action: failed
        Status: 5.1.1
        Diagnostic-Code: smtp; 550 no such user

        --RAA14128.773615765/CS.UTK.EDU
        content-type: message/rfc822

        From: maren@ochrewren.example
        To: tilda@pell.example
        Message-ID: NAMED
        Subject: Your wall

        Gladly.
        --RAA14128.773615765/CS.UTK.EDU--
        """;

    [Fact]
    public async Task A_reply_is_taken_once_stops_what_is_pending_and_belongs_to_what_it_answers()
    {
        await using var app = new TestApp();
        var (run, sent) = await WaitingRunAsync(app);
        var reply = Message(
            """
            From: "Tilda Brackenridge" <TILDA@pell.example>
            To: maren@ochrewren.example
            Subject: Re: Your wall
            Message-ID: <reply-1@pell.example>
            In-Reply-To: NAMED
            MIME-Version: 1.0
            Content-Type: text/plain; charset=utf-8

            Yes, gladly. On Thursday?

            On Monday Maren wrote:
            > Shall we?
            """,
            sent
        );
        (await TakeAsync(app, reply))!.Kind.ShouldBe(IncomingKind.Reply);
        (await TakeAsync(app, reply)).ShouldBeNull("fetched twice it comes in once");
        (await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == run))).State.StoppedBy.ShouldBe(RunEnd.Replied);
        var logged = await app.AskAsync(db => db.Events.SingleAsync(one => one.Kind == "replyReceived"));
        logged.What.ShouldBe(new ReplyReceived("Re: Your wall", "Yes, gladly. On Thursday?"));
        logged.InquiryId.ShouldBe((await app.AskAsync(db => db.Inquiries.SingleAsync())).Id);
    }

    [Fact]
    public async Task An_automatic_answer_is_shown_and_stops_nothing()
    {
        await using var app = new TestApp();
        var (run, sent) = await WaitingRunAsync(app);
        (await TakeAsync(app, Message(Vacation, sent)))!.Kind.ShouldBe(IncomingKind.Automatic);
        (await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == run))).Active.ShouldBeTrue();
        (await app.AskAsync(db => db.Events.CountAsync(one => one.Kind == "replyReceived"))).ShouldBe(0);
        var shown = (await app.Owner().GetAsync($"/api/clients/{sent.ClientId}").JsonAsync()).ToString();
        shown.ShouldContain("An automatic answer came from Tilda Brackenridge: “Auto: Your wall”. It counts as no reply.");
        shown.ShouldContain("I am away until December.");
    }

    [Fact]
    public async Task What_came_back_stops_nothing_and_the_message_waits_for_a_person_with_its_reason()
    {
        await using var app = new TestApp();
        var (run, sent) = await WaitingRunAsync(app);
        (await TakeAsync(app, Message(Bounce, sent)))!.Kind.ShouldBe(IncomingKind.CameBack);
        (await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == run))).Active.ShouldBeTrue();
        var stuck = (await app.Owner().GetAsync("/api/today").JsonAsync()).GetProperty("stuck")[0];
        (stuck.Text("subject"), stuck.Text("why")).ShouldBe((sent.Subject, "Returned: there is no such address."));
        (await app.AskAsync(db => db.Events.CountAsync(one => one.Kind == "replyReceived"))).ShouldBe(0);

        // A report about a message that is none of ours is nobody's business here.
        (
            await TakeAsync(app, Message(Bounce.Replace("bounce-1", "bounce-2", StringComparison.Ordinal), "<x@elsewhere.example>"))
        ).ShouldBeNull();
    }

    [Fact]
    public async Task A_stranger_does_not_come_in_and_an_answer_from_another_address_of_theirs_does()
    {
        await using var app = new TestApp();
        var (_, sent) = await WaitingRunAsync(app);
        const string written = """
            From: someone@elsewhere.example
            Subject: Hello
            Message-ID: <NUMBER@elsewhere.example>
            REPLY
            Hello there.
            """;
        (await TakeAsync(app, Message(With("1", "")))).ShouldBeNull();
        (await TakeAsync(app, Message(With("2", "In-Reply-To: <0123@ochrewren.example>\n")))).ShouldBeNull();
        var taken = await TakeAsync(app, Message(With("3", $"In-Reply-To: {sent.MessageId}\n")));
        taken!.ClientId.ShouldBe(sent.ClientId!.Value);

        static string With(string number, string reply) =>
            written.Replace("NUMBER", number, StringComparison.Ordinal).Replace("REPLY", reply, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Of_a_message_in_HTML_only_words_are_kept_and_nothing_that_runs()
    {
        await using var app = new TestApp();
        await WaitingRunAsync(app);
        var taken = await TakeAsync(
            app,
            Message(
                """
                From: tilda@pell.example
                Subject: =?utf-8?q?Wall=0D=0ABcc:_all@example.com?=
                Message-ID: <html-1@pell.example>
                MIME-Version: 1.0
                Content-Type: text/html; charset=utf-8

                <html><head><title>no</title><style>p{}</style></head><body onload="steal()"><p>Yes,<br>gladly.</p>
                <script>steal()</script><img src=x onerror=steal()><p>Til<b>da</b></p></body></html>
                """
            )
        );
        taken!.Text.ShouldContain("Yes,");
        taken.Text.ShouldNotContain("steal");
        taken.Text.ShouldNotContain("<");
        taken.Subject.ShouldBe("WallBcc: all@example.com", "one line");
    }

    [Fact]
    public async Task An_answer_is_written_on_the_spot_and_stands_below_theirs_in_their_mailbox()
    {
        await using var app = new TestApp();
        var (_, sent) = await WaitingRunAsync(app);
        await TakeAsync(app, Message(Vacation, sent));
        var reply = await TakeAsync(
            app,
            Message("From: tilda@pell.example\nSubject: Your wall\nMessage-ID: <r@pell.example>\n\nYes.\n\nYou wrote:\n> Shall we?")
        );
        var owner = app.Owner();
        var conversation = await owner.GetAsync($"/api/clients/{sent.ClientId}/messages").JsonAsync();
        conversation.Text("subject").ShouldBe("Re: Your wall");
        conversation.Text("answers").ShouldBe(reply!.Id.ToString());
        conversation.GetProperty("messages").EnumerateArray().Select(one => one.Text("sort")).ShouldBe(["theirs", "automatic", "byItself"]);
        conversation.GetProperty("messages")[0].Text("quoted").ShouldBe("You wrote:\n> Shall we?");
        (
            await owner.PostAsync(
                $"/api/clients/{sent.ClientId}/messages",
                Body(
                    new
                    {
                        draft = new
                        {
                            subject = "Re: Your wall",
                            parts = new[]
                            {
                                new
                                {
                                    kind = "text",
                                    key = "text",
                                    text = "On Thursday, then.",
                                },
                            },
                        },
                        answers = reply.Id.Value,
                    }
                )
            )
        ).EnsureSuccessStatusCode();
        var answer = await app.AskAsync(db => db.OutgoingMail.OrderByDescending(mail => mail.Id).FirstAsync());
        answer.InReplyTo.ShouldBe("<r@pell.example>");
        var composed = SmtpCarrier.Compose(answer, "Ochre Wren", []);
        composed.InReplyTo.ShouldBe("r@pell.example");
        composed.References.ShouldBe(["r@pell.example"]);
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).WroteBack.ShouldBeNull("it is answered");
    }

    [Fact]
    public async Task A_mailbox_is_read_from_now_on_without_changing_it_and_the_mail_of_others_is_not_read()
    {
        await using var host = new ImapHost();
        await using var app = new TestApp();
        var (run, sent) = await WaitingRunAsync(app);
        host.Deliver("From: tilda@pell.example\nSubject: Long ago\nMessage-ID: <old@pell.example>\n\nOld.");
        var owner = app.Owner();
        var refused = await owner.PutAsync(
            "/api/settings/mailbox",
            Body(
                new
                {
                    was = Setting(host) with
                    {
                        Reads = false,
                        Host = "",
                        User = "",
                        Password = "",
                        Port = 993,
                    },
                    now = Setting(host) with
                    {
                        Password = "",
                    },
                }
            )
        );
        (await refused.PlacesAsync()).ShouldBe(["password"]);
        var wrong = await owner.PostAsync("/api/settings/mailbox/test", Body(Setting(host) with { Password = "wrong" })).JsonAsync();
        (wrong.GetProperty("worked").GetBoolean(), wrong.Text("sentence")).ShouldBe(
            (false, "The mail server does not accept the user name and password.")
        );
        (await owner.PostAsync("/api/settings/mailbox/test", Body(Setting(host))).JsonAsync())
            .GetProperty("worked")
            .GetBoolean()
            .ShouldBeTrue();
        (await owner.PutAsync("/api/settings/mailbox", Body(new { was = Before, now = Setting(host) }))).EnsureSuccessStatusCode();

        await ReadAsync(app);
        (await app.AskAsync(db => db.IncomingMail.CountAsync())).ShouldBe(0, "what lay there before stays there");
        host.Deliver("From: friend@elsewhere.example\nSubject: Private\nMessage-ID: <p@elsewhere.example>\n\nNot yours to read.");
        host.Deliver($"From: tilda@pell.example\nSubject: Re\nMessage-ID: <n@pell.example>\nIn-Reply-To: {sent.MessageId}\n\nYes.");
        await ReadAsync(app);
        await ReadAsync(app);
        (await app.AskAsync(db => db.IncomingMail.SingleAsync())).Text.ShouldBe("Yes.");
        (await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == run))).State.StoppedBy.ShouldBe(RunEnd.Replied);
        host.ReadWhole.ShouldBe([3]);
        host.Changes.ShouldBeEmpty();

        // The mailbox was made anew: its numbers mean something else.
        host.Validity = 2;
        await ReadAsync(app);
        host.Deliver("From: tilda@pell.example\nSubject: More\nMessage-ID: <m@pell.example>\n\nMore.");
        await ReadAsync(app);
        (await app.AskAsync(db => db.IncomingMail.CountAsync())).ShouldBe(2);
    }

    [Fact]
    public async Task A_mailbox_that_cannot_be_read_says_why_in_settings()
    {
        await using var app = new TestApp();
        await using (var host = new ImapHost())
        {
            (
                await app.Owner().PutAsync("/api/settings/mailbox", Body(new { was = Before, now = Setting(host) }))
            ).EnsureSuccessStatusCode();
        }

        await ReadAsync(app);
        (await app.Owner().GetAsync("/api/settings/mailbox").JsonAsync()).Text("failure").ShouldBe("The mail server cannot be reached.");
    }

    private static readonly MailboxSettingsEndpoints.MailboxSetting Before = new(false, "", 993, Brand.MailSecurity.Tls, "", "", "INBOX");

    private static MailboxSettingsEndpoints.MailboxSetting Setting(ImapHost host) =>
        new(true, "127.0.0.1", host.Port, Brand.MailSecurity.None, ImapHost.User, ImapHost.Password, "INBOX");

    private static Task ReadAsync(TestApp app) => app.Services.GetRequiredService<Mailbox>().ReadAsync(CancellationToken.None);

    /// <summary>Somebody with a message of ours in their mailbox, and a run that would write again.</summary>
    private static async Task<(Id<FollowThrough.Run> Run, OutgoingMail Sent)> WaitingRunAsync(TestApp app)
    {
        await RunTests.OthersAreOffAsync(app);
        (await app.SendAsync(Answers(Lead))).EnsureSuccessStatusCode();
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        var run = await RunTests.StartAsync(
            app,
            RunTests.Content(RunTests.Mail("Your wall"), RunTests.Mail("later", new Schedule(Anchor.PreviousSettled, 3, TimeUnit.Days))),
            new EventContext(inquiry.ClientId, inquiry.ProjectId, inquiry.Id)
        );
        await app.WorkAsync();
        app.Time.Advance(TimeSpan.FromHours(1));
        return (run, await app.AskAsync(db => db.OutgoingMail.SingleAsync()));
    }

    private static async Task<IncomingMessage?> TakeAsync(TestApp app, MimeMessage message)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        var taken = await scope.ServiceProvider.GetRequiredService<MailIntake>().TakeAsync(message, app.Now);
        await write.SaveAsync(CancellationToken.None);
        app.Time.Advance(TimeSpan.FromMinutes(1));
        return taken;
    }

    private static MimeMessage Message(string text, OutgoingMail? answers = null) => Message(text, answers?.MessageId ?? "");

    private static MimeMessage Message(string text, string named)
    {
        using var stream = new MemoryStream(
            System.Text.Encoding.UTF8.GetBytes(text.Replace("NAMED", named, StringComparison.Ordinal).ReplaceLineEndings("\r\n"))
        );
        return MimeMessage.Load(stream);
    }
}
