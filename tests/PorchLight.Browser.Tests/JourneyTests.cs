namespace PorchLight.Browser.Tests;

public sealed class JourneyTests
{
    [Fact]
    public async Task One_inquiry_goes_all_the_way_through_the_house()
    {
        await using var house = new BrowserHouse();
        using var owner = new Visitor();
        using var lead = new Visitor();

        // The owner signs in, changes the form's words and publishes.
        owner.Open(house.Address);
        owner.Sees("Sign in");
        owner.FindsNothingInTheWay();
        owner.GiveSignIn();
        owner.Sees("Nobody is waiting for a first word.");
        owner.FindsNothingInTheWay();
        owner.Press("Forms");
        owner.Sees("Light is on");
        owner.FindsNothingInTheWay();
        owner.Follow("A wall to paint");
        owner.Type("Title", "A wall of yours");
        owner.Type("Intro", "Two short pages about your wall.");
        owner.Type("Wording of question 5", "What shall we paint for you?");
        owner.Press("Publish version 2");
        owner.Sees("Version 2 is published");
        owner.Field("Link").GetDomProperty("value").ShouldBe(house.FormAddress);
        owner.Field("Embed code").GetDomProperty("value")!.ShouldContain("/embed.js");
        owner.FindsNothingInTheWay();
        owner.Press("Today");

        // A lead finds the form on the sample website, another origin, and makes mistakes first.
        lead.Open(house.SampleSite);
        lead.Enter("//iframe");
        lead.Sees("Two short pages about your wall.");
        lead.FindsNothingInTheWay();
        lead.Press("Go on");
        lead.Sees("3 answers need another look");
        lead.Sees("Please give your e-mail address, so that we can answer you.");
        lead.FindsNothingInTheWay();
        lead.Type("First name", "Robin");
        lead.Type("Family name", "Pell");
        lead.Type("Your e-mail address", "robin@pell");
        lead.Type("Your phone number", "12");
        lead.Type("Where is the wall?", "Arklow");
        lead.Press("Go on");
        lead.Sees("does not look like a phone number");
        lead.Type("Your phone number", "01 555 0123");
        lead.Type("Your e-mail address", "robin@pell-cycles.example");
        lead.Press("Go on");
        lead.Sees("What shall we paint for you?");
        lead.Press("Back");
        lead.Field("Where is the wall?").GetDomProperty("value").ShouldBe("Arklow", "going back loses nothing");
        lead.Press("Go on");
        lead.Type("What shall we paint for you?", "The yard wall, as seen from the train.");
        lead.Choose("4,000 to 9,000");
        lead.Choose("Yes, I decide");
        lead.Choose("I saw one of your walls");
        lead.FindsNothingInTheWay();
        var tall = FrameHeight(lead);
        lead.Press("Send");
        lead.Sees("Come in, the lamp is on");
        lead.FindsNothingInTheWay();
        lead.Press("I would like a call");
        lead.Sees("We have noted that you would like a call.");
        lead.LeavesNoTraceElsewhere(house.Address);
        FrameHeight(lead).ShouldBeLessThan(tall, "the frame is as high as its content");

        // Bell and Today show it without a reload; the panel says who, what, fit, why, and until when.
        owner.Find("//button[@aria-label='Bell, 2 new']");
        owner.Sees("One person is waiting for a first word");
        owner.Sees("wants a call");
        owner.FindsNothingInTheWay();
        owner.Press("Bell, 2 new");
        owner.Follow("Robin Pell asked for a call.");
        owner.Sees("You promised a first word");
        owner.Sees("48 business hours on the working-day clock");
        owner.Sees("Budget of 4,000 or more");
        owner.Sees("+30");
        owner.Sees("Project: Budget");
        owner.Sees("“After a mural inquiry” began.");
        owner.FindsNothingInTheWay();

        // The thank-you is in the practice mail and opens as the lead would see it.
        owner.Press("Practice");
        owner.Press("Practice mail");
        owner.Follow("Your wall: thank you, Robin");
        owner.Enter("//iframe");
        owner.Sees("Dear Robin,");
        owner.Leave();
        owner.FindsNothingInTheWay();

        // Skipping ahead makes the first follow-up wait for a nod; its gap must be filled.
        owner.Press("Practice");
        owner.FindsNothingInTheWay();
        owner.Click("//*[@role='menuitem'][starts-with(normalize-space(), 'To the next step,')]");
        owner.Sees(" ahead");
        owner.Browser.SwitchTo().ActiveElement().SendKeys(OpenQA.Selenium.Keys.Escape);
        owner.Press("Today");
        owner.Sees("One message wants your nod.");
        owner.Press("Read and send");
        owner.Sees("From “After a mural inquiry”");
        owner.FindsNothingInTheWay();
        owner.Press("Skip this one");
        owner.Sees("Skipped: First follow-up to Robin Pell.");
        owner.FindsNothingInTheWay();
        owner.Press("Undo");
        owner.Press("Read and send");
        owner.Type("Subject", "About your yard, Robin");
        owner.Press("Send");
        owner.Sees("One gap is still open");
        owner.Press("Close");
        owner.Press("Read and send");
        owner.Wait("what was refused is kept", () => owner.Field("Subject").GetDomProperty("value") == "About your yard, Robin");
        owner.Type("one line about their place", "I know that wall from the morning train.");
        owner.Sees("Saved");
        owner.Press("Send");
        owner.Sees("Nobody is waiting for a first word.");

        // They answer: the run stops, nothing pending remains, and the timeline says why.
        owner.Press("Practice");
        owner.Press("Practice mail");
        owner.Follow("About your yard, Robin");
        owner.Enter("//iframe");
        owner.Sees("I know that wall from the morning train.");
        owner.Leave();
        owner.Type("What they answer", "Thursday at four would be good.");
        owner.Press("They answered");
        owner.Sees("Their answer has arrived.");
        owner.Press("Clients");
        owner.Follow("Robin Pell");
        owner.Sees("“After a mural inquiry” stopped because Robin Pell answered; 2 steps cancelled.");
        owner.Sees("robin@pell-cycles.example");
        owner.Sees("Lead, with us since");
        owner.Sees("Project: A wall of yours");
        owner.Sees("to “What shall we paint for you?”");
        owner.FindsNothingInTheWay();
        owner.Press("Inquiries");
        owner.Sees("Nothing is owed");
        owner.FindsNothingInTheWay();
        owner.LeavesNoTraceElsewhere(house.Address, house.Address.Replace("http", "ws", StringComparison.Ordinal));
    }

    private static long FrameHeight(Visitor lead)
    {
        lead.Leave();
        var height = lead.Run<long>("return document.querySelector('iframe').offsetHeight");
        lead.Enter("//iframe");
        lead.Run<bool>("return document.documentElement.scrollHeight <= window.innerHeight + 1").ShouldBeTrue("nothing is cut off");
        return height;
    }
}
