using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using static PorchLight.Server.Tests.MeetingRequests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Calendars that are kept elsewhere, and one's own meetings at a secret address.</summary>
public sealed class OutsideCalendarTests
{
    [Fact]
    public async Task What_stands_in_a_file_is_no_free_time_any_more_and_only_its_owner_sees_its_name()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var link = await MakeTypeAsync(app);
        var times = await FreeAsync(app, link);
        var file = FileOf("Dentist", times[0], times[0] + Duration.FromHours(1));
        (await owner.PostAsync("/api/outside-calendars/file", Body(new { name = "Mine", text = file }))).EnsureSuccessStatusCode();
        var left = await FreeAsync(app, link);
        left.ShouldNotContain(times[0]);
        left.ShouldContain(times[^1]);
        var row = (await owner.GetAsync("/api/outside-calendars").JsonAsync())[0];
        (row.Text("name"), row.Text("holds"), row.GetProperty("isFile").GetBoolean()).ShouldBe(("Mine", "1 busy time to come", true));
        (await app.Member().GetAsync("/api/outside-calendars").JsonAsync()).GetArrayLength().ShouldBe(0);

        var day = $"/api/calendar/week?day={DayOf(times[0]):uuuu'-'MM'-'dd}";
        (await owner.GetAsync(day).JsonAsync()).GetProperty("busy")[0].Text("title").ShouldBe("Dentist");
        var theirs = (await app.Member().GetAsync(day).JsonAsync()).GetProperty("busy")[0];
        (theirs.Text("title"), theirs.Text("detail")).ShouldBe(("Busy", "Maren Tolliver"));
        theirs.ToString().ShouldNotContain("Dentist");

        var id = row.Text("id");
        (await app.Member().PostAsync($"/api/outside-calendars/{id}/read", Body(new { }))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await app.Member().DeleteAsync($"/api/outside-calendars/{id}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await owner.PostAsync($"/api/outside-calendars/{id}/read", Body(new { }))).EnsureSuccessStatusCode();
        (await owner.DeleteAsync($"/api/outside-calendars/{id}")).EnsureSuccessStatusCode();
        (await FreeAsync(app, link)).ShouldBe(times);
    }

    [Fact]
    public async Task What_cannot_be_read_is_said_beside_its_place_and_nothing_is_kept()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        await FindsAsync("/file", new { name = "Mine", text = "<html>Sign in</html>" }, "file");
        await FindsAsync("/file", new { name = " ", text = FileOf("X", Now(app), Now(app) + Duration.FromHours(1)) }, "name");
        await FindsAsync("", new { name = "Mine", address = "mine" }, "address");
        await FindsAsync("", new { name = "Mine", address = "https://calendar.example/nothing" }, "address");
        await FindsAsync("", new { name = "Mine", address = "http://127.0.0.1:1/mine.ics" }, "address", "your own network");
        (await app.AskAsync(db => db.OutsideCalendars.CountAsync())).ShouldBe(0);

        async Task FindsAsync(string path, object body, string place, string said = "")
        {
            var answer = await owner.PostAsync($"/api/outside-calendars{path}", Body(body));
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            var problem = await answer.JsonAsync();
            problem.GetProperty("findings")[0].Text("place").ShouldBe(place);
            problem.GetProperty("findings")[0].Text("sentence").ShouldContain(said);
        }
    }

    [Fact]
    public async Task The_practice_calendar_takes_up_invitations_and_is_read_again_every_hour_without_blocking_ones_own_meeting()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var link = await MakeTypeAsync(app);
        var times = await FreeAsync(app, link);
        var meeting = OwnLink(await BookAsync(app, link, times[0], Tess).JsonAsync());
        await app.WorkAsync();
        var practice = await owner.GetAsync("/api/practice/calendar").JsonAsync();
        practice.GetProperty("days")[0].Text("title").ShouldBe("A first talk with Tess Ivory");
        var address = practice.Text("address");
        (await owner.PostAsync("/api/outside-calendars", Body(new { name = "Outside", address }))).EnsureSuccessStatusCode();
        (await FreeAsync(app, meeting)).ShouldContain(times[0], "one's own meeting is no obstacle, there as here");

        var wanted = times.First(start => DayOf(start) != DayOf(times[0]));
        var local = wanted.InZone(DateTimeZoneProviders.Tzdb[Dublin]).LocalDateTime;
        var entry = new
        {
            title = "Choir",
            day = local.Date,
            from = local.TimeOfDay,
            minutes = 60,
            isWeekly = true,
        };
        (await owner.PostAsync("/api/practice/calendar", Body(entry))).EnsureSuccessStatusCode();
        (await FreeAsync(app, link)).ShouldContain(wanted, "it is not read yet");
        app.Time.Advance(TimeSpan.FromMinutes(61));
        await app.WorkAsync();
        var left = await FreeAsync(app, link);
        left.ShouldNotContain(wanted);
        left.ShouldNotContain(wanted + Duration.FromDays(7));

        var own = (await owner.GetAsync("/api/practice/calendar").JsonAsync()).GetProperty("own")[0];
        own.Text("when").ShouldStartWith("Weekly from ");
        (await app.Member().DeleteAsync($"/api/practice/calendar/{own.Text("id")}")).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.PracticeCalendarEntries.CountAsync())).ShouldBe(1, "it is somebody else's");
        (await owner.DeleteAsync($"/api/practice/calendar/{own.Text("id")}")).EnsureSuccessStatusCode();
        var id = (await owner.GetAsync("/api/outside-calendars").JsonAsync())[0].Text("id");
        (await owner.PostAsync($"/api/outside-calendars/{id}/read", Body(new { }))).EnsureSuccessStatusCode();
        (await FreeAsync(app, link)).ShouldContain(wanted);
        (await owner.PostAsync("/api/practice/calendar", Body(entry with { title = "" }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
    }

    [Fact]
    public async Task A_calendar_that_breaks_keeps_what_was_good_and_says_so_until_it_is_whole_again()
    {
        await using var outside = await CalendarHost.StartAsync();
        await using var app = new TestApp
        {
            Time = new(TestClock.BeginsAtWork),
            Settings = { ["PorchLight:CalendarsMayBeReadFromPrivateAddresses"] = "true" },
        };
        var owner = app.Owner();
        var link = await MakeTypeAsync(app);
        var times = await FreeAsync(app, link);
        outside.Text = FileOf("Dentist", times[0], times[0] + Duration.FromHours(1));
        (
            await owner.PostAsync("/api/outside-calendars", Body(new { name = "Family", address = outside.Address }))
        ).EnsureSuccessStatusCode();
        foreach (
            var (status, text, said) in new[]
            {
                (200, "<html>Sign in</html>", "There is no calendar at this address"),
                (404, "", "There is no calendar at this address"),
                (403, "", "wants a password"),
                (302, "", "leads on to another one"),
                (500, "", "answers with the error 500"),
                (200, new string('x', 5 << 20), "larger than 4 MB"),
            }
        )
        {
            (outside.Status, outside.Text) = (status, text);
            app.Time.Advance(TimeSpan.FromMinutes(61));
            await app.WorkAsync();
            var row = (await owner.GetAsync("/api/outside-calendars").JsonAsync())[0];
            row.Text("fault").ShouldContain(said);
            (await FreeAsync(app, link)).ShouldNotContain(times[0], "what was read before stays");
        }

        (outside.Status, outside.Text) = (200, FileOf("Dentist", times[^1], times[^1] + Duration.FromHours(1)));
        app.Time.Advance(TimeSpan.FromMinutes(61));
        await app.WorkAsync();
        (await owner.GetAsync("/api/outside-calendars").JsonAsync())[0].GetProperty("fault").ValueKind.ShouldBe(JsonValueKind.Null);
        (await FreeAsync(app, link)).ShouldNotContain(times[^1]);
    }

    [Fact]
    public async Task Ones_own_meetings_are_read_at_a_secret_address_with_or_without_names_until_it_is_made_anew()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var link = await MakeTypeAsync(app);
        (await BookAsync(app, link, (await FreeAsync(app, link))[0], Tess)).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/calendar-feed").JsonAsync()).GetProperty("link").ValueKind.ShouldBe(JsonValueKind.Null);
        var first = (await owner.PutAsync("/api/calendar-feed", Body(new { hasNames = true })).JsonAsync()).Text("link");
        Read(await (await FetchAsync(first)).Content.ReadAsStringAsync())
            .GetProperty("entries")[0]
            .Text("title")
            .ShouldBe("A first talk with Tess Ivory");
        (await owner.PutAsync("/api/calendar-feed", Body(new { hasNames = false }))).EnsureSuccessStatusCode();
        var unnamed = await (await FetchAsync(first)).Content.ReadAsStringAsync();
        unnamed.ShouldNotContain("Tess");
        unnamed.ShouldNotContain("555");
        Read(unnamed).GetProperty("entries")[0].Text("title").ShouldBe("A first talk");

        var second = (await owner.PostAsync("/api/calendar-feed/renew", Body(new { })).JsonAsync()).Text("link");
        (await FetchAsync(first)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await FetchAsync(second)).EnsureSuccessStatusCode();
        (await owner.DeleteAsync("/api/calendar-feed")).EnsureSuccessStatusCode();
        (await FetchAsync(second)).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        Task<HttpResponseMessage> FetchAsync(string address) => app.CreateClient().GetAsync(new Uri(address).AbsolutePath);
    }

    private static Instant Now(TestApp app) => Instant.FromDateTimeOffset(app.Time.GetUtcNow());

    private static string FileOf(string title, Instant from, Instant to) =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//example//tests//EN\r\nBEGIN:VEVENT\r\nUID:1@example\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:{title}\r\nDTSTART:{from:uuuuMMdd'T'HHmmss'Z'}\r\nDTEND:{to:uuuuMMdd'T'HHmmss'Z'}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
}
