using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.Answers;
using PorchLight.Server.Clients;
using PorchLight.Server.Records;
using static PorchLight.Server.Tests.FieldTests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>People brought in from files of other programs, and a whole import taken back.</summary>
public sealed class ImportTests
{
    private const string Table =
        "First name;Last name;E-mail;Mobile;Tags;Shoe size\r\n"
        + "Ada;Penrose;ada@penrose.example;01 555 0177;signs, murals;39\r\n"
        + "Tilda;Brackenridge;TILDA@bakes.example;01 555 0199;old friends;\r\n"
        + "Tilda;Brakenridge;tilda.b@bakes.example;;;\r\n"
        + "Ada;Penrose;ADA@penrose.example;;;\r\n"
        + "Nobody;;nowhere;;;\r\n"
        + ";;;;;44\r\n";

    [Fact]
    public async Task A_column_gets_a_field_of_its_own_and_equal_complaints_are_one_line()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var table =
            "Name;Born;Shoe size\r\n"
            + string.Concat(Enumerable.Range(1, 5).Select(number => $"Ada {number};some day;{38 + number}\r\n"))
            + "Tilda;never;\r\n";
        var path = $"/api/clients/imports/{(await TakeAsync(app, Encoding.UTF8.GetBytes(table), "people.csv")).Text("id")}";
        var faults = (await owner.GetAsync($"{path}/preview").JsonAsync()).GetProperty("faults");
        faults
            .EnumerateArray()
            .Select(fault => (fault.GetProperty("count").GetInt32(), string.Join(" ", fault.GetProperty("lines"))))
            .ShouldBe([(5, "[2,3,4]"), (1, "[7]")]);

        for (var press = 0; press < 2; press++)
        {
            var view = await owner.PutAsync($"{path}/columns/2/field", null).JsonAsync();
            var target = view.GetProperty("columns")[2].Text("target");
            view.GetProperty("targets").EnumerateArray().Single(place => place.Text("key") == target).Text("label").ShouldBe("Shoe size");
        }

        (await owner.GetAsync("/api/fields").JsonAsync())
            .EnumerateArray()
            .Where(field => field.GetProperty("field").Text("label").StartsWith("Shoe", StringComparison.Ordinal))
            .ShouldHaveSingleItem()
            .GetProperty("field")
            .Text("kind")
            .ShouldBe("number");
        (await app.Member().PutAsync($"{path}/columns/1/field", null)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await owner.PutAsync($"{path}/columns/9/field", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await RunAsync(app, path);
        (await app.AskAsync(db => db.FieldValues.CountAsync(value => value.Field == "client.shoe-size"))).ShouldBe(5);
    }

    [Fact]
    public async Task A_file_is_looked_at_brought_in_and_taken_back_as_a_whole()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var owner = app.Owner();
        var before = await StateAsync(app);
        var import = await TakeAsync(app, Encoding.Unicode.GetBytes(Table), "people.csv");
        (import.Text("encoding"), import.GetProperty("lines").GetInt32()).ShouldBe(("UTF-16", 6));
        import
            .GetProperty("columns")
            .EnumerateArray()
            .Select(column => column.GetProperty("target").GetString())
            .ShouldBe(["client.name given", "client.name family", "client.email", "client.phone", "tags", ""]);
        var path = $"/api/clients/imports/{import.Text("id")}";
        var preview = await owner.GetAsync($"{path}/preview").JsonAsync();
        (
            preview.GetProperty("new").GetInt32(),
            preview.GetProperty("known").GetInt32(),
            preview.GetProperty("leftOut").GetInt32(),
            preview.GetProperty("perhapsSameCount").GetInt32()
        ).ShouldBe((3, 2, 1, 1));
        preview.GetProperty("perhapsSame")[0].Text("clientName").ShouldBe("Tilda Brackenridge");
        preview.GetProperty("faults").EnumerateArray().Select(fault => fault.GetProperty("lines")[0].GetInt32()).ShouldBe([6, 7]);
        (await StateAsync(app)).ShouldBe(before, "to look writes nothing");

        await RunAsync(app, path);
        var done = await owner.GetAsync(path).JsonAsync();
        (
            done.Text("state"),
            done.GetProperty("made").GetInt32(),
            done.GetProperty("filled").GetInt32(),
            done.GetProperty("leftOut").GetInt32()
        ).ShouldBe(("done", 3, 1, 1));
        var tilda = await OnlyClientAsync(owner, "tilda@bakes.example");
        OnFile(tilda, "client.phone").Text("words").ShouldBe("01 555 0142", "what stands there stays");
        tilda.GetProperty("tags").EnumerateArray().Select(tag => tag.GetString()).ShouldBe(["old friends"]);
        var ada = await OnlyClientAsync(owner, "ada@penrose.example");
        OnFile(ada, "client.phone").Text("source").ShouldBe("Maren Tolliver, from a file");
        (await owner.GetAsync("/api/clients/perhaps-same").JsonAsync()).GetArrayLength().ShouldBe(1);
        (await app.AskAsync(db => db.ClientImportFiles.CountAsync())).ShouldBe(0, "the file is not needed any more");

        (await owner.PutAsync($"{path}/taken-back", Body(new { }))).EnsureSuccessStatusCode();
        await UntilAsync(app, ImportState.TakenBack);
        await app.WorkAsync();
        (await StateAsync(app)).ShouldBe(before);
        (await FoundAsync("old friends")).ShouldBe(0, "nobody is found by what is gone");
        (await FoundAsync("gulls")).ShouldBe(1);

        async Task<int> FoundAsync(string words) => (await owner.FoundAsync("/api/clients", new { words })).GetProperty("total").GetInt32();
    }

    [Fact]
    public async Task What_is_here_already_is_replaced_where_that_was_chosen_and_comes_back_when_it_is_taken_back()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var import = await TakeAsync(app, Encoding.UTF8.GetBytes(Table), "people.csv");
        var path = $"/api/clients/imports/{import.Text("id")}";
        var targets = new[] { "client.name given", "client.name family", "client.email", "client.phone", "", "notes" };
        (await owner.PutAsync($"{path}/plan", Body(new { targets, replace = true }))).EnsureSuccessStatusCode();
        await RunAsync(app, path);
        OnFile(await OnlyClientAsync(owner, "tilda@bakes.example"), "client.phone").Text("words").ShouldBe("01 555 0199");
        (await OnlyClientAsync(owner, "ada@penrose.example")).GetProperty("notes")[0].Text("text").ShouldBe("39");

        // With Ada something has happened since: she stays.
        await app.SendAsync(new(Answers("ada@penrose.example")) { ["name"] = new PersonNameAnswer("Ada", "Penrose") });
        (await owner.PutAsync($"{path}/taken-back", Body(new { }))).EnsureSuccessStatusCode();
        await UntilAsync(app, ImportState.TakenBack);
        OnFile(await OnlyClientAsync(owner, "tilda@bakes.example"), "client.phone").Text("words").ShouldBe("01 555 0142");
        (await owner.GetAsync(path).JsonAsync()).GetProperty("stayed").GetInt32().ShouldBe(1);
        (await owner.WholeListAsync("/api/clients")).GetProperty("total").GetInt32().ShouldBe(2);
    }

    [Fact]
    public async Task Pressed_twice_a_file_is_brought_in_once_and_taken_back_once_and_a_client_erased_once()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var import = await TakeAsync(app, Encoding.UTF8.GetBytes(Table), "people.csv");
        var path = $"/api/clients/imports/{import.Text("id")}";
        await TwiceAsync("running");
        await UntilAsync(app, ImportState.Done);
        (await owner.GetAsync(path).JsonAsync()).GetProperty("made").GetInt32().ShouldBe(4);
        (await owner.WholeListAsync("/api/clients")).GetProperty("total").GetInt32().ShouldBe(4);
        var client = await app.AskAsync(db => db.Clients.Select(one => one.Id).FirstAsync());
        foreach (var answer in await Task.WhenAll(owner.DeleteAsync($"/api/clients/{client}"), owner.DeleteAsync($"/api/clients/{client}")))
            answer.StatusCode.ShouldBeOneOf(HttpStatusCode.NoContent, HttpStatusCode.NotFound);
        (await app.AskAsync(db => db.Events.CountAsync(logged => logged.Kind == "clientErased"))).ShouldBe(1);
        await TwiceAsync("taken-back");
        await UntilAsync(app, ImportState.TakenBack);
        (await owner.WholeListAsync("/api/clients")).GetProperty("total").GetInt32().ShouldBe(0);

        async Task TwiceAsync(string act)
        {
            foreach (
                var answer in await Task.WhenAll(
                    owner.PutAsync($"{path}/{act}", Body(new { })),
                    owner.PutAsync($"{path}/{act}", Body(new { }))
                )
            )
                answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync());
        }
    }

    [Fact]
    public async Task A_program_that_is_stopped_in_the_middle_goes_on_with_the_next_line()
    {
        await using var app = new TestApp();
        var file = new StringBuilder("Name,E-mail\n");
        for (var line = 0; line < 700; line++)
            file.Append(CultureInfo.InvariantCulture, $"Person {line},p{line}@people{line}.example\n");
        var import = await TakeAsync(app, Encoding.UTF8.GetBytes(file.ToString()), "many.csv");
        (await app.Owner().PutAsync($"/api/clients/imports/{import.Text("id")}/running", Body(new { }))).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (await app.AskAsync(db => db.ClientImports.SingleAsync())).WorkedThrough.ShouldBe(250);
        app.Services.GetRequiredService<ImportTables>().Forget();
        await UntilAsync(app, ImportState.Done);
        (await app.AskAsync(db => db.Clients.CountAsync())).ShouldBe(700);
    }

    [Fact]
    public async Task Cards_are_brought_in_and_written_out_again()
    {
        await using var app = new TestApp();
        var cards =
            "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ada Penrose\r\nN:Penrose;Ada;;;\r\nEMAIL:ada@penrose.example\r\nTEL;VALUE=uri:tel:+35315550177\r\n"
            + "ADR:;;12 Harbour Row;Howth;;D13 AB12;Ireland\r\nBDAY:19850412\r\nORG:Penrose & Daughters\r\nNOTE:Likes\\, tea\\nand gulls.\r\n"
            + "CATEGORIES:signs,murals\r\nURL:https://penrose.example\r\nEND:VCARD\r\nBEGIN:VCARD\r\nVERSION:4.0\r\nFN:Oskar Venn\r\nTEL:01 555 0155\r\nEND:VCARD\r\n";
        var import = await TakeAsync(app, Encoding.UTF8.GetBytes(cards), "people.vcf");
        await RunAsync(app, $"/api/clients/imports/{import.Text("id")}");
        var owner = app.Owner();
        var ada = await OnlyClientAsync(owner, "ada@penrose.example");
        OnFile(ada, "client.address").Text("words").ShouldContain("D13 AB12");
        OnFile(ada, "client.born").Text("words").ShouldBe("12 April 1985");
        ada.GetProperty("notes")[0].Text("text").ShouldBe("Likes, tea\nand gulls.");
        var written = await (await owner.GetAsync("/api/clients.vcf")).Content.ReadAsStringAsync();
        var read = ReadByAnotherLibrary(written);
        read.Select(card => card.Text("fn")).ShouldBe(["Ada Penrose", "Oskar Venn"], ignoreOrder: true);
        var card = read.Single(one => one.Text("fn") == "Ada Penrose");
        card.GetProperty("n").EnumerateArray().Take(2).Select(part => part.GetString()).ShouldBe(["Penrose", "Ada"]);
        (card.Text("email"), card.Text("tel"), card.Text("org")).ShouldBe(("ada@penrose.example", "+35315550177", "Penrose & Daughters"));
        card.GetProperty("adr")
            .EnumerateArray()
            .Select(part => part.GetString())
            .ShouldBe(["", "", "12 Harbour Row", "Howth", "", "D13 AB12", "Ireland"]);
        (card.Text("bday"), card.Text("note"), card.Text("url")).ShouldBe(
            ("1985-04-12", "Likes, tea\nand gulls.", "https://penrose.example")
        );
        card.GetProperty("categories").EnumerateArray().Select(one => one.GetString()).ShouldBe(["murals", "signs"]);
    }

    [Theory]
    [InlineData("Name,E-mail\nAda,\"ada@penrose", "a cell begins in line 2 and never ends")]
    [InlineData("Name,E-mail\n", "There is nobody in this file")]
    [InlineData("   ", "This file is empty.")]
    [InlineData("BEGIN:VCARD\nFN:Ada\n", "The file is cut off")]
    [InlineData("\0\0\0\0\0\u0001PK", "This is not a text file.")]
    public async Task What_cannot_be_read_is_said_and_nothing_is_kept(string file, string sentence)
    {
        await using var app = new TestApp();
        var refused = await PutAsync(app, Encoding.UTF8.GetBytes(file), "people.csv");
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.SentenceAsync()).ShouldContain(sentence);
        (await app.AskAsync(async db => await db.ClientImports.CountAsync() + await db.ClientImportFiles.CountAsync())).ShouldBe(0);
    }

    /// <summary>Cards as ical.js reads them, a library for iCalendar and vCard that knows nothing of ours.</summary>
    private static List<JsonElement> ReadByAnotherLibrary(string cards) =>
        AnotherLibrary.Reads<List<JsonElement>>("readCards.mjs", Encoding.UTF8.GetBytes(cards));

    private static Task<HttpResponseMessage> PutAsync(TestApp app, byte[] file, string name) =>
        app.Owner()
            .PutAsync(
                $"/api/clients/imports/{Guid.NewGuid()}?name={name}",
                new ByteArrayContent(file) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            );

    internal static async Task<JsonElement> TakeAsync(TestApp app, byte[] file, string name) =>
        await (await PutAsync(app, file, name)).EnsureSuccessStatusCode().JsonAsync();

    private static async Task RunAsync(TestApp app, string path)
    {
        (await app.Owner().PutAsync($"{path}/running", Body(new { }))).EnsureSuccessStatusCode();
        await UntilAsync(app, ImportState.Done);
        await app.WorkAsync();
    }

    private static async Task UntilAsync(TestApp app, ImportState state)
    {
        for (var pass = 0; (await app.AskAsync(db => db.ClientImports.SingleAsync())).State != state; pass++)
        {
            pass.ShouldBeLessThan(20);
            await app.WorkAsync();
        }
    }

    /// <summary>Everybody and what stands in their records.</summary>
    private static async Task<string> StateAsync(TestApp app)
    {
        var owner = app.Owner();
        var said = new List<string>();
        foreach (var row in (await owner.WholeListAsync("/api/clients")).GetProperty("rows").EnumerateArray())
        {
            var client = await owner.GetAsync($"/api/clients/{row.Text("id")}").JsonAsync();
            said.Add(row.GetRawText() + client.GetProperty("notes").GetRawText() + client.GetProperty("timeline").GetRawText());
            said.AddRange(
                client.GetProperty("fields").EnumerateArray().Select(one => one.GetProperty("field").Text("key") + one.Text("words"))
            );
        }

        return string.Join('\n', said);
    }
}
