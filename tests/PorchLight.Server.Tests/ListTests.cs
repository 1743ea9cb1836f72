using System.Net;
using System.Text.Json;
using CsCheck;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.Lists;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What holds of every list: its pages, its counts, what it offers to choose, its views and its file.</summary>
/// <param name="house">A demo that all of them look at; none changes more of it than views.</param>
public sealed class ListTests(ListTests.House house) : IClassFixture<ListTests.House>
{
    private static readonly string[] Lists =
    [
        "clients",
        "inquiries",
        "forms",
        "files",
        "library/messages",
        "practice/mail",
        "webhooks/calls",
    ];

    public static TheoryData<string> EachList => new(Lists);

    public sealed class House : IAsyncDisposable
    {
        internal TestApp App { get; } = new() { SeedData = SeedData.DemoWithPeople };

        public ValueTask DisposeAsync() => App.DisposeAsync();
    }

    [Theory]
    [MemberData(nameof(EachList))]
    public async Task Its_pages_one_behind_the_other_are_the_whole_list_in_every_order_and_the_other_way_round(string list)
    {
        var owner = house.App.Owner();
        var all = (await IdsAsync(owner, list, new { })).Order().ToList();
        foreach (var order in await OrdersAsync(owner, list))
        {
            var ways = new List<List<Guid>>();
            foreach (var backwards in new[] { false, true })
            {
                var query = QueryOf(list, order, backwards);
                var ids = await IdsAsync(owner, list, query);
                ids.Order().ToList().ShouldBe(all, $"{list} by {order}: each row once");
                (await IdsAsync(owner, list, query, take: 3)).ShouldBe(ids, $"{list} by {order}: pages of three");
                (await (await owner.PostAsync($"/api/{list}/all-found", Body(query))).JsonAsync())
                    .EnumerateArray()
                    .Select(id => id.GetGuid())
                    .ToList()
                    .ShouldBe(ids, $"{list} by {order}: all at once");
                ways.Add(ids);
            }

            // Who has nothing there comes last both ways.
            if (order is not ("budget" or "lastAnswer") && !order.Contains('.'))
                ways[1].ShouldBe([.. Enumerable.Reverse(ways[0])], $"{list} by {order} runs back the way it came");
        }
    }

    [Theory]
    [MemberData(nameof(EachList))]
    public async Task Every_filter_leaves_some_of_its_rows_and_what_its_choices_leave_is_no_more_than_all(string list)
    {
        var owner = house.App.Owner();
        var all = (await IdsAsync(owner, list, new { })).Count;
        var choices = await owner.GetAsync($"/api/{list}/choices").JsonAsync();
        foreach (var filter in choices.GetProperty("filters").EnumerateArray())
        {
            var name = filter.Text("name");
            if (filter.Text("kind") == "switch")
            {
                (await IdsAsync(owner, list, new Dictionary<string, object> { [name] = true })).Count.ShouldBeLessThanOrEqualTo(all, name);
                continue;
            }

            var values = filter.GetProperty("choices").EnumerateArray().Select(choice => choice.GetProperty("value")).ToList();
            var parts = new List<int>();
            foreach (var value in values)
                parts.Add((await IdsAsync(owner, list, new Dictionary<string, object> { [name] = new[] { value } })).Count);
            if (name != "tags" && values.Count > 0)
            {
                var together = await IdsAsync(owner, list, new Dictionary<string, object> { [name] = values });
                together.Count.ShouldBe(parts.Sum(), $"{list}, {name}: nobody stands under two choices");
                together.Count.ShouldBeGreaterThanOrEqualTo(parts.Count == 0 ? 0 : parts.Max());
            }
        }
    }

    [Theory]
    [MemberData(nameof(EachList))]
    public async Task Its_counts_are_of_the_rows_found_and_said_with_the_first_page_alone(string list)
    {
        var owner = house.App.Owner();
        var first = await owner.PostAsync($"/api/{list}/found", Asked(new { }, take: 2)).JsonAsync();
        var all = await IdsAsync(owner, list, new { });
        first.GetProperty("total").GetInt32().ShouldBe(all.Count);
        if (first.GetProperty("groups").GetArrayLength() > 0)
            first.GetProperty("groups").EnumerateArray().Sum(group => group.GetProperty("count").GetInt32()).ShouldBe(all.Count);
        if (first.GetProperty("next").GetString() is not { } next)
            return;
        var second = await owner.PostAsync($"/api/{list}/found", Asked(new { }, next)).JsonAsync();
        second.GetProperty("total").ValueKind.ShouldBe(JsonValueKind.Null);
        second.GetProperty("rows").EnumerateArray().Select(row => row.GetProperty("id").GetGuid()).ShouldBe(all.Skip(2));
    }

    [Theory]
    [MemberData(nameof(EachList))]
    public async Task What_is_no_place_in_it_is_refused_with_a_sentence(string list)
    {
        var owner = house.App.Owner();
        foreach (var after in new[] { "", "x", "[]", "[null]", "{}", "[1,2,3,4,5,6]", "[\"x\",\"y\"]", "[null,null]" })
        {
            var refused = await owner.PostAsync($"/api/{list}/found", Asked(new { }, after));
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, $"{list}: {after}");
            (await refused.PlacesAsync()).ShouldBe(["after"]);
        }

        (await owner.PostAsync($"/api/{list}/found", Asked(new { words = new string('x', 301) }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await owner.GetAsync($"/api/{list}.csv?query=nonsense")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Theory]
    [MemberData(nameof(EachList))]
    public async Task A_view_is_of_its_list_alone_under_its_name_and_goes_when_it_is_taken_away(string list)
    {
        var owner = house.App.Owner();
        var query = new { words = "ä “quoted” 100% _" };
        foreach (var other in Lists)
            (await owner.PutAsync($"/api/{other}/views", Body(new { name = " The same ", query = new { } }))).EnsureSuccessStatusCode();
        (await owner.PutAsync($"/api/{list}/views", Body(new { name = "The same", query }))).EnsureSuccessStatusCode();
        var view = (await ViewsAsync(list)).ShouldHaveSingleItem();
        (view.Text("name"), view.GetProperty("query").Text("words")).ShouldBe(("The same", query.words));
        foreach (var name in new[] { " ", new string('n', 61) })
            (await (await owner.PutAsync($"/api/{list}/views", Body(new { name, query }))).PlacesAsync()).ShouldBe(["name"]);
        foreach (var other in Lists.Where(other => other != list))
        {
            (await owner.DeleteAsync($"/api/{other}/views/{view.Text("id")}")).EnsureSuccessStatusCode();
            (await ViewsAsync(other)).ShouldHaveSingleItem().GetProperty("query").Text("words").ShouldBe("");
        }

        (await ViewsAsync(list)).ShouldHaveSingleItem("another list cannot take it away");
        (await owner.DeleteAsync($"/api/{list}/views/{view.Text("id")}")).EnsureSuccessStatusCode();
        (await ViewsAsync(list)).ShouldBeEmpty();

        async Task<List<JsonElement>> ViewsAsync(string of) =>
            [.. (await owner.GetAsync($"/api/{of}/choices").JsonAsync()).GetProperty("views").EnumerateArray()];
    }

    [Theory]
    [MemberData(nameof(EachList))]
    public async Task Its_file_has_a_line_for_each_row_and_a_cell_for_each_heading(string list)
    {
        var owner = house.App.Owner();
        var lines = Rfc4180.Read((await owner.GetStringAsync($"/api/{list}.csv")).TrimStart('\ufeff'));
        lines.Count.ShouldBe((await IdsAsync(owner, list, new { })).Count + 1);
        lines[0].ShouldBeUnique();
        lines.ShouldAllBe(line => line.Count == lines[0].Count);
    }

    [Fact]
    public async Task Views_of_the_release_before_are_views_of_their_lists_and_show_what_they_showed()
    {
        await using var db = new PorchDb(new DbContextOptionsBuilder<PorchDb>().UseSqlite("Data Source=:memory:").Options);
        await db.Database.OpenConnectionAsync(TestContext.Current.CancellationToken);
        await db.GetService<IMigrator>().MigrateAsync("20261201230000_Baseline", TestContext.Current.CancellationToken);
        foreach (
            var (table, name, query) in new[]
            {
                ("SavedViews", "By name", """{"words":"","standings":["lead"],"sort":"name","descending":false}"""),
                ("SavedViews", "First come", """{"sort":"since","descending":false}"""),
                ("SavedViews", "Newest", """{"sort":"since","descending":true}"""),
                ("SavedViews", "Dearest", """{"sort":"project.budget","descending":true}"""),
                ("InquiryListViews", "By name", """{"unassigned":true,"order":"name","backwards":true}"""),
                ("InquiryListViews", "Mine", """{"unassigned":false,"lookedAfterBy":["00000001-0002-0003-0405-060708090a0b"]}"""),
            }
        )
            await db.Database.ExecuteSqlRawAsync(
                $"INSERT INTO {table} (Id, Name, Query) VALUES ({{0}}, {{1}}, {{2}})",
                [Guid.CreateVersion7(), name, $$"""{"format":1,"value":{{query}}}"""],
                TestContext.Current.CancellationToken
            );

        await db.Database.MigrateAsync(TestContext.Current.CancellationToken);

        var views = await db.ListViews.ToListAsync(TestContext.Current.CancellationToken);
        var clients = views
            .Where(view => view.List == "clients")
            .ToDictionary(view => view.Name, view => StoredJson.Read<ClientQuery>(view.Query));
        var inquiries = views
            .Where(view => view.List == "inquiries")
            .ToDictionary(view => view.Name, view => StoredJson.Read<InquiryQuery>(view.Query));
        clients["By name"].Standings.ShouldBe([Standing.Lead]);
        clients
            .ToDictionary(view => view.Key, view => (view.Value.Order, view.Value.Backwards))
            .ShouldBe(
                new Dictionary<string, (string, bool)>
                {
                    ["By name"] = ("name", false),
                    ["First come"] = ("since", true),
                    ["Newest"] = ("since", false),
                    ["Dearest"] = ("project.budget", true),
                },
                ignoreOrder: true
            );
        inquiries["By name"].LookedAfterBy.ShouldBe([null]);
        (inquiries["By name"].Order, inquiries["By name"].Backwards).ShouldBe((InquiryOrder.Name, true));
        inquiries["Mine"].LookedAfterBy.ShouldBe([new Guid("00000001-0002-0003-0405-060708090a0b")]);
    }

    [Fact]
    public async Task Erasing_somebody_takes_what_was_typed_of_them_out_of_the_views_of_every_list()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        foreach (var list in Lists)
            (
                await owner.PutAsync($"/api/{list}/views", Body(new { name = "Her", query = new { words = "brackenridge" } }))
            ).EnsureSuccessStatusCode();
        await owner.PutAsync(
            "/api/clients/views",
            Body(
                new
                {
                    name = "By field",
                    query = new
                    {
                        filters = new[]
                        {
                            new
                            {
                                field = "client.email",
                                test = "is",
                                value = "tilda@bakes.example",
                            },
                            new
                            {
                                field = "project.place",
                                test = "is",
                                value = "Howth",
                            },
                        },
                    },
                }
            )
        );
        var client = await app.AskAsync(db => db.Clients.Select(one => one.Id).SingleAsync());
        (await owner.DeleteAsync($"/api/clients/{client}")).EnsureSuccessStatusCode();
        await app.AskAsync(async db =>
        {
            var views = await db.ListViews.ToListAsync();
            views.Count.ShouldBe(Lists.Length + 1);
            views.ShouldAllBe(view =>
                !view.Query.Contains("brackenridge", StringComparison.OrdinalIgnoreCase)
                && !view.Query.Contains("tilda", StringComparison.OrdinalIgnoreCase)
            );
            StoredJson
                .Read<ClientQuery>(views.Single(view => view.Name == "By field").Query)
                .Filters.ShouldBe([new FieldFilter("project.place", FieldTest.Is, "Howth")]);
            return 0;
        });
    }

    [Fact]
    public void Where_rows_go_between_two_readings_the_others_are_neither_shown_twice_nor_left_out() =>
        Gen.Select(Gen.Int[0, 5].Nullable().Array[0, 30], Gen.Bool, Gen.Int[1, 7], Gen.Int[0, 30])
            .Sample(
                (keys, descending, take, gone) =>
                {
                    var rows = keys.Select((key, index) => new Placed(key, new Guid(index + 1, 0, 0, new byte[8]))).ToList();
                    var keyset = new Keyset<Placed>(
                        (System.Linq.Expressions.Expression<Func<Placed, int?>>)(row => row.Key),
                        (System.Linq.Expressions.Expression<Func<Placed, Guid>>)(row => row.Id)
                    );
                    var (seen, after) = (new List<Guid>(), (object?[]?)null);
                    for (var page = 0; page < 40; page++)
                    {
                        var found = keyset.ReadAsync(rows.AsQueryable(), descending, after, take, CancellationToken.None).Result;
                        seen.AddRange(found.Select(row => (Guid)row[^1]!));
                        if (found.Count < take)
                            break;
                        // As an address carries it; and a row that was shown goes meanwhile.
                        after = keyset.Read(Keyset.Write(found[^1]));
                        rows.RemoveAll(row => row.Id == seen[gone % seen.Count]);
                    }

                    var filled = rows.Concat(keys.Select((key, index) => new Placed(key, new Guid(index + 1, 0, 0, new byte[8]))))
                        .Distinct()
                        .ToList();
                    var inOrder = filled.Where(row => row.Key is not null).OrderBy(row => row.Key).ThenBy(row => row.Id).ToList();
                    var empty = filled.Where(row => row.Key is null).OrderBy(row => row.Id).ToList();
                    if (descending)
                        (inOrder, empty) = ([.. Enumerable.Reverse(inOrder)], [.. Enumerable.Reverse(empty)]);
                    seen.ShouldBe(inOrder.Concat(empty).Select(row => row.Id));
                }
            );

    private sealed record Placed(int? Key, Guid Id);

    private static async Task<List<string>> OrdersAsync(HttpClient owner, string list)
    {
        var choices = await owner.GetAsync($"/api/{list}/choices").JsonAsync();
        var orders = choices.GetProperty("orders").EnumerateArray().Select(order => order.Text("name")).ToList();
        return list == "clients" ? [.. orders, "project.budget", "project.place"] : orders;
    }

    // A list with one order is not asked which.
    private static Dictionary<string, object> QueryOf(string list, string order, bool backwards) =>
        order is "at" or "written"
            ? new Dictionary<string, object> { ["backwards"] = backwards }
            : new Dictionary<string, object> { ["order"] = order, ["backwards"] = backwards };

    private static async Task<List<Guid>> IdsAsync(HttpClient owner, string list, object query, int take = 200)
    {
        var (ids, after) = (new List<Guid>(), (string?)null);
        do
        {
            var page = await (await owner.PostAsync($"/api/{list}/found", Asked(query, after, take))).EnsureSuccessStatusCode().JsonAsync();
            ids.AddRange(page.GetProperty("rows").EnumerateArray().Select(row => row.GetProperty("id").GetGuid()));
            after = page.GetProperty("next").GetString();
        } while (after is not null);

        return ids;
    }
}
