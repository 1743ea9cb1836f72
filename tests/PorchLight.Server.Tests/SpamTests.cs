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
        await using var house = new TestHouse();
        var refused = await SendAsync(house, new { ticket = await house.TicketAsync(), trap = "http://buy.example" });
        (await refused.SentenceAsync()).ShouldStartWith("A field that people do not see was filled in");
        (await house.AskAsync(db => db.Submissions.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task Nobody_is_faster_than_a_person_and_a_ticket_cannot_be_made_up()
    {
        await using var house = new TestHouse();
        var fresh = (await house.CreateClient().GetAsync($"/public/forms/{await house.LinkAsync()}").JsonAsync()).GetProperty("form").Text("ticket");
        foreach (var ticket in new[] { fresh, "made up", null, fresh[..^3] + "abc" })
            (await (await SendAsync(house, new { ticket })).SentenceAsync()).ShouldStartWith("That was faster than a person writes.");
        house.Time.Advance(TimeSpan.FromSeconds(3));
        (await SendAsync(house, new { ticket = fresh })).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Where_work_is_asked_for_a_fresh_proof_counts_once()
    {
        await using var house = new TestHouse();
        await house.ChangeFormAsync(settings => settings with { Guard = new SpamGuard(3, Proof: true) });
        var ticket = await house.TicketAsync();
        (await (await SendAsync(house, new { ticket })).SentenceAsync()).ShouldStartWith("Your browser has not finished the short check");
        var proof = await SolveAsync(house);
        (await SendAsync(house, new { ticket, proof })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await SendAsync(house, new { ticket, proof })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "the same proof once more");

        var old = await SolveAsync(house);
        house.Time.Advance(TimeSpan.FromMinutes(31));
        (await SendAsync(house, new { ticket, proof = old })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "too old");
        foreach (var forged in new[] { "not base64!", Convert.ToBase64String("{}"u8), await SolveAsync(house, fits: false, easier: true), await SolveAsync(house, fits: false) })
            (await SendAsync(house, new { ticket, proof = forged })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, forged);
    }

    private static async Task<HttpResponseMessage> SendAsync(TestHouse house, object more)
    {
        var body = JsonSerializer.SerializeToNode(new { version = 1, sendKey = Guid.NewGuid(), answers = Answers(), cameFrom = (string?)null }, Data.Json.Options)!.AsObject();
        foreach (var (name, value) in JsonSerializer.SerializeToNode(more, Data.Json.Options)!.AsObject().ToList())
            body[name] = value?.DeepClone();
        return await house.CreateClient().PostAsync($"/public/forms/{await house.LinkAsync()}/send", Body(body));
    }

    /// <summary>
    /// Works at a challenge as the widget's own worker does: PBKDF2 over the nonce and a counter of four bytes, until the key
    /// begins as asked.
    /// </summary>
    /// <param name="house">The house.</param>
    /// <param name="fits">Whether the counter does; else the first one that does not.</param>
    /// <param name="easier">Whether less is asked for in what goes back than in what was sealed.</param>
    private static async Task<string> SolveAsync(TestHouse house, bool fits = true, bool easier = false)
    {
        var challenge = await house.CreateClient().GetAsync($"/public/forms/{await house.LinkAsync()}/challenge").JsonAsync();
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

        var parameters = easier ? asked.GetRawText().Replace("\"keyPrefix\":\"00\"", "\"keyPrefix\":\"\"", StringComparison.Ordinal) : asked.GetRawText();
        return Convert.ToBase64String(Encoding.UTF8.GetBytes(
            $$$"""{"challenge":{"parameters":{{{parameters}}},"signature":{{{challenge.GetProperty("signature").GetRawText()}}}},"solution":{"counter":{{{counter}}},"derivedKey":"00","time":1}}"""));
    }
}
