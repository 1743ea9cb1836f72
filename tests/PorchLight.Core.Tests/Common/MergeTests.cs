using System.Text.Json.Nodes;
using CsCheck;
using PorchLight.Core.Common;

namespace PorchLight.Core.Tests.Common;

public sealed class MergeTests
{
    private const string Was =
        """{"title":"A wall","intro":"Hello","wordings":{"what":"What?","where":"Where?"},"parts":[{"key":"p","text":"a"},{"key":"q","text":"b"}]}""";

    [Fact]
    public void Changes_of_different_places_go_together()
    {
        var (merged, clashes) = ThreeWay(
            Was,
            """{"title":"My wall","intro":"Hello","wordings":{"what":"What?","where":"Which wall?"},"parts":[{"key":"p","text":"a"},{"key":"q","text":"mine"}]}""",
            """{"title":"A wall","intro":"Welcome","wordings":{"what":"What, please?","where":"Where?"},"parts":[{"key":"p","text":"theirs"},{"key":"q","text":"b"}]}"""
        );
        clashes.ShouldBeEmpty();
        merged.ShouldBe(
            """{"title":"My wall","intro":"Welcome","wordings":{"what":"What, please?","where":"Which wall?"},"parts":[{"key":"p","text":"theirs"},{"key":"q","text":"mine"}]}"""
        );
    }

    [Fact]
    public void A_place_both_changed_differently_is_named_with_both_values_and_keeps_what_is_stored()
    {
        var (merged, clashes) = ThreeWay(
            Was,
            """{"title":"Mine","intro":"Hello","wordings":{"what":"Mine?","where":"Where?"},"parts":[{"key":"p","text":"a"},{"key":"q","text":"b"}]}""",
            """{"title":"Theirs","intro":"Hello","wordings":{"what":"Theirs?","where":"Where?"},"parts":[{"key":"p","text":"a"},{"key":"q","text":"b"}]}"""
        );
        clashes
            .Select(clash => (clash.Place, (string?)clash.Theirs, (string?)clash.Yours))
            .ShouldBe([("title", "Theirs", "Mine"), ("wordings.what", "Theirs?", "Mine?")]);
        merged.ShouldContain("\"title\":\"Theirs\"");
    }

    [Fact]
    public void What_is_seen_and_what_is_stored_differ_at_each_leaf()
    {
        var differences = Merge.Differences(
            JsonNode.Parse(Was),
            JsonNode.Parse(
                Was.Replace("\"b\"", "\"c\"", StringComparison.Ordinal).Replace("Where?", "Where, please?", StringComparison.Ordinal)
            )
        );
        differences
            .Select(clash => (clash.Place, (string?)clash.Theirs, (string?)clash.Yours))
            .ShouldBe([("wordings.where", "Where, please?", "Where?"), ("parts.q.text", "c", "b")]);
        Merge.Differences(JsonNode.Parse(Was), JsonNode.Parse(Was)).ShouldBeEmpty();
    }

    [Fact]
    public void The_same_change_twice_is_no_clash() =>
        ThreeWay(Was, Was.Replace("A wall", "Ours", StringComparison.Ordinal), Was.Replace("A wall", "Ours", StringComparison.Ordinal))
            .Clashes.ShouldBeEmpty();

    [Theory]
    [InlineData("[1,2]", "[1,3]", "[4,2]")]
    [InlineData("[1,2]", "[1,2,3]", "[1]")]
    [InlineData("""[{"text":"a"},{"text":"b"}]""", """[{"text":"mine"},{"text":"b"}]""", """[{"text":"a"},{"text":"theirs"}]""")]
    [InlineData("""[{"key":"a"},{"key":"a"}]""", """[{"key":"a","n":1},{"key":"a"}]""", """[{"key":"a"},{"key":"a","n":1}]""")]
    public void A_list_without_keys_that_both_sides_changed_is_one_value(string was, string now, string stored)
    {
        var (merged, clashes) = ThreeWay(was, now, stored);
        clashes.Select(clash => clash.Place).ShouldBe([""]);
        merged.ShouldBe(stored);
    }

    [Fact]
    public void Who_moves_entries_and_who_changes_within_them_do_not_get_in_each_others_way() =>
        Merged(
                """[{"key":"a","n":1},{"key":"b","n":1}]""",
                """[{"key":"b","n":1},{"key":"a","n":1}]""",
                """[{"key":"a","n":9},{"key":"b","n":1}]"""
            )
            .ShouldBe("""[{"key":"b","n":1},{"key":"a","n":9}]""");

    [Fact]
    public void Two_orders_clash_by_name_and_what_is_stored_stays()
    {
        var (merged, clashes) = ThreeWay(
            """{"list":[{"key":"a"},{"key":"b"},{"key":"c"}]}""",
            """{"list":[{"key":"c"},{"key":"a"},{"key":"b"}]}""",
            """{"list":[{"key":"b"},{"key":"a"},{"key":"c"}]}"""
        );
        clashes
            .Select(clash => (clash.Place, clash.Theirs!.ToJsonString(), clash.Yours!.ToJsonString()))
            .ShouldBe([("list.~order", """["b","a","c"]""", """["c","a","b"]""")]);
        merged.ShouldBe("""{"list":[{"key":"b"},{"key":"a"},{"key":"c"}]}""");
    }

    [Fact]
    public void What_both_sides_add_stands_behind_what_it_was_added_behind() =>
        Merged(
                """[{"key":"a"},{"key":"b"}]""",
                """[{"key":"a"},{"key":"mine"},{"key":"b"}]""",
                """[{"key":"a"},{"key":"b"},{"key":"theirs"}]"""
            )
            .ShouldBe("""[{"key":"a"},{"key":"mine"},{"key":"b"},{"key":"theirs"}]""");

    [Fact]
    public void A_new_entry_without_a_key_is_like_no_other() =>
        Merged("""[{"key":"a"}]""", """[{"key":"a"},{"key":"","n":1},{"key":"","n":2}]""", """[{"key":"a"},{"key":"b"}]""")
            .ShouldBe("""[{"key":"a"},{"key":"","n":1},{"key":"","n":2},{"key":"b"}]""");

    [Fact]
    public void To_take_an_entry_away_that_the_other_side_changed_is_a_clash_and_it_stays()
    {
        var (merged, clashes) = ThreeWay("""[{"key":"a","n":1},{"key":"b"}]""", """[{"key":"b"}]""", """[{"key":"a","n":2},{"key":"b"}]""");
        clashes.Select(clash => (clash.Place, clash.Yours)).ShouldBe([("a", null)]);
        merged.ShouldBe("""[{"key":"a","n":2},{"key":"b"}]""");
    }

    [Fact]
    public void Things_of_different_kinds_are_not_mixed()
    {
        var (merged, clashes) = ThreeWay(
            """{"kind":"text","longest":5}""",
            """{"kind":"number","least":1}""",
            """{"kind":"text","longest":9}"""
        );
        clashes.Select(clash => clash.Place).ShouldBe([""]);
        merged.ShouldBe("""{"kind":"text","longest":9}""");
    }

    [Fact]
    public void What_one_side_takes_away_stays_away_and_is_not_left_as_a_null()
    {
        ThreeWay("""{"a":1,"b":"x"}""", """{"a":1}""", """{"a":2,"b":"x"}""").Merged.ShouldBe("""{"a":2}""");
        ThreeWay("""{"a":1,"b":"x"}""", """{"a":2,"b":"x"}""", """{"a":1}""").Merged.ShouldBe("""{"a":2}""");
        ThreeWay("""{"b":"x"}""", """{"b":null}""", """{}""")
            .Clashes.Select(clash => clash.Place)
            .ShouldBe(["b"], "to empty a field is not to take it away");
    }

    [Fact]
    public void An_edit_of_what_is_still_stored_gives_the_edit_and_no_edit_gives_what_is_stored() =>
        Gen.Select(Values, Values)
            .Sample(
                (was, other) =>
                {
                    Merged(was, other, was).ShouldBe(other);
                    Merged(was, was, other).ShouldBe(other);
                    Merged(was, other, other).ShouldBe(other);
                }
            );

    /// <summary>
    /// Compared with a second way of merging: the three values as flat lists of paths, each path for itself. A place clashes
    /// when the sides differ there, and the other side changed it, something within it or something around it.
    /// </summary>
    [Fact]
    public void Random_edits_of_trees_merge_as_path_by_path() =>
        Gen.Select(Values, Values, Values)
            .Sample(
                (was, now, stored) =>
                {
                    var (merged, clashes) = ThreeWay(was, now, stored);
                    var (b, e, t) = (Paths(was), Paths(now), Paths(stored));
                    var all = b.Keys.Union(e.Keys).Union(t.Keys).ToList();
                    bool Changed(SortedDictionary<string, string> side, string path) =>
                        side.GetValueOrDefault(path) != b.GetValueOrDefault(path);
                    var clashing = all.Where(path =>
                            e.GetValueOrDefault(path) != t.GetValueOrDefault(path)
                            && (
                                (Changed(e, path) && all.Any(other => Related(path, other) && Changed(t, other)))
                                || (Changed(t, path) && all.Any(other => Related(path, other) && Changed(e, other)))
                            )
                        )
                        .ToList();
                    clashes
                        .Select(clash => clash.Place)
                        .ShouldAllBe(place => clashing.Any(path => Related(path, place)), "a clash is said where there is none");
                    clashing.ShouldAllBe(path => clashes.Any(clash => Related(path, clash.Place)), "a clash is not said");
                    if (clashes.Count == 0)
                        Paths(merged)
                            .ShouldBe(
                                all.Select(path => KeyValuePair.Create(path, (Changed(e, path) ? e : t).GetValueOrDefault(path)!))
                                    .Where(one => one.Value is not null),
                                ignoreOrder: true
                            );
                }
            );

    [Fact]
    public void Who_came_first_decides_neither_what_clashes_nor_what_comes_of_the_rest() =>
        Gen.Select(Values, Values, Values)
            .Sample(
                (was, now, stored) =>
                {
                    var (merged, clashes) = ThreeWay(was, now, stored);
                    var (mirror, mirrored) = ThreeWay(was, stored, now);
                    clashes.Select(clash => clash.Place).ShouldBe(mirrored.Select(clash => clash.Place), ignoreOrder: true);
                    if (clashes.Count == 0)
                        Paths(merged).ShouldBe(Paths(mirror));
                }
            );

    [Fact]
    public void Entries_of_a_list_that_only_changed_within_keep_both_sides_changes() =>
        Gen.Select(Gen.Int[1, 5], Gen.Int[0, 4], Gen.Int[0, 4])
            .Sample(
                (count, mine, theirs) =>
                {
                    var (i, j) = (mine % count, theirs % count);
                    string Listed(int? renamed, int? priced) =>
                        $"[{string.Join(',', Enumerable.Range(0, count).Select(n =>
            $$"""{"key":"k{{n}}","name":"{{(n == renamed ? "Mine" : "Was")}}","price":{{(n == priced ? 9 : 1)}}}"""))}]";
                    Merged(Listed(null, null), Listed(i, null), Listed(null, j)).ShouldBe(Listed(i, j));
                }
            );

    /// <summary>A small tree in which every place can be a text, a number, a null, a tree again or not there at all.</summary>
    private static Gen<string> Values => Tree(2);

    private static Gen<string> Tree(int depth)
    {
        string[] leaves = ["\"x\"", "\"y\"", "\"\"", "1", "2", "null"];
        var leaf = Gen.Int[0, leaves.Length - 1].Select(n => leaves[n]);
        var value =
            depth == 0 ? leaf : Gen.Select(Gen.Int[0, 3], leaf, Tree(depth - 1)).Select((kind, plain, tree) => kind == 0 ? tree : plain);
        var place = Gen.Select(Gen.Int[0, 4], value).Select((kind, there) => kind == 0 ? null : there);
        return Gen.Select(place, place, place)
            .Select(
                (a, b, c) =>
                    "{"
                    + string.Join(
                        ',',
                        new[] { ("a", a), ("b", b), ("c", c) }
                            .Where(one => one.Item2 is not null)
                            .Select(one => $"\"{one.Item1}\":{one.Item2}")
                    )
                    + "}"
            );
    }

    /// <summary>Whether one path is the other, or lies within it.</summary>
    private static bool Related(string path, string other) =>
        path == other || path.StartsWith(other + ".", StringComparison.Ordinal) || other.StartsWith(path + ".", StringComparison.Ordinal);

    /// <summary>Everything by its path, a tree as "tree" with what is in it beside.</summary>
    private static SortedDictionary<string, string> Paths(string json)
    {
        var paths = new SortedDictionary<string, string>(StringComparer.Ordinal);
        Collect("", JsonNode.Parse(json));
        return paths;

        void Collect(string path, JsonNode? node)
        {
            paths[path] = node is JsonObject ? "tree" : node?.ToJsonString() ?? "null";
            foreach (var (key, value) in node as JsonObject ?? [])
                Collect(path.Length == 0 ? key : $"{path}.{key}", value);
        }
    }

    private static string Merged(string was, string now, string stored)
    {
        var (merged, clashes) = ThreeWay(was, now, stored);
        clashes.ShouldBeEmpty();
        return merged;
    }

    private static (string Merged, IReadOnlyList<Clash> Clashes) ThreeWay(string was, string now, string stored)
    {
        var (merged, clashes) = Merge.ThreeWay(JsonNode.Parse(was), JsonNode.Parse(now), JsonNode.Parse(stored));
        return (merged!.ToJsonString(), clashes);
    }
}
