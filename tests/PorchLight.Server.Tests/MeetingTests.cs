using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Meetings;
using PorchLight.Server.Demo;
using PorchLight.Server.Hosting;
using PorchLight.Server.Meetings;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class MeetingTests
{
    private const string Dublin = "Europe/Dublin";
    private const string Tess = "tess@brandnew.example";

    [Fact]
    public async Task A_stranger_books_a_time_and_both_have_it_in_writing_and_in_their_calendar()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        var page = await OpenAsync(app, link, "America/New_York");
        page.Text("zoneName").ShouldBe("New York");
        var start = TimesOf(page.GetProperty("booking").GetProperty("times"))[0];
        var booked = await BookAsync(app, link, start, Tess, "America/New_York").JsonAsync();
        var meeting = booked.GetProperty("meeting");
        meeting.Text("when").ShouldContain("in New York");
        meeting.Text("where").ShouldBe("By phone: we ring +353 1 555 0177");

        var client = await app.AskAsync(db => db.Clients.SingleAsync());
        (client.Name, client.Email).ShouldBe(("Tess Ivory", Tess));
        (await app.AskAsync(db => db.FieldValues.Select(value => value.Origin).Distinct().SingleAsync())).ShouldBe(ValueOrigin.Booked);
        (await app.AskAsync(db => db.Projects.SingleAsync())).Title.ShouldBe("A first talk");
        var seen = await app.Owner().GetAsync($"/api/clients/{client.Id}").JsonAsync();
        seen.GetProperty("timeline")
            .EnumerateArray()
            .Select(entry => entry.Text("sentence"))
            .ShouldContain(said => said.StartsWith("Tess Ivory booked a meeting for ", StringComparison.Ordinal));

        (await app.MailToAsync(Tess)).ShouldContain(meeting.Text("address"));
        (await app.MailToAsync(DemoBusiness.OwnerMail)).ShouldStartWith("Tess Ivory, by phone +353 1 555 0177");
        var theirs = Read(await InvitationAsync(app, Tess));
        (theirs.Text("method"), theirs.GetProperty("entries")[0].Text("title")).ShouldBe(("REQUEST", "A first talk, Ochre Wren"));
        theirs.GetProperty("entries")[0].GetProperty("start").GetDateTimeOffset().ShouldBe(start.ToDateTimeOffset());
        Read(await InvitationAsync(app, DemoBusiness.OwnerMail))
            .GetProperty("entries")[0]
            .Text("title")
            .ShouldBe("A first talk with Tess Ivory");
    }

    [Fact]
    public async Task Moving_and_cancelling_by_the_link_tells_both_and_the_entry_keeps_its_name_while_its_number_rises()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        var times = await FreeAsync(app, link);
        var own = OwnLink(await BookAsync(app, link, times[0], Tess).JsonAsync());
        (await FreeAsync(app, link)).ShouldNotContain(times[0]);
        (await FreeAsync(app, own)).ShouldContain(times[0], "one's own meeting is no obstacle");
        var first = Read(await InvitationAsync(app, Tess)).GetProperty("entries")[0];

        var moved = await PostAsync(
                app,
                own,
                "move",
                new
                {
                    start = times[8],
                    zone = Dublin,
                    reason = "The plumber comes.",
                }
            )
            .JsonAsync();
        moved.GetProperty("meeting").GetProperty("start").GetDateTimeOffset().ShouldBe(times[8].ToDateTimeOffset());
        (await FreeAsync(app, link)).ShouldContain(times[0], "the old time is free again");
        (await app.MailToAsync(DemoBusiness.OwnerMail)).ShouldContain("Why: The plumber comes.");
        var second = Read(await InvitationAsync(app, Tess));

        (await PostAsync(app, own, "cancel", new { zone = Dublin, reason = "" })).EnsureSuccessStatusCode();
        (await FreeAsync(app, link)).ShouldContain(times[8]);
        var third = Read(await InvitationAsync(app, Tess));
        third.Text("method").ShouldBe("CANCEL");
        var entries = new[] { first, second.GetProperty("entries")[0], third.GetProperty("entries")[0] };
        entries.Select(entry => entry.Text("uid")).Distinct().ShouldHaveSingleItem();
        entries.Select(entry => entry.GetProperty("sequence").GetInt32()).ShouldBe([0, 1, 2]);
        entries.Select(entry => entry.Text("status")).ShouldBe(["CONFIRMED", "CONFIRMED", "CANCELLED"]);

        (await PostAsync(app, own, "cancel", new { zone = Dublin, reason = "" })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (
            await (
                await PostAsync(
                    app,
                    own,
                    "move",
                    new
                    {
                        start = times[0],
                        zone = Dublin,
                        reason = "",
                    }
                )
            ).SentenceAsync()
        ).ShouldBe("This meeting has been cancelled.");
    }

    [Fact]
    public async Task The_second_of_two_hears_that_it_is_taken_and_gets_the_nearest_three()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        var wanted = (await FreeAsync(app, link))[4];
        (await BookAsync(app, link, wanted, Tess)).EnsureSuccessStatusCode();
        var refused = await BookAsync(app, link, wanted, "other@brandnew.example");
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var problem = await refused.Content.ReadFromJsonAsync<JsonElement>();
        problem.Text("detail").ShouldStartWith(BookingEndpoints.Taken);
        var free = await FreeAsync(app, link);
        problem
            .GetProperty("nearest")
            .EnumerateArray()
            .Select(StartOf)
            .ShouldBe(free.OrderBy(start => start < wanted ? wanted - start : start - wanted).ThenBy(start => start).Take(3).Order());
        (await app.AskAsync(db => db.Clients.CountAsync())).ShouldBe(1, "nobody is made of who got no time");
    }

    [Fact]
    public async Task Of_two_hundred_people_at_twenty_times_at_once_twenty_book_and_the_others_are_told()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        var times = (await FreeAsync(app, link)).Where((_, index) => index % 2 == 0).Take(20).ToList();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 200)
                .Select(async number => await BookAsync(app, link, times[number % 20], $"guest{number}@brandnew.example"))
        );
        answers
            .CountBy(answer => answer.StatusCode)
            .ToDictionary()
            .ShouldBe(new Dictionary<HttpStatusCode, int> { [HttpStatusCode.OK] = 20, [HttpStatusCode.Conflict] = 180 }, ignoreOrder: true);
        foreach (var refused in answers.Where(answer => answer.StatusCode == HttpStatusCode.Conflict))
        {
            var problem = await refused.Content.ReadFromJsonAsync<JsonElement>();
            problem.Text("detail").ShouldStartWith(BookingEndpoints.Taken);
            problem.GetProperty("nearest").GetArrayLength().ShouldBe(3);
        }

        await app.WorkAsync();
        await app.AskAsync(async db =>
        {
            (await db.Meetings.Select(meeting => meeting.Start).ToListAsync()).ShouldBe(times, ignoreOrder: true);
            (await db.Clients.CountAsync()).ShouldBe(20);
            var mail = await db.PracticeMail.Where(mail => mail.Invitation != null).Select(mail => mail.To).ToListAsync();
            mail.Count(to => to == DemoBusiness.OwnerMail).ShouldBe(20);
            mail.Where(to => to != DemoBusiness.OwnerMail).ShouldBeUnique();
            mail.Count.ShouldBe(40);
            return true;
        });
    }

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
        await app.AskAsync(async db =>
        {
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
    public async Task Of_who_is_known_nothing_is_written_by_a_stranger_and_nothing_shown()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        (await app.SendAsync(Answers("tilda@pell.example"))).EnsureSuccessStatusCode();
        var before = await app.AskAsync(db => db.FieldValues.CountAsync());
        var times = await FreeAsync(app, link);
        var booked = await BookAsync(app, link, times[0], "tilda@pell.example", given: "Tilda", family: "Brackenridge");
        (await booked.Content.ReadAsStringAsync()).ShouldNotContain("Howth");
        await app.AskAsync(async db =>
        {
            (await db.FieldValues.CountAsync()).ShouldBe(before);
            var meeting = await db.Meetings.SingleAsync();
            (meeting.ClientId, meeting.ProjectId).ShouldBe(
                (await db.Clients.Select(client => client.Id).SingleAsync(), await db.Projects.Select(project => project.Id).SingleAsync())
            );
            return true;
        });
        // The mailbox under another name is somebody else.
        (await BookAsync(app, link, times[4], "tilda@pell.example", given: "Zebedee", family: "Quark")).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Clients.CountAsync())).ShouldBe(2);
    }

    [Fact]
    public async Task A_link_of_ones_own_knows_who_they_are_and_outlives_a_merge_but_no_erasing()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var type = await TypeAsync(app, edit => edit with { WhoMayBook = WhoMayBook.PersonalLink });
        var publicLink = await LinkAsync(app, type);
        (await app.SendAsync(Answers("tilda@pell.example"))).EnsureSuccessStatusCode();
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        var wanted = new
        {
            type,
            client = inquiry.ClientId,
            inquiry = (object)inquiry.Id,
        };
        var made = (await owner.PostAsync("/api/meetings/links", Body(wanted)).JsonAsync()).Text("link");
        (await owner.PostAsync("/api/meetings/links", Body(wanted)).JsonAsync()).Text("link").ShouldBe(made, "there is one");
        var own = made.Split('/')[^1];

        (await OpenAsync(app, publicLink)).GetProperty("booking").Text("closed").ShouldContain("only for people");
        (await app.CreateClient().GetAsync($"/public/meetings/{publicLink}/times")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var page = (await OpenAsync(app, own)).GetProperty("booking");
        (page.Text("known"), page.Text("about")).ShouldBe(("Tilda Brackenridge", "Bread and gulls"));
        var start = TimesOf(page.GetProperty("times"))[0];
        (await BookAsync(app, publicLink, start, Tess)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var booked = await BookAsync(app, own, start, email: "", given: "", family: "").JsonAsync();
        var meeting = OwnLink(booked);
        (await app.AskAsync(db => db.Meetings.SingleAsync())).InquiryId.ShouldBe(inquiry.Id);

        var other = (
            await owner
                .PostAsync(
                    "/api/clients",
                    Body(
                        new
                        {
                            name = "Tilda B",
                            email = "tilda@other.example",
                            phone = "",
                        }
                    )
                )
                .JsonAsync()
        ).Text("id");
        (
            await owner.PutAsync($"/api/clients/{other}/beside/{inquiry.ClientId}/merged", Body(new { take = Array.Empty<string>() }))
        ).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Meetings.SingleAsync())).ClientId.ToString().ShouldBe(other);
        (await OpenAsync(app, meeting)).GetProperty("meeting").Text("state").ShouldBe("booked");
        (await OpenAsync(app, own)).GetProperty("booking").Text("known").ShouldNotBeNull();

        (await owner.DeleteAsync($"/api/clients/{other}")).EnsureSuccessStatusCode();
        foreach (var link in new[] { meeting, own })
        {
            var gone = await app.CreateClient().GetAsync($"/public/meetings/{link}");
            gone.StatusCode.ShouldBe(HttpStatusCode.NotFound);
            (await gone.SentenceAsync()).ShouldBe(BookingEndpoints.NoSuchLink);
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
    public async Task Moving_and_cancelling_end_some_hours_before_and_the_link_says_so()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        var times = await FreeAsync(app, link);
        var own = OwnLink(await BookAsync(app, link, times[0], Tess).JsonAsync());
        app.Time.Advance(
            (times[0] - Duration.FromHours(4) - Instant.FromDateTimeOffset(app.Time.GetUtcNow()) + Duration.FromSeconds(1)).ToTimeSpan()
        );
        (await OpenAsync(app, own)).GetProperty("meeting").Text("locked").ShouldContain("could be moved or cancelled until today");
        foreach (var act in new[] { "move", "cancel" })
            (
                await PostAsync(
                    app,
                    own,
                    act,
                    new
                    {
                        start = times[9],
                        zone = Dublin,
                        reason = "",
                    }
                )
            ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await app.AskAsync(db => db.Meetings.SingleAsync())).Sequence.ShouldBe(0);
    }

    [Fact]
    public async Task A_host_who_leaves_holds_it_no_more_and_both_the_meeting_and_its_type_say_so()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var member = await app.AskAsync(db => db.Users.SingleAsync(user => user.Email == DemoBusiness.MemberMail));
        var type = await TypeAsync(app, edit => edit with { Hosts = [member.Id] });
        var link = await LinkAsync(app, type);
        (await BookAsync(app, link, (await FreeAsync(app, link))[0], Tess)).EnsureSuccessStatusCode();
        (await owner.DeleteAsync($"/api/people/{member.Id}")).EnsureSuccessStatusCode();
        var id = (await app.AskAsync(db => db.Meetings.SingleAsync())).Id;
        (await owner.GetAsync($"/api/meetings/{id}").JsonAsync()).GetProperty("hosts").ValueKind.ShouldBe(JsonValueKind.Null);
        (await owner.GetAsync($"/api/meeting-types/{type}").JsonAsync()).Text("note").ShouldContain("no times are offered");
        (await FreeAsync(app, link)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Hours_of_a_person_and_their_days_off_are_no_free_times()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var link = await MakeTypeAsync(app);
        var (maren, sunil) = await app.AskAsync(async db =>
            (
                await db.Users.SingleAsync(user => user.Email == DemoBusiness.OwnerMail),
                await db.Users.SingleAsync(user => user.Email == DemoBusiness.MemberMail)
            )
        );
        var day = DayOf((await FreeAsync(app, link))[0]);
        var nothing = new { weekly = (object?)null, daysOff = "" };
        (
            await owner.PutAsync(
                $"/api/user-hours/{maren.Id}",
                Body(new { was = nothing, now = nothing with { daysOff = day.ToString("uuuu'-'MM'-'dd", null) } })
            )
        ).EnsureSuccessStatusCode();
        (await FreeAsync(app, link)).ShouldAllBe(start => DayOf(start) > day);
        (
            await owner.PutAsync($"/api/user-hours/{maren.Id}", Body(new { was = nothing, now = nothing with { daysOff = "some day" } }))
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict, "somebody changed it meanwhile");
        var refused = await owner.PutAsync(
            $"/api/user-hours/{sunil.Id}",
            Body(new { was = nothing, now = nothing with { daysOff = "some day" } })
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await app.Member().PutAsync($"/api/user-hours/{maren.Id}", Body(new { was = nothing, now = nothing }))).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        (await app.Member().PutAsync($"/api/user-hours/{sunil.Id}", Body(new { was = nothing, now = nothing }))).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/user-hours").JsonAsync()).GetProperty("people").GetArrayLength().ShouldBe(2);
    }

    [Fact]
    public async Task A_type_is_checked_before_it_is_kept_and_can_be_paused_and_archived()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var type = await TypeAsync(app, edit => edit);
        var link = await LinkAsync(app, type);
        var value = (await owner.GetAsync($"/api/meeting-types/{type}").JsonAsync())
            .GetProperty("value")
            .Deserialize<MeetingTypeEndpoints.MeetingTypeEdit>(Json.Options)!;
        var wrong = await owner.PutAsync(
            $"/api/meeting-types/{type}",
            Body(new { was = value, now = value with { Type = value.Type with { Places = [] } } })
        );
        wrong.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await app.Member().PutAsync($"/api/meeting-types/{type}", Body(new { was = value, now = value }))).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        (
            await owner.PutAsync(
                $"/api/meeting-types/{type}",
                Body(new { was = value, now = value with { Type = value.Type with { IsPaused = true } } })
            )
        ).EnsureSuccessStatusCode();
        (await OpenAsync(app, link)).GetProperty("booking").Text("closed").ShouldContain("Nothing can be booked here");
        (await owner.PostAsync($"/api/meeting-types/{type}/archiving", Body(new { archived = true }))).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/meeting-types").JsonAsync())[0].GetProperty("isArchived").GetBoolean().ShouldBeTrue();
        (await owner.GetAsync("/api/meeting-types/notice?count=2&inDays=true").JsonAsync())
            .Text("sentence")
            .ShouldContain("00:00 or later");
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

    [Fact]
    public async Task The_file_for_their_calendar_is_read_by_another_library()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        var start = (await FreeAsync(app, link))[0];
        var own = OwnLink(await BookAsync(app, link, start, Tess).JsonAsync());
        var file = await app.CreateClient().GetAsync($"/public/meetings/{own}/entry.ics");
        file.Content.Headers.ContentType!.MediaType.ShouldBe("text/calendar");
        var entry = Read(await file.Content.ReadAsStringAsync()).GetProperty("entries")[0];
        entry.GetProperty("start").GetDateTimeOffset().ShouldBe(start.ToDateTimeOffset());
        entry.GetProperty("end").GetDateTimeOffset().ShouldBe((start + Duration.FromMinutes(30)).ToDateTimeOffset());
        (await app.CreateClient().GetAsync($"/public/meetings/{link}/entry.ics")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_link_that_leads_nowhere_is_answered_with_a_sentence_and_an_unknown_zone_with_ours()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        (await OpenAsync(app, link, "Nowhere/At-all")).Text("zone").ShouldBe(Dublin);
        (await app.CreateClient().GetAsync($"/m/{link}")).Headers.GetValues("Referrer-Policy").ShouldBe(["no-referrer"]);
        foreach (var path in new[] { "", "/times" })
            (await app.CreateClient().GetAsync($"/public/meetings/nothing{path}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        foreach (var act in new[] { "book", "move", "cancel" })
            (
                await PostAsync(
                    app,
                    act == "book" ? "nothing" : link,
                    act,
                    act == "book"
                        ? BookingOf(Instant.MinValue, Tess)
                        : new
                        {
                            start = Instant.MinValue,
                            zone = "",
                            reason = "",
                        }
                )
            ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static TestApp AtWork() => new() { Time = new(TestClock.BeginsAtWork) };

    private static async Task<string> TypeAsync(TestApp app, Func<MeetingType, MeetingType> change)
    {
        var owner = app.Owner();
        var id = (await owner.PostAsync("/api/meeting-types", Body(new { name = "A first talk" })).JsonAsync()).Text("id");
        var value = (await owner.GetAsync($"/api/meeting-types/{id}").JsonAsync())
            .GetProperty("value")
            .Deserialize<MeetingTypeEndpoints.MeetingTypeEdit>(Json.Options)!;
        var next = value with { Type = change(value.Type) };
        (await owner.PutAsync($"/api/meeting-types/{id}", Body(new { was = value, now = next }))).EnsureSuccessStatusCode();
        return id;
    }

    private static async Task<string> LinkAsync(TestApp app, string type) =>
        (await app.Owner().GetAsync($"/api/meeting-types/{type}").JsonAsync()).Text("link").Split('/')[^1];

    private static async Task<string> MakeTypeAsync(TestApp app) => await LinkAsync(app, await TypeAsync(app, type => type));

    private static Task<JsonElement> OpenAsync(TestApp app, string link, string zone = Dublin) =>
        app.CreateClient().GetAsync($"/public/meetings/{link}?zone={zone}").JsonAsync();

    private static async Task<List<Instant>> FreeAsync(TestApp app, string link) =>
        TimesOf(await app.CreateClient().GetAsync($"/public/meetings/{link}/times?zone={Dublin}").JsonAsync());

    private static List<Instant> TimesOf(JsonElement table) =>
        [
            .. table
                .GetProperty("days")
                .EnumerateArray()
                .SelectMany(day => day.GetProperty("parts").EnumerateArray())
                .SelectMany(part => part.EnumerateArray())
                .Select(StartOf),
        ];

    private static Instant StartOf(JsonElement time) => Instant.FromDateTimeOffset(time.GetProperty("start").GetDateTimeOffset());

    private static LocalDate DayOf(Instant start) => start.InZone(DateTimeZoneProviders.Tzdb[Dublin]).Date;

    private static string OwnLink(JsonElement booked) => booked.GetProperty("meeting").Text("address").Split('/')[^1];

    private static object BookingOf(Instant start, string email, string zone = Dublin, string given = "Tess", string family = "Ivory") =>
        new
        {
            start,
            zone,
            details = new BookingDetails(given, family, email, MeetingPlaceKind.Phone, "+353 1 555 0177", new Dictionary<string, string>()),
        };

    private static Task<HttpResponseMessage> BookAsync(
        TestApp app,
        string link,
        Instant start,
        string email,
        string zone = Dublin,
        string given = "Tess",
        string family = "Ivory"
    ) => PostAsync(app, link, "book", BookingOf(start, email, zone, given, family));

    private static Task<HttpResponseMessage> PostAsync(TestApp app, string link, string act, object body)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, $"/public/meetings/{link}/{act}") { Content = Body(body) };
        request.Headers.Add(SendOnce.Header, Guid.NewGuid().ToString());
        return app.CreateClient().SendAsync(request);
    }

    private static async Task<string> InvitationAsync(TestApp app, string to)
    {
        await app.WorkAsync();
        return (await app.AskAsync(db => db.PracticeMail.Where(mail => mail.To == to && mail.Invitation != null).ToListAsync()))
            .MaxBy(mail => SequenceOf(mail.Invitation!))!
            .Invitation!;
    }

    private static int SequenceOf(string invitation) => Read(invitation).GetProperty("entries")[0].GetProperty("sequence").GetInt32();

    private static JsonElement Read(string calendar) =>
        AnotherLibrary.Reads<JsonElement>("readCalendar.mjs", Encoding.UTF8.GetBytes(calendar));
}
