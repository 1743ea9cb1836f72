using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Demo;
using PorchLight.Server.Meetings;
using PorchLight.Server.Storage;
using static PorchLight.Server.Tests.MeetingRequests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>When meetings can be: types, and the hours of those who hold them.</summary>
public sealed class MeetingTypeTests
{
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
    public async Task A_host_whom_a_move_replaces_is_told_and_it_leaves_their_calendar()
    {
        await using var app = AtWork();
        var owner = app.Owner();
        var (maren, sunil) = await app.AskAsync(async db =>
            (
                await db.Users.SingleAsync(user => user.Email == DemoBusiness.OwnerMail),
                await db.Users.SingleAsync(user => user.Email == DemoBusiness.MemberMail)
            )
        );
        var link = await LinkAsync(app, await TypeAsync(app, edit => edit with { Hosts = [maren.Id, sunil.Id] }));
        var times = await FreeAsync(app, link);
        var own = OwnLink(await BookAsync(app, link, times[0], Tess).JsonAsync());
        var other = times.First(start => DayOf(start) != DayOf(times[0]));
        var nothing = new { weekly = (object?)null, daysOff = "" };
        (
            await owner.PutAsync(
                $"/api/user-hours/{maren.Id}",
                Body(new { was = nothing, now = nothing with { daysOff = DayOf(other).ToString("uuuu'-'MM'-'dd", null) } })
            )
        ).EnsureSuccessStatusCode();
        (
            await PostAsync(
                app,
                own,
                "move",
                new
                {
                    start = other,
                    zone = Dublin,
                    reason = "",
                }
            )
        ).EnsureSuccessStatusCode();
        var (theirs, hers) = (
            Read(await InvitationAsync(app, DemoBusiness.MemberMail)),
            Read(await InvitationAsync(app, DemoBusiness.OwnerMail))
        );
        (theirs.Text("method"), hers.Text("method")).ShouldBe(("REQUEST", "CANCEL"));
        hers.GetProperty("entries")[0].Text("uid").ShouldBe(theirs.GetProperty("entries")[0].Text("uid"));
        (await app.MailToAsync(DemoBusiness.OwnerMail)).ShouldContain("Someone else holds it now");
        (await app.AskAsync(db => db.MeetingHosts.SingleAsync())).UserId.ShouldBe(sunil.Id);
    }
}
