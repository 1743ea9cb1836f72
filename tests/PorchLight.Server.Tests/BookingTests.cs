using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Meetings;
using PorchLight.Server.Demo;
using PorchLight.Server.Meetings;
using PorchLight.Server.Records;
using static PorchLight.Server.Tests.MeetingRequests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Whoever has a link sees free times, books, moves and cancels.</summary>
public sealed class BookingTests
{
    [Fact]
    public async Task A_stranger_books_a_time_and_both_have_it_in_writing_and_in_their_calendar()
    {
        await using var app = AtWork();
        var link = await MakeTypeAsync(app);
        var page = await OpenAsync(app, link, "America/New_York");
        page.GetProperty("booking").GetProperty("times").Text("zone").ShouldBe("New York");
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
        problem.Text("detail").ShouldStartWith(MeetingChanges.Taken);
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
            problem.Text("detail").ShouldStartWith(MeetingChanges.Taken);
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

    [Fact]
    public async Task A_send_off_shows_times_and_whoever_takes_one_is_not_asked_again_nor_shown_anything_on_file()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var type = await TypeAsync(app, edit => edit with { WhoMayBook = WhoMayBook.AfterSendOff });
        await OfferAsync(app, type);
        var onFile = new
        {
            name = "Tilda Brackenridge",
            email = "tilda@pell.example",
            phone = "+353 1 555 0199",
        };
        (await owner.PostAsync("/api/clients", Body(onFile))).EnsureSuccessStatusCode();
        var client = await app.AskAsync(db => db.Clients.SingleAsync());
        var sent = await (await app.SendAsync(Answers("tilda@pell.example"))).JsonAsync();
        sent.GetProperty("offersTimes").GetBoolean().ShouldBeTrue();
        var receipt = sent.Text("receipt");
        var page = await OpenAsync(app, receipt);
        page.GetProperty("booking").Text("known").ShouldBe("Tilda Brackenridge");
        page.GetProperty("booking").GetProperty("closed").ValueKind.ShouldBe(JsonValueKind.Null);
        page.ToString().ShouldNotContain("0199", Case.Sensitive, "what is on file is not for whoever says they are her");
        var start = TimesOf(page.GetProperty("booking").GetProperty("times"))[0];
        var booked = await BookAsync(app, receipt, start, email: "", given: "", family: "").JsonAsync();
        var meeting = await app.AskAsync(db => db.Meetings.SingleAsync());
        (meeting.ClientId, meeting.Email).ShouldBe((client.Id, "tilda@pell.example"));
        (await OpenAsync(app, receipt)).GetProperty("meeting").Text("address").ShouldBe(booked.GetProperty("meeting").Text("address"));
        (await PostAsync(app, receipt, "cancel", new { zone = Dublin, reason = "" })).EnsureSuccessStatusCode();
        (await OpenAsync(app, receipt)).GetProperty("booking").Text("known").ShouldBe("Tilda Brackenridge", "another time can be taken");

        // What the owner books is theirs: the link of a send-off shows only what was taken there.
        var wanted = new
        {
            type,
            client = client.Id,
            inquiry = (object)meeting.InquiryId!,
            start,
            place = "phone",
            placeWords = "01 555 0142",
        };
        (await owner.PostAsync("/api/meetings", Body(wanted))).EnsureSuccessStatusCode();
        (await OpenAsync(app, receipt)).GetProperty("meeting").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_send_off_whose_meeting_type_is_gone_shows_no_times()
    {
        await using var app = AtWork();
        await OfferAsync(app, Guid.NewGuid().ToString());
        var sent = await (await app.SendAsync(Answers("tilda@pell.example"))).JsonAsync();
        (await app.CreateClient().GetAsync($"/public/meetings/{sent.Text("receipt")}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    /// <summary>Lets every send-off of the form show the times of a type.</summary>
    private static Task OfferAsync(TestApp app, string type) =>
        app.ChangeAsync(async db =>
        {
            var version = await db.FormVersions.SingleAsync();
            var (content, offered) = (version.Content, Guid.Parse(type));
            db.Entry(version).Property(one => one.Content).CurrentValue = content with
            {
                SendOffs = [.. content.SendOffs.Select(end => end with { Meeting = offered })],
                DefaultSendOff = content.DefaultSendOff with { Meeting = offered },
            };
        });
}
