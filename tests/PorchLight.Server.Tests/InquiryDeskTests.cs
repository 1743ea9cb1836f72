using System.Net;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Ready;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What is set aside, promised by a form, written down for somebody, told to the business, or says how people found it.</summary>
public sealed class InquiryDeskTests
{
    private const string Mural = "A wall to paint";

    [Fact]
    public async Task Spam_is_kept_apart_and_counts_nowhere_until_it_is_put_back()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await app.ChangeFormAsync(settings => settings with { MostAnswers = 1 });
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        (await app.SendAsync(Answers("robin@leads.example"))).StatusCode.ShouldBe(HttpStatusCode.Conflict, "the form takes one answer");
        var id = (await app.AskAsync(db => db.Inquiries.SingleAsync())).Id;
        var form = (await app.AskAsync(db => db.Inquiries.SingleAsync())).FormId;

        await SetAsideAsync(owner, id, AsideReason.Spam);
        await SetAsideAsync(owner, id, AsideReason.Spam);
        (await FoundAsync(owner)).ShouldBe(0);
        (await FoundAsync(owner, InquiryNeed.Aside)).ShouldBe(1);
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("promised").GetArrayLength().ShouldBe(0);
        (await owner.GetAsync("/api/clients/leads").JsonAsync()).GetProperty("leads").GetInt32().ShouldBe(0);
        (await owner.GetStringAsync($"/api/forms/{form}/answers.csv")).ShouldNotContain("Tilda");
        (await owner.GetStringAsync("/api/inquiries.csv")).ShouldNotContain("Tilda");
        (await owner.GetAsync("/api/forms").JsonAsync()).EnumerateArray().Sum(one => one.GetProperty("answers").GetInt32()).ShouldBe(0);
        (await app.AskAsync(db => db.Runs.CountAsync(run => run.Active))).ShouldBe(0, "what was to be sent is stopped");
        var panel = await owner.GetAsync($"/api/inquiries/{id}").JsonAsync();
        panel.Text("aside").ShouldBe("spam");
        panel.GetProperty("timeline").GetRawText().ShouldContain("set the inquiry aside as spam");
        (await app.SendAsync(Answers("robin@leads.example"))).EnsureSuccessStatusCode();

        await SetAsideAsync(owner, id, null);
        (await FoundAsync(owner)).ShouldBe(2);
        (await owner.GetAsync("/api/clients/leads").JsonAsync()).GetProperty("leads").GetInt32().ShouldBe(2);
        (await owner.GetAsync("/api/today").JsonAsync())
            .GetProperty("promised")
            .GetArrayLength()
            .ShouldBe(2, "the promise stands as it was");
    }

    [Fact]
    public async Task Who_writes_for_real_after_a_test_is_a_client_and_nothing_is_set_aside_that_is_not_there()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var id = (await app.AskAsync(db => db.Inquiries.SingleAsync())).Id;
        await SetAsideAsync(owner, id, AsideReason.Test);
        (await app.AskAsync(db => db.Clients.SingleAsync())).IsAside.ShouldBeTrue();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Clients.SingleAsync())).IsAside.ShouldBeFalse();

        var gone = await owner.PutAsync(
            "/api/inquiries/aside",
            Body(new { inquiries = new[] { id.Value, Guid.NewGuid() }, reason = (string?)null })
        );
        gone.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await app.AskAsync(db => db.Inquiries.CountAsync(inquiry => inquiry.Aside != null))).ShouldBe(1, "all or none");
    }

    [Fact]
    public async Task A_form_promises_what_it_says_and_others_what_the_business_does()
    {
        await using var app = new TestApp();
        await app.ChangeFormAsync(settings => settings with { Promise = new ReplyPromise(2, PromiseClock.OpenHours) });
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        var business = await app.AskAsync(db => db.Businesses.AsNoTracking().SingleAsync());
        inquiry.PromisedBy.ShouldBe(business.Calendar.AddHours(inquiry.Received, 2, PromiseClock.OpenHours));
        (await app.Owner().GetAsync($"/api/inquiries/{inquiry.Id}").JsonAsync())
            .Text("promiseClock")
            .ShouldBe("2 business hours on the open-hours clock");
        new FormSettings { Promise = new ReplyPromise(0, PromiseClock.OpenHours) }
            .Check(await app.ContentAsync(inquiry.FormId.ToString()))
            .ShouldHaveSingleItem()
            .Place.ShouldBe("promise.hours");
    }

    [Fact]
    public async Task The_share_of_kept_promises_is_said_on_today()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        (await app.SendAsync(Answers("robin@leads.example"))).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("kept").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        var first = (await app.AskAsync(db => db.Inquiries.OrderBy(one => one.Received).FirstAsync())).Id;
        (await owner.PostAsync($"/api/inquiries/{first}/answered-elsewhere", null)).EnsureSuccessStatusCode();
        app.Time.Advance(TimeSpan.FromDays(10));
        (await owner.GetAsync("/api/today").JsonAsync()).Text("kept").ShouldBe("You kept 1 of 2 promises in the last 90 days (50 %).");
    }

    [Fact]
    public async Task An_inquiry_that_came_by_phone_is_written_down_by_the_same_questions_and_sorted_by_the_same_screening()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var sunil = await app.AskAsync(db =>
            db.Users.Where(user => user.DisplayName == "Sunil Abara").Select(user => user.Id).SingleAsync()
        );
        await app.ChangeFormAsync(settings => settings with { Notified = [sunil] });
        var (link, desk) = await WriteDownAsync(app, owner, InquiryChannel.Phone, answered: false, starts: false);
        var page = await desk.GetAsync($"/public/forms/{link}").JsonAsync();
        page.Text("writesDown").ShouldBe("by phone");
        var version = page.GetProperty("form").GetProperty("version").GetInt32();
        var sendKey = Guid.NewGuid();

        (await SendAsync(desk, link, version, [], sendKey)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity,
            "nobody could be found again"
        );
        var few = new Dictionary<string, Answer?>
        {
            ["name"] = new PersonNameAnswer("Una", "Unwin"),
            ["budget"] = new ChoiceAnswer(["4000-9000"]),
        };
        var sent = await SendAsync(desk, link, version, few, sendKey).JsonAsync();
        var again = await SendAsync(desk, link, version, few, sendKey).JsonAsync();
        again.Text("writtenDown").ShouldBe(sent.Text("writtenDown"));
        (await desk.GetAsync($"/public/receipts/{sent.Text("receipt")}").JsonAsync())
            .Text("writtenDown")
            .ShouldBe(sent.Text("writtenDown"), "after a reload");
        (await app.CreateClient().GetAsync($"/public/receipts/{sent.Text("receipt")}").JsonAsync())
            .GetProperty("writtenDown")
            .ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        sent.Text("writtenDown").ShouldBe(inquiry.Id.ToString());
        (inquiry.Channel, inquiry.WrittenDownBy, inquiry.PromiseStopped).ShouldBe((InquiryChannel.Phone, "Maren Tolliver", (Instant?)null));
        inquiry.Fit.ShouldNotBeNull();
        (await app.AskAsync(db => db.Runs.CountAsync())).ShouldBe(0, "no follow-through was wanted");
        var view = await owner.GetAsync($"/api/inquiries/{inquiry.Id}").JsonAsync();
        view.Text("writtenDown").ShouldBe("by phone, written down by Maren Tolliver");
        view.GetProperty("timeline").GetRawText().ShouldContain("Maren Tolliver wrote down");
        (await app.MailToAsync("sunil@ochrewren.example")).ShouldContain("Una Unwin", customMessage: "who did not write it down is told");
    }

    [Fact]
    public async Task What_is_written_down_later_is_judged_by_the_day_it_came_and_days_that_cannot_be_are_refused()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var today = (await owner.GetAsync("/api/inquiries/write-down").JsonAsync()).Text("today");
        var day = NodaTime.Text.LocalDatePattern.Iso.Parse(today).Value;
        (await OpenAsync(app, owner, InquiryChannel.Mail, day.PlusDays(1))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await (await OpenAsync(app, owner, InquiryChannel.Mail, day.PlusYears(-9))).PlacesAsync()).ShouldBe(["on"]);
        (await (await OpenAsync(app, owner, InquiryChannel.Form, day)).PlacesAsync()).ShouldBe(["channel"]);
        (await (await OpenAsync(app, owner, InquiryChannel.Mail, day, new LocalTime(23, 59))).PlacesAsync()).ShouldBe(["at"]);

        var (link, desk) = await WriteDownAsync(app, owner, InquiryChannel.InPerson, answered: true, starts: true, day.PlusDays(-20));
        var version = (await desk.GetAsync($"/public/forms/{link}").JsonAsync()).GetProperty("form").GetProperty("version").GetInt32();
        (await SendAsync(desk, link, version, Answers().ToDictionary(), Guid.NewGuid())).EnsureSuccessStatusCode();
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        var zone = (await app.AskAsync(db => db.Businesses.AsNoTracking().SingleAsync())).DateTimeZone;
        inquiry.Received.InZone(zone).LocalDateTime.ShouldBe(day.PlusDays(-20) + LocalTime.Noon);
        (inquiry.PromiseStopped > inquiry.Received, inquiry.PromisedBy, inquiry.Need).ShouldBe((true, null, InquiryNeed.Theirs));
        (await app.AskAsync(db => db.Runs.CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task A_ticket_to_write_down_opens_its_own_form_only_even_while_its_light_is_off_and_for_a_day()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await app.ChangeFormAsync(settings => settings with { MostAnswers = 1 });
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var (link, desk) = await WriteDownAsync(app, owner, InquiryChannel.Phone, answered: true, starts: false);
        (await desk.GetAsync($"/public/forms/{link}").JsonAsync())
            .GetProperty("form")
            .ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Object);
        (await app.CreateClient().GetAsync($"/public/forms/{link}").JsonAsync())
            .GetProperty("form")
            .ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        app.Time.Advance(TimeSpan.FromHours(25));
        (await desk.GetAsync($"/public/forms/{link}").JsonAsync())
            .GetProperty("form")
            .ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        desk.DefaultRequestHeaders.Remove(WriteDownTickets.Header);
        desk.DefaultRequestHeaders.Add(WriteDownTickets.Header, "made-up");
        (await desk.GetAsync($"/public/forms/{link}").JsonAsync())
            .GetProperty("form")
            .ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
    }

    [Fact]
    public async Task A_personal_link_goes_by_mail_in_a_persons_words()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var form = (await owner.GetAsync("/api/inquiries/write-down").JsonAsync())
            .GetProperty("forms")
            .EnumerateArray()
            .First(one => one.Text("title") == Mural);
        var path = $"/api/forms/{form.Text("id")}/links/by-mail";
        object Mail(string email, string text) =>
            new
            {
                @for = new
                {
                    email,
                    givenName = "Una",
                    familyName = "Unwin",
                },
                subject = form.Text("subject"),
                text,
            };
        (await (await owner.PostAsync(path, Body(Mail("una@", form.Text("text"))))).PlacesAsync()).ShouldBe(["email"]);
        (await (await owner.PostAsync(path, Body(Mail("una@leads.example", "No link")))).PlacesAsync()).ShouldBe(["text"]);
        (await owner.PostAsync(path, Body(Mail("una@leads.example", form.Text("text"))))).StatusCode.ShouldBe(HttpStatusCode.OK);
        var text = await app.MailToAsync("una@leads.example");
        var link = text.Split('\n').Single(line => line.StartsWith("http", StringComparison.Ordinal)).Trim();
        (await app.CreateClient().GetAsync($"/public/forms/{link.Split('/')[^1]}").JsonAsync())
            .GetProperty("form")
            .GetProperty("prefilled")
            .GetRawText()
            .ShouldContain("Unwin");
    }

    [Fact]
    public async Task At_night_nobody_is_written_to_unless_they_asked_for_it_and_a_daily_mail_takes_all()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var users = await app.AskAsync(db => db.Users.Select(user => user.Id).ToListAsync());
        await app.ChangeFormAsync(settings => settings with { Notified = users });
        var member = app.Member();
        (await ChangeNotificationTimeAsync(member, new NotificationTime(new LocalTime(18, 0), AtNight: false))).EnsureSuccessStatusCode();
        (await member.GetAsync("/api/me/notifications").JsonAsync()).Text("dailyAt").ShouldBe("18:00:00");
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        (await app.SendAsync(Answers("robin@leads.example"))).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (await MailsToAsync(app, "sunil@ochrewren.example")).ShouldBeEmpty("they want one mail a day");
        (await MailsToAsync(app, "maren@ochrewren.example")).ShouldHaveSingleItem().ShouldStartWith("2 inquiries: ");
        await app.PassTimeAsync(Duration.FromHours(24));
        (await MailsToAsync(app, "sunil@ochrewren.example")).ShouldHaveSingleItem().ShouldStartWith("2 inquiries: ");

        var zone = (await app.AskAsync(db => db.Businesses.AsNoTracking().SingleAsync())).DateTimeZone;
        var tonight = zone.AtStrictly(Instant.FromDateTimeOffset(app.Time.GetUtcNow()).InZone(zone).Date + new LocalTime(22, 0))
            .ToInstant();
        app.Time.Advance((tonight - Instant.FromDateTimeOffset(app.Time.GetUtcNow())).ToTimeSpan());
        (await app.SendAsync(Answers("una@leads.example"))).EnsureSuccessStatusCode();
        await app.PassTimeAsync(Duration.FromHours(8));
        (await MailsToAsync(app, "maren@ochrewren.example")).Count.ShouldBe(1, "it is six in the morning");
        await app.PassTimeAsync(Duration.FromHours(1));
        (await MailsToAsync(app, "maren@ochrewren.example")).Count.ShouldBe(2);
    }

    [Fact]
    public async Task What_was_set_aside_before_its_mail_is_told_to_nobody()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var users = await app.AskAsync(db => db.Users.Select(user => user.Id).ToListAsync());
        await app.ChangeFormAsync(settings => settings with { Notified = users });
        (await ChangeNotificationTimeAsync(owner, new NotificationTime(new LocalTime(18, 0), AtNight: false))).EnsureSuccessStatusCode();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        await SetAsideAsync(owner, (await app.AskAsync(db => db.Inquiries.SingleAsync())).Id, AsideReason.Spam);
        await app.PassTimeAsync(Duration.FromHours(30));
        (await MailsToAsync(app, "maren@ochrewren.example")).ShouldBeEmpty();
        (await app.AskAsync(db => db.DueNotifications.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task What_people_wrote_comes_into_one_list_that_the_lists_of_inquiries_follow()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await app.ChangeAsync(async db =>
        {
            var business = await db.BusinessAsync();
            business.Lists = business.Lists with
            {
                Sources = [new Source("search", "By searching"), new Source("friend", "A friend") { IsReferral = true }],
            };
        });
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var client = (await app.AskAsync(db => db.Clients.SingleAsync())).Id;
        (
            await owner.PutAsync(
                $"/api/clients/{client}/values/client.source",
                Body(
                    new
                    {
                        projectId = (Guid?)null,
                        was = (Answer?)null,
                        now = (Answer?)new TextAnswer("a flyer"),
                    }
                )
            )
        ).EnsureSuccessStatusCode();
        var rows = await owner.GetAsync("/api/settings/sources").JsonAsync();
        rows.EnumerateArray()
            .Select(row => (row.Text("name"), row.GetProperty("inquiries").GetInt32()))
            .ShouldBe([("By searching", 0), ("A friend", 0), ("a flyer", 1)]);

        (await owner.PutAsync("/api/settings/sources", Body(new { written = "a flyer", into = "search" }))).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).Source.ShouldBe("By searching");
        (await app.AskAsync(db => db.FieldValues.SingleAsync(value => value.Field == "client.source" && value.IsCurrent))).Value.ShouldBe(
            new TextAnswer("a flyer"),
            "what was written stays"
        );
        (await owner.PutAsync("/api/settings/sources", Body(new { written = "a flyer", into = "gone" }))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
    }

    [Fact]
    public async Task Whom_a_person_sent_makes_a_task_to_thank_them_on_the_next_working_day()
    {
        await using var app = new TestApp();
        await app.ChangeAsync(async db =>
        {
            var business = await db.BusinessAsync();
            business.Lists = business.Lists with
            {
                Sources = [new Source("friend", "A friend") { IsReferral = true }, new Source("search", "By searching")],
            };
        });
        var link = await app.MakeQuickFormAsync(WritingDown.Relax(ReadyForms.Inquiry("Signs", 900, "EUR").Content));
        await SendAsync("una@leads.example", "a friend");
        await SendAsync("robin@leads.example", "the fair");
        var task = await app.AskAsync(db => db.ClientTasks.SingleAsync());
        task.Title.ShouldBe("Thank who sent una@leads.example");
        var calendar = (await app.AskAsync(db => db.Businesses.AsNoTracking().SingleAsync())).Calendar;
        task.On.ShouldBe(calendar.WorkingDaysAfter(calendar.Today(Instant.FromDateTimeOffset(app.Time.GetUtcNow())), 1));

        async Task SendAsync(string email, string source)
        {
            var answers = new Dictionary<string, Answer?> { ["email"] = new TextAnswer(email), ["found"] = new TextAnswer(source) };
            var relaxed = await app.SendAsync(link, answers);
            relaxed.StatusCode.ShouldBe(HttpStatusCode.OK, await relaxed.Content.ReadAsStringAsync());
        }
    }

    [Fact]
    public async Task Who_always_comes_in_is_ruled_out_by_no_deal_breaker_and_everybody_else_is()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var nobody = new Signal("never", "Wrote a mail address", new IsAnsweredCondition(new AnswerTo("email")), new DealBreakerEffect());
        var link = await app.MakeQuickFormAsync(
            WritingDown.Relax(ReadyForms.Inquiry("Signs", 900, "EUR").Content),
            screening: new ScreeningRules(60, 50, 10, 2, [nobody])
        );
        await SendAsync("una@leads.example");
        var client = (await app.AskAsync(db => db.Clients.SingleAsync())).Id;
        (await owner.PutAsync($"/api/clients/{client}/always-comes-in", Body(new { always = true }))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await owner.PutAsync($"/api/clients/{client}/always-comes-in", Body(new { always = true }))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await app.AskAsync(db => db.Events.CountAsync(logged => logged.Kind == "alwaysComesInSet"))).ShouldBe(1);
        await SendAsync("una@leads.example");
        await SendAsync("robin@leads.example");
        var fits = await app.AskAsync(db => db.Inquiries.OrderBy(one => one.Received).Select(one => one.Fit).ToListAsync());
        fits.ShouldBe([Fit.NotNow, Fit.ComeIn, Fit.NotNow]);
        var first = (await app.AskAsync(db => db.Inquiries.OrderBy(one => one.Received).FirstAsync())).Id;
        (await owner.GetAsync($"/api/inquiries/{first}").JsonAsync()).GetProperty("fit").GetRawText().ShouldContain("Not now");

        async Task SendAsync(string email)
        {
            app.Time.Advance(TimeSpan.FromMinutes(5));
            (await app.SendAsync(link, new Dictionary<string, Answer?> { ["email"] = new TextAnswer(email) })).EnsureSuccessStatusCode();
        }
    }

    private static async Task SetAsideAsync(HttpClient owner, Id<Inquiry> id, AsideReason? reason) =>
        (await owner.PutAsync("/api/inquiries/aside", Body(new { inquiries = new[] { id }, reason }))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

    private static async Task<int> FoundAsync(HttpClient owner, params InquiryNeed[] needs) =>
        (await owner.FoundAsync("/api/inquiries", new InquiryQuery { Needs = needs })).GetProperty("total").GetInt32();

    private static Task<HttpResponseMessage> ChangeNotificationTimeAsync(HttpClient who, NotificationTime now) =>
        who.PutAsync("/api/me/notifications", Body(new { was = new NotificationTime(null, AtNight: false), now }));

    private static Task<List<string>> MailsToAsync(TestApp app, string address) =>
        app.AskAsync(db => db.PracticeMail.Where(mail => mail.To == address).Select(mail => mail.Subject).ToListAsync());

    private static async Task<HttpResponseMessage> OpenAsync(
        TestApp app,
        HttpClient owner,
        InquiryChannel channel,
        LocalDate on,
        LocalTime? at = null,
        bool answered = false,
        bool starts = false
    )
    {
        var forms = (await owner.GetAsync("/api/inquiries/write-down").JsonAsync()).GetProperty("forms");
        var form = forms.EnumerateArray().First(one => one.Text("title") == Mural).Text("id");
        return await owner.PutAsync(
            "/api/inquiries/write-down",
            Body(
                new
                {
                    form,
                    channel,
                    on,
                    at,
                    answered,
                    starts,
                }
            )
        );
    }

    private static async Task<(string Link, HttpClient Desk)> WriteDownAsync(
        TestApp app,
        HttpClient owner,
        InquiryChannel channel,
        bool answered,
        bool starts,
        LocalDate? on = null
    )
    {
        var today = NodaTime
            .Text.LocalDatePattern.Iso.Parse((await owner.GetAsync("/api/inquiries/write-down").JsonAsync()).Text("today"))
            .Value;
        var opened = await OpenAsync(app, owner, channel, on ?? today, null, answered, starts);
        var address = (await Task.FromResult(opened).JsonAsync()).Text("address");
        var desk = app.CreateClient();
        desk.DefaultRequestHeaders.Add(WriteDownTickets.Header, Uri.UnescapeDataString(address.Split("?writeDown=")[1]));
        return (address["/f/".Length..].Split('?')[0], desk);
    }

    private static Task<HttpResponseMessage> SendAsync(
        HttpClient desk,
        string link,
        int version,
        Dictionary<string, Answer?> answers,
        Guid sendKey
    ) =>
        desk.PostAsync(
            $"/public/forms/{link}/send",
            Body(
                new
                {
                    version,
                    sendKey,
                    answers,
                    cameFrom = (string?)null,
                }
            )
        );
}
