using System.Net;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Server.Demo;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class FormAccessTests
{
    private static readonly FormContent Small = new(
        "A small form",
        "",
        [
            new Page(
                "one",
                "One",
                [
                    new Question("name", "Name?", new PersonNameKind()) { LandsIn = new SetField(BuiltInFields.Name.Key) },
                    new Question("email", "Mail?", new EmailKind()) { Required = true, LandsIn = new SetField(BuiltInFields.Email.Key) },
                    new Question("phone", "Phone?", new PhoneKind()) { LandsIn = new SetField(BuiltInFields.Phone.Key) },
                    new Question("note", "Hello {firstName|you}, from {business}?", new ShortTextKind())
                    {
                        LandsIn = new AppendToNotes(RecordScope.Client),
                    },
                ]
            ),
        ],
        [],
        new SendOff("end", "Thank you", "Thank you.")
    );

    [Fact]
    public async Task A_form_opens_and_closes_by_its_days_and_is_full_with_its_last_answer()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var link = await app.MakeQuickFormAsync(
            Small,
            new FormSettings
            {
                FirstDay = new LocalDate(2026, 11, 24),
                LastDay = new LocalDate(2026, 11, 25),
                MostAnswers = 1,
                Guard = new SpamGuard(0),
            }
        );
        (await WelcomeAsync(app, link)).ShouldBe(("lightOff", "This form opens on 24 November 2026."));
        await app.PassTimeAsync(Duration.FromDays(1));
        (await WelcomeAsync(app, link)).Welcome.ShouldBe("open");
        (await app.SendAsync(link, Filled())).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await WelcomeAsync(app, link)).ShouldBe(("lightOff", "We are away."));
        var second = await app.SendAsync(link, Filled());
        (second.StatusCode, await second.SentenceAsync()).ShouldBe((HttpStatusCode.Conflict, "We are away."));
    }

    [Fact]
    public async Task Of_two_last_answers_at_once_one_is_taken()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(Small, new FormSettings { MostAnswers = 1, Guard = new SpamGuard(0) });
        var sent = await Task.WhenAll(Enumerable.Range(0, 6).Select(n => app.SendAsync(link, Filled($"lead{n}@bakes.example"))));
        sent.Count(one => one.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        (await app.AskAsync(db => db.Submissions.CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task Who_asked_is_told_once_when_the_light_is_on_again_and_then_forgotten()
    {
        await using var app = new TestApp();
        var link = await app.LinkAsync();
        var (owner, stranger, id) = (
            app.Owner(),
            app.CreateClient(),
            await app.AskAsync(db => db.Forms.Select(form => form.Id).SingleAsync())
        );
        (await stranger.PostAsync($"/public/forms/{link}/reopening", Body(new { email = "tilda@bakes.example" }))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict,
            "it is on"
        );
        await owner.PostAsync($"/api/forms/{id}/light", Body(new { on = false }));
        (await (await stranger.PostAsync($"/public/forms/{link}/reopening", Body(new { email = "tilda" }))).PlacesAsync()).ShouldBe([
            "email",
        ]);
        for (var n = 0; n < 2; n++)
            (
                await stranger.PostAsync(
                    $"/public/forms/{link}/reopening",
                    Body(new { email = n == 0 ? "tilda@bakes.example" : " Tilda@Bakes.example" })
                )
            ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await app.WorkAsync();
        (await app.AskAsync(db => db.OutgoingMail.CountAsync())).ShouldBe(0, "nothing while it is off");
        await owner.PostAsync($"/api/forms/{id}/light", Body(new { on = true }));
        (await app.MailToAsync("tilda@bakes.example")).ShouldContain($"http://localhost/f/{link}");
        await app.WorkAsync();
        (await app.AskAsync(db => db.OutgoingMail.CountAsync())).ShouldBe(1);
        (await app.AskAsync(db => db.ReopenSubscriptions.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task A_private_form_opens_by_a_personal_link_alone_and_that_link_once()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(Small, new FormSettings { Admission = Admission.PersonalLink, Guard = new SpamGuard(0) });
        (await WelcomeAsync(app, link)).Welcome.ShouldBe("onlyByLink");
        (await app.SendAsync(link, Filled())).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (
            await app.CreateClient()
                .PostAsync(
                    $"/public/forms/{link}/evaluate",
                    Body(
                        new
                        {
                            version = 1,
                            page = "one",
                            leaving = false,
                            sendKey = Guid.NewGuid(),
                            answers = Filled(),
                        }
                    )
                )
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);

        var (owner, id) = (app.Owner(), await IdAsync(app));
        var personal = await MakeLinkAsync(owner, id, "robin@pell.example", "Robin", "Pell");
        var shown = await app.CreateClient().GetAsync($"/public/forms/{personal}").JsonAsync();
        shown.Text("welcome").ShouldBe("open");
        var form = shown.GetProperty("form");
        form.GetProperty("prefilled").GetProperty("email").Text("text").ShouldBe("robin@pell.example");
        form.GetProperty("prefilled").GetProperty("name").Text("given").ShouldBe("Robin");
        form.GetProperty("start").GetProperty("wordings").Text("note").ShouldBe("Hello Robin, from Ochre Wren?");
        shown.GetProperty("isFirstLook").GetBoolean().ShouldBeTrue();
        (await owner.GetAsync($"/api/forms/{id}/links").JsonAsync())[0].Text("state").ShouldNotStartWith("opened");
        (await app.CreateClient().PostAsync($"/public/forms/{personal}/opened", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.GetAsync($"/api/forms/{id}/links").JsonAsync())[0].Text("state").ShouldStartWith("opened");
        (await app.CreateClient().GetAsync($"/public/forms/{personal}").JsonAsync())
            .GetProperty("isFirstLook")
            .GetBoolean()
            .ShouldBeFalse();

        var key = Guid.NewGuid();
        (await app.SendAsync(personal, Filled("robin@pell.example"), key)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await app.SendAsync(personal, Filled("robin@pell.example"), key)).StatusCode.ShouldBe(
            HttpStatusCode.OK,
            "the same sending once more is the same"
        );
        (await WelcomeAsync(app, personal)).Welcome.ShouldBe("linkUsed");
        var again = await app.SendAsync(personal, Filled("robin@pell.example"));
        (await again.SentenceAsync()).ShouldStartWith("You have sent this form already");
        (await owner.GetAsync($"/api/forms/{id}/links").JsonAsync())[0].GetProperty("inquiryId").GetGuid().ShouldNotBe(Guid.Empty);
    }

    [Fact]
    public async Task A_personal_link_runs_out_can_be_withdrawn_and_is_replaced_by_a_newer_one()
    {
        await using var app = new TestApp();
        await app.MakeQuickFormAsync(Small);
        var (owner, id) = (app.Owner(), await IdAsync(app));
        var first = await MakeLinkAsync(owner, id, "robin@pell.example", "Robin", "");
        var second = await MakeLinkAsync(owner, id, "robin@pell.example", "Robin", "");
        (await app.CreateClient().GetAsync($"/public/forms/{first}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await app.PassTimeAsync(Retention.PersonalLink + Duration.FromDays(1));
        (await WelcomeAsync(app, second)).Welcome.ShouldBe("linkRanOut");
        owner = await app.SignedInAsync(DemoBusiness.OwnerMail);
        await owner.DeleteAsync($"/api/forms/{id}/links/{(await owner.GetAsync($"/api/forms/{id}/links").JsonAsync())[0].Text("id")}");
        (await app.CreateClient().GetAsync($"/public/forms/{second}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_forwarded_link_does_not_open_without_the_code_from_the_mail()
    {
        await using var app = new TestApp();
        await app.MakeQuickFormAsync(Small, new FormSettings { Admission = Admission.PersonalLinkAndCode, Guard = new SpamGuard(0) });
        var (owner, id) = (app.Owner(), await IdAsync(app));
        var personal = await MakeLinkAsync(owner, id, "robin@pell.example", "Robin", "Pell");
        var stranger = app.CreateClient();
        var shown = await stranger.GetAsync($"/public/forms/{personal}").JsonAsync();
        (shown.Text("welcome"), shown.Text("codeGoesTo"), shown.GetProperty("form").ValueKind).ShouldBe(
            ("codeNeeded", "r•••@pell.example", System.Text.Json.JsonValueKind.Null)
        );
        shown.GetRawText().ShouldNotContain("robin", Case.Insensitive);

        (await stranger.PostAsync($"/public/forms/{personal}/code", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await stranger.PostAsync($"/public/forms/{personal}/code", null)).StatusCode.ShouldBe(
            HttpStatusCode.Conflict,
            "one is on its way"
        );
        var code = Regex.Match(await app.MailToAsync("robin@pell.example"), @"\b\d{6}\b").Value;
        var wrong = code == "000000" ? "000001" : "000000";
        (await (await CheckAsync(stranger, personal, wrong)).PlacesAsync()).ShouldBe(["code"]);
        (await app.SendAsync(personal, Filled(), by: stranger)).StatusCode.ShouldBe(HttpStatusCode.Conflict, "a wrong code opens nothing");
        var pass = (await (await CheckAsync(stranger, personal, $"{code[..3]} {code[3..]}")).JsonAsync()).Text("pass");
        (await CheckAsync(stranger, personal, code)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "a code opens once");

        var robin = app.CreateClient();
        robin.DefaultRequestHeaders.Add("Form-Pass", pass);
        (await robin.GetAsync($"/public/forms/{personal}").JsonAsync()).Text("welcome").ShouldBe("open");
        (await WelcomeAsync(app, personal)).Welcome.ShouldBe("codeNeeded", "elsewhere it stays shut");
        (await app.SendAsync(personal, Filled(), by: app.CreateClient())).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await app.SendAsync(personal, Filled(), by: robin)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_code_cannot_be_guessed_and_grows_old()
    {
        await using var app = new TestApp();
        await app.MakeQuickFormAsync(Small, new FormSettings { Admission = Admission.PersonalLinkAndCode });
        var personal = await MakeLinkAsync(app.Owner(), await IdAsync(app), "robin@pell.example", "Robin", "Pell");
        var stranger = app.CreateClient();
        await stranger.PostAsync($"/public/forms/{personal}/code", null);
        var code = Regex.Match(await app.MailToAsync("robin@pell.example"), @"\b\d{6}\b").Value;
        for (var n = 0; n < 5; n++)
            await CheckAsync(stranger, personal, code == "000000" ? "000001" : "000000");
        (await CheckAsync(stranger, personal, code)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity,
            "after five tries even the right one is too late"
        );

        await app.PassTimeAsync(Duration.FromMinutes(1));
        await stranger.PostAsync($"/public/forms/{personal}/code", null);
        code = Regex.Match(await app.MailToAsync("robin@pell.example"), @"\b\d{6}\b").Value;
        await app.PassTimeAsync(Duration.FromMinutes(16));
        (await CheckAsync(stranger, personal, code)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task By_a_link_made_for_a_client_empty_fields_are_filled_and_unlike_ones_wait_to_be_settled()
    {
        await using var app = new TestApp();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        await app.MakeQuickFormAsync(Small);
        var owner = app.Owner();
        var personal = await MakeLinkAsync(owner, await IdAsync(app), "Tilda@bakes.example", "Tilda", "Brackenridge");
        var answers = Filled("another@bakes.example");
        answers["phone"] = new PhoneAnswer("01 555 0199");
        answers["note"] = new TextAnswer("The gate sticks");
        (await app.SendAsync(personal, answers)).StatusCode.ShouldBe(HttpStatusCode.OK);

        (await app.AskAsync(db => db.Clients.CountAsync())).ShouldBe(
            1,
            "it is the client the link was made for, whatever address they type"
        );
        (await app.AskAsync(db => db.Notes.Select(note => $"{note.Heading} {note.Text}").ToListAsync())).ShouldBe(
            ["Hello Tilda, from Ochre Wren? The gate sticks"],
            "notes are added"
        );
        (await app.AskAsync(db => db.Differences.Select(difference => difference.Field).ToListAsync())).ShouldBe(
            ["client.name", "client.email", "client.phone"],
            ignoreOrder: true
        );
    }

    [Fact]
    public async Task A_month_that_is_full_is_said_at_once_and_sending_stands_on_its_waiting_list()
    {
        await using var app = new TestApp();
        var form = Small with { Pages = [Small.Pages[0], new Page("two", "Two", [new Question("day", "Day?", new DateKind())])] };
        var link = await app.MakeQuickFormAsync(
            form,
            new FormSettings { Capacity = new Capacity("day", [new MonthLimit(new YearMonth(2027, 5), 1)]), Guard = new SpamGuard(0) }
        );
        Dictionary<string, Answer?> InMay(string email) => new(Filled(email)) { ["day"] = new DateAnswer(new LocalDate(2027, 5, 20)) };
        var first = await (await app.SendAsync(link, InMay("first@bakes.example"))).JsonAsync();
        first.GetProperty("notice").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);

        var step = await app.CreateClient()
            .PostAsync(
                $"/public/forms/{link}/evaluate",
                Body(
                    new
                    {
                        version = 1,
                        page = "two",
                        leaving = false,
                        sendKey = Guid.NewGuid(),
                        answers = InMay("second@bakes.example"),
                    }
                )
            )
            .JsonAsync();
        step.GetProperty("notices").Text("day").ShouldStartWith("May 2027 is fully booked. There is room in June 2027");
        var sent = await (await app.SendAsync(link, InMay("second@bakes.example"))).JsonAsync();
        sent.Text("notice").ShouldStartWith("You are on the waiting list for May 2027.");
        (await app.CreateClient().GetAsync($"/public/receipts/{sent.Text("receipt")}").JsonAsync())
            .Text("notice")
            .ShouldBe(sent.Text("notice"), "also when they look again");

        var owner = app.Owner();
        var waiting = (await owner.WholeListAsync("/api/inquiries"))
            .GetProperty("rows")
            .EnumerateArray()
            .Single(row =>
                row.Text("name").StartsWith("Robin", StringComparison.Ordinal) && row.GetProperty("waitsFor").GetString() is not null
            );
        waiting.GetProperty("promise").GetString().ShouldBeNull("nobody is owed a reply for being on a list");
        var id = await IdAsync(app);
        var month = (await owner.GetAsync($"/api/forms/{id}/settings").JsonAsync()).GetProperty("months")[0];
        (month.GetProperty("taken").GetInt32(), month.GetProperty("waiting").GetInt32()).ShouldBe((1, 1));

        (await owner.PostAsync($"/api/inquiries/{waiting.Text("id")}/place", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var view = await owner.GetAsync($"/api/inquiries/{waiting.Text("id")}").JsonAsync();
        view.GetProperty("waitsFor").GetString().ShouldBeNull();
        view.GetProperty("timeline").GetRawText().ShouldContain("Maren Tolliver gave Robin Pell a place in May 2027.");
    }

    [Fact]
    public async Task Who_wants_to_know_is_told_of_every_inquiry_with_its_fit_and_a_link()
    {
        await using var app = new TestApp();
        var sunil = await app.AskAsync(db =>
            db.Users.Where(user => user.DisplayName == "Sunil Abara").Select(user => user.Id).SingleAsync()
        );
        await app.ChangeFormAsync(settings => settings with { Notified = [sunil] });
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var inquiry = await app.AskAsync(db => db.Inquiries.Select(one => one.Id).SingleAsync());
        var text = await app.MailToAsync("sunil@ochrewren.example");
        text.ShouldStartWith("Tilda Brackenridge sent “A wall to paint”: Come in.");
        text.ShouldContain($"http://localhost/inquiries/{inquiry}");
    }

    [Fact]
    public async Task A_choice_of_services_keeps_the_list_as_it_was_published_and_sets_the_projects_service()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var none = (await owner.GetAsync("/api/settings").JsonAsync()).GetProperty("lists");
        var lists = new
        {
            services = new[]
            {
                new
                {
                    key = "gilding",
                    name = "Window gilding",
                    startsAt = (decimal?)600,
                },
                new
                {
                    key = "",
                    name = "A mural",
                    startsAt = (decimal?)null,
                },
            },
            sources = Array.Empty<object>(),
        };
        (await owner.PutAsync("/api/settings/lists", Body(new { was = none, now = lists }))).EnsureSuccessStatusCode();
        var link = await app.MakeQuickFormAsync(
            Small with
            {
                Pages =
                [
                    Small.Pages[0] with
                    {
                        Items =
                        [
                            .. Small.Pages[0].Items,
                            new Question(
                                "work",
                                "What?",
                                new ChoiceKind([new Option("unsure", "I don't know", Unsure: true)]) { From = OptionList.Services }
                            ),
                        ],
                    },
                ],
            }
        );
        var form = (await app.CreateClient().GetAsync($"/public/forms/{link}").JsonAsync()).GetProperty("form");
        form.GetProperty("pages")[0]
            .GetProperty("items")
            .EnumerateArray()
            .Last()
            .GetProperty("control")
            .GetProperty("options")
            .EnumerateArray()
            .Select(option => option.Text("key"))
            .ShouldBe(["gilding", "a-mural", "unsure"]);
        var answers = Filled();
        answers["work"] = ChoiceAnswer.Of("gilding");
        (await app.SendAsync(link, answers)).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.FieldValues.SingleAsync(value => value.Field == "project.service"))).Value.ShouldBe(
            new TextAnswer("Window gilding")
        );
    }

    [Fact]
    public async Task An_early_exit_before_any_contact_makes_no_client_only_a_count_with_its_answers()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(
            new FormContent(
                "A form",
                "",
                [
                    new Page("one", "One", [new Question("spray", "Spray?", new YesNoKind())])
                    {
                        Routes = [new RouteRule(new IsCondition(new AnswerTo("spray"), "yes"), "no-spray")],
                    },
                    .. Small.Pages.Select(page => page with { Key = "two" }),
                ],
                [new SendOff("no-spray", "Not here", "Sorry.") { TurnsAway = true, SaysAwayNote = true }],
                Small.DefaultSendOff
            )
        );
        var sent = await (
            await app.SendAsync(link, new() { ["spray"] = new YesNoAnswer(true), ["email"] = new TextAnswer("typed@before.example") })
        ).JsonAsync();
        sent.Text("title").ShouldBe("Not here");
        sent.GetProperty("paragraphs")
            .EnumerateArray()
            .Last()
            .GetString()
            .ShouldBe("We are away.", "this send-off says the away note, too");
        (await app.AskAsync(db => db.Clients.CountAsync())).ShouldBe(0);
        (await app.AskAsync(db => db.Submissions.SingleAsync())).Answers.ByQuestion.Keys.ShouldBe(["spray"]);
        var exits = (await app.Owner().GetAsync($"/api/forms/{await IdAsync(app)}/settings").JsonAsync()).GetProperty("earlyExits");
        exits.GetProperty("count").GetInt32().ShouldBe(1);
        var shown = exits.GetProperty("latest")[0];
        (shown.Text("sendOff"), shown.GetProperty("answers")[0].GetString()).ShouldBe(("Not here", "Spray: Yes"));
    }

    private static Dictionary<string, Answer?> Filled(string email = "robin@pell.example") =>
        new() { ["name"] = new PersonNameAnswer("Robin", "Pell"), ["email"] = new TextAnswer(email) };

    private static async Task<(string Welcome, string Note)> WelcomeAsync(TestApp app, string link)
    {
        var shown = await app.CreateClient().GetAsync($"/public/forms/{link}").JsonAsync();
        return (shown.Text("welcome"), shown.Text("note"));
    }

    private static async Task<string> IdAsync(TestApp app) =>
        (await app.AskAsync(db => db.Forms.ToListAsync())).OrderBy(form => form.Id.Value).Last().Id.ToString();

    private static async Task<string> MakeLinkAsync(HttpClient owner, string form, string email, string givenName, string familyName) => (
            await owner
                .PostAsync(
                    $"/api/forms/{form}/links",
                    Body(
                        new
                        {
                            email,
                            givenName,
                            familyName,
                        }
                    )
                )
                .JsonAsync()
        )[0].Text("link").Split('/').Last();

    private static Task<HttpResponseMessage> CheckAsync(HttpClient who, string link, string code) =>
        who.PostAsync($"/public/forms/{link}/code/check", Body(new { code }));
}
