using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Server.Demo;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class IntakeTests
{
    [Fact]
    public async Task An_inquiry_makes_everything_that_follows_in_one_transaction()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var sent = await (await app.SendAsync(Answers())).JsonAsync();
        sent.Text("title").ShouldBe("Come in, the lamp is on");
        sent.GetProperty("paragraphs")[0].GetString()!.ShouldContain("by Wednesday 10:00");

        await app.AskAsync(async db =>
        {
            var inquiry = await db.Inquiries.SingleAsync();
            (inquiry.Fit, inquiry.Verdict.Score, inquiry.KnownBefore).ShouldBe((Fit.ComeIn, 70, false));
            inquiry.PromisedBy.ShouldBe(app.Now + Duration.FromHours(48));
            (await db.Submissions.SingleAsync()).Answers.ByQuestion.Keys.ShouldBe(
                ["name", "email", "phone", "place", "what", "budget", "decides"],
                ignoreOrder: true
            );
            (await db.Clients.SingleAsync()).Name.ShouldBe("Tilda Brackenridge");
            (await db.Projects.SingleAsync()).Title.ShouldBe("A wall to paint");
            var budget = await db.FieldValues.SingleAsync(value => value.Field == "project.budget");
            (budget.Question, budget.FormVersion, budget.By, budget.At).ShouldBe(("budget", 1, "Tilda Brackenridge", app.Now));
            (await db.Runs.SingleAsync()).NextMoment.ShouldBe(app.Now + Duration.FromDays(1));
            (await db.OutgoingMail.SingleAsync()).To.ShouldBe("tilda@bakes.example");
            (await db.Events.OrderBy(logged => logged.Seq).Select(logged => logged.What).ToListAsync())
                .Select(what => what.GetType().Name)
                .ShouldBe(["InquiryReceived", "RunStarted", "MessageSent", "AnswersLanded"]);
            return 0;
        });
    }

    [Fact]
    public async Task When_anything_fails_nothing_is_kept_and_the_same_sending_can_be_tried_again()
    {
        await using var app = new TestApp { BreaksSomething = true };
        var key = Guid.NewGuid();
        await app.AskAsync(db => db.Database.ExecuteSqlRawAsync("ALTER TABLE OutgoingMail RENAME TO Elsewhere"));
        var failed = await app.SendAsync(Answers(), key);
        failed.StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        (await failed.SentenceAsync()).ShouldContain("What you typed is still here");
        (
            await app.AskAsync(async db =>
                (await db.Submissions.CountAsync(), await db.Clients.CountAsync(), await db.Runs.CountAsync(), await db.Events.CountAsync())
            )
        ).ShouldBe((0, 0, 0, 0));

        await app.AskAsync(db => db.Database.ExecuteSqlRawAsync("ALTER TABLE Elsewhere RENAME TO OutgoingMail"));
        (await app.SendAsync(Answers(), key)).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Inquiries.CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task A_double_click_is_one_inquiry_and_both_clicks_get_the_same_send_off()
    {
        await using var app = new TestApp();
        var key = Guid.NewGuid();
        var both = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => app.SendAsync(Answers(), key)));
        var receipts = await Task.WhenAll(both.Select(async one => (await one.EnsureSuccessStatusCode().JsonAsync()).Text("receipt")));
        receipts.Distinct().Count().ShouldBe(1);
        (
            await app.AskAsync(async db => (await db.Submissions.CountAsync(), await db.Clients.CountAsync(), await db.Runs.CountAsync()))
        ).ShouldBe((1, 1, 1));
    }

    [Fact]
    public async Task Many_people_at_once_are_each_one_client()
    {
        await using var app = new TestApp();
        var sent = await Task.WhenAll(Enumerable.Range(0, 12).Select(n => app.SendAsync(Answers($"lead{n % 6}@bakes.example"))));
        sent.ShouldAllBe(one => one.IsSuccessStatusCode);
        (
            await app.AskAsync(async db => (await db.Inquiries.CountAsync(), await db.Clients.CountAsync(), await db.Projects.CountAsync()))
        ).ShouldBe((12, 6, 6));
    }

    [Fact]
    public async Task Who_types_the_email_of_a_known_client_changes_nothing_on_file()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var before = await app.AskAsync(db => db.FieldValues.Select(value => value.Id).ToListAsync());
        var stranger = Answers(" TILDA@bakes.example ");
        stranger["phone"] = new PhoneAnswer("+353 1 555 0199");
        stranger["found"] = ChoiceAnswer.Of("search");
        (await app.SendAsync(stranger)).EnsureSuccessStatusCode();

        await app.AskAsync(async db =>
        {
            (await db.Clients.CountAsync()).ShouldBe(1);
            (await db.FieldValues.Select(value => value.Id).ToListAsync()).ShouldBe(before, ignoreOrder: true);
            var differences = await db.Differences.ToListAsync();
            differences
                .Select(one => (one.Field, one.Ours is null))
                .ShouldBe([("client.phone", false), ("client.source", true)], ignoreOrder: true);
            var second = await db.Inquiries.SingleAsync(inquiry => inquiry.KnownBefore);
            (await db.Projects.CountAsync()).ShouldBe(1, "it joins the open project");
            (await db.OutgoingMail.CountAsync()).ShouldBe(1, "one acknowledgement");
            second.PromisedBy.ShouldNotBeNull();
            return 0;
        });
        var owner = app.Owner();
        var id = await app.AskAsync(db => db.Inquiries.Where(inquiry => inquiry.KnownBefore).Select(inquiry => inquiry.Id).SingleAsync());
        var view = await owner.GetAsync($"/api/inquiries/{id}").JsonAsync();
        view.GetProperty("differences")[0].Text("ours").ShouldBe("01 555 0142");
    }

    [Fact]
    public async Task Answers_to_a_version_since_replaced_are_kept_with_that_version()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var form = (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
        (await app.SaveContentAsync(owner, form, content => content.Reworded("what", "What shall we paint?"))).EnsureSuccessStatusCode();
        (await owner.PostAsync($"/api/forms/{form}/publish", null)).EnsureSuccessStatusCode();

        (await app.SendAsync(Answers(), version: 1)).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Submissions.SingleAsync())).FormVersion.ShouldBe(1);
        var id = await app.AskAsync(db => db.Inquiries.Select(inquiry => inquiry.Id).SingleAsync());
        (await owner.GetAsync($"/api/inquiries/{id}").JsonAsync())
            .GetProperty("answers")
            .EnumerateArray()
            .ShouldContain(answer => answer.Text("wording") == "What would you like painted?");
        var never = await app.SendAsync(Answers(), version: 9);
        never.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await never.SentenceAsync()).ShouldContain("your answers stay in this browser");
    }

    [Fact]
    public async Task Who_went_on_in_another_window_hears_that_these_words_did_not_go()
    {
        await using var app = new TestApp();
        var key = Guid.NewGuid();
        (await app.SendAsync(Answers(), key)).EnsureSuccessStatusCode();
        (await (await app.SendAsync(Answers(), key)).JsonAsync())
            .GetProperty("notice")
            .ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null, "a second try of the same is nothing new");
        var other = Answers();
        other["what"] = new TextAnswer("No gulls after all");
        (await (await app.SendAsync(other, key)).JsonAsync()).Text("notice").ShouldContain("sent already from another window");
        (await app.AskAsync(db => db.Submissions.SingleAsync())).Answers.ByQuestion["what"].ShouldBe(new TextAnswer("Bread and gulls"));
    }

    [Fact]
    public async Task Every_form_of_the_demo_answers_whoever_sends_it_at_once()
    {
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        var live = await app.AskAsync(async db =>
            (Forms: await db.Forms.ToListAsync(), Runs: await CompiledQueries.LiveFollowThroughs(db).ToListAsync())
        );
        foreach (var form in live.Forms)
        {
            foreach (var fit in new Fit?[] { Fit.ComeIn, Fit.TalkFirst, Fit.NotNow, null })
            {
                var step = live
                    .Runs.Select(version => version.Content)
                    .FirstOrDefault(content =>
                        content.Starts.IsStartedBy(new InquiryReceived(form.Id.Value, 1, fit, false, false), NoFacts.Instance)
                    )
                    ?.Steps[0];
                if (
                    fit is not null
                    || !(
                        await app.AskAsync(db =>
                            db.ScreeningVersions.SingleAsync(rules => rules.FormId == form.Id && rules.Number == form.ScreeningVersion)
                        )
                    )
                        .Rules
                        .Sorts
                )
                    (step?.Schedule.AtOnce, step?.NeedsNod).ShouldBe((true, false), $"“{form.Draft.Title}” after {fit}");
            }
        }
    }

    [Fact]
    public async Task The_workshop_of_the_demo_turns_away_who_wants_spray_and_keeps_no_name_and_asks_the_others_in()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var link = await app.AskAsync(async db =>
        {
            var things = await DemoFiles.TakeInAsync(db, app.Services.GetRequiredService<FileStore>(), app.Time);
            return await app.MakeQuickFormAsync(DemoWorkshop.Form(things), screening: DemoWorkshop.Screening);
        });
        var spray = await (await app.SendAsync(link, new() { ["kind"] = ChoiceAnswer.Of("spray") })).JsonAsync();
        spray.Text("title").ShouldBe("Spray cans are not our thing");
        (await app.AskAsync(async db => (await db.Submissions.CountAsync(), await db.Clients.CountAsync()))).ShouldBe(
            (1, 0),
            "nothing is kept with a name, as it says"
        );

        var sent = await app.SendAsync(
            link,
            new()
            {
                ["kind"] = ChoiceAnswer.Of("wall"),
                ["day"] = new DateAnswer(new LocalDate(2027, 1, 15)),
                ["heads"] = new NumberAnswer(10),
                ["painters"] = new RowsAnswer([
                    .. Enumerable
                        .Range(1, 10)
                        .Select(day => new AnswerRow(
                            new Dictionary<string, Answer?>
                            {
                                ["painter"] = new PersonNameAnswer("Ada", "Roe"),
                                ["born"] = new DateAnswer(new LocalDate(1990, 3, day)),
                            }
                        )),
                ]),
                ["name"] = new PersonNameAnswer("Dervla", "Roe"),
                ["email"] = new TextAnswer("dervla@clinic.example"),
                ["phone"] = new PhoneAnswer("01 555 0142"),
                ["where"] = new AddressAnswer("1 Quay", null, "Howth", null, "D13", "IE"),
                ["keep"] = new ConsentAnswer(),
            }
        );
        (await sent.JsonAsync()).Text("title").ShouldBe("We would love to paint with you, Dervla");
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).PromisedBy.ShouldNotBeNull();
    }

    [Fact]
    public async Task Whoever_sends_to_the_end_is_an_inquiry_on_today_and_in_the_bell_also_without_a_name_and_nothing_is_promised()
    {
        await using var app = new TestApp();
        await app.ChangeAsync(async db =>
        {
            var form = await db.Forms.SingleAsync();
            var question = new Question("why", "Why?", new ShortTextKind());
            db.FormVersions.Add(
                new FormVersion
                {
                    FormId = form.Id,
                    Number = 2,
                    Published = app.Now,
                    PublishedBy = "Maren",
                    Content = form.Draft with { Pages = [new Page("one", "One", [question])] },
                }
            );
        });
        var sent = await (
            await app.SendAsync(new Dictionary<string, Answer?> { ["why"] = new TextAnswer("Just looking") }, version: 2)
        ).JsonAsync();
        sent.Text("notice")
            .ShouldBe("Your answers have arrived. You left neither an e-mail address nor a phone number, so we cannot write back to you.");
        sent.ToString().ShouldNotContain("as soon as we can", Case.Sensitive);
        sent.ToString().ShouldNotContain("hear from", Case.Sensitive);
        (await app.CreateClient().GetAsync($"/public/receipts/{sent.Text("receipt")}").JsonAsync())
            .Text("notice")
            .ShouldBe(sent.Text("notice"), "also when they look again");
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        (inquiry.PromisedBy, inquiry.PromiseStopped).ShouldBe(
            ((NodaTime.Instant?)null, (NodaTime.Instant?)null),
            "someone must look, and nothing is promised"
        );
        var owner = app.Owner();
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("promised")[0].Text("name").ShouldBe("No name given");
        (await owner.WholeListAsync("/api/inquiries")).ToString().ShouldContain("No name given");
        (await owner.GetAsync("/api/bell").JsonAsync()).GetProperty("entries")[0].Text("sentence").ShouldContain("No name given");
    }

    [Fact]
    public async Task A_name_and_an_address_that_land_nowhere_still_say_who_wrote()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(
            new FormContent(
                "Short",
                "",
                [
                    new Page(
                        "one",
                        "One",
                        [new Question("who", "Who are you?", new PersonNameKind()), new Question("where", "Your address?", new EmailKind())]
                    ),
                ],
                [],
                new SendOff("end", "Thanks", "Thank you. We answer {promise}.")
            )
        );
        var sent = await (
            await app.SendAsync(
                link,
                new() { ["who"] = new PersonNameAnswer("Ada", "Byron"), ["where"] = new TextAnswer("ada@bakes.example") }
            )
        ).JsonAsync();
        sent.GetProperty("paragraphs")[0].GetString()!.ShouldStartWith("Thank you. We answer by ");
        var client = await app.AskAsync(db => db.Clients.SingleAsync());
        (client.Name, client.Email).ShouldBe(("Ada Byron", "ada@bakes.example"));
        (await app.AskAsync(db => db.FieldValues.Where(value => value.IsCurrent).Select(value => value.Field).ToListAsync()))
            .Order()
            .ToList()
            .ShouldBe(["client.email", "client.name"], "with where it came from, like everything on file");
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).PromisedBy.ShouldNotBeNull();
    }

    [Fact]
    public async Task Who_leaves_only_a_phone_number_is_a_client_and_the_timeline_says_that_no_mail_went()
    {
        await using var app = new TestApp();
        await app.ChangeAsync(async db =>
        {
            var form = await db.Forms.SingleAsync();
            var questions = form.Draft.Questions.Select(question =>
                question.Key == "email" ? question with { Required = false } : question
            );
            db.FormVersions.Add(
                new FormVersion
                {
                    FormId = form.Id,
                    Number = 2,
                    Published = app.Now,
                    PublishedBy = "Maren",
                    Content = form.Draft with { Pages = [new Page("one", "One", [.. questions])] },
                }
            );
        });
        var answers = Answers();
        answers.Remove("email");
        (await app.SendAsync(answers, version: 2)).EnsureSuccessStatusCode();
        await app.AskAsync(async db =>
        {
            (await db.Clients.SingleAsync()).Email.ShouldBeNull();
            (await db.OutgoingMail.CountAsync()).ShouldBe(0);
            (await db.Events.ToListAsync()).ShouldContain(logged => logged.What is MessageNotSent);
            return 0;
        });
    }

    [Fact]
    public async Task A_kind_no_owes_no_reply_and_starts_its_own_short_run()
    {
        await using var app = new TestApp();
        var sent = await (await app.SendAsync(Answers(budget: "under-1500"))).JsonAsync();
        sent.GetProperty("waysForward").GetArrayLength().ShouldBe(2);
        await app.AskAsync(async db =>
        {
            var inquiry = await db.Inquiries.SingleAsync();
            (inquiry.Fit, inquiry.PromisedBy, inquiry.PromiseStopped).ShouldBe((Fit.NotNow, null, app.Now));
            (await db.Runs.SingleAsync()).Active.ShouldBeFalse();
            (await db.OutgoingMail.SingleAsync()).Subject.ShouldContain("thank you for asking");
            return 0;
        });
    }

    [Fact]
    public async Task Who_asks_for_a_call_is_noted_once()
    {
        await using var app = new TestApp();
        var receipt = (await (await app.SendAsync(Answers())).JsonAsync()).Text("receipt");
        var stranger = app.CreateClient();
        (await stranger.PostAsync($"/public/receipts/{receipt}/call", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await stranger.PostAsync($"/public/receipts/{receipt}/call", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await stranger.PostAsync("/public/receipts/invented/call", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await app.AskAsync(db => db.Events.ToListAsync())).Count(logged => logged.What is CallAsked).ShouldBe(1);
    }
}
