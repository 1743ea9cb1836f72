using System.Net;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.Messages;
using PorchLight.Core.Ready;
using PorchLight.Server.Hosting;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Whatever makes or sends something happens once, however often its button is pressed.</summary>
public sealed class SendOnceTests
{
    /// <summary>
    /// Posts that carry no send key, with why a second press changes nothing. A new endpoint that posts must stand here, or be
    /// marked as one that makes or sends something.
    /// </summary>
    private static readonly string[] OnceByTheirNature =
    [
        "/api/first-run",
        "/api/join/{token}",
        "/api/sign-in",
        "/api/sign-out",
        "/api/bell/seen",
        "/api/me/password", // sets what is so already
        "/api/forms/{id}/light",
        "/api/jump",
        "/api/clients/found",
        "/api/clients/all-found",
        "/api/inquiries/found",
        "/api/inquiries/all-found",
        "/api/forms/found",
        "/api/forms/all-found",
        "/api/files/found",
        "/api/files/all-found",
        "/api/library/messages/found",
        "/api/library/messages/all-found",
        "/api/practice/mail/found",
        "/api/practice/mail/all-found",
        "/api/webhooks/calls/found",
        "/api/webhooks/calls/all-found",
        "/api/meetings/{id}/missed",
        "/api/outside-calendars/{id}/read",
        "/api/meeting-types/{id}/archiving", // it is so already
        "/api/unfinished-forms/{id}/follow-up", // written to already
        "/api/unfinished-forms/{id}/take-back",
        "/api/mail/{id}/take-back",
        "/api/forms/{id}/links/{link}/take-back", // gone already
        "/api/fields", // the same again is there already
        "/api/fields/{key}/other-kind",
        "/api/forms/typed-options",
        "/api/forms/changed-kind",
        "/api/forms/typed-questions",
        "/api/forms/copied-items",
        "/api/forms/{id}/worked-out",
        "/api/forms/{id}/versions/{number:int}/bring-back", // it is there already
        "/api/forms/{id}/publish",
        "/api/forms/{id}/screening/in-force", // it is in force already
        "/api/forms/{id}/screening/sort-again",
        "/api/forms/{id}/screening/sort-unsorted", // nobody is left
        "/api/forms/{id}/fit-so-far", // keep nothing
        "/api/follow-throughs/{id}/in-force", // it is in force already
        "/api/follow-throughs/{id}/rehearse", // keeps nothing
        "/api/library/messages/preview", // keeps nothing
        "/api/settings/mailbox/test", // keeps nothing
        "/api/runs/{id}/stop",
        "/api/runs/{id}/try-again",
        "/api/runs/{id}/steps/{step}/skip",
        "/api/runs/{id}/steps/{step}/now", // moves on from a state
        "/api/inquiries/{id}/judge-again", // judged by that screening already
        "/api/people/{user}/role",
        "/api/inquiries/{id}/place", // the same again is no change
        "/api/inquiries/{id}/stop",
        "/api/inquiries/{id}/close",
        "/api/inquiries/{id}/open-again",
        "/api/mail/{id}/again",
        "/api/mail/{id}/leave",
        "/api/nods/{runId}/{step}/send",
        "/api/nods/{runId}/{step}/skip",
        "/api/nods/{runId}/{step}/take-nod-back",
        "/api/nods/{runId}/{step}/take-skip-back", // moves on from a state
        "/unsubscribe/{token}", // it is stopped already
        "/public/forms/{token}/send",
        "/public/forms/{token}/unfinished-form/mail",
        "/public/forms/{token}/opened",
        "/public/forms/{token}/reopening",
        "/public/forms/{token}/code", // keyed by the filling-in, the address or the clock
        "/public/forms/{token}/code/check",
        "/public/forms/{token}/evaluate",
        "/public/receipts/{token}/call",
        "/public/forms/{token}/plain", // a browser without script has no key to send
        "/public/forms/{token}/{version:int}/files", // counted against the question's limit, and gone in a day unless sent
        "/changes/negotiate",
    ];

    /// <summary>
    /// Posts that carry a send key, and of which another press is refused, or finds all as it is: a time is taken, a meeting is cancelled.
    /// <see cref="MeetingTests.Whatever_is_done_with_a_meeting_is_done_once_however_often_it_is_pressed"/> tries each.
    /// </summary>
    private static readonly string[] OncePressed =
    [
        "/api/meetings",
        "/api/meetings/links",
        "/api/outside-calendars",
        "/api/outside-calendars/file",
        "/api/calendar-feed/renew",
        "/api/practice/calendar",
        "/api/meetings/{id}/move",
        "/api/meetings/{id}/cancel",
        "/public/meetings/{token}/book",
        "/public/meetings/{token}/move",
        "/public/meetings/{token}/cancel",
    ];

    [Fact]
    public async Task Every_post_is_marked_or_known_to_change_nothing_the_second_time()
    {
        await using var app = new TestApp();
        var posts = Posts(app);
        posts
            .Where(post => post.Metadata.GetMetadata<SendOnceMetadata>() is null)
            .Select(Path)
            .ShouldBe(OnceByTheirNature, ignoreOrder: true);
        posts
            .Where(post => post.Metadata.GetMetadata<SendOnceMetadata>() is not null)
            .Select(Path)
            .ShouldBe(
                Acts(Guid.Empty, "", "", "", "", "").Select(act => act.Route).Concat(OncePressed),
                ignoreOrder: true,
                "each is tried below, or with the meetings"
            );
    }

    [Fact]
    public async Task Pressed_twice_and_pressed_at_the_same_time_everything_happens_once()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var inquiry = (await app.AskAsync(db => db.Inquiries.SingleAsync())).Id.Value;
        var client = (await app.AskAsync(db => db.Clients.SingleAsync())).Id.ToString();
        var form = (await app.AskAsync(db => db.Forms.FirstAsync())).Id.ToString();
        var member = (await app.AskAsync(db => db.Users.SingleAsync(user => user.Email == Demo.DemoBusiness.MemberMail))).Id.ToString();
        var follow = (await app.AskAsync(db => db.FollowThroughs.FirstAsync())).Id.ToString();
        var project = (await app.AskAsync(db => db.Projects.SingleAsync())).Id.ToString();
        var marked = Posts(app).Where(post => post.Metadata.GetMetadata<SendOnceMetadata>() is not null).Select(Path).ToHashSet();
        var owner = app.Owner();
        foreach (var (route, path, body) in Acts(inquiry, client, form, member, follow, project))
        {
            marked.ShouldContain(route);
            var named = await NamedAsync(app, path);
            var key = Guid.NewGuid().ToString();
            var together = await Task.WhenAll(Press(), Press());
            var counted = await CountAsync(app);
            var again = await Press();
            foreach (var one in together.Append(again))
            {
                one.IsSuccessStatusCode.ShouldBeTrue($"{route}: {await one.Content.ReadAsStringAsync()}");
                (await one.Content.ReadAsStringAsync()).ShouldBe(await again.Content.ReadAsStringAsync(), route);
            }

            (await CountAsync(app)).ShouldBe(counted, route);
            (await PressAsync(Guid.NewGuid().ToString())).IsSuccessStatusCode.ShouldBeTrue("another press is another act");
            (await CountAsync(app)).ShouldNotBe(counted, $"{route} does something when it is pressed anew");

            Task<HttpResponseMessage> Press() => PressAsync(key);

            Task<HttpResponseMessage> PressAsync(string sendKey) =>
                owner.SendAsync(
                    new HttpRequestMessage(HttpMethod.Post, named)
                    {
                        Content = body is byte[] bytes ? new ByteArrayContent(bytes) : Body(body),
                        Headers = { { SendOnce.Header, sendKey } },
                    }
                );
        }
    }

    /// <summary>A path with what an earlier act has made.</summary>
    private static async Task<string> NamedAsync(TestApp app, string path)
    {
        if (path.Contains("{mail}", StringComparison.Ordinal))
            return Named("{mail}", (await app.AskAsync(db => db.PracticeMail.FirstAsync(one => !one.Incoming))).Id);
        if (path.Contains("{message}", StringComparison.Ordinal))
        {
            var id = await app.AskAsync(db => db.LibraryMessages.Select(one => one.Id).FirstAsync());
            await app.ChangeAsync(async db =>
                (await db.LibraryMessages.FindAsync(id))!.Message = new MessageTemplate("A word", [new TextPart("t", "Hello.")])
            );
            return Named("{message}", id);
        }

        if (path.Contains("{webhook}", StringComparison.Ordinal))
            return Named("{webhook}", (await app.AskAsync(db => db.Webhooks.FirstAsync())).Id);
        return path.Contains("{call}", StringComparison.Ordinal)
            ? Named("{call}", (await app.AskAsync(db => db.WebhookCalls.FirstAsync())).Id)
            : path;

        string Named<T>(string name, Core.Common.Id<T> id) => path.Replace(name, id.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_same_key_with_other_words_is_not_the_same_press()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var path = $"/api/inquiries/{(await app.AskAsync(db => db.Inquiries.SingleAsync())).Id}/reply";
        var owner = app.Owner();
        owner.DefaultRequestHeaders.Add(SendOnce.Header, Guid.NewGuid().ToString());
        (await owner.PostAsync(path, Body(Written("Your wall", "Gladly.")))).EnsureSuccessStatusCode();
        var changed = await owner.PostAsync(path, Body(Written("Your wall", "Gladly, on Tuesday.")));
        changed.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await changed.SentenceAsync()).ShouldContain("other words");
    }

    [Fact]
    public async Task What_was_refused_may_be_pressed_again_with_the_same_key()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        owner.DefaultRequestHeaders.Add(SendOnce.Header, Guid.NewGuid().ToString());
        (
            await owner.PostAsync(
                "/api/forms",
                Body(
                    new
                    {
                        title = "",
                        startingPrice = 900m,
                        ready = "any",
                    }
                )
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (
            await owner.PostAsync(
                "/api/forms",
                Body(
                    new
                    {
                        title = "A gate",
                        startingPrice = 900m,
                        ready = "any",
                    }
                )
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private static List<(string Route, string Path, object Body)> Acts(
        Guid inquiry,
        string client,
        string form,
        string member,
        string follow,
        string project
    ) =>
        [
            ("/api/meeting-types", "/api/meeting-types", new { name = "A first talk" }),
            (
                "/api/library/messages",
                "/api/library/messages",
                new
                {
                    name = "Hello",
                    folder = "",
                    copyOf = (Guid?)null,
                }
            ),
            ("/api/library/built-in/{kind}/test", "/api/library/built-in/finishLater/test", new { }),
            ("/api/library/messages/{id}/test", "/api/library/messages/{message}/test", new { }),
            ("/api/webhooks", "/api/webhooks", new { name = "Board", address = "https://board.example/hook" }),
            ("/api/webhooks/{id}/secret", "/api/webhooks/{webhook}/secret", new { }),
            ("/api/webhooks/{id}/test", "/api/webhooks/{webhook}/test", new { }),
            ("/api/webhooks/calls/{id}/again", "/api/webhooks/calls/{call}/again", new { }),
            ("/api/follow-throughs", "/api/follow-throughs", new { ready = "proposal", name = "After an offer" }),
            ("/api/follow-throughs/{id}/copies", $"/api/follow-throughs/{follow}/copies", new { }),
            ("/api/clients/{id}/messages", $"/api/clients/{client}/messages", Written("Your wall", "Gladly.")),
            ("/api/clients/{id}/runs", $"/api/clients/{client}/runs", new { followThroughId = follow, projectId = project }),
            ("/api/inquiries/{id}/reply", $"/api/inquiries/{inquiry}/reply", Written("Your wall", "Gladly.")),
            (
                "/api/inquiries/{id}/quick-replies",
                $"/api/inquiries/{inquiry}/quick-replies",
                new
                {
                    draft = new
                    {
                        subject = "Your wall",
                        parts = new[]
                        {
                            new
                            {
                                kind = "text",
                                key = "opening",
                                text = "Gladly.",
                            },
                        },
                    },
                    stage = "talking",
                    until = (string?)null,
                }
            ),
            ("/api/inquiries/{id}/answered-elsewhere", $"/api/inquiries/{inquiry}/answered-elsewhere", new { }),
            ("/api/inquiries/{id}/got-in-touch", $"/api/inquiries/{inquiry}/got-in-touch", new { text = "She phoned." }),
            (
                "/api/clients",
                "/api/clients",
                new
                {
                    name = "Ada Penrose",
                    email = "",
                    phone = "",
                }
            ),
            ("/api/clients/{id}/projects", $"/api/clients/{client}/projects", new { title = "The gate", service = "" }),
            (
                "/api/clients/{id}/tasks",
                $"/api/clients/{client}/tasks",
                new
                {
                    projectId = (Guid?)null,
                    title = "Order the gold leaf",
                    isDate = false,
                    on = (string?)null,
                    @for = (Guid?)null,
                }
            ),
            ("/api/clients/{id}/notes", $"/api/clients/{client}/notes", new { projectId = (Guid?)null, text = "The door sticks." }),
            (
                "/api/fields/for-question",
                "/api/fields/for-question",
                new
                {
                    scope = "client",
                    question = new
                    {
                        key = "coffee",
                        wording = "How do you take your coffee?",
                        kind = new { kind = "shortText" },
                    },
                }
            ),
            (
                "/api/forms",
                "/api/forms",
                new
                {
                    title = "A gate to paint",
                    startingPrice = 900m,
                    ready = "any",
                }
            ),
            ("/api/forms/{id}/copies", $"/api/forms/{form}/copies", new { }),
            ("/api/forms/imported", "/api/forms/imported", ReadyForms.Inquiry("A gate from a file", 900, "EUR").Content),
            (
                "/api/forms/{id}/links",
                $"/api/forms/{form}/links",
                new
                {
                    email = "robin@bikes.example",
                    givenName = "Robin",
                    familyName = "Pell",
                }
            ),
            (
                "/api/forms/{id}/links/by-mail",
                $"/api/forms/{form}/links/by-mail",
                new
                {
                    @for = new
                    {
                        email = "robin@bikes.example",
                        givenName = "Robin",
                        familyName = "Pell",
                    },
                    subject = "A few questions",
                    text = "Please answer here: [the link]",
                }
            ),
            ("/api/files", "/api/files?name=note.txt", "A note."u8.ToArray()),
            (
                "/api/people/invites",
                "/api/people/invites",
                new
                {
                    name = "Ines",
                    email = "ines@ochrewren.example",
                    role = "member",
                }
            ),
            ("/api/people/{user}/password-link", $"/api/people/{member}/password-link", new { }),
            (
                "/api/settings/mail/test",
                "/api/settings/mail/test",
                new
                {
                    practice = true,
                    host = "",
                    port = 587,
                    security = "startTls",
                    user = "",
                    password = "",
                    hasPassword = false,
                }
            ),
            ("/api/practice/mail/{id}/answer", "/api/practice/mail/{mail}/answer", new { text = "Thank you!" }),
            ("/api/practice/mail/{id}/booked", "/api/practice/mail/{mail}/booked", new { }),
            ("/api/practice/clock/skip", "/api/practice/clock/skip", new { to = "nextHour" }),
        ];

    /// <summary>
    /// How much there is of everything, and how far the clock was moved; made anew with every act is what only changes
    /// its name.
    /// </summary>
    private static async Task<string> CountAsync(TestApp app) =>
        await app.AskAsync(async db =>
            string.Join(
                ' ',
                await db.LibraryMessages.CountAsync(),
                (await db.WebhookCalls.ToListAsync()).Sum(call => 1 + call.Tries.Count),
                string.Join(' ', (await db.Webhooks.ToListAsync()).Select(webhook => webhook.SecretSealed)),
                await db.OutgoingMail.CountAsync(),
                await db.PracticeMail.CountAsync(),
                await db.Events.CountAsync(),
                await db.Forms.CountAsync(),
                await db.MeetingTypes.CountAsync(),
                await db.FollowThroughs.CountAsync(),
                await db.StoredFiles.CountAsync(),
                await db.Fields.CountAsync(),
                await db.ClientTasks.CountAsync(),
                (await db.PersonalLinks.OrderBy(link => link.Id).LastOrDefaultAsync())?.LinkHash,
                await db.PersonalLinks.CountAsync(),
                (await db.Invites.OrderBy(invite => invite.Id).LastOrDefaultAsync())?.LinkHash,
                await db.Invites.CountAsync(),
                (await db.Businesses.SingleAsync()).ClockAheadSeconds
            )
        );

    private static List<RouteEndpoint> Posts(TestApp app)
    {
        app.StartServer();
        return
        [
            .. app
                .Services.GetRequiredService<EndpointDataSource>()
                .Endpoints.OfType<RouteEndpoint>()
                .Where(endpoint =>
                    endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods.Contains("POST") == true
                    || Path(endpoint) == "/changes/negotiate"
                )
                .DistinctBy(Path),
        ];
    }

    private static string Path(RouteEndpoint endpoint) => "/" + endpoint.RoutePattern.RawText!.Trim('/');
}
