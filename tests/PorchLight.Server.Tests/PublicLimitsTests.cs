using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace PorchLight.Server.Tests;

/// <summary>Thousands of random and hostile requests of people nobody knows.</summary>
public sealed class PublicLimitsTests
{
    private const int Payloads = 2400;

    private static readonly string[] Words =
    [
        "<script>alert(1)</script>",
        "\"><img src=x onerror=alert(1)>",
        "javascript:alert(1)",
        "</textarea><svg onload=alert(1)>",
        "{{7*7}}${7*7}{promise}{client.name}",
        "=HYPERLINK(\"https://evil.example\")",
        "+1+cmd|' /C calc'!A0",
        "-2+3",
        "@SUM(1)",
        "Tilda\r\nBcc: all@example.com",
        "a@b.example\r\nRCPT TO:<x@y.example>",
        "\u0000",
        "\u202Egpj.exe",
        "\uFFFF\uFFFE",
        "Z̷̡̛a̶͝l̴͒g̸̈o̷",
        "𝕿𝖎𝖑𝖉𝖆 👩‍👩‍👧",
        "'; DROP TABLE Clients; --",
        "../../../../etc/passwd",
        "%s%n%x",
        "١٢٣",
        "1e400",
        "-0",
        "NaN",
        "٢٠٢٧-٠٢-٣٠",
        "2027-02-30",
        "0000-00-00",
        "9999-12-31",
        "-9999-01-01",
        new('w', 300),
        new('w', 70_000),
        "",
        " ",
        "\t\n",
        "null",
        "\\",
        "\"",
        "ﷺ",
        "İ",
        "ß",
        "+353 1 555 0142",
        "tel:+1-900;phone-context=x",
    ];

    [Fact]
    public async Task Whatever_strangers_send_nothing_breaks_and_the_owner_can_look_at_all_of_it()
    {
        var seed = Random.Shared.Next();
        var log = new CapturedLog();
        await using var app = new TestApp { Change = log.Keep };
        app.Listen();
        var link = await app.LinkAsync();
        var form = (await app.CreateClient().GetAsync($"/public/forms/{link}").JsonAsync()).GetProperty("form");
        var seen = new int[600];
        await Parallel.ForEachAsync(
            Enumerable.Range(0, Payloads),
            new ParallelOptions { MaxDegreeOfParallelism = 8 },
            async (n, cancellationToken) =>
            {
                var random = new Random(unchecked(seed + n));
                using var stranger = app.CreateClient();
                using var request = Request(random, link, form, await app.TicketAsync());
                var asked = $"{request.Method} {request.RequestUri} of seed {seed} + {n}";
                HttpResponseMessage response;
                try
                {
                    response = await stranger.SendAsync(request, cancellationToken);
                }
                catch (HttpRequestException)
                {
                    // Kestrel closes the line on what is no HTTP or far too much of it.
                    return;
                }

                var status = (int)response.StatusCode;
                Interlocked.Increment(ref seen[status]);
                status.ShouldBeLessThan(
                    500,
                    asked + string.Concat(log.Lines.Where(line => line.StartsWith("Unhandled failure", StringComparison.Ordinal)))
                );
                // What is no HTTP Kestrel refuses without a word, before the program sees it.
                if (status >= 400 && response.Headers.Contains("X-Request-Id"))
                    (await response.SentenceAsync()).Length.ShouldBeGreaterThan(10, asked);
            }
        );
        seen[200].ShouldBeGreaterThan(200, "enough was well formed to be looked at in earnest");
        (seen[400] + seen[413] + seen[422]).ShouldBeGreaterThan(800);
        (await app.AskAsync(db => db.Inquiries.CountAsync())).ShouldBeGreaterThan(30, "enough was taken in to be shown");
        await app.WorkAsync();
        await EverythingCanBeLookedAtAsync(app);
    }

    private static async Task EverythingCanBeLookedAtAsync(TestApp app)
    {
        var owner = app.Owner();
        foreach (var list in new[] { "inquiries", "clients" })
        {
            var shown = await owner.WholeListAsync($"/api/{list}");
            foreach (var row in shown.GetProperty("rows").EnumerateArray())
                (await owner.GetAsync($"/api/{list}/{row.Text("id")}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        }

        foreach (var mail in await app.AskAsync(db => db.PracticeMail.ToListAsync()))
        {
            mail.Subject.ShouldAllBe(letter => !char.IsControl(letter));
            mail.To.ShouldAllBe(letter => letter > ' ');
            var page = await owner.GetAsync($"/api/practice/mail/{mail.Id}/page");
            page.Headers.GetValues("Content-Security-Policy").Single().ShouldStartWith("default-src 'none'");
            var html = await page.Content.ReadAsStringAsync();
            foreach (var opening in new[] { "<script", "<img", "<svg" })
                html.ShouldNotContain(opening, Case.Insensitive);
        }

        foreach (var place in new[] { "today", "bell", "forms", "settings", "people" })
            (await owner.GetAsync($"/api/{place}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var csv = await owner.GetAsync(
            $"/api/forms/{await app.AskAsync(db => db.Forms.Select(form => form.Id).SingleAsync())}/answers.csv"
        );
        csv.StatusCode.ShouldBe(HttpStatusCode.OK);
        (
            await app.AskAsync(db =>
                db.Database.SqlQueryRaw<string>("SELECT integrity_check AS Value FROM pragma_integrity_check").ToListAsync()
            )
        ).ShouldBe(["ok"]);
    }

    private static HttpRequestMessage Request(Random random, string link, JsonElement form, string ticket)
    {
        switch (random.Next(12))
        {
            case 0:
                var token = random.Next(4) switch
                {
                    0 => "%00",
                    1 => new string('a', 6000),
                    2 => Uri.EscapeDataString(Pick(random, Words[..10])),
                    _ => "..%2f..%2fetc",
                };
                return random.Next(2) == 0
                    ? new HttpRequestMessage(HttpMethod.Get, $"/public/forms/{token}")
                    : new HttpRequestMessage(HttpMethod.Post, $"/public/receipts/{token}/call");
            case 1:
                return Post(random, link, new ByteArrayContent(Noise(random)));
            default:
                var text = Body(random, form, ticket);
                var bytes = Encoding.UTF8.GetBytes(text);
                if (random.Next(8) == 0)
                    bytes[random.Next(bytes.Length)] = (byte)random.Next(256);
                if (random.Next(20) == 0)
                    bytes = bytes[..random.Next(bytes.Length)];
                return Post(random, link, new ByteArrayContent(bytes));
        }
    }

    private static HttpRequestMessage Post(Random random, string link, ByteArrayContent body)
    {
        body.Headers.TryAddWithoutValidation(
            "Content-Type",
            random.Next(15) == 0
                ? Pick(random, ["text/html", "application/xml", "multipart/form-data", "application/json; charset=utf-7", ""])
                : "application/json"
        );
        return new HttpRequestMessage(HttpMethod.Post, $"/public/forms/{link}/{(random.Next(3) == 0 ? "evaluate" : "send")}")
        {
            Content = body,
        };
    }

    /// <summary>A body that would be taken, with a few places made hostile.</summary>
    private static string Body(Random random, JsonElement form, string ticket)
    {
        var answers = new JsonObject();
        foreach (var question in form.GetProperty("pages").EnumerateArray().SelectMany(page => page.GetProperty("items").EnumerateArray()))
        {
            if (Good(random, question) is { } answer)
                answers[question.Text("key")] = answer;
        }

        var body = new JsonObject
        {
            ["version"] = 1,
            ["sendKey"] = new Guid(Enumerable.Range(0, 16).Select(_ => (byte)random.Next(256)).ToArray()).ToString(),
            ["page"] = form.GetProperty("pages")[0].Text("key"),
            ["leaving"] = random.Next(2) == 0,
            ["answers"] = answers,
            ["ticket"] = ticket,
            ["cameFrom"] = random.Next(3) == 0 ? Pick(random, Words) : null,
        };
        for (var n = random.Next(4); n > 0; n--)
            Spoil(random, body);
        return random.Next(25) == 0
            ? string.Concat(Enumerable.Repeat(random.Next(2) == 0 ? "[" : "{\"answers\":", 1 + random.Next(2000)))
            : body.ToJsonString();
    }

    private static JsonObject? Good(Random random, JsonElement question) =>
        question.GetProperty("control").Text("kind") switch
        {
            "choice" => new JsonObject
            {
                ["kind"] = "choice",
                ["keys"] = new JsonArray(question.GetProperty("control").GetProperty("options")[0].Text("key")),
            },
            "personName" => new JsonObject
            {
                ["kind"] = "personName",
                ["given"] = Pick(random, Words),
                ["family"] = Pick(random, Words),
            },
            "email" => new JsonObject
            {
                ["kind"] = "text",
                ["text"] =
                    random.Next(6) == 0
                        ? Pick(random, Words)
                        : $"lead{random.Next(40).ToString(CultureInfo.InvariantCulture)}@bakes.example",
            },
            "phone" => new JsonObject { ["kind"] = "phone", ["typed"] = random.Next(3) == 0 ? Pick(random, Words) : "01 555 0142" },
            "line" or "lines" => new JsonObject
            {
                ["kind"] = "text",
                ["text"] = Pick(random, Words) is { Length: < 200 } words ? words + "." : "Bread",
            },
            _ => null,
        };

    private static void Spoil(Random random, JsonObject body)
    {
        var places = new List<(JsonObject Parent, string Name)>();
        Collect(body);
        var (parent, name) = places[random.Next(places.Count)];
        switch (random.Next(8))
        {
            case 0:
                parent.Remove(name);
                break;
            case 1:
                parent[name] = random.NextDouble() < 0.5 ? double.MaxValue : -1;
                break;
            case 2:
                parent[name] = new JsonArray(Enumerable.Range(0, random.Next(400)).Select(n => (JsonNode)n).ToArray());
                break;
            case 3:
                JsonNode deep = "deep";
                for (var depth = random.Next(60); depth > 0; depth--)
                    deep = random.Next(2) == 0 ? new JsonArray(deep) : new JsonObject { [name] = deep };
                parent[name] = deep;
                break;
            case 4:
                parent[Pick(random, Words)] = Pick(random, Words);
                break;
            case 5:
                parent[name] = null;
                break;
            case 6:
                parent["kind"] = Pick(
                    random,
                    [
                        "text",
                        "number",
                        "money",
                        "band",
                        "date",
                        "yesNo",
                        "choice",
                        "phone",
                        "personName",
                        "address",
                        "dateRange",
                        "lookUp",
                        "files",
                        "rows",
                        "consent",
                        "signature",
                        "invented",
                    ]
                );
                break;
            default:
                parent[name] = Pick(random, Words);
                break;
        }

        void Collect(JsonObject from)
        {
            foreach (var (key, value) in from)
            {
                places.Add((from, key));
                if (value is JsonObject inner)
                    Collect(inner);
            }
        }
    }

    private static byte[] Noise(Random random)
    {
        var noise = new byte[random.Next(30) == 0 ? 5_000_000 : random.Next(400)];
        random.NextBytes(noise);
        return noise;
    }

    private static T Pick<T>(Random random, T[] from) => from[random.Next(from.Length)];
}
