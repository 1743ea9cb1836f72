using System.Net;
using System.Text;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;

namespace PorchLight.Server.Tests;

/// <summary>Requests that once broke something, put to every public endpoint.</summary>
public sealed class HostileRequestTests
{
    private static readonly FormContent Odd = new(
        "Odd",
        "",
        [
            new Page(
                "one",
                "One",
                [
                    new Question("when", "When?", new DateRangeKind(OrMonth: true)),
                    new Question("day", "Which day?", new DateKind()),
                    new Question("list", "Which?", new ListKind([new Question("says", "What?", new ShortTextKind())], "sign")),
                    new Question("many", "Several?", new ChoiceKind([new Option("a", "A"), new Option("b", "B")], Several: true)),
                    new Question("files", "Files?", new FilesKind()),
                    new Question("words", "Words?", new LongTextKind()),
                ]
            ),
        ],
        [],
        new SendOff("end", "Thanks", "Thanks.")
    );

    private static readonly string[] Answers =
    [
        """{"list":{"kind":"rows","rows":[null]}}""",
        """{"list":{"kind":"rows","rows":[{"answers":null}]}}""",
        """{"list":{"kind":"rows","rows":[{"answers":{"says":{"kind":"choice","keys":[null]}}}]}}""",
        """{"many":{"kind":"choice","keys":[null]}}""",
        """{"files":{"kind":"files","files":[null]}}""",
        """{"day":{"kind":"date","date":"9999-12-31"}}""",
        """{"day":{"kind":"date","date":"-9998-01-01"}}""",
        """{"when":{"kind":"dateRange","from":"9999-12-01","to":"9999-12-31","roughly":true}}""",
        """{"when":{"kind":"dateRange","from":"9999-12-31","to":"0001-01-01"}}""",
        "{\"words\":{\"kind\":\"text\",\"text\":\"\\ud800 \\ufffe \\u0000\"}}",
        "{\"list\":{\"kind\":\"rows\",\"rows\":[" + string.Join(',', Enumerable.Repeat("{\"answers\":{}}", 50_000)) + "]}}",
    ];

    private static readonly (string Type, string Body)[] Posts =
    [
        ("application/x-www-form-urlencoded", "when.month=9999-12"),
        ("application/x-www-form-urlencoded", "when.month=0000-00"),
        ("application/x-www-form-urlencoded", "words=%00%01"),
        ("application/x-www-form-urlencoded", "%00=1"),
        ("application/x-www-form-urlencoded", string.Join('&', Enumerable.Range(0, 2000).Select(field => $"f{field}=1"))),
        ("application/x-www-form-urlencoded", new string('k', 5000) + "=1"),
        ("application/x-www-form-urlencoded", string.Join('&', Enumerable.Range(0, 900).Select(row => $"list.{row}.says=x"))),
        ("application/x-www-form-urlencoded", "list.99999999999999999999.says=x"),
        ("multipart/form-data; boundary=x", "no boundary here"),
        ("multipart/form-data", "nor here"),
        ("multipart/form-data; boundary=" + new string('b', 500), "--b"),
        ("text/plain", "words"),
        ("application/json", "null"),
        ("application/json", "{"),
        ("application/json; charset=utf-7", "{}"),
    ];

    [Fact]
    public async Task No_public_endpoint_breaks_whatever_is_posted_to_it()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(
            Odd,
            new FormSettings
            {
                Guard = new SpamGuard(LeastSeconds: 0),
                TakesPlainPosts = true,
                Capacity = new Capacity("day", [new MonthLimit(new NodaTime.YearMonth(9999, 12), 0)]),
            }
        );
        var client = app.CreateClient(new() { AllowAutoRedirect = false });
        var posts = Posts
            .Concat(
                Answers.SelectMany(answers =>
                    new[]
                    {
                        (
                            "application/json",
                            $$"""{"version":1,"sendKey":"{{Guid.NewGuid()}}","page":"one","leaving":true,"revision":0,"answers":{{answers}},"cameFrom":null,"proof":"bnVsbA=="}"""
                        ),
                        (
                            "application/json",
                            $$"""{"version":1,"sendKey":"{{Guid.NewGuid()}}","page":"one","leaving":false,"revision":0,"answers":{{answers}},"cameFrom":"\u0000","ticket":"bnVsbA=="}"""
                        ),
                    }
                )
            )
            .ToList();
        foreach (var (method, path) in PublicEndpoints(app, link))
        {
            foreach (var (type, body) in method is "POST" or "PUT" ? posts : [("", "")])
            {
                using var request = new HttpRequestMessage(new HttpMethod(method), path);
                if (body.Length > 0)
                {
                    request.Content = new ByteArrayContent(Encoding.UTF8.GetBytes(body));
                    request.Content.Headers.TryAddWithoutValidation("Content-Type", type);
                }

                var response = await client.SendAsync(request);
                ((int)response.StatusCode).ShouldBeLessThan(500, $"{method} {path} with {type}: {body[..Math.Min(body.Length, 120)]}");
                if ((int)response.StatusCode >= 400)
                    response.Content.Headers.ContentType!.MediaType.ShouldBe(
                        "application/problem+json",
                        $"{method} {path}: every refusal has its sentence"
                    );
            }
        }
    }

    [Theory]
    [InlineData("\ufffe")]
    [InlineData("\ud83d")]
    [InlineData("%00")]
    public async Task Whatever_is_typed_into_a_look_up_gets_an_answer(string typed)
    {
        await using var app = new TestApp();
        var list = Guid.NewGuid();
        (
            await app.Owner().PutAsync($"/api/lists/{list}?name=Towns", new StringContent("Town\nHowth\nBray", Encoding.UTF8, "text/csv"))
        ).EnsureSuccessStatusCode();
        var link = await app.MakeQuickFormAsync(
            new FormContent(
                "Towns",
                "",
                [new Page("one", "One", [new Question("town", "Town?", new LookUpKind(list, ["Town"]))])],
                [],
                new SendOff("end", "Thanks", "Thanks.")
            )
        );
        var found = await app.CreateClient().GetAsync($"/public/forms/{link}/1/look-up?question=town&typed={Uri.EscapeDataString(typed)}");
        found.StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_quarter_of_a_million_empty_rows_are_refused_before_anything_walks_them()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(Odd);
        var rows = new RowsAnswer([.. Enumerable.Repeat(new AnswerRow(new Dictionary<string, Answer?>()), 250_000)]);
        (await (await app.SendAsync(link, new() { ["list"] = rows })).SentenceAsync()).ShouldContain(
            "more answers here than this form can hold"
        );
        (await app.AskAsync(db => db.Submissions.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task One_address_can_leave_only_so_much_in_an_hour()
    {
        await using var app = new TestApp { Settings = { ["PorchLight:MegabytesByAddress"] = "1" } };
        var link = await app.MakeQuickFormAsync(Odd);
        var upload = () =>
            app.CreateClient()
                .PostAsync(
                    $"/public/forms/{link}/1/files?filling={Guid.NewGuid()}&question=files&name=a.txt",
                    new ByteArrayContent(Encoding.UTF8.GetBytes(new string('a', 600_000)))
                );
        (await upload()).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await (await upload()).SentenceAsync()).ShouldContain("within an hour");
        app.Time.Advance(TimeSpan.FromHours(1));
        (await upload()).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task An_upload_that_is_too_large_is_told_so_in_its_own_words()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(Odd);
        var refused = await app.CreateClient()
            .PostAsync(
                $"/public/forms/{link}/1/files?filling={Guid.NewGuid()}&question=files&name=film.mp4",
                new ByteArrayContent(new byte[27 * 1024 * 1024])
            );
        (await refused.SentenceAsync()).ShouldBe("“film.mp4” is larger than 25 MB. Please send a smaller copy.");
    }

    [Fact]
    public async Task Nobody_is_mailed_more_than_a_few_links_a_day_and_no_ticket_sends_for_ever()
    {
        await using var app = new TestApp();
        var link = await app.LinkAsync();
        for (var n = 0; n < 4; n++)
        {
            var key = Guid.NewGuid();
            (
                await app.CreateClient()
                    .PutAsync(
                        $"/public/forms/{link}/unfinished-form",
                        Testing.Requests.Body(
                            new
                            {
                                version = 1,
                                page = "you",
                                sendKey = key,
                                revision = 0,
                                answers = new { },
                            }
                        )
                    )
            ).IsSuccessStatusCode.ShouldBeTrue();
            var mailed = await app.CreateClient()
                .PostAsync(
                    $"/public/forms/{link}/unfinished-form/mail",
                    Testing.Requests.Body(
                        new
                        {
                            sendKey = key,
                            email = "victim@bakes.example",
                            agrees = true,
                        }
                    )
                );
            mailed.StatusCode.ShouldBe(n < 3 ? HttpStatusCode.NoContent : HttpStatusCode.Conflict);
        }

        var ticket = await app.TicketAsync();
        for (var n = 0; n < 6; n++)
        {
            var sent = await app.CreateClient()
                .PostAsync(
                    $"/public/forms/{link}/send",
                    Testing.Requests.Body(
                        new
                        {
                            version = 1,
                            sendKey = Guid.NewGuid(),
                            answers = Testing.Requests.Answers($"lead{n}@bakes.example"),
                            cameFrom = (string?)null,
                            ticket,
                        }
                    )
                );
            sent.StatusCode.ShouldBe(n < 5 ? HttpStatusCode.OK : HttpStatusCode.UnprocessableEntity);
        }
    }

    private static IEnumerable<(string Method, string Path)> PublicEndpoints(TestApp app, string link) =>
        from endpoint in app.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>()
        let path = "/" + endpoint.RoutePattern.RawText!.Trim('/')
        where path.StartsWith("/public/", StringComparison.Ordinal)
        from method in endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? ["GET"]
        select (
            method,
            path.Replace("{token}", link, StringComparison.Ordinal)
                .Replace("{version:int}", "1", StringComparison.Ordinal)
                .Replace("{id}", Guid.Empty.ToString(), StringComparison.Ordinal)
                + (
                    path.EndsWith("/files", StringComparison.Ordinal) ? $"?filling={Guid.NewGuid()}&question=files&name=%00"
                    : path.EndsWith("look-up", StringComparison.Ordinal) ? "?question=words&typed=%EF%BF%BE"
                    : path.EndsWith("{id}", StringComparison.Ordinal) ? $"?filling={Guid.NewGuid()}"
                    : ""
                )
        );
}
