using System.Net;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class HostileInputTests
{
    [Fact]
    public async Task Script_in_every_answer_is_only_words_in_the_mail_page_and_runs_nowhere()
    {
        await using var app = new TestApp();
        var answers = Answers();
        answers["name"] = new PersonNameAnswer("<script>alert(1)</script>", "\"><img src=x onerror=alert(1)>");
        answers["what"] = new TextAnswer("</p><script>alert(1)</script>{{7*7}}{promise}");
        (await app.SendAsync(answers)).EnsureSuccessStatusCode();
        await app.WorkAsync();
        var owner = app.Owner();
        var mail = await app.AskAsync(db => db.PracticeMail.Select(message => message.Id).SingleAsync());
        var page = await owner.GetAsync($"/api/practice/mail/{mail}/page");
        page.Headers.GetValues("Content-Security-Policy").Single().ShouldStartWith("default-src 'none'");
        var html = await page.Content.ReadAsStringAsync();
        html.ShouldNotContain("<script");
        html.ShouldContain("&lt;script&gt;");
    }

    [Fact]
    public async Task A_name_cannot_add_a_line_to_a_mail_header()
    {
        await using var app = new TestApp();
        var answers = Answers();
        answers["name"] = new PersonNameAnswer("Tilda\r\nBcc: all@example.com", "B");
        (await (await app.SendAsync(answers)).PlacesAsync()).ShouldBe(["name"]);
        answers["name"] = new PersonNameAnswer("Tilda\u0085\u0000", "B");
        (await app.SendAsync(answers)).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.OutgoingMail.SingleAsync())).Subject.ShouldBe("Your wall: thank you, Tilda");
    }

    [Theory]
    [InlineData("javascript:alert(1)", null)]
    [InlineData("not an address", null)]
    [InlineData("https://bakery.example/walls", "https://bakery.example/walls")]
    public async Task Where_they_came_from_is_kept_only_when_it_is_a_web_address(string said, string? kept)
    {
        await using var app = new TestApp();
        (
            await app.CreateClient()
                .PostAsync(
                    $"/public/forms/{await app.LinkAsync()}/send",
                    Body(
                        new
                        {
                            version = 1,
                            sendKey = Guid.NewGuid(),
                            answers = Answers(),
                            cameFrom = said,
                            ticket = await app.TicketAsync(),
                        }
                    )
                )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).CameFrom.ShouldBe(kept);
    }
}
