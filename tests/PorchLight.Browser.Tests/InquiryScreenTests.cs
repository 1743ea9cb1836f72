using OpenQA.Selenium;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using static PorchLight.Testing.Requests;

namespace PorchLight.Browser.Tests;

/// <summary>How a form sorts, and the inquiries it sorts, through the real screens.</summary>
public sealed class InquiryScreenTests
{
    [Fact]
    public async Task Ten_inquiries_are_worked_through_by_keyboard_alone()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        for (var number = 0; number < 10; number++)
        {
            var answers = Answers($"lead{number}@leads.example");
            answers["name"] = new PersonNameAnswer($"Lead{number}", "Ames");
            (await app.SendAsync(answers)).EnsureSuccessStatusCode();
        }

        owner.ComeIn(app, "/inquiries");
        owner.Sees("Waiting for you, 10");
        owner.Keyboard(Keys.ArrowDown);
        owner.Keyboard(Keys.Enter);
        for (var left = 10; left > 0; left--)
        {
            var name = owner.Run<string>("return document.querySelector('aside h1')?.textContent ?? ''");
            owner.Wait(
                "a panel is open",
                () =>
                    owner
                        .Run<string>("return document.querySelector('aside h1')?.textContent ?? ''")
                        .StartsWith("Lead", StringComparison.Ordinal)
            );
            owner.Wait(
                "its replies are there",
                () =>
                    owner.Run<bool>(
                        "return [...document.querySelectorAll('aside button')].some(one => one.innerText.startsWith('Decline'))"
                    )
            );
            // A welcome, a no, a question, one after the other; what has to be filled in has the focus.
            owner.Keyboard(
                (left % 3) switch
                {
                    0 => "c",
                    1 => "m",
                    _ => "q",
                }
            );
            owner.Wait("one writes", () => owner.Run<bool>("return document.activeElement.matches('aside form [role=textbox]')"));
            if (left % 3 == 2)
            {
                owner.Wait(
                    "in what has to be filled in",
                    () => owner.Run<bool>("return !!getSelection().anchorNode?.parentElement?.closest('[data-open]')")
                );
                owner.Keyboard("How high is the wall?");
            }

            owner.Keyboard(Keys.Control + Keys.Enter);
            var waiting = left - 1;
            owner.Wait($"{waiting} are left", () => app.Ask(db => db.Inquiries.Count(one => one.Need == InquiryNeed.Reply)) == waiting);
            owner.Wait("it is said", () => !owner.Run<bool>("return document.querySelector('aside form') !== null"));
            owner.Keyboard(Keys.Escape);
            owner.Wait("the list is there", () => owner.Run<bool>("return document.querySelector('aside') === null"));
            if (waiting > 0)
            {
                owner.Wait(
                    "the list has moved on",
                    () => owner.Run<bool>($"return document.body.innerText.includes('Waiting for you, {waiting}')")
                );
                owner.Run<object?>("return document.activeElement.blur()");
                owner.Keyboard(Keys.ArrowDown);
                owner.Keyboard(Keys.Enter);
            }
        }

        app.Ask(db => db.Projects.Count(project => project.Stage == "declined")).ShouldBe(4);
        app.Ask(db => db.Projects.Count(project => project.Stage == "talking")).ShouldBe(6);
        owner.Keyboard(Keys.Alt + "h");
        owner.Sees("Show all keys");
        owner.FindsNothingAtAll();
    }

    [Fact]
    public async Task A_signal_is_changed_tried_on_the_past_put_into_force_and_a_person_sorts_otherwise()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 422");
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var form = app.Ask(db => db.Forms.OrderBy(one => one.Id).First().Id);
        owner.ComeIn(app, $"/forms/{form}/screening");
        owner.Sees("Nobody would move.");
        owner.Click("//li[@data-signal='budget-fits']/button");
        var points = owner.Find("//input[@aria-label='How many points, with a minus to take them away']");
        points.SendKeys(Keys.Control + "a");
        points.SendKeys("-40");
        owner.Sees("Nobody would move up, 1 down.");
        owner.Sees("Tilda Brackenridge");
        owner.FindsNothingAtAll();
        owner.Click("//input[@aria-label='Not now under']");
        owner.Keyboard(Keys.Control + "a");
        owner.Keyboard("70");
        owner.Sees("The points for Not now lie above those for Come in.");
        owner.Click("//button[@aria-label='Undo']");
        owner.SeesNoMore("The points for Not now lie above those for Come in.");
        owner.Press("Put it into force …");
        owner.Sees("40 points off instead of 30 points.");
        owner.FindsNothingAtAll();
        owner.Press("Put screening 2 into force");
        owner.Sees("Screening 2 is in force. Past inquiries keep their fit.");
        app.Ask(db => db.Inquiries.Single().Fit).ShouldBe(Fit.ComeIn);

        owner.Open(app.Address + "/inquiries");
        owner.Follow("Tilda Brackenridge");
        owner.Press("Judge it by today’s screening");
        owner.Sees("It came in as");
        owner.Press("Change the verdict");
        owner.Type("Why", "They are old friends");
        owner.Press("Sort it");
        owner.Sees("Maren Tolliver sorted it as");
        owner.FindsNothingAtAll();
        app.Ask(db => db.OverruledFits.Single().Reason).ShouldBe("They are old friends");
    }

    [Fact]
    public async Task Who_phoned_is_written_down_spam_is_set_aside_who_left_is_written_to_and_the_board_is_worked_by_keyboard()
    {
        await using var app = new BrowserApp(SeedData.DemoWithPeople);
        using var owner = new Visitor();
        owner.ComeIn(app, "/inquiries");
        owner.Press("Add an inquiry");
        owner.Pick("The form", "A wall to paint");
        owner.FindsNothingAtAll();
        owner.Press("Continue to the questions");
        owner.Sees("You write down an inquiry that came by phone.");
        owner.Type("First name", "Fenna");
        owner.FindsNothingAtAll();
        owner.Press("Go on");
        owner.Sees("What would you like painted?");
        owner.Press("Send");
        owner.Sees("It is written down");
        owner.Follow("Open the inquiry");
        owner.Sees("by phone, written down by Maren Tolliver");
        var fenna = app.Ask(db => db.Inquiries.Single(one => one.WrittenDownBy != null).Id);
        app.Ask(db => db.Inquiries.Single(one => one.Id == fenna).Need).ShouldBe(InquiryNeed.Theirs);

        owner.Press("More");
        owner.Click("//*[@role='menuitem'][.='It is just a test']");
        owner.Sees("Set aside as just a test.");
        owner.FindsNothingAtAll();
        owner.Press("Put it back");
        owner.SeesNoMore("Set aside as just a test.");

        owner.Press("Write a note");
        owner.Type("A note", "Rings again on Monday.");
        owner.Press("Save the note");
        owner.Wait("the note is kept", () => app.Ask(db => db.Notes.Any(note => note.Text == "Rings again on Monday.")));
        owner.Wait("one goes on at the button", () => owner.Focused("Write a note"));

        owner.Open(app.Address + "/inquiries");
        owner.Press("Send one reminder");
        owner.Sees("A reminder was sent to Linus Overby.");
        owner.Browser.Resize(390, 800);
        owner.Press("Filters");
        owner.Find("//select[@aria-label='Sort by']").Displayed.ShouldBeTrue();
        owner.Press("Filters");
        owner.Browser.Resize(1280, 800);
        owner.Press("Show the board");
        owner.Find("//section[@aria-label='New']//a[contains(., 'Fenna')]").SendKeys(Keys.Alt + Keys.ArrowRight);
        owner.Wait("she stands one stage on", () => app.Ask(db => db.Inquiries.Single(one => one.Id == fenna).Stage) == "talking");
        owner.Find("//section[@aria-label='In talks']//a[contains(., 'Fenna')]");
        owner.FindsNothingAtAll();
    }
}
