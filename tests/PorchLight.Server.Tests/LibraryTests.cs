using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Messages of the library: kept by folder, seen as somebody gets them, tried, used, and sent with what goes with them.</summary>
public sealed class LibraryTests
{
    [Fact]
    public async Task Messages_stand_by_folder_as_people_order_names_with_where_each_is_used()
    {
        await using var app = new TestApp();
        await RunTests.OthersAreOffAsync(app);
        var owner = app.Owner();
        foreach (var (name, folder) in new[] { ("Reminder 10", "After"), ("Reminder 2", "After"), ("Hello", "") })
            await MakeAsync(owner, name, folder);
        var rows = await owner.GetAsync("/api/library/messages").JsonAsync();
        rows.EnumerateArray().Select(row => row.Text("name")).ShouldBe(["Hello", "Reminder 2", "Reminder 10"]);
        rows[0].Text("finding").ShouldBe("The message needs a subject.");

        var hello = rows[0].Text("id");
        await SaveAsync(owner, hello, "Hello", new MessageTemplate("A word", [new TextPart("t", "Dear {firstName}.")]));
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        var taken = new MessageTemplate("A word", [new TextPart("other key", "Dear {firstName}.")]) { TakenFrom = Guid.Parse(hello) };
        await RunTests.StartAsync(
            app,
            RunTests.Content(RunTests.Step("say it", new SendMessage(taken))),
            new EventContext(client, project, inquiry)
        );
        var use = (await owner.GetAsync($"/api/library/messages/{hello}").JsonAsync()).GetProperty("row").GetProperty("usedIn")[0];
        (use.Text("step"), use.GetProperty("hasOtherWords").GetBoolean()).ShouldBe(("say it", false));
        await SaveAsync(owner, hello, "Hello", new MessageTemplate("A word", [new TextPart("t", "Dear {firstName}!")]));
        (await owner.GetAsync($"/api/library/messages/{hello}").JsonAsync())
            .GetProperty("row")
            .GetProperty("usedIn")[0]
            .GetProperty("hasOtherWords")
            .GetBoolean()
            .ShouldBeTrue();
        (await owner.DeleteAsync($"/api/library/messages/{hello}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.GetAsync("/api/library/messages").JsonAsync()).GetArrayLength().ShouldBe(2);
    }

    [Fact]
    public async Task Taken_into_an_answer_a_gap_has_to_be_filled_and_what_goes_with_it_goes_with_it()
    {
        await using var app = new TestApp();
        (await app.SendAsync(Answers("tilda@pell.example"))).EnsureSuccessStatusCode();
        var owner = app.Owner();
        var client = (await app.AskAsync(db => db.Clients.SingleAsync())).Id;
        var file = await UploadAsync(owner, "prices.txt", "Lettering from 40 a metre."u8.ToArray());
        var message = new MessageTemplate(
            "For {name}",
            [new TextPart("t", "Dear {firstName}"), new GapPart("g", "one line about the wall")]
        )
        {
            Enclosed = new Enclosed(["sunil@ochrewren.example"], [file], null),
        };
        var draft = (await owner.PostAsync("/api/library/messages/preview", Body(new { message, clientId = client })).JsonAsync())
            .GetProperty("draft")
            .Deserialize<MessageDraft>(Storage.Json.Options)!;
        var path = $"/api/clients/{client}/messages";
        var refused = await owner.PostAsync(path, Body(new { draft }));
        (refused.StatusCode, (await refused.PlacesAsync()).Single()).ShouldBe((HttpStatusCode.UnprocessableEntity, "g"));
        await app.WorkAsync();
        (await app.AskAsync(db => db.PracticeMail.CountAsync(mail => mail.Subject == "For Tilda Brackenridge"))).ShouldBe(0);

        var filled = draft with { Parts = [draft.Parts[0], new GapPart("g", "one line about the wall", "It is tall.")] };
        var gone = filled with { Enclosed = filled.Enclosed with { Files = [Guid.NewGuid()] } };
        (await (await owner.PostAsync(path, Body(new { draft = gone }))).PlacesAsync()).ShouldBe(["enclosed"]);
        (await owner.PostAsync(path, Body(new { draft = filled }))).EnsureSuccessStatusCode();
        var sent = await app.AskAsync(db => db.OutgoingMail.SingleAsync(mail => mail.Subject == "For Tilda Brackenridge"));
        sent.Text.ShouldBe("Dear Tilda\n\nIt is tall.");
        (sent.Enclosed!.Cc.Single(), sent.Enclosed.Files.Single()).ShouldBe(("sunil@ochrewren.example", file));
    }

    [Fact]
    public async Task A_file_that_a_message_carries_stays_and_says_where_it_is_used()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var file = await UploadAsync(owner, "prices.txt", "Lettering from 40 a metre."u8.ToArray());
        var id = await MakeAsync(owner, "Prices", "");
        await SaveAsync(
            owner,
            id,
            "Prices",
            new MessageTemplate("Prices", [new TextPart("t", "Here.")]) { Enclosed = new Enclosed([], [file], null) }
        );
        (await owner.GetAsync("/api/files").JsonAsync())
            .EnumerateArray()
            .Single()
            .GetProperty("usedIn")[0]
            .GetString()
            .ShouldBe("the message “Prices”");
        var refused = await owner.DeleteAsync($"/api/files/{file}");
        (refused.StatusCode, await refused.SentenceAsync()).ShouldBe(
            (HttpStatusCode.UnprocessableEntity, "It is used in the message “Prices”, so it stays.")
        );
        (await owner.DeleteAsync($"/api/library/messages/{id}")).EnsureSuccessStatusCode();
        (await owner.DeleteAsync($"/api/files/{file}")).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task A_message_is_seen_as_somebody_gets_it_and_what_they_wrote_about_themselves_formats_nothing()
    {
        await using var app = new TestApp();
        (await app.SendAsync(Answers("tilda@pell.example"))).EnsureSuccessStatusCode();
        var client = await app.AskAsync(db => db.Clients.SingleAsync());
        var message = new MessageTemplate(
            "For {name}",
            [
                new TextPart("t", "Dear {firstName}, it is **done**.\n<script>x</script>"),
                new GapPart("g", "one line"),
                new TextPart("s", "{signature}"),
            ]
        );
        var owner = app.Owner();
        var was = new { text = "" };
        (
            await owner.PutAsync("/api/library/signatures/business", Body(new { was, now = new { text = "**Maren**" } }))
        ).EnsureSuccessStatusCode();
        var seen = await owner.PostAsync("/api/library/messages/preview", Body(new { message, clientId = client.Id.Value })).JsonAsync();
        (seen.Text("to"), seen.Text("subject")).ShouldBe(("tilda@pell.example", "For Tilda Brackenridge"));
        seen.Text("html")
            .ShouldBe(
                "<p>Dear Tilda, it is <strong>done</strong>.<br>&lt;script&gt;x&lt;/script&gt;</p><p><strong>[one line]</strong></p><p><strong>Maren</strong></p>"
            );

        var hostile = message.Draft(new Dictionary<string, string> { ["firstName"] = "[click](https://evil.example) **x**" });
        FormattedText
            .Read(((TextPart)hostile.Parts[0]).Text)
            .ToHtml(_ => null)
            .ShouldStartWith("<p>Dear [click](https://evil.example) **x**, it is <strong>done</strong>.");
    }

    [Fact]
    public async Task A_message_goes_out_in_plain_text_and_HTML_with_its_picture_its_files_its_copies_and_its_sender()
    {
        await using var server = new SmtpHost();
        await using var app = new TestApp();
        await RunTests.OthersAreOffAsync(app);
        var owner = app.Owner();
        var shown = await UploadAsync(owner, "wall.png", Png);
        var paper = await UploadAsync(owner, "terms.txt", "No smoking near the gold."u8.ToArray());
        var maren = await app.AskAsync(db => db.Users.SingleAsync(user => user.Email == Demo.DemoBusiness.OwnerMail));
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        await app.ChangeAsync(async db =>
            (await db.BusinessAsync()).Smtp = new Brand.SmtpSettings("127.0.0.1", server.Port, Brand.MailSecurity.None, null, null)
        );
        var message = new MessageTemplate(
            "Your wall\r\nBcc: everyone@example.com",
            [
                new TextPart(
                    "t",
                    $"Dear {{firstName}},\n\n- **two** sketches\n- [our page](https://example.com/?a=1&b=2)\n\n![the wall]({shown})"
                ),
            ]
        )
        {
            Enclosed = new Enclosed(["helper@example.com"], [paper], maren.Id),
        };
        await RunTests.StartAsync(
            app,
            RunTests.Content(RunTests.Step("send", new SendMessage(message))),
            new EventContext(client, project, inquiry)
        );
        await app.WorkAsync();

        var raw = server.Taken.ShouldHaveSingleItem();
        raw.Split("\r\n").ShouldNotContain(line => line.StartsWith("Bcc", StringComparison.OrdinalIgnoreCase));
        // As postal-mime reads it, a library for mail that knows nothing of the one that wrote it.
        var read = AnotherLibrary.Reads<JsonElement>("readMail.mjs", System.Text.Encoding.Latin1.GetBytes(raw));
        read.Text("subject").ShouldBe("Your wall Bcc: everyone@example.com");
        read.GetProperty("bcc").GetArrayLength().ShouldBe(0);
        read.GetProperty("cc").EnumerateArray().Select(copy => copy.Text("address")).ShouldBe(["helper@example.com"]);
        read.GetProperty("from").Text("name").ShouldBe("Maren Tolliver, Ochre Wren");
        read.Text("automatic").ShouldBe("auto-replied");
        read.Text("text")
            .ReplaceLineEndings("\n")
            .TrimEnd()
            .ShouldBe("Dear Tilda,\n\n- two sketches\n- our page (https://example.com/?a=1&b=2)\n\n[the wall]");
        read.Text("html")
            .ShouldContain(
                "<ul><li><strong>two</strong> sketches</li><li><a href=\"https://example.com/?a=1&amp;b=2\">our page</a></li></ul>"
            );
        var files = read.GetProperty("files").EnumerateArray().ToList();
        var picture = files.Single(file => file.Text("type") == "image/png");
        read.Text("html").ShouldContain($"src=\"cid:{picture.Text("contentId").Trim('<', '>')}\"");
        picture.GetProperty("base64").GetBytesFromBase64().ShouldBe(Png);
        var attached = files.Single(file => file.Text("type") != "image/png");
        attached.Text("name").ShouldBe("terms.txt");
        // The library ends a text with a line end of its own.
        System
            .Text.Encoding.UTF8.GetString(attached.GetProperty("base64").GetBytesFromBase64())
            .TrimEnd('\n')
            .ShouldBe("No smoking near the gold.");
    }

    [Fact]
    public async Task A_message_is_tried_by_sending_it_to_oneself_and_a_copy_goes_to_nobody()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = await MakeAsync(owner, "Hello", "");
        (await owner.PostAsync($"/api/library/messages/{id}/test", null)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await SaveAsync(
            owner,
            id,
            "Hello",
            new MessageTemplate("A word", [new TextPart("t", "Dear {firstName}."), new GapPart("g", "one line")])
            {
                Enclosed = new Enclosed(["helper@example.com"], [], null),
            }
        );
        (await owner.PostAsync($"/api/library/messages/{id}/test", null)).EnsureSuccessStatusCode();
        var sent = await app.AskAsync(db => db.OutgoingMail.SingleAsync());
        (sent.To, sent.Subject, sent.Text, sent.Enclosed).ShouldBe(
            (Demo.DemoBusiness.OwnerMail, "A test: A word", "Dear Ada.\n\n[one line]", (Enclosed?)null)
        );
    }

    [Theory]
    [InlineData("<p onclick=\"x()\">a</p>", "<p>a</p>")]
    [InlineData("<a href=\"javascript:alert(1)\">a</a>", "<a>a</a>")]
    [InlineData("<script>x</script><style>y</style><iframe src=\"https://e.example\"></iframe>b", "b")]
    [InlineData("<img src=\"https://e.example/a.png\" onerror=\"x()\">", "<img src=\"https://e.example/a.png\">")]
    [InlineData("<img src=\"data:image/svg+xml;base64,PHN2Zz4=\">", "<img>")]
    [InlineData("<form action=\"https://e.example\"><input name=\"password\"></form>", "")]
    [InlineData("<svg><a xlink:href=\"javascript:x()\">a</a></svg>", "")]
    public void Hostile_HTML_does_not_leave_the_house(string hostile, string clean) => MailHtml.Clean(hostile).ShouldBe(clean);

    /// <summary>Two libraries that know nothing of each other: what ours writes, the sanitiser leaves as it is.</summary>
    [Fact]
    public void What_the_program_formats_itself_passes_the_sanitiser_unchanged()
    {
        const string text = "Dear **A**,\n- [b](https://e.example/?x=1&y=\"2\")\n1. c\n<script>&amp;\"'";
        var html = FormattedText.Read(text).ToHtml(_ => "cid:x");
        MailHtml.Clean(html).Replace("\"'", "&quot;&#39;", StringComparison.Ordinal).ShouldBe(html);
    }

    private static byte[] Png { get; } =
        Convert.FromBase64String("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");

    private static async Task<string> MakeAsync(HttpClient owner, string name, string folder) =>
        (
            await owner
                .PostAsync(
                    "/api/library/messages",
                    Body(
                        new
                        {
                            name,
                            folder,
                            copyOf = (Guid?)null,
                        }
                    )
                )
                .JsonAsync()
        ).Text("id");

    private static async Task SaveAsync(HttpClient owner, string id, string name, MessageTemplate message)
    {
        var was = (await owner.GetAsync($"/api/library/messages/{id}").JsonAsync()).GetProperty("content");
        (
            await owner.PutAsync(
                $"/api/library/messages/{id}",
                Body(
                    new
                    {
                        was,
                        now = new
                        {
                            name,
                            folder = "",
                            message,
                        },
                    }
                )
            )
        ).EnsureSuccessStatusCode();
    }

    private static async Task<Guid> UploadAsync(HttpClient owner, string name, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        return Guid.Parse((await owner.PostAsync($"/api/files?name={name}", content).JsonAsync()).Text("id"));
    }
}
