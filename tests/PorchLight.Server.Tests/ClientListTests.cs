using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using CsCheck;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>The list of clients: what it finds, in which order, and what is done with many.</summary>
public sealed class ClientListTests
{
    private static readonly string[] Places = ["Bray", "bray ", "Dún Laoghaire", "Howth"];

    [Fact]
    public async Task Everything_that_is_known_of_somebody_is_found_by_its_words()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.SendAsync(Answers("robin@pell.example", "under-1500"));
        var owner = app.Owner();
        var tilda = (await FoundAsync(owner, new ClientQuery { Words = "tilda@bakes" })).Single();
        await owner.PostAsync($"/api/clients/{tilda}/notes", Body(new { projectId = (Guid?)null, text = "Ring the yard bell" }));
        await owner.PutAsync(
            "/api/clients/tags",
            Body(
                new
                {
                    clients = new[] { tilda },
                    add = new[] { "harbour" },
                    remove = Array.Empty<string>(),
                }
            )
        );
        foreach (var words in new[] { "yard bell", "HARBOUR", "hôwth", "4,000", "brackenr \"gul", "(tilda) OR" })
            (await FoundAsync(owner, new ClientQuery { Words = words })).Contains(tilda).ShouldBe(words != "(tilda) OR", words);
        (await FoundAsync(owner, new ClientQuery { Words = "yard harbour" })).ShouldBe([tilda], "each of the words");
        (await FoundAsync(owner, new ClientQuery { Words = "nowhere" })).ShouldBeEmpty();
        (await FoundAsync(owner, new ClientQuery { Words = "\" * NEAR(" })).ShouldBeEmpty("what could be an operator is only a word");
    }

    [Fact]
    public async Task What_a_list_finds_and_its_order_are_what_somebody_with_cards_would_find()
    {
        await using var app = new TestApp();
        await app.AskAsync(db => FillAsync(db, app.Time.Now()));
        var fields = FieldCatalogue.BuiltIn;
        var cards = await app.AskAsync(CardsAsync);
        var found = new List<(ClientQuery Query, List<Guid> Ids)>();
        foreach (var query in Queries.Array[120].Single())
        {
            var ids = await FoundAsync(app.Owner(), query);
            var wanted = cards.Where(card => Holds(card, query)).ToList();
            ids.ShouldBe(wanted.Select(card => card.Id), ignoreOrder: true, JsonSerializer.Serialize(query, Json.Options));
            var keys = ids.Select(id => Key(cards.Single(card => card.Id == id), query.Order)).ToList();
            var filled = keys.Where(key => key is not null).ToList();
            keys.Take(filled.Count).ShouldBe(filled, "who has nothing there comes last");
            var inOrder = filled.Order().ToList();
            filled.ShouldBe(
                query.Backwards != (query.Order == ClientQuery.BySince) ? Enumerable.Reverse(inOrder) : inOrder,
                $"by {query.Order}"
            );
            found.Add((query, ids));
        }

        found.Count(one => one.Ids.Count is > 0 and < 40).ShouldBeGreaterThan(40, "enough of them told someone apart");
    }

    [Fact]
    public async Task A_page_of_the_list_goes_on_where_the_last_one_ended()
    {
        await using var app = new TestApp();
        await app.AskAsync(db => FillAsync(db, app.Time.Now()));
        var query = new ClientQuery { Order = "project.budget", Standings = [.. Enum.GetValues<Standing>()] };
        var (pages, after) = (new List<string>(), (string?)null);
        do
        {
            var page = await app.Owner().PostAsync("/api/clients/found", Asked(query, after, 15)).JsonAsync();
            page.GetProperty("total").ValueKind.ShouldBe(after is null ? JsonValueKind.Number : JsonValueKind.Null);
            pages.AddRange(page.GetProperty("rows").EnumerateArray().Select(row => row.Text("id")));
            after = page.GetProperty("next").GetString();
        } while (after is not null);

        pages.Count.ShouldBe(40);
        pages.ShouldBeUnique();
    }

    [Fact]
    public async Task The_list_shows_the_piece_of_work_that_began_last_and_the_one_before_keeps_its_values()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.ChangeFormAsync(settings => settings with { About = ProjectAssignment.NewWork });
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var howth = new ClientQuery { Filters = [new FieldFilter("project.place", FieldTest.Is, "Howth")] };
        (await FoundAsync(owner, howth)).ShouldBeEmpty("what a known client is said to want waits to be settled");
        var client = await owner.GetAsync($"/api/clients/{(await FoundAsync(owner, new ClientQuery())).Single()}").JsonAsync();
        client.GetProperty("projects").GetArrayLength().ShouldBe(2);
        var place = client
            .GetProperty("differences")
            .EnumerateArray()
            .Single(one => one.Text("label") == "Place")
            .GetProperty("id")
            .GetGuid();
        await owner.PutAsync(
            "/api/differences/settled",
            Body(
                new[]
                {
                    new
                    {
                        difference = place,
                        how = "tookTheirs",
                        another = (object?)null,
                    },
                }
            )
        );
        (await FoundAsync(owner, howth)).Count.ShouldBe(1);
        (await app.AskAsync(db => db.FieldValues.CountAsync(value => value.Field == "project.place" && value.IsCurrent))).ShouldBe(2);
    }

    [Fact]
    public async Task A_view_is_kept_under_its_name_taken_by_the_next_of_that_name_and_taken_away()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var bakers = new ClientQuery { Tags = ["bakery"], Columns = ["client.phone"] };
        await owner.PutAsync("/api/clients/views", Body(new { name = " Bakers ", query = bakers }));
        await owner.PutAsync("/api/clients/views", Body(new { name = "Bakers", query = bakers with { Order = "name" } }));
        var view = (await owner.GetAsync("/api/clients/choices").JsonAsync()).GetProperty("views").EnumerateArray().Single();
        (view.Text("name"), view.GetProperty("query").Text("order")).ShouldBe(("Bakers", "name"));
        (await (await owner.PutAsync("/api/clients/views", Body(new { name = "", query = bakers }))).PlacesAsync()).ShouldBe(["name"]);
        await owner.DeleteAsync($"/api/clients/views/{view.Text("id")}");
        (await owner.GetAsync("/api/clients/choices").JsonAsync()).GetProperty("views").GetArrayLength().ShouldBe(0);
    }

    [Theory]
    [InlineData("client.gone", FieldTest.Contains, "x")]
    [InlineData("client.phone", FieldTest.AtLeast, "x")]
    [InlineData("project.wanted", FieldTest.AtLeast, "next spring")]
    [InlineData("project.budget", FieldTest.AtLeast, "")]
    public async Task A_filter_that_means_nothing_is_said_and_finds_nobody(string field, FieldTest test, string value)
    {
        await using var app = new TestApp();
        var query = new ClientQuery { Filters = [new FieldFilter(field, test, value)] };
        var refused = await app.Owner().PostAsync("/api/clients/found", Asked(query));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.PlacesAsync()).ShouldBe(["filters"]);
    }

    [Fact]
    public async Task The_file_of_a_list_holds_what_the_list_found_cell_by_cell()
    {
        await using var app = new TestApp();
        await app.AskAsync(db => FillAsync(db, app.Time.Now()));
        var query = new ClientQuery { Filters = [new FieldFilter("project.place", FieldTest.Is, "Bray")], Order = "name" };
        var address = Uri.EscapeDataString(JsonSerializer.Serialize(query, Json.Options));
        var bytes = await app.Owner().GetByteArrayAsync($"/api/clients.csv?query={address}");
        var rows = Rfc4180.Read(Encoding.UTF8.GetString(bytes).TrimStart('\ufeff'));
        rows[0].Take(4).ShouldBe(["Standing", "With us since", "Tags", "Name"]);
        var cards = (await app.AskAsync(CardsAsync)).ToDictionary(card => card.Id);
        var found = await FoundAsync(app.Owner(), query);
        found.Count.ShouldBeGreaterThan(3);
        rows.Skip(1)
            .Select(row => (row[rows[0].IndexOf("E-mail")], row[rows[0].IndexOf("Project: Place")], row[0]))
            .ShouldBe(
                found.Select(id => (cards[id].Email, ((TextAnswer)cards[id].Values["project.place"]).Text, cards[id].Standing.ToString()))
            );
    }

    /// <summary>Somebody's card, as it would lie in a box.</summary>
    private sealed record Card(
        Guid Id,
        string Email,
        Standing Standing,
        Instant Since,
        string SortName,
        HashSet<string> Tags,
        Dictionary<string, Answer> Values
    );

    private static readonly Gen<ClientQuery> Queries = Gen.Select(
        Gen.OneOf(Gen.Const(Array.Empty<Standing>()), Gen.Enum<Standing>().Array[1, 2]),
        Gen.OneOf(Gen.Const(Array.Empty<string>()), Gen.Const(new[] { "bakery" })),
        Gen.OneOf(
            Gen.Select(
                Gen.OneOf(Gen.Const("bray"), Gen.Const("laogh"), Gen.Const("HOW")),
                Gen.Bool,
                (part, whole) => new FieldFilter("project.place", whole ? FieldTest.Is : FieldTest.Contains, part)
            ),
            Gen.Select(
                Gen.Int[0, 5],
                Gen.Int[0, 2],
                (amount, test) =>
                    new FieldFilter("project.budget", new[] { FieldTest.AtLeast, FieldTest.AtMost, FieldTest.Is }[test], $"{amount * 1000}")
            ),
            Gen.Select(
                Gen.Int[1, 28],
                Gen.Bool,
                (day, after) => new FieldFilter("client.born", after ? FieldTest.AtLeast : FieldTest.AtMost, $"1990-03-{day:00}")
            ),
            Gen.Bool.Select(filled => new FieldFilter("client.born", filled ? FieldTest.IsFilled : FieldTest.IsEmpty)),
            Gen.Bool.Select(yes => new FieldFilter("client.mayAdvertise", FieldTest.Is, yes ? "yes" : "no"))
        ).Array[0, 2],
        Gen.OneOf(
            Gen.Const(ClientQuery.BySince),
            Gen.Const(ClientQuery.ByName),
            Gen.Const("project.budget"),
            Gen.Const("client.born"),
            Gen.Const("project.place")
        ),
        Gen.Bool,
        (standings, tags, filters, order, backwards) =>
            new ClientQuery
            {
                Standings = standings,
                Tags = tags,
                Filters = filters,
                Order = order,
                Backwards = backwards,
            }
    );

    private static bool Holds(Card card, ClientQuery query) =>
        (query.Standings.Count == 0 ? card.Standing != Standing.Archived : query.Standings.Contains(card.Standing))
        && query.Tags.All(card.Tags.Contains)
        && query.Filters.All(filter => Holds(card.Values.GetValueOrDefault(filter.Field), filter));

    private static bool Holds(Answer? value, FieldFilter filter) =>
        (value, filter.Test) switch
        {
            (_, FieldTest.IsFilled) => value is not null,
            (_, FieldTest.IsEmpty) => value is null,
            (TextAnswer text, FieldTest.Contains) => Plain(text.Text).Contains(Plain(filter.Value), StringComparison.Ordinal),
            (TextAnswer text, _) => Plain(text.Text) == Plain(filter.Value),
            (MoneyAnswer money, FieldTest.AtLeast) => money.Amount >= decimal.Parse(filter.Value, CultureInfo.InvariantCulture),
            (MoneyAnswer money, FieldTest.AtMost) => money.Amount <= decimal.Parse(filter.Value, CultureInfo.InvariantCulture),
            (MoneyAnswer money, _) => money.Amount == decimal.Parse(filter.Value, CultureInfo.InvariantCulture),
            (DateAnswer day, FieldTest.AtLeast) => string.CompareOrdinal(Iso(day.Date), filter.Value) >= 0,
            (DateAnswer day, _) => string.CompareOrdinal(Iso(day.Date), filter.Value) <= 0,
            (YesNoAnswer yesNo, _) => yesNo.Yes == (filter.Value == "yes"),
            _ => false,
        };

    private static IComparable? Key(Card card, string sort) =>
        sort switch
        {
            ClientQuery.BySince => card.Since,
            ClientQuery.ByName => card.SortName,
            _ => card.Values.GetValueOrDefault(sort) switch
            {
                MoneyAnswer money => money.Amount,
                DateAnswer day => Iso(day.Date),
                TextAnswer text => Plain(text.Text),
                _ => null,
            },
        };

    private static string Iso(LocalDate day) => day.ToString("uuuu-MM-dd", null);

    // Letter by letter, by hand: the few letters with accents that stand in this box.
    private static string Plain(string text) => text.Trim().ToLowerInvariant().Replace('ú', 'u');

    private static async Task<int> FillAsync(PorchDb db, Instant now)
    {
        await using var write = await db.WriteAsync(CancellationToken.None);
        var (writer, form) = (new RecordWriter(db), (await db.Forms.FirstAsync()).Id);
        for (var index = 0; index < 40; index++)
        {
            var id = new Id<Client>(Guid.CreateVersion7());
            var client = db
                .Clients.Add(
                    new Client
                    {
                        Id = id,
                        Name = "",
                        Email = null,
                        EmailKey = null,
                        Standing = (Standing)(index % 7 == 6 ? 3 : index % 3),
                        Since = now - Duration.FromHours(index * 37 % 101),
                    }
                )
                .Entity;
            // Two pieces of work: only the one that began last counts.
            foreach (var latest in new[] { false, true })
            {
                var project = new Project
                {
                    Id = new Id<Project>(Guid.CreateVersion7()),
                    ClientId = id,
                    FormId = form,
                    Title = "A wall",
                    Opened = now,
                    Stage = "new",
                    IsLatest = latest,
                };
                db.Projects.Add(project);
                Put("project.place", new TextAnswer(Places[latest ? index % 4 : (index + 1) % 4]), project);
                if (index % 5 != 0)
                    Put("project.budget", new MoneyAnswer(latest ? index % 5 * 1000 : 2000, "EUR"), project);
            }

            Put("client.name", new PersonNameAnswer($"N{index % 4}", $"F{index:00}"), null);
            Put("client.email", new TextAnswer($"n{index}@bakes.example"), null);
            if (index % 4 != 0)
                Put("client.born", new DateAnswer(new LocalDate(1990, 3, (index % 28) + 1)), null);
            if (index % 2 == 0)
                Put("client.mayAdvertise", new YesNoAnswer(index % 4 == 0), null);
            if (index % 3 == 0)
                db.ClientTags.Add(new ClientTag { ClientId = id, Tag = "bakery" });

            void Put(string field, Answer value, Project? project) =>
                writer.Write(client, project, field, value, null, new ValueSource(ValueOrigin.Hand, "Nobody", now));
        }

        await write.SaveAsync(CancellationToken.None);
        return 0;
    }

    private static async Task<List<Card>> CardsAsync(PorchDb db)
    {
        var tags = (await db.ClientTags.ToListAsync()).ToLookup(tag => tag.ClientId, tag => tag.Tag);
        var latest = await db.Projects.Where(project => project.IsLatest).Select(project => project.Id).ToListAsync();
        var values = (await db.FieldValues.Where(value => value.IsCurrent).ToListAsync())
            .Where(value => value.ProjectId is not { } project || latest.Contains(project))
            .ToLookup(value => value.ClientId);
        return
        [
            .. (await db.Clients.ToListAsync()).Select(client => new Card(
                client.Id.Value,
                client.Email!,
                client.Standing,
                client.Since,
                client.SortName,
                [.. tags[client.Id]],
                values[client.Id].ToDictionary(value => value.Field, value => value.Value!)
            )),
        ];
    }

    private static async Task<List<Guid>> FoundAsync(HttpClient owner, ClientQuery query) =>
        [
            .. (await owner.FoundAsync("/api/clients", query))
                .GetProperty("rows")
                .EnumerateArray()
                .Select(row => row.GetProperty("id").GetGuid()),
        ];
}
