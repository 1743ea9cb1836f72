using System.Net;
using System.Text.Json;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class PeopleTests
{
    private const string Password = "a lamp and a ladder";

    [Fact]
    public async Task A_link_lets_one_person_in_once()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var door = await InviteAsync(owner, "ines@ochrewren.example", "member");
        var guest = await app.StrangerAsync();
        var shown = await guest.GetAsync(door).JsonAsync();
        (shown.Text("business"), shown.Text("name"), shown.Text("email")).ShouldBe(("Ochre Wren", "Ines", "ines@ochrewren.example"));
        var weak = await guest.PostAsync(door, Body(new { name = "Ines Quill", password = "short" }));
        (await weak.PlacesAsync()).ShouldBe(["password"]);
        (await guest.PostAsync(door, Body(new { name = "Ines Quill", password = Password }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var session = await guest.GetAsync("/api/session").JsonAsync();
        (session.Text("name"), session.Text("role")).ShouldBe(("Ines Quill", "member"));

        var second = await app.StrangerAsync();
        var used = await second.PostAsync(door, Body(new { name = "Someone", password = Password }));
        used.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await used.SentenceAsync()).ShouldContain("Please ask for a new one");
        await app.SignedInAsync("ines@ochrewren.example", Password);
    }

    [Fact]
    public async Task A_link_that_is_old_or_withdrawn_lets_nobody_in()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var old = await InviteAsync(owner, "ines@ochrewren.example", "owner");
        app.Time.Advance(TimeSpan.FromDays(7));
        (await app.CreateClient().GetAsync(old)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var fresh = await InviteAsync(owner, "ines@ochrewren.example", "member");
        var people = await owner.GetAsync("/api/people").JsonAsync();
        var invite = people.GetProperty("invites").EnumerateArray().Single();
        (await owner.DeleteAsync($"/api/people/invites/{invite.Text("id")}")).EnsureSuccessStatusCode();
        (await app.CreateClient().GetAsync(fresh)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Whoever_is_removed_is_out_with_their_next_click()
    {
        await using var app = new TestApp();
        var (owner, member) = (app.Owner(), app.Member());
        (await owner.DeleteAsync($"/api/people/{await SeatAsync(owner, "member")}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await member.GetAsync("/api/today")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        var again = await (await app.StrangerAsync()).PostAsync(
            "/api/sign-in",
            Body(new { email = "sunil@ochrewren.example", password = "the-lamp-is-on" })
        );
        again.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task There_is_always_an_owner()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var (me, member) = (await SeatAsync(owner, "owner"), await SeatAsync(owner, "member"));
        (await owner.DeleteAsync($"/api/people/{me}")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await owner.PostAsync($"/api/people/{me}/role", Body(new { role = "member" }))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await owner.PostAsync($"/api/people/{member}/role", Body(new { role = "king" }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await owner.PostAsync($"/api/people/{member}/role", Body(new { role = "owner" }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var second = await app.SignedInAsync("sunil@ochrewren.example");
        (await second.DeleteAsync($"/api/people/{me}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await second.GetAsync("/api/settings")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Who_forgot_their_password_chooses_a_new_one_by_link_and_every_other_window_is_signed_out()
    {
        await using var app = new TestApp();
        var (owner, member) = (app.Owner(), app.Member());
        var link = (await owner.PostAsync($"/api/people/{await SeatAsync(owner, "member")}/password-link", null).JsonAsync()).Text("link");
        var guest = await app.StrangerAsync();
        var door = "/api" + new Uri(link).AbsolutePath;
        (await guest.GetAsync(door).JsonAsync()).GetProperty("newPassword").GetBoolean().ShouldBeTrue();
        (await guest.PostAsync(door, Body(new { name = "Sunil Abara", password = Password }))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await member.GetAsync("/api/today")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await guest.GetAsync("/api/session").JsonAsync()).Text("role").ShouldBe("member", "the role stays");
    }

    [Fact]
    public async Task Everybody_changes_their_own_password_and_stays_signed_in()
    {
        await using var app = new TestApp();
        var member = app.Member();
        (await (await member.PostAsync("/api/me/password", Body(new { current = "not this", next = Password }))).PlacesAsync()).ShouldBe([
            "current",
        ]);
        (
            await (await member.PostAsync("/api/me/password", Body(new { current = "the-lamp-is-on", next = "short" }))).PlacesAsync()
        ).ShouldBe(["next"]);
        (await member.PostAsync("/api/me/password", Body(new { current = "the-lamp-is-on", next = Password }))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await member.GetAsync("/api/today")).StatusCode.ShouldBe(HttpStatusCode.OK);
        await app.SignedInAsync("sunil@ochrewren.example", Password);
    }

    [Theory]
    [InlineData("", "ines@b.example", "member", HttpStatusCode.UnprocessableEntity)]
    [InlineData("Ines\r\nBcc: x@y.example", "ines@b.example", "member", HttpStatusCode.UnprocessableEntity)]
    [InlineData("Ines", "ines at home", "member", HttpStatusCode.UnprocessableEntity)]
    [InlineData("Ines", "ines@b.example", "Owner", HttpStatusCode.UnprocessableEntity)]
    [InlineData("Ines", "SUNIL@ochrewren.example", "member", HttpStatusCode.Conflict)]
    public async Task An_invitation_that_cannot_work_is_refused(string name, string email, string role, HttpStatusCode status)
    {
        await using var app = new TestApp();
        (
            await app.Owner()
                .PostAsync(
                    "/api/people/invites",
                    Body(
                        new
                        {
                            name,
                            email,
                            role,
                        }
                    )
                )
        ).StatusCode.ShouldBe(status);
    }

    /// <summary>The address of the join endpoint that the link leads to.</summary>
    private static async Task<string> InviteAsync(HttpClient owner, string email, string role)
    {
        var invited = await owner
            .PostAsync(
                "/api/people/invites",
                Body(
                    new
                    {
                        name = "Ines",
                        email,
                        role,
                    }
                )
            )
            .JsonAsync();
        return "/api" + new Uri(invited.Text("link")).AbsolutePath;
    }

    private static async Task<string> SeatAsync(HttpClient owner, string role) =>
        (await owner.GetAsync("/api/people").JsonAsync())
            .GetProperty("users")
            .EnumerateArray()
            .Single((JsonElement user) => user.Text("role") == role)
            .Text("id");
}
