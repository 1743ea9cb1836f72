using System.Buffers.Binary;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Forms;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class SpamTests
{
    [Fact]
    public async Task The_field_that_people_do_not_see_must_stay_empty()
    {
        await using var app = new TestApp();
        var refused = await SendAsync(app, new { ticket = await app.TicketAsync(), trap = "http://buy.example" });
        (await refused.SentenceAsync()).ShouldStartWith("A field that people do not see was filled in");
        (await app.AskAsync(db => db.Submissions.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task Nobody_is_faster_than_a_person_and_a_ticket_cannot_be_made_up()
    {
        await using var app = new TestApp();
        var fresh = (await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}").JsonAsync())
            .GetProperty("form")
            .Text("ticket");
        foreach (var ticket in new[] { fresh, "made up", null, fresh[..^3] + "abc" })
            (await (await SendAsync(app, new { ticket })).SentenceAsync()).ShouldStartWith("That was very fast.");
        app.Time.Advance(TimeSpan.FromSeconds(3));
        (await SendAsync(app, new { ticket = fresh })).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Where_work_is_asked_for_a_fresh_proof_counts_once()
    {
        await using var app = new TestApp();
        await app.ChangeFormAsync(settings => settings with { Guard = new SpamGuard(3, Proof: true) });
        var ticket = await app.TicketAsync();
        (await (await SendAsync(app, new { ticket })).SentenceAsync()).ShouldStartWith("Your browser has not finished the short check");
        var proof = await SolveAsync(app);
        (await SendAsync(app, new { ticket, proof })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await SendAsync(app, new { ticket, proof })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "the same proof once more");

        var old = await SolveAsync(app);
        app.Time.Advance(TimeSpan.FromMinutes(31));
        (await SendAsync(app, new { ticket, proof = old })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "too old");
        foreach (
            var forged in new[]
            {
                "not base64!",
                Convert.ToBase64String("{}"u8),
                await SolveAsync(app, fits: false, easier: true),
                await SolveAsync(app, fits: false),
            }
        )
            (await SendAsync(app, new { ticket, proof = forged })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, forged);
    }

    private static async Task<HttpResponseMessage> SendAsync(TestApp app, object more)
    {
        var body = JsonSerializer
            .SerializeToNode(
                new
                {
                    version = 1,
                    sendKey = Guid.NewGuid(),
                    answers = Answers(),
                    cameFrom = (string?)null,
                },
                Storage.Json.Options
            )!
            .AsObject();
        foreach (var (name, value) in JsonSerializer.SerializeToNode(more, Storage.Json.Options)!.AsObject().ToList())
            body[name] = value?.DeepClone();
        return await app.CreateClient().PostAsync($"/public/forms/{await app.LinkAsync()}/send", Body(body));
    }

    /// <summary>
    /// Works at a challenge as the widget's own worker does: PBKDF2 over the nonce and a counter of four bytes, until the key
    /// begins as asked.
    /// </summary>
    /// <param name="app">The program.</param>
    /// <param name="fits">Whether the counter does; else the first one that does not.</param>
    /// <param name="easier">Whether less is asked for in what goes back than in what was sealed.</param>
    private static async Task<string> SolveAsync(TestApp app, bool fits = true, bool easier = false)
    {
        var challenge = await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}/challenge").JsonAsync();
        var asked = challenge.GetProperty("parameters");
        var salt = Convert.FromHexString(asked.Text("salt"));
        var password = new byte[20];
        Convert.FromHexString(asked.Text("nonce")).CopyTo(password, 0);
        uint counter = 0;
        for (; ; counter++)
        {
            BinaryPrimitives.WriteUInt32BigEndian(password.AsSpan(16), counter);
            var key = Rfc2898DeriveBytes.Pbkdf2(password, salt, asked.GetProperty("cost").GetInt32(), HashAlgorithmName.SHA256, 32);
            if (Convert.ToHexStringLower(key).StartsWith(asked.Text("keyPrefix"), StringComparison.Ordinal) == fits)
                break;
        }

        var parameters = easier
            ? asked.GetRawText().Replace("\"keyPrefix\":\"00\"", "\"keyPrefix\":\"\"", StringComparison.Ordinal)
            : asked.GetRawText();
        return Convert.ToBase64String(
            Encoding.UTF8.GetBytes(
                $$$"""{"challenge":{"parameters":{{{parameters}}},"signature":{{{challenge.GetProperty("signature").GetRawText()}}}},"solution":{"counter":{{{counter}}},"derivedKey":"00","time":1}}"""
            )
        );
    }
}
