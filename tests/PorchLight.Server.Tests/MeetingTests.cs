using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Demo;
using PorchLight.Server.Hosting;
using static PorchLight.Server.Tests.MeetingRequests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What the people of the business do with meetings.</summary>
public sealed class MeetingTests
{
    [Fact]
    public async Task Whatever_is_done_with_a_meeting_is_done_once_however_often_it_is_pressed()
    {
        await using var app = AtWork();
        var type = await TypeAsync(app, type => type);
        var link = await LinkAsync(app, type);
        var times = await FreeAsync(app, link);
        var own = OwnLink(await OnceAsync($"/public/meetings/{link}/book", BookingOf(times[0], Tess)));
        await OnceAsync(
            $"/public/meetings/{own}/move",
            new
            {
                start = times[8],
                zone = Dublin,
                reason = "",
            }
        );
        await OnceAsync($"/public/meetings/{own}/cancel", new { zone = Dublin, reason = "" });
        var client = await app.AskAsync(db => db.Clients.Select(one => one.Id).SingleAsync());
        await OnceAsync(
            "/api/meetings/links",
            new
            {
                type,
                client,
                inquiry = (Guid?)null,
            }
        );
        var made = await OnceAsync(
            "/api/meetings",
            new
            {
                type,
                client,
                inquiry = (Guid?)null,
                start = times[0],
                place = "phone",
                placeWords = "01 555 0142",
            }
        );
        await OnceAsync($"/api/meetings/{made.Text("id")}/move", new { start = times[8], reason = "" });
        await OnceAsync($"/api/meetings/{made.Text("id")}/cancel", new { reason = "" });
        var day = new LocalDate(2027, 1, 4);
        await OnceAsync(
            "/api/practice/calendar",
            new
            {
                title = "Choir",
                day,
                from = new LocalTime(18, 0),
                minutes = 60,
                isWeekly = true,
            }
        );
        var practice = await app.Owner().GetAsync("/api/practice/calendar").JsonAsync();
        await OnceAsync("/api/outside-calendars", new { name = "Outside", address = practice.Text("address") });
        await OnceAsync(
            "/api/outside-calendars/file",
            new { name = "File", text = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//example//tests//EN\r\nEND:VCALENDAR\r\n" }
        );
        await OnceAsync("/api/calendar-feed/renew", new { });
        await app.AskAsync(async db =>
        {
            (await db.PracticeCalendarEntries.CountAsync(), await db.OutsideCalendars.CountAsync()).ShouldBe((1, 2));
            (await db.Meetings.Select(meeting => meeting.Sequence).ToListAsync()).ShouldBe([2, 2]);
            (await db.BookingLinks.CountAsync()).ShouldBe(1);
            return true;
        });

        async Task<JsonElement> OnceAsync(string path, object body)
        {
            var key = Guid.NewGuid().ToString();
            var answers = await Task.WhenAll(Press(), Press());
            var said = new List<string>();
            foreach (var answer in answers.Append(await Press()))
            {
                answer.IsSuccessStatusCode.ShouldBeTrue($"{path}: {await answer.Content.ReadAsStringAsync()}");
                said.Add(SameSpelling(await answer.Content.ReadAsStringAsync()));
            }

            said.Distinct().ShouldHaveSingleItem(path);
            return said[0].Length == 0 ? default : JsonSerializer.Deserialize<JsonElement>(said[0]);

            // What is kept of an answer may spell a letter in another way.
            static string SameSpelling(string json) => json.Length == 0 ? "" : JsonNode.Parse(json)!.ToJsonString();

            Task<HttpResponseMessage> Press() =>
                app.Owner()
                    .SendAsync(
                        new HttpRequestMessage(HttpMethod.Post, path) { Content = Body(body), Headers = { { SendOnce.Header, key } } }
                    );
        }
    }

    [Fact]
    public async Task The_owner_books_for_somebody_moves_it_notes_what_was_said_and_that_they_did_not_come()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var type = await TypeAsync(app, edit => edit with { WritesDate = "project.start" });
        (await app.SendAsync(Answers("tilda@pell.example"))).EnsureSuccessStatusCode();
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        var times = TimesOf(await owner.GetAsync($"/api/meetings/times?type={type}").JsonAsync());
        var wanted = new
        {
            type,
            client = inquiry.ClientId,
            inquiry = (object)inquiry.Id,
            start = times[0],
            place = "phone",
            placeWords = "01 555 0142",
        };
        (await owner.PostAsync("/api/meetings", Body(wanted with { placeWords = "" }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        var id = (await owner.PostAsync("/api/meetings", Body(wanted)).JsonAsync()).Text("id");
        (await owner.PostAsync("/api/meetings", Body(wanted))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).PromiseStopped.ShouldNotBeNull("a booking keeps the reply promise");
        (await DateAsync()).ShouldBe(DayOf(times[0]));

        var later = times.First(start => DayOf(start) != DayOf(times[0]));
        (await owner.PostAsync($"/api/meetings/{id}/move", Body(new { start = later, reason = "" }))).EnsureSuccessStatusCode();
        (await DateAsync()).ShouldBe(DayOf(later), "its day is written again");
        var row = (await owner.GetAsync($"/api/meetings/of-client/{inquiry.ClientId}").JsonAsync())[0];
        (row.Text("id"), row.GetProperty("isToCome").GetBoolean()).ShouldBe((id, true));
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("meetings")[0].Text("name").ShouldBe("Tilda Brackenridge");
        (await (await owner.PostAsync($"/api/meetings/{id}/missed", Body(new { missed = true }))).SentenceAsync()).ShouldBe(
            "This meeting is still to come."
        );

        app.Time.Advance((later - Instant.FromDateTimeOffset(app.Time.GetUtcNow()) + Duration.FromHours(1)).ToTimeSpan());
        (await owner.PostAsync($"/api/meetings/{id}/move", Body(new { start = times[^1], reason = "" }))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        (await owner.PostAsync($"/api/meetings/{id}/cancel", Body(new { reason = "" }))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        foreach (var missed in new[] { true, true, false, true })
            (await owner.PostAsync($"/api/meetings/{id}/missed", Body(new { missed }))).EnsureSuccessStatusCode();
        (
            await owner.PutAsync($"/api/meetings/{id}/notes", Body(new { was = new { text = "" }, now = new { text = "Rang twice." } }))
        ).EnsureSuccessStatusCode();
        var seen = await owner.GetAsync($"/api/meetings/{id}").JsonAsync();
        (seen.Text("state"), seen.GetProperty("notes").Text("text"), seen.Text("hosts")).ShouldBe(
            ("missed", "Rang twice.", "Maren Tolliver")
        );
        (await app.AskAsync(db => db.Events.CountAsync(logged => logged.Kind == "meetingMissed"))).ShouldBe(2);

        Task<LocalDate?> DateAsync() =>
            app.AskAsync(async db =>
                (
                    (Core.Answers.DateAnswer?)
                        (await db.FieldValues.SingleOrDefaultAsync(value => value.Field == "project.start" && value.IsCurrent))?.Value
                )?.Date
            );
    }

    [Fact]
    public async Task A_meeting_the_owner_cancels_is_called_off_for_them_with_the_reason()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        var own = OwnLink(await BookAsync(app, link, (await FreeAsync(app, link))[0], Tess).JsonAsync());
        var id = (await app.AskAsync(db => db.Meetings.SingleAsync())).Id;
        (await app.Owner().PostAsync($"/api/meetings/{id}/cancel", Body(new { reason = "I am ill, sorry." }))).EnsureSuccessStatusCode();
        (await app.MailToAsync(Tess)).ShouldContain("I am ill, sorry.");
        var page = (await OpenAsync(app, own)).GetProperty("meeting");
        (page.Text("state"), page.Text("reason")).ShouldBe(("cancelled", "I am ill, sorry."));
        var told = await app.AskAsync(db =>
            db.PracticeMail.CountAsync(mail => mail.To == DemoBusiness.OwnerMail && mail.Subject.StartsWith("Cancelled"))
        );
        told.ShouldBe(0, "who did it is not told of it");
    }

    [Fact]
    public async Task The_week_shows_what_is_booked_and_a_day_that_is_none_is_refused()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var link = await MakeTypeAsync(app);
        var start = (await FreeAsync(app, link))[0];
        (await BookAsync(app, link, start, Tess)).EnsureSuccessStatusCode();
        var week = await owner.GetAsync($"/api/calendar/week?day={DayOf(start):uuuu'-'MM'-'dd}").JsonAsync();
        var entry = week.GetProperty("entries")[0];
        var local = start.InZone(DateTimeZoneProviders.Tzdb[Dublin]).TimeOfDay;
        (entry.Text("title"), entry.GetProperty("from").GetInt32()).ShouldBe(("Tess Ivory", local.Hour * 60 + local.Minute));
        var sunil = await app.AskAsync(db =>
            db.Users.Where(user => user.Email == DemoBusiness.MemberMail).Select(user => user.Id).SingleAsync()
        );
        (await owner.GetAsync($"/api/calendar/week?people={sunil}").JsonAsync()).GetProperty("entries").GetArrayLength().ShouldBe(0);
        foreach (var day in new[] { "soon", "9999-12-31", "-0005-01-01" })
            (await owner.GetAsync($"/api/calendar/week?day={day}")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }
}
