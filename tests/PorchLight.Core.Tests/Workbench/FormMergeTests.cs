using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.RandomForms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

/// <summary>
/// Two people in one form: random edit scripts on both sides, and what must come of them, said item by item without looking at trees.
/// </summary>
public sealed class FormMergeTests
{
    private static readonly FormContent Start = Form(
        new Page("p1", "One", [Asks("a"), Asks("b"), Asks("c")]),
        new Page("p2", "Two", [Asks("d"), Asks("e")]),
        new Page("p3", "Three", [Asks("f")])
    );

    /// <summary>What one person does: a new form of the old one, whose additions are named after the person.</summary>
    private delegate FormContent Step(FormContent form, string who, int number);

    [Fact]
    public void A_question_moved_to_another_page_and_rewritten_elsewhere_is_moved_and_rewritten()
    {
        var moved = Take(Start, "a", out var a);
        moved = Put(moved, "p3", 0, a!);
        var (merged, clashes) = Merge(Start, moved, Edited(Start, "a", "theirs"));
        clashes.ShouldBeEmpty();
        merged.Pages[2].Questions.Select(one => (one.Key, one.Wording)).ShouldBe([("a", "theirs"), ("f", "f?")]);
        merged.Pages[0].Questions.Select(one => one.Key).ShouldBe(["b", "c"]);
    }

    [Fact]
    public void A_question_deleted_here_and_edited_there_is_for_a_person_to_choose()
    {
        var (_, clashes) = Merge(Start, Take(Start, "a", out _), Edited(Start, "a", "theirs"));
        clashes.ShouldHaveSingleItem().Place.ShouldBe("items.a");
        Merge(Start, Edited(Start, "a", "yours"), Edited(Start, "a", "theirs")).Clashes.Single().Place.ShouldBe("items.a.wording");
    }

    [Fact]
    public void A_question_added_to_a_page_that_was_taken_away_meanwhile_stands_behind_what_it_stood_behind()
    {
        var without = Start with { Pages = [Start.Pages[0], Start.Pages[2]] };
        var (merged, clashes) = Merge(Start, without, Put(Start, "p2", 2, Asks("new")));
        clashes.ShouldBeEmpty();
        merged.Pages.Select(page => string.Concat(page.Questions.Select(one => one.Key + " "))).ShouldBe(["a b c new ", "f "]);

        var (kept, _) = Merge(Start, Start with { Pages = [] }, Put(Start, "p2", 2, Asks("new")));
        kept.Pages.ShouldHaveSingleItem().Questions.Select(one => one.Key).ShouldBe(["new"]);
    }

    [Fact]
    public void A_form_in_one_list_and_back_is_the_same_form() =>
        RandomForms.FormWithRows.Sample(form =>
        {
            var json = JsonSerializer.SerializeToNode(form, Wire);
            JsonNode.DeepEquals(FormMerge.Whole(FormMerge.Flat(json)), json).ShouldBeTrue();
        });

    [Fact]
    public void Whatever_two_people_do_no_question_is_lost_doubled_or_invented_and_every_loss_is_asked_about() =>
        Gen.Select(Script, Script)
            .Sample(
                (yours, theirs) =>
                {
                    var (now, stored) = (Run(yours, "y"), Run(theirs, "t"));
                    var (merged, clashes) = Merge(Start, now, stored);
                    var (was, n, s, m) = (Items(Start), Items(now), Items(stored), Items(merged));
                    foreach (var key in was.Keys.Union(n.Keys).Union(s.Keys))
                    {
                        if (
                            clashes.Any(clash =>
                                clash.Place == $"items.{key}" || clash.Place.StartsWith($"items.{key}.", StringComparison.Ordinal)
                            )
                        )
                            continue;
                        var gone = was.ContainsKey(key) ? !n.ContainsKey(key) || !s.ContainsKey(key) : false;
                        m.ContainsKey(key).ShouldBe(!gone, key);
                        if (gone)
                            continue;
                        var (before, mine, other) = (At(was, key), At(n, key), At(s, key));
                        m[key]
                            .Wording.ShouldBe(
                                mine is { } own && own.Wording != before?.Wording ? own.Wording : (other ?? mine)!.Value.Wording
                            );
                        var page = mine is { } here && here.Page != before?.Page ? here.Page : (other ?? mine)!.Value.Page;
                        if (merged.Pages.Any(one => one.Key == page))
                            m[key].Page.ShouldBe(page, key);
                    }

                    m.Keys.ShouldBeSubsetOf(was.Keys.Union(n.Keys).Union(s.Keys));
                    foreach (
                        var place in clashes.Select(clash => clash.Place.Split('.')).Where(place => place is ["items", not "~order", ..])
                    )
                    {
                        var key = place[1];
                        (At(was, key) != At(n, key) && At(was, key) != At(s, key)).ShouldBeTrue($"only one of them touched {key}");
                    }
                }
            );

    private static readonly Gen<Step[]> Script = Gen.Select(Gen.Int[0, 5], Gen.Int[0, 7], Gen.Int[0, 3], Gen.Int[0, 3], MakeStep).Array[
        0,
        5
    ];

    private static Step MakeStep(int what, int item, int page, int at) =>
        (form, who, number) =>
        {
            var items = form.Pages.SelectMany(one => one.Items).ToList();
            var key = items.Count == 0 ? null : items[item % items.Count].Key;
            var to = form.Pages.Count == 0 ? null : form.Pages[page % form.Pages.Count].Key;
            switch (what)
            {
                case 0 when to is not null:
                    return Put(form, to, at, Asks($"{who}{number}"));
                case 1 when key is not null:
                    return Edited(form, key, $"{who} {number}");
                case 2 when key is not null:
                    return Put(Take(form, key, out var moved), to!, at, moved!);
                case 3 when key is not null:
                    return Take(form, key, out _);
                case 4 when form.Pages.Count > 1:
                    return form with { Pages = [.. form.Pages.Where(one => one.Key != to)] };
                default:
                    return form with { Pages = [.. form.Pages, new Page($"{who}p{number}", "New", [])] };
            }
        };

    private static FormContent Run(Step[] script, string who) =>
        script.Select((step, number) => (step, number)).Aggregate(Start, (form, one) => one.step(form, who, one.number));

    private static (FormContent Form, IReadOnlyList<Clash> Clashes) Merge(FormContent was, FormContent now, FormContent stored)
    {
        var (merged, clashes) = FormMerge.ThreeWay(Json(was), Json(now), Json(stored));
        return (merged.Deserialize<FormContent>(Wire)!, clashes);
    }

    private static JsonNode? Json(FormContent form) => JsonSerializer.SerializeToNode(form, Wire);

    private static Dictionary<string, (string Wording, string Page)> Items(FormContent form) =>
        form
            .Pages.SelectMany(page => page.Questions.Select(one => (one.Key, one.Wording, Page: page.Key)))
            .ToDictionary(one => one.Key, one => (one.Wording, one.Page));

    private static (string Wording, string Page)? At(Dictionary<string, (string, string)> items, string key) =>
        items.TryGetValue(key, out var found) ? found : null;

    private static Question Asks(string key) => new(key, $"{key}?", new ShortTextKind());

    private static FormContent Edited(FormContent form, string key, string wording) =>
        Each(form, items => [.. items.Select(item => item.Key == key ? ((Question)item) with { Wording = wording } : item)]);

    private static FormContent Take(FormContent form, string key, out Item? taken)
    {
        taken = form.Pages.SelectMany(page => page.Items).First(item => item.Key == key);
        return Each(form, items => [.. items.Where(item => item.Key != key)]);
    }

    private static FormContent Put(FormContent form, string page, int at, Item item) =>
        form with
        {
            Pages =
            [
                .. form.Pages.Select(one =>
                    one.Key == page ? one with { Items = [.. one.Items.Take(at), item, .. one.Items.Skip(at)] } : one
                ),
            ],
        };

    private static FormContent Each(FormContent form, Func<IReadOnlyList<Item>, IReadOnlyList<Item>> change) =>
        form with
        {
            Pages = [.. form.Pages.Select(page => page with { Items = change(page.Items) })],
        };
}
