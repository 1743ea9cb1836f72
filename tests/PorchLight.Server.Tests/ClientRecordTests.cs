using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using static PorchLight.Server.Tests.FieldTests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What people of the business write about a client, and how they settle what differs.</summary>
public sealed class ClientRecordTests
{
    [Fact]
    public async Task A_value_is_changed_where_it_stands_and_everything_that_ever_stood_there_is_in_its_history()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var client = await OnlyClientAsync(owner);
        var was = ValueOf(client, "client.phone");
        app.Time.Advance(TimeSpan.FromMinutes(5));
        (await PutAsync(owner, client, "client.phone", was, new PhoneAnswer("+353 1 555 0199"))).EnsureSuccessStatusCode();
        app.Time.Advance(TimeSpan.FromMinutes(5));
        (
            await PutAsync(app.Member(), client, "client.phone", ValueOf(await OnlyClientAsync(owner), "client.phone"), null)
        ).EnsureSuccessStatusCode();
        var history = (await owner.GetAsync($"/api/clients/{client.Text("id")}/values/client.phone").JsonAsync()).EnumerateArray().ToList();
        history
            .Select(value => (value.Text("words"), value.Text("source")))
            .ShouldBe([
                ("", "Sunil Abara"),
                ("+353 1 555 0199", "Maren Tolliver"),
                ("01 555 0142", "Tilda Brackenridge in “A wall to paint”"),
            ]);
        OnFile(await OnlyClientAsync(owner), "client.phone").GetProperty("value").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task Two_people_at_one_client_keep_both_fields_and_are_shown_both_values_of_one()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var (owner, member) = (app.Owner(), app.Member());
        var seen = await OnlyClientAsync(owner);
        (await PutAsync(owner, seen, "client.company", null, new TextAnswer("Brackenridge Bakes"))).EnsureSuccessStatusCode();
        (await PutAsync(member, seen, "client.language", null, new TextAnswer("Irish"))).EnsureSuccessStatusCode();
        var clash = await PutAsync(member, seen, "client.company", null, new TextAnswer("Brackenridge and Daughter"));
        clash.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var sides = (await clash.JsonAsync()).GetProperty("clashes")[0];
        (sides.Text("place"), sides.GetProperty("theirs").Text("text"), sides.GetProperty("yours").Text("text")).ShouldBe(
            ("client.company", "Brackenridge Bakes", "Brackenridge and Daughter")
        );
        var now = await OnlyClientAsync(owner);
        (OnFile(now, "client.company").Text("words"), OnFile(now, "client.language").Text("words")).ShouldBe(
            ("Brackenridge Bakes", "Irish")
        );
        (await PutAsync(member, seen, "client.company", null, new TextAnswer("Brackenridge Bakes"))).StatusCode.ShouldBe(
            HttpStatusCode.OK,
            "both wrote the same"
        );
    }

    [Fact]
    public async Task What_cannot_be_kept_is_refused_beside_its_field_and_nothing_changes()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.SendAsync(Answers("other@bakes.example"));
        var owner = app.Owner();
        var client = await OnlyClientAsync(owner, "tilda@bakes.example");
        var before = await app.AskAsync(db => db.FieldValues.CountAsync());
        foreach (
            var (field, value) in new (string, Answer?)[]
            {
                ("client.name", null),
                ("client.email", new TextAnswer("nowhere")),
                ("client.email", new TextAnswer("other@bakes.example")),
                ("client.born", new TextAnswer("in May")),
            }
        )
            (await (await PutAsync(owner, client, field, ValueOf(client, field), value)).PlacesAsync()).ShouldBe([field]);
        (await PutAsync(owner, client, "client.gone", null, new TextAnswer("x"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await PutAsync(owner, client, "project.place", null, new TextAnswer("x"))).StatusCode.ShouldBe(
            HttpStatusCode.NotFound,
            "a field of projects needs a project"
        );
        (await app.AskAsync(db => db.FieldValues.CountAsync())).ShouldBe(before);
    }

    [Fact]
    public async Task A_name_and_an_address_changed_by_hand_are_what_the_list_and_the_next_inquiry_know()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var client = await OnlyClientAsync(owner);
        (
            await PutAsync(owner, client, "client.name", ValueOf(client, "client.name"), new PersonNameAnswer("Matilda", "Brackenridge"))
        ).EnsureSuccessStatusCode();
        (
            await PutAsync(owner, client, "client.email", ValueOf(client, "client.email"), new TextAnswer("Matilda@bakes.example"))
        ).EnsureSuccessStatusCode();
        await app.SendAsync(Answers("matilda@bakes.example"));
        var row = (await owner.WholeListAsync("/api/clients")).GetProperty("rows").EnumerateArray().Single();
        (row.Text("name"), row.Text("email")).ShouldBe(("Matilda Brackenridge", "Matilda@bakes.example"));
    }

    [Fact]
    public async Task A_file_somebody_sent_that_was_taken_out_of_a_field_can_be_put_back_and_a_strangers_cannot()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var key = (await MakeAsync(owner, "client", new Field("", "Photos", FieldKind.Files))).Text("key");
        var (theirs, others) = (new FileRef(Guid.NewGuid()), new FileRef(Guid.NewGuid()));
        await app.ChangeAsync(async db =>
        {
            var (form, client) = ((await db.Forms.FirstAsync()).Id, await db.Clients.SingleAsync());
            foreach (var file in new[] { theirs, others })
                db.StoredFiles.Add(
                    new StoredFile
                    {
                        Id = new Id<StoredFile>(file.Id),
                        StoredAs = file.Id.ToString(),
                        Name = "wall.jpg",
                        Bytes = 10,
                        Group = FileGroup.Picture,
                        ContentType = "image/jpeg",
                        At = app.Time.Now(),
                        FormId = form,
                    }
                );
            var source = new ValueSource(ValueOrigin.Inquiry, "Tilda Brackenridge", app.Time.Now());
            new RecordWriter(db).Write(client, null, key, new FilesAnswer([theirs]), null, source);
        });
        var client = await OnlyClientAsync(owner);
        var stood = ValueOf(client, key);
        (await PutAsync(owner, client, key, stood, null)).EnsureSuccessStatusCode();
        (await PutAsync(owner, client, key, null, stood)).EnsureSuccessStatusCode();
        OnFile(await OnlyClientAsync(owner), key).Text("words").ShouldBe("wall.jpg");
        var refused = await PutAsync(owner, client, key, ValueOf(await OnlyClientAsync(owner), key), new FilesAnswer([others]));
        (await refused.PlacesAsync()).ShouldBe([key], "a file of someone else is none of theirs");
        OnFile(await OnlyClientAsync(owner), key).Text("words").ShouldBe("wall.jpg", "and nothing is emptied for it");
    }

    [Fact]
    public async Task A_note_is_written_changed_with_its_history_pinned_and_taken_away_but_an_answer_stays()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var id = (await OnlyClientAsync(owner)).Text("id");
        var note = (
            await owner
                .PostAsync($"/api/clients/{id}/notes", Body(new { projectId = (Guid?)null, text = " The door sticks. " }))
                .JsonAsync()
        ).Text("id");
        var path = $"/api/clients/{id}/notes/{note}";
        var was = new { text = "The door sticks.", isPinned = false };
        (
            await owner.PutAsync(path, Body(new { was, now = new { text = "The yard door sticks.", isPinned = true } }))
        ).EnsureSuccessStatusCode();
        (await owner.PutAsync(path, Body(new { was, now = new { text = "No door sticks.", isPinned = false } }))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict,
            "someone changed the same words meanwhile"
        );
        var shown = (await OnlyClientAsync(owner)).GetProperty("notes")[0];
        (shown.Text("text"), shown.GetProperty("isPinned").GetBoolean(), shown.GetProperty("earlier")[0].Text("words")).ShouldBe(
            ("The yard door sticks.", true, "The door sticks.")
        );
        (await (await owner.PutAsync(path, Body(new { was, now = new { text = " ", isPinned = false } }))).PlacesAsync()).ShouldBe([
            "text",
        ]);
        (await owner.DeleteAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await app.AskAsync(async db => await db.Notes.CountAsync() + await db.NoteRevisions.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task Standings_and_tags_are_set_for_many_at_once_and_said_in_the_timeline()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers("one@bakes.example"));
        await app.SendAsync(Answers("two@bakes.example"));
        var owner = app.Owner();
        var ids = await app.AskAsync(db => db.Clients.Select(client => client.Id.Value).ToListAsync());
        await owner.PutAsync(
            "/api/clients/standing",
            Body(ids.Append(Guid.NewGuid()).Select(client => new { client, standing = "active" }))
        );
        await owner.PutAsync(
            "/api/clients/tags",
            Body(
                new
                {
                    clients = ids,
                    add = new[] { " bakery ", "bakery" },
                    remove = Array.Empty<string>(),
                }
            )
        );
        foreach (
            var client in new[] { await OnlyClientAsync(owner, "one@bakes.example"), await OnlyClientAsync(owner, "two@bakes.example") }
        )
        {
            (client.Text("standing"), client.GetProperty("tags")[0].GetString()).ShouldBe(("active", "bakery"));
            client
                .GetProperty("timeline")
                .EnumerateArray()
                .Select(entry => entry.Text("sentence"))
                .ShouldContain("Maren Tolliver set the standing to Active.");
        }

        await owner.PutAsync(
            "/api/clients/tags",
            Body(
                new
                {
                    clients = ids,
                    add = Array.Empty<string>(),
                    remove = new[] { "bakery" },
                }
            )
        );
        (await app.AskAsync(db => db.ClientTags.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task A_public_inquiry_never_writes_to_a_known_client_and_what_differs_is_settled_and_taken_back()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var before = await RecordsAsync(app);
        var again = Answers();
        again["phone"] = new PhoneAnswer("+353 1 555 0199");
        again["place"] = new TextAnswer("Bray");
        await app.SendAsync(again);
        (await RecordsAsync(app)).ShouldBe(before, "anyone can type an e-mail address");
        var owner = app.Owner();
        var open = Differences(await OnlyClientAsync(owner));
        open.Select(one => (one.Text("label"), one.Text("ours"), one.Text("theirs")))
            .ShouldBe([("Phone", "01 555 0142", "+353 1 555 0199"), ("Place", "Howth", "Bray")]);

        (
            await SettleAsync(owner, (open[0], "tookTheirs", null), (open[1], "wroteAnother", new TextAnswer("Bray, by the sea")))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var settled = await OnlyClientAsync(owner);
        OnFile(settled, "client.phone").Text("words").ShouldBe("+353 1 555 0199");
        Differences(settled).ShouldAllBe(one => one.Text("settledBy").StartsWith("Maren Tolliver"));
        settled.GetProperty("timeline").EnumerateArray().First().Text("sentence").ShouldBe("Maren Tolliver settled 2 differences.");
        (await SettleAsync(app.Member(), (open[0], "keptOurs", null))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent,
            "pressed by two, it is settled once"
        );
        OnFile(await OnlyClientAsync(owner), "client.phone").Text("words").ShouldBe("+353 1 555 0199");

        foreach (var one in open)
            (await TakeBackAsync(owner, one, false)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await RecordsAsync(app)).ShouldBe(before, "settled and taken back is as before");
        Differences(await OnlyClientAsync(owner)).ShouldAllBe(one => one.GetProperty("settlement").ValueKind == JsonValueKind.Null);
    }

    [Fact]
    public async Task Taking_back_asks_where_the_field_was_written_again_since()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var again = Answers();
        again["phone"] = new PhoneAnswer("+353 1 555 0199");
        await app.SendAsync(again);
        var owner = app.Owner();
        var difference = Differences(await OnlyClientAsync(owner)).Single();
        await SettleAsync(owner, (difference, "tookTheirs", null));
        var client = await OnlyClientAsync(owner);
        (
            await PutAsync(owner, client, "client.phone", ValueOf(client, "client.phone"), new PhoneAnswer("+353 1 555 0100"))
        ).EnsureSuccessStatusCode();
        var asked = await TakeBackAsync(owner, difference, false);
        asked.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await asked.SentenceAsync()).ShouldBe("This field was written again since: it says “+353 1 555 0100” now. Take it back anyway?");
        (await TakeBackAsync(owner, difference, true)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        OnFile(await OnlyClientAsync(owner), "client.phone").Text("words").ShouldBe("01 555 0142");
    }

    [Fact]
    public async Task An_answer_is_corrected_before_it_is_settled_and_both_stay_visible()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var again = Answers();
        again["place"] = new TextAnswer("Brya");
        await app.SendAsync(again);
        var owner = app.Owner();
        var difference = Differences(await OnlyClientAsync(owner)).Single();
        var path = $"/api/differences/{difference.Text("id")}/corrected";
        Answer said = new TextAnswer("Brya");
        Answer meant = new TextAnswer("Bray");
        (await (await owner.PutAsync(path, Body(new { was = said, now = (Answer)new NumberAnswer(3) }))).PlacesAsync()).ShouldBe([
            "project.place",
        ]);
        (await owner.PutAsync(path, Body(new { was = said, now = meant }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await app.Member().PutAsync(path, Body(new { was = said, now = (Answer)new TextAnswer("Brie") }))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict,
            "someone corrected it meanwhile"
        );
        difference = Differences(await OnlyClientAsync(owner)).Single();
        (difference.Text("theirs"), difference.Text("corrected"), difference.Text("correctedBy")).ShouldBe(
            ("Brya", "Bray", "Maren Tolliver")
        );
        await SettleAsync(owner, (difference, "tookTheirs", null));
        var project = (await OnlyClientAsync(owner)).GetProperty("projects")[0];
        project
            .GetProperty("fields")
            .EnumerateArray()
            .Single(one => one.GetProperty("field").Text("key") == "project.place")
            .Text("words")
            .ShouldBe("Bray");
        Differences(await OnlyClientAsync(owner)).Single().Text("theirs").ShouldBe("Brya");
        (await owner.PutAsync(path, Body(new { was = meant, now = (Answer?)null }))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict,
            "it is settled"
        );
        await TakeBackAsync(owner, difference, false);
        (await owner.PutAsync(path, Body(new { was = meant, now = (Answer?)null }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Differences(await OnlyClientAsync(owner)).Single().GetProperty("corrected").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task One_settlement_that_cannot_be_leaves_all_of_them_open()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var again = Answers();
        again["phone"] = new PhoneAnswer("+353 1 555 0199");
        again["place"] = new TextAnswer("Bray");
        await app.SendAsync(again);
        var owner = app.Owner();
        var before = await RecordsAsync(app);
        var open = Differences(await OnlyClientAsync(owner));
        (await SettleAsync(owner, (open[0], "tookTheirs", null), (open[1], "wroteAnother", new NumberAnswer(3)))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await RecordsAsync(app)).ShouldBe(before);
        Differences(await OnlyClientAsync(owner)).ShouldAllBe(one => one.GetProperty("settlement").ValueKind == JsonValueKind.Null);
    }

    [Fact]
    public async Task What_they_say_for_the_notes_is_added_when_it_is_taken_and_goes_when_that_is_taken_back()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(
            new FormContent(
                "Words",
                "",
                [
                    new Page(
                        "one",
                        "One",
                        [
                            new Question("email", "Mail?", new EmailKind()) { LandsIn = new SetField(BuiltInFields.Email.Key) },
                            new Question("words", "And?", new ShortTextKind()) { LandsIn = new AppendToNotes(RecordScope.Client) },
                        ]
                    ),
                ],
                [],
                new SendOff("end", "Thanks", "Thanks.")
            )
        );
        await FieldTests.SendAsync(app, link, "tilda@bakes.example", "First");
        await FieldTests.SendAsync(app, link, "tilda@bakes.example", "Second");
        var owner = app.Owner();
        var difference = Differences(await OnlyClientAsync(owner)).Single();
        await SettleAsync(owner, (difference, "tookTheirs", null));
        Notes(await OnlyClientAsync(owner)).ShouldBe(["First", "Second"]);
        await TakeBackAsync(owner, difference, false);
        Notes(await OnlyClientAsync(owner)).ShouldBe(["First"]);

        static IEnumerable<string> Notes(JsonElement client) =>
            client.GetProperty("notes").EnumerateArray().Select(note => note.Text("text"));
    }

    [Fact]
    public async Task By_a_link_of_their_own_they_keep_up_to_date_what_is_theirs_to_keep()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        await app.ChangeFormAsync(settings => settings with { Guard = new SpamGuard(LeastSeconds: 0) });
        var phone = BuiltInFields.Phone;
        (
            await owner.PutAsync(
                $"/api/fields/{phone.Key}",
                Body(new { edit = new { was = phone, now = phone with { ClientKeepsIt = true } }, losesValues = false })
            )
        ).EnsureSuccessStatusCode();
        var form = (await owner.GetAsync("/api/forms").JsonAsync()).EnumerateArray().Single().Text("id");
        var links = await owner
            .PostAsync(
                $"/api/forms/{form}/links",
                Body(
                    new
                    {
                        email = "tilda@bakes.example",
                        givenName = "Tilda",
                        familyName = "Brackenridge",
                    }
                )
            )
            .JsonAsync();
        var again = Answers();
        again["phone"] = new PhoneAnswer("+353 1 555 0199");
        again["place"] = new TextAnswer("Bray");
        (await app.SendAsync(links[0].Text("link").Split('/').Last(), again)).EnsureSuccessStatusCode();
        var client = await OnlyClientAsync(owner);
        OnFile(client, "client.phone").Text("words").ShouldBe("+353 1 555 0199");
        Differences(client).Select(one => one.Text("label")).ShouldBe(["Place"], "the rest is the business's to decide");
    }

    private static async Task<string> RecordsAsync(TestApp app) =>
        await app.AskAsync(async db =>
            string.Join(
                '\n',
                (await db.FieldValues.AsNoTracking().Where(value => value.IsCurrent).ToListAsync())
                    .OrderBy(value => value.Field, StringComparer.Ordinal)
                    .Select(value => $"{value.Field} {AnswerWords.Say(value.Value!)}")
                    .Concat((await db.Notes.ToListAsync()).Select(note => note.Text))
                    .Concat((await db.Clients.ToListAsync()).Select(one => $"{one.Name} {one.Email}"))
            )
        );

    private static List<JsonElement> Differences(JsonElement client) => [.. client.GetProperty("differences").EnumerateArray()];

    private static Answer? ValueOf(JsonElement client, string field) =>
        OnFile(client, field).GetProperty("value").Deserialize<Answer?>(Storage.Json.Options);

    private static Task<HttpResponseMessage> PutAsync(HttpClient by, JsonElement client, string field, Answer? was, Answer? now) =>
        by.PutAsync(
            $"/api/clients/{client.Text("id")}/values/{field}",
            Body(
                new
                {
                    projectId = (Guid?)null,
                    was,
                    now,
                }
            )
        );

    private static Task<HttpResponseMessage> SettleAsync(
        HttpClient by,
        params (JsonElement Difference, string How, Answer? Another)[] settlings
    ) =>
        by.PutAsync(
            "/api/differences/settled",
            Body(
                settlings.Select(one => new
                {
                    difference = one.Difference.GetProperty("id").GetGuid(),
                    how = one.How,
                    another = one.Another,
                })
            )
        );

    private static Task<HttpResponseMessage> TakeBackAsync(HttpClient by, JsonElement difference, bool anyway) =>
        by.PutAsync($"/api/differences/{difference.GetProperty("id").GetGuid()}/taken-back", Body(new { anyway }));
}
