using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Browser.Tests;

/// <summary>Follow-throughs through the real screens.</summary>
public sealed class FollowThroughScreenTests
{
    [Fact]
    public async Task A_ready_one_is_changed_rehearsed_and_put_into_force_and_somebody_on_it_is_held_back()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app, "/follow-through");
        owner.Press("A new follow-through");
        owner.Click("//button[starts-with(normalize-space(), 'After an inquiry')]");
        owner.Type("What you call it", "After they write");
        owner.Press("Begin");
        owner.Sees("It is ready.");

        // A step on its day: another name, and a message with a gap that is filled each time, and some words behind it.
        owner.Click("//button[contains(., 'Second follow-up')][@aria-pressed]");
        owner.Type("What you call it", "Two walls like theirs");
        owner.Press("Add a gap");
        owner.Keyboard("two walls, a line each", Keys.Enter, "- 2 * 3 m", Keys.Enter, "and **more**", Keys.Enter, Keys.Enter);
        owner.Keyboard("Yours, ");
        owner.Click("//*[starts-with(@aria-label, 'Formatting')]//button[normalize-space()='Insert a value']");
        owner.Press("Your name");
        owner.Click("//*[@role='textbox']//button[normalize-space()='Their first name']");
        owner.Type("While “Their first name” is not known, it says", "friend" + Keys.Enter);
        owner.Wait(
            "it is kept",
            () =>
                Draft(app).Steps[2]
                    is {
                        Name: "Two walls like theirs",
                        Action: SendMessage
                        {
                            Message.Parts: [
                                TextPart { Text: var before },
                                GapPart { Prompt: "two walls, a line each" },
                                TextPart { Text: "- 2 * 3 m\n- and **more**\nYours, {owner}" },
                            ]
                        }
                    }
                && before.Contains("{firstName|friend}", StringComparison.Ordinal)
        );
        owner.FindsNothingAtAll("aside");
        // By keyboard alone it changes places, and back.
        owner.Find("//button[contains(., 'Two walls like theirs')][@aria-pressed]").SendKeys(Keys.Alt + Keys.ArrowUp);
        owner.Wait("it is moved", () => Draft(app).Steps[1].Name == "Two walls like theirs");
        owner.Press("Undo");
        owner.Wait("it is back", () => Draft(app).Steps[2].Name == "Two walls like theirs");
        owner.Press("Done");

        owner.Choose("What they do", "answer");
        owner.Sees("they answer. It ends; what is left is never sent.");
        owner.Click("//li//button[contains(., 'First follow-up')][@aria-expanded]");
        owner.Sees("I have been thinking about what you wrote.");
        owner.FindsNothingAtAll("aside");

        // What starts it is a sentence with pickers.
        owner.Press("Change what starts and ends it");
        owner.Choose("Not now");
        owner.Sees("as Come in, Talk first or Not now");
        owner.Press("Put it into force …");
        owner.Press("Put version 1 into force");
        owner.Sees("Version 1 is in force.");

        (await app.SendAsync(Answers("ada@pell.example"))).EnsureSuccessStatusCode();
        app.Ask(db => db.Runs.Count(run => run.FollowThroughId == Id(app))).ShouldBe(0, "another asks for more of a wall");
        var client = app.Ask(db => db.Clients.Single()).Id;
        owner.Open($"{app.Address}/clients/{client}");
        owner.Choose("Which follow-through to start", "After they write");
        owner.Sees("It ends “After a mural inquiry”; what is still to come there is cancelled.");
        owner.Press("Start it");
        owner.Wait("they are on it", () => app.Ask(db => db.Runs.Count(run => run.FollowThroughId == Id(app) && run.Active)) == 1);
        owner.Click("//li[.//a[.='After they write']]//button[normalize-space()='Pause']");
        owner.Sees("Paused.");
        app.Ask(db => db.Runs.Single(run => run.FollowThroughId == Id(app))).State.Status.ShouldBe(RunStatus.Paused);
        owner.Press("Resume");
        owner.SeesNoMore("Paused.");

        // A day that is entered too late for what counts from it.
        app.Write(db =>
        {
            var business = db.Businesses.Single();
            business.DaysLookedAt = business.Calendar.Today(app.Now);
            var measure = new Step(
                "measure",
                "Measure",
                new MakeTask("Measure", 0, null),
                new Schedule(Anchor.RunStart, 0, TimeUnit.Days),
                false
            );
            db.AddFollowThroughs([new FollowThroughContent("Before the work", new ProjectDateStart("project.start", -7), [measure], [])]);
            db.FieldValues.Add(
                new FieldValue
                {
                    Id = new Id<FieldValue>(Guid.CreateVersion7()),
                    ClientId = client,
                    ProjectId = db.Projects.Single().Id,
                    Field = "project.start",
                    Value = new DateAnswer(business.DaysLookedAt.Value.PlusDays(3)),
                    IsCurrent = true,
                    By = "Maren",
                    At = app.Now,
                }
            );
        });
        owner.Open($"{app.Address}/clients/{client}");
        owner.Sees("“Before the work” should have started on");
        owner.Press("Start by hand …");
        owner.Sees("It ends “After they write”");
        owner.FindsNothingAtAll();
        owner.Press("Start it");
        owner.SeesNoMore("should have started on");
    }

    [Fact]
    public async Task Twenty_nods_are_given_in_one_sitting_by_keyboard_alone()
    {
        const int Many = 20;
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        for (var number = 0; number < Many; number++)
        {
            var answers = Answers($"lead{number}@leads.example");
            answers["name"] = new PersonNameAnswer($"Lead{number}", "Ames");
            (await app.SendAsync(answers)).EnsureSuccessStatusCode();
        }

        await StartAllAsync(app);
        owner.Wait("all of them wait", () => app.Ask(db => db.Runs.Where(run => run.Active).ToList()).Count(IsWaiting) == Many);
        owner.ComeIn(app, "/");
        owner.Sees("20 messages wait for your nod.");
        owner.Keyboard("n");
        // The first is put off, and comes again at the end.
        var first = Heading("");
        owner.Keyboard("l");
        var before = Heading(first);
        owner.FindsNothingAtAll("aside");
        for (var left = Many; left > 0; left--)
        {
            if (left % 5 == 0)
                owner.Keyboard("s");
            else if (left % 5 == 1)
                owner.Keyboard("e");
            else
            {
                owner.Keyboard("g");
                owner.Keyboard("Your wall would be seen from the train.", Keys.Control + Keys.Enter);
            }

            owner.Wait($"{left - 1} are left", () => app.Ask(db => db.Runs.Count(run => run.Active)) == left - 1);
            if (left > 1)
                before = Heading(before);
        }

        owner.Wait("the sitting is over", () => owner.Run<bool>("return document.querySelector('aside') === null"));
        app.Ask(db => db.OutgoingMail.Count(mail => mail.Text.Contains("seen from the train"))).ShouldBe(12);
        app.Ask(db => db.Events.Count(logged => logged.Kind == "stepSkipped")).ShouldBe(4);
        app.Ask(db => db.Runs.ToList()).Count(run => run.State.StoppedBy == RunEnd.Replied).ShouldBe(4);

        // Whom the panel is about, once it is another than before and has the keys.
        string Heading(string than)
        {
            var now = "";
            owner.Wait(
                "the next stands there",
                () =>
                {
                    now = owner.Run<string>("return document.activeElement?.matches('aside h1') ? document.activeElement.textContent : ''");
                    return now.Contains("Lead", StringComparison.Ordinal) && now != than;
                }
            );
            return now;
        }
    }

    private static bool IsWaiting(Run run) => run.State.Current?.Status == StepStatus.Waiting;

    /// <summary>Everybody who has written gets on one that waits for a nod at once, with a gap to fill.</summary>
    private static async Task StartAllAsync(BrowserApp app)
    {
        var message = new MessageTemplate(
            "Your wall",
            [new TextPart("a", "Dear {firstName},"), new GapPart("gap", "one line about their wall")]
        );
        var step = new Step(
            "word",
            "A word",
            new SendMessage(message),
            new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true),
            NeedsNod: true
        );
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        var id = new PorchLight.Core.Common.Id<StoredFollowThrough>(Guid.CreateVersion7());
        db.FollowThroughs.Add(
            new StoredFollowThrough
            {
                Id = id,
                Number = 1,
                IsOn = false,
            }
        );
        var version = db.FollowThroughVersions.Add(
            new FollowThroughVersion
            {
                FollowThroughId = id,
                Number = 1,
                Content = new FollowThroughContent("A word to all", new ByHandStart(), [step], [StopOn.Replied]),
            }
        );
        var now = scope.ServiceProvider.GetRequiredService<BusinessClock>().GetCurrentInstant();
        foreach (var inquiry in await db.Inquiries.ToListAsync())
            await scope
                .ServiceProvider.GetRequiredService<RunEngine>()
                .StartAsync(version.Entity, new EventContext(inquiry.ClientId, inquiry.ProjectId, inquiry.Id), now);
        await write.SaveAsync(CancellationToken.None);
    }

    private static PorchLight.Core.Common.Id<StoredFollowThrough> Id(BrowserApp app) =>
        app.Ask(db => db.FollowThroughs.OrderBy(one => one.Id).Last()).Id;

    private static FollowThroughContent Draft(BrowserApp app) => app.Ask(db => db.FollowThroughs.OrderBy(one => one.Id).Last()).Draft!;
}
