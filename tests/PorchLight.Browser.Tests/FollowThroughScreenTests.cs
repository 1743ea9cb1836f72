using OpenQA.Selenium;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.FollowThrough;
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

        // A step on its day: another name, and a message with a gap that is filled each time.
        owner.Click("//button[contains(., 'Second follow-up')][@aria-pressed]");
        owner.Type("What you call it", "Two walls like theirs");
        owner.Press("Add a gap");
        owner.Type("A gap you fill each time", "two walls, a line each");
        owner.Wait(
            "it is kept",
            () =>
                Draft(app).Steps[2]
                    is {
                        Name: "Two walls like theirs",
                        Action: SendMessage { Message.Parts: [_, GapPart { Prompt: "two walls, a line each" }] }
                    }
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
        owner.Press("Hold it back");
        owner.Sees("Held back.");
        app.Ask(db => db.Runs.Single(run => run.FollowThroughId == Id(app))).State.Status.ShouldBe(RunStatus.Paused);
        owner.Press("Let it go on");
        owner.SeesNoMore("Held back.");
    }

    private static PorchLight.Core.Common.Id<StoredFollowThrough> Id(BrowserApp app) =>
        app.Ask(db => db.FollowThroughs.OrderBy(one => one.Id).Last()).Id;

    private static FollowThroughContent Draft(BrowserApp app) => app.Ask(db => db.FollowThroughs.OrderBy(one => one.Id).Last()).Draft!;
}
