using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Records;
using static PorchLight.Server.Tests.FieldTests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Two records that are perhaps one person: found, made one, split again.</summary>
public sealed class OnePersonTwiceTests
{
    [Fact]
    public async Task Under_one_address_an_unlike_name_is_a_new_client_who_is_perhaps_the_same()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.SendAsync(Named("Oskar", "Venn"));
        await app.SendAsync(Named("Tilda", "Brackenrige"));
        var clients = await app.AskAsync(db => db.Clients.OrderBy(client => client.Since).ToListAsync());
        clients.Select(client => client.Name).ShouldBe(["Tilda Brackenridge", "Oskar Venn"], "a slip of the pen is nobody new");
        (await app.AskAsync(db => db.Inquiries.CountAsync(one => one.ClientId == clients[0].Id))).ShouldBe(2);
        await app.WorkAsync();
        var pair = (await PairsAsync(app)).Single();
        pair.Text("why").ShouldBe("the same e-mail address");
        var shown = await ShowAsync(app, clients[1].Id);
        shown.GetProperty("perhapsSame").EnumerateArray().Single().Text("name").ShouldBe("Tilda Brackenridge");
    }

    [Fact]
    public async Task Two_people_with_one_number_are_shown_once_decided_and_not_asked_about_again()
    {
        await using var app = new TestApp();
        var (one, other) = await TwoAsync(app);
        (await PairsAsync(app)).Single().Text("why").ShouldBe("the same phone number");
        var owner = app.Owner();
        (await owner.PutAsync($"/api/clients/{other}/beside/{one}", Body(new { areTwo = true }))).EnsureSuccessStatusCode();
        (await PairsAsync(app)).ShouldBeEmpty();
        await SetAsync(app, one, "client.company", new TextAnswer("Bakes"));
        await app.WorkAsync();
        (await PairsAsync(app)).ShouldBeEmpty("what was decided stays");
        (await owner.PutAsync($"/api/clients/{other}/beside/{one}", Body(new { areTwo = false }))).EnsureSuccessStatusCode();
        (await PairsAsync(app)).Count.ShouldBe(1);
        await SetAsync(app, one, "client.phone", new PhoneAnswer("01 555 0777"));
        await app.WorkAsync();
        (await PairsAsync(app)).ShouldBeEmpty("nothing says so any more");
    }

    [Fact]
    public async Task Made_one_they_have_all_of_both_and_the_other_address_leads_to_the_one()
    {
        await using var app = new TestApp();
        var (kept, other) = await TwoAsync(app);
        await SetAsync(app, kept, "client.company", new TextAnswer("Brackenridge Bakes"));
        await SetAsync(app, other, "client.company", new TextAnswer("Venn and Sons"));
        await SetAsync(app, other, "client.language", new TextAnswer("Irish"));
        var owner = app.Owner();
        var preview = await owner.GetAsync($"/api/clients/{kept}/beside/{other}").JsonAsync();
        preview.GetProperty("differ").EnumerateArray().Select(one => one.Text("label")).ShouldBe(["Name", "E-mail", "Company"]);
        preview.GetProperty("fills").EnumerateArray().Select(one => one.Text("words")).ShouldBe(["Irish"]);
        var first = await MergeAsync(app, kept, other, "client.company");
        (await MergeAsync(app, kept, other)).ShouldBe(first, "pressed twice it happens once");
        var shown = await ShowAsync(app, kept);
        OnFile(shown, "client.company").Text("words").ShouldBe("Venn and Sons");
        OnFile(shown, "client.language").Text("words").ShouldBe("Irish");
        OnFile(shown, "client.name").Text("words").ShouldBe("Tilda Brackenridge");
        shown.GetProperty("projects").GetArrayLength().ShouldBe(2);
        (await ShowAsync(app, other)).Text("id").ShouldBe(kept.ToString(), "an address someone kept leads there");
        var history = await owner.GetAsync($"/api/clients/{kept}/values/client.name").JsonAsync();
        history.EnumerateArray().Select(value => value.Text("words")).ShouldBe(["Oskar Venn", "Tilda Brackenridge"], ignoreOrder: true);
        (await owner.WholeListAsync("/api/clients")).GetProperty("rows").GetArrayLength().ShouldBe(1);
        (await Found(app, "Venn")).ShouldBe(1);

        // The other's address still says who writes.
        await app.SendAsync(Named("Oskar", "Venn", "oskar@venn.example"));
        (await app.AskAsync(db => db.Inquiries.CountAsync(one => one.ClientId == kept))).ShouldBe(3);
    }

    [Fact]
    public async Task Splitting_asks_where_a_field_was_written_since_and_takes_along_what_came_to_its_work()
    {
        await using var app = new TestApp();
        var (kept, other) = await TwoAsync(app);
        await SetAsync(app, other, "client.language", new TextAnswer("Irish"));
        var merge = await MergeAsync(app, kept, other);
        await SetAsync(app, kept, "client.language", new TextAnswer("German"));
        await app.WorkAsync();
        var owner = app.Owner();
        var project = await app.AskAsync(db => db.Inquiries.Where(one => one.ClientId == kept).OrderBy(one => one.Received).LastAsync());
        await owner.PostAsync($"/api/clients/{kept}/notes", Body(new { projectId = project.ProjectId, text = "Since then." }));
        app.Time.Advance(TimeSpan.FromMinutes(1));
        await owner.PostAsync($"/api/clients/{kept}/notes", Body(new { projectId = (Guid?)null, text = "Of the person." }));
        var asked = await owner.PutAsync($"/api/clients/merges/{merge}/split", Body(new { anyway = false }));
        asked.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await asked.SentenceAsync()).ShouldBe(
            "Changed since then: Language. That stays with Tilda Brackenridge. Notes and tasks added since then (1) stay with Tilda Brackenridge. “After a mural inquiry” ended when the two became one, and does not start again. Split them anyway?"
        );
        (await owner.PutAsync($"/api/clients/merges/{merge}/split", Body(new { anyway = true }))).EnsureSuccessStatusCode();
        OnFile(await ShowAsync(app, kept), "client.language").Text("words").ShouldBe("German");
        var back = await ShowAsync(app, other);
        OnFile(back, "client.language").Text("words").ShouldBe("Irish");
        back.GetProperty("projects")[0].GetProperty("notes").EnumerateArray().Last().Text("text").ShouldBe("Since then.");
        await app.WorkAsync();
        (await PairsAsync(app)).ShouldBeEmpty("whoever splits two has decided");
        (await Found(app, "Irish")).ShouldBe(1);
    }

    /// <summary>
    /// A second way to say what goes over: whatever the file has a column for a client in, but for what is made anew of the records or
    /// belongs to a record. Two clients have a row of every kind there is; the areas say themselves which go over.
    /// </summary>
    [Fact]
    public async Task Rows_of_every_kind_go_over_and_come_back()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var tables = await ErasingTests.TablesAsync(app);
        var both = new List<Id<Client>>();
        foreach (var name in new[] { "Quillfeather", "Inkwell" })
            await app.ChangeAsync(async db => both.Add(await new EveryRowOf(db, name, $"{name}@nib.example").AddAsync(tables)));
        var before = await CountsAsync();
        before.Count.ShouldBeGreaterThan(14);

        var merge = await MergeAsync(app, both[0], both[1]);
        var merged = await CountsAsync();
        foreach (var ((table, client), count) in before)
        {
            var stays = table is "ClientTags" or "ClientKeys" or "ClientSearchRows" or "UnsubscribeLinks";
            var other = before[(table, both.Single(one => one != client))];
            // That the two are one now has happened to the one that was kept.
            var more = table == "Events" ? 1 : 0;
            // The words of the other that was made one are found no more; its tags are the other's, too.
            var expected =
                client == both[1]
                    ? stays && table != "ClientSearchRows"
                        ? count
                        : 0
                    : stays
                        ? count + (table == "ClientTags" ? other : 0)
                        : count + other + more;
            merged[(table, client)].ShouldBe(expected, $"{table} of {(client == both[0] ? "the one kept" : "the other")}");
        }

        (await app.Owner().PutAsync($"/api/clients/merges/{merge}/split", Body(new { anyway = true }))).EnsureSuccessStatusCode();
        var split = await CountsAsync();
        foreach (var ((table, client), count) in before.Where(one => one.Key.Table is not ("Events" or "ClientSearchRows")))
            split[(table, client)].ShouldBe(count, table);

        Task<Dictionary<(string Table, Id<Client> Client), int>> CountsAsync() =>
            app.AskAsync(async db =>
            {
                var found = new Dictionary<(string, Id<Client>), int>();
                var named = await db
                    .Database.SqlQueryRaw<string>(
                        "SELECT m.name AS Value FROM sqlite_master AS m JOIN pragma_table_info(m.name) AS c WHERE m.type = 'table' AND c.name = 'ClientId'"
                    )
                    .ToListAsync();
                foreach (var table in named)
                {
                    foreach (var client in both)
                        found[(table, client)] = await db
                            .Database.SqlQueryRaw<int>($"SELECT COUNT(*) AS Value FROM \"{table}\" WHERE ClientId = {{0}}", client.Value)
                            .SingleAsync();
                }

                return found;
            });
    }

    /// <summary>Clients as anybody would have them, made one and split again.</summary>
    [Fact]
    public async Task Made_one_and_split_again_everything_is_as_it_was()
    {
        await using var app = new TestApp();
        var chance = new Random(20_261_127);
        for (var round = 0; round < 12; round++)
        {
            var ids = new List<Id<Client>>();
            foreach (var side in new[] { "a", "b" })
            {
                var email = $"{side}{round}@bakes.example";
                for (var time = chance.Next(1, 3); time > 0; time--)
                    await app.SendAsync(Answers(email, chance.Next(2) == 0 ? "4000-9000" : "1500-4000"));
                app.Time.Advance(TimeSpan.FromMinutes(7));
                var id = await app.AskAsync(db =>
                    db.Clients.Where(client => client.EmailKey == email).Select(client => client.Id).SingleAsync()
                );
                ids.Add(id);
                foreach (var field in new[] { "client.company", "client.language", "client.source" })
                {
                    if (chance.Next(2) == 0)
                        await SetAsync(app, id, field, new TextAnswer($"{field} {chance.Next(2)}"));
                }

                var owner = app.Owner();
                await owner.PostAsync($"/api/clients/{id}/notes", Body(new { projectId = (Guid?)null, text = $"Note of {email}." }));
                await owner.PutAsync(
                    "/api/clients/tags",
                    Body(
                        new
                        {
                            clients = new[] { id },
                            add = new[] { $"tag {chance.Next(2)}" },
                            remove = Array.Empty<string>(),
                        }
                    )
                );
                var standing = new[] { "lead", "active", "past" }[chance.Next(3)];
                await owner.PutAsync("/api/clients/standing", Body(new[] { new { client = id, standing } }));
                await owner.PutAsync($"/api/clients/{id}/always-comes-in", Body(new { always = chance.Next(2) == 0 }));
            }

            await app.WorkAsync();
            var before = await StateAsync(app, ids);
            var merge = await MergeAsync(
                app,
                ids[0],
                ids[1],
                [.. new[] { "client.company", "client.email" }.Where(_ => chance.Next(2) == 0)]
            );
            (await StateAsync(app, ids)).ShouldNotBe(before);
            (await app.Owner().PutAsync($"/api/clients/merges/{merge}/split", Body(new { anyway = true }))).EnsureSuccessStatusCode();
            (await StateAsync(app, ids)).ShouldBe(before);
            await app.WorkAsync();
        }
    }

    /// <summary>Everything a person sees of some clients, but for what says that they were made one and split.</summary>
    private static async Task<string> StateAsync(TestApp app, IEnumerable<Id<Client>> ids)
    {
        var said = new List<string>();
        foreach (var id in ids)
        {
            var shown = await ShowAsync(app, id);
            foreach (
                var member in new[]
                {
                    "id",
                    "name",
                    "email",
                    "standing",
                    "alwaysComesIn",
                    "since",
                    "tags",
                    "people",
                    "notes",
                    "differences",
                }
            )
                said.Add(shown.GetProperty(member).GetRawText());
            said.AddRange(Values(shown));
            foreach (var project in shown.GetProperty("projects").EnumerateArray())
            {
                said.Add(project.Text("title") + project.GetProperty("notes").GetRawText() + project.GetProperty("inquiries").GetRawText());
                said.AddRange(Values(project));
            }
        }

        var listed = await app.Owner().FoundAsync("/api/clients", new ClientQuery { Columns = ["client.company", "project.budget"] });
        said.AddRange(
            listed
                .GetProperty("rows")
                .EnumerateArray()
                .Where(row => ids.Any(id => row.Text("id") == id.ToString()))
                .Select(row => row.GetRawText())
        );
        return string.Join('\n', said);

        static IEnumerable<string> Values(JsonElement of) =>
            of.GetProperty("fields").EnumerateArray().Select(one => $"{one.GetProperty("field").Text("key")}: {one.Text("words")}");
    }

    private static async Task<(Id<Client> One, Id<Client> Other)> TwoAsync(TestApp app)
    {
        await app.SendAsync(Answers());
        app.Time.Advance(TimeSpan.FromMinutes(5));
        await app.SendAsync(Named("Oskar", "Venn", "oskar@venn.example"));
        await app.WorkAsync();
        var ids = await app.AskAsync(db => db.Clients.OrderBy(client => client.Since).Select(client => client.Id).ToListAsync());
        return (ids[0], ids[1]);
    }

    private static Dictionary<string, Answer?> Named(string given, string family, string email = "tilda@bakes.example") =>
        new(Answers(email)) { ["name"] = new PersonNameAnswer(given, family) };

    private static async Task<List<JsonElement>> PairsAsync(TestApp app) =>
        [.. (await app.Owner().GetAsync("/api/clients/perhaps-same").JsonAsync()).EnumerateArray()];

    private static Task<JsonElement> ShowAsync(TestApp app, Id<Client> id) => app.Owner().GetAsync($"/api/clients/{id}").JsonAsync();

    private static async Task<string> MergeAsync(TestApp app, Id<Client> kept, Id<Client> other, params string[] take) =>
        (await app.Owner().PutAsync($"/api/clients/{kept}/beside/{other}/merged", Body(new { take }))).EnsureSuccessStatusCode() is var done
            ? (await done.JsonAsync()).Text("id")
            : "";

    private static async Task SetAsync(TestApp app, Id<Client> id, string field, Answer now)
    {
        var shown = OnFile(await ShowAsync(app, id), field).GetProperty("value");
        var was = shown.ValueKind == JsonValueKind.Null ? null : (object)shown;
        (
            await app.Owner()
                .PutAsync(
                    $"/api/clients/{id}/values/{field}",
                    Body(
                        new
                        {
                            projectId = (Guid?)null,
                            was,
                            now,
                        }
                    )
                )
        ).EnsureSuccessStatusCode();
    }

    private static async Task<int> Found(TestApp app, string words) =>
        (await app.Owner().FoundAsync("/api/clients", new ClientQuery { Words = words })).GetProperty("total").GetInt32();
}
