using OpenQA.Selenium;
using PorchLight.Core.Meetings;

namespace PorchLight.Browser.Tests;

public sealed class MeetingScreenTests
{
    /// <summary>One visitor from the first look to the last: as narrow as a phone, and by keyboard where it matters.</summary>
    [Fact]
    public async Task Somebody_takes_a_time_moves_it_and_cancels_it_and_the_owner_sees_each()
    {
        await using var app = new BrowserApp(SeedData.DemoWithPeople);
        using var owner = new Visitor();
        owner.ComeIn(app, "/calendar/types");
        owner.Follow("A first talk");
        var link = owner.Find("//textarea[@aria-label='Link']").GetDomProperty("value")!;
        using var lead = new Visitor(320, 700);
        lead.WillBeRefused("status of 422");
        lead.Open(app.Address + new Uri(link).PathAndQuery);
        lead.Sees("When suits you?");
        lead.FindsNothingAtAll();
        lead.Run<bool>("return document.documentElement.scrollWidth <= 320").ShouldBeTrue();
        lead.Run<object?>("document.querySelector('input[name=time]').focus(); return null");
        lead.Keyboard(Keys.Space);
        lead.Keyboard(Keys.ArrowDown);
        lead.Press("Go on");
        lead.Wait("the first box has the focus", () => lead.Run<string>("return document.activeElement.autocomplete") == "given-name");
        lead.Type("First name", "Tess");
        lead.Type("Your e-mail", "tess@brandnew.example");
        lead.Press("Take this time");
        lead.Sees("Please give the number we should ring");
        lead.FindsNothingAtAll();
        lead.Type("Which number shall we ring?", "+353 1 555 0177");
        lead.Press("Take this time");
        lead.Sees("It’s booked");
        lead.FindsNothingAtAll();
        var booked = app.Ask(db => db.Meetings.OrderBy(meeting => meeting.Booked).Last());
        booked.Name.ShouldBe("Tess");

        lead.Reload();
        lead.Press("Move");
        lead.Sees("The old one stays yours until then.");
        lead.Wait("the times are there", () => lead.Run<bool>("return document.querySelectorAll('input[name=time]').length > 6"));
        lead.Run<object?>("document.querySelectorAll('input[name=time]')[6].click(); return null");
        lead.Press("Move it");
        lead.Sees("It’s moved");
        var moved = app.Ask(db => db.Meetings.Single(meeting => meeting.Id == booked.Id));
        (moved.Sequence, moved.Start == booked.Start).ShouldBe((1, false));

        lead.Press("Cancel");
        lead.Type("A word to us", "We wait until spring.");
        lead.Press("Cancel the meeting");
        lead.Sees("This meeting is cancelled");
        app.Ask(db => db.Meetings.Single(meeting => meeting.Id == booked.Id)).State.ShouldBe(MeetingState.Cancelled);

        owner.GoTo($"/calendar/{booked.Id.Value}");
        owner.Sees("This meeting was cancelled.");
        owner.Sees("We wait until spring.");
    }
}
