using Microsoft.EntityFrameworkCore;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class WatchingTests
{
    [Fact]
    public async Task Whoever_watches_a_project_is_told_by_mail_what_comes_in_until_they_stop()
    {
        await using var app = new TestApp();
        (await app.SendAsync(Answers("tilda@pell.example"))).EnsureSuccessStatusCode();
        await app.WorkAsync();
        var project = await app.AskAsync(db => db.Projects.SingleAsync());
        var member = app.Member();
        var path = $"/api/clients/{project.ClientId}/projects/{project.Id}/watching";
        (await member.PutAsync(path, Body(new { watches = true }))).EnsureSuccessStatusCode();
        (await member.PutAsync(path, Body(new { watches = true }))).EnsureSuccessStatusCode();
        var seen = (await app.Owner().GetAsync($"/api/clients/{project.ClientId}").JsonAsync()).GetProperty("projects")[0];
        (seen.GetProperty("watches").GetBoolean(), seen.GetProperty("watchers")[0].GetString()).ShouldBe((false, "Sunil Abara"));

        await AnswerAsync(app, "Thursday, then.");
        var told = await app.MailToAsync(Demo.DemoBusiness.MemberMail);
        told.ShouldStartWith($"Tilda Brackenridge wrote about “{project.Title}”:\n\nThursday, then.");
        told.ShouldContain($"/clients/{project.ClientId}/projects/{project.Id}");

        (await member.PutAsync(path, Body(new { watches = false }))).EnsureSuccessStatusCode();
        await AnswerAsync(app, "Or Friday.");
        (await app.MailToAsync(Demo.DemoBusiness.MemberMail)).ShouldBe(told, "nothing more came");
    }

    private static async Task AnswerAsync(TestApp app, string text)
    {
        var mail = await app.AskAsync(db => db.PracticeMail.FirstAsync(one => !one.Incoming && one.ClientId != null));
        (await app.Owner().PostAsync($"/api/practice/mail/{mail.Id}/answer", Body(new { text }))).EnsureSuccessStatusCode();
    }
}
