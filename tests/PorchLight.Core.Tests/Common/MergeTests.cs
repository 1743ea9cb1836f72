using System.Text.Json.Nodes;
using CsCheck;
using PorchLight.Core.Common;

namespace PorchLight.Core.Tests.Common;

public sealed class MergeTests
{
    private const string Was = """{"title":"A wall","intro":"Hello","wordings":{"what":"What?","where":"Where?"},"parts":[{"text":"a"},{"text":"b"}]}""";

    [Fact]
    public void Changes_of_different_places_go_together()
    {
        var (merged, clashes) = ThreeWay(
            Was,
            """{"title":"My wall","intro":"Hello","wordings":{"what":"What?","where":"Which wall?"},"parts":[{"text":"a"},{"text":"mine"}]}""",
            """{"title":"A wall","intro":"Welcome","wordings":{"what":"What, please?","where":"Where?"},"parts":[{"text":"theirs"},{"text":"b"}]}""");
        clashes.ShouldBeEmpty();
        merged.ShouldBe("""{"title":"My wall","intro":"Welcome","wordings":{"what":"What, please?","where":"Which wall?"},"parts":[{"text":"theirs"},{"text":"mine"}]}""");
    }

    [Fact]
    public void A_place_both_changed_differently_is_named_with_both_values_and_keeps_what_is_stored()
    {
        var (merged, clashes) = ThreeWay(
            Was,
            """{"title":"Mine","intro":"Hello","wordings":{"what":"Mine?","where":"Where?"},"parts":[{"text":"a"},{"text":"b"}]}""",
            """{"title":"Theirs","intro":"Hello","wordings":{"what":"Theirs?","where":"Where?"},"parts":[{"text":"a"},{"text":"b"}]}""");
        clashes.Select(clash => (clash.Place, (string?)clash.Theirs, (string?)clash.Yours)).ShouldBe([("title", "Theirs", "Mine"), ("wordings.what", "Theirs?", "Mine?")]);
        merged.ShouldContain("\"title\":\"Theirs\"");
    }

    [Fact]
    public void What_is_seen_and_what_is_stored_differ_at_each_leaf()
    {
        var differences = Merge.Differences(
            JsonNode.Parse(Was), JsonNode.Parse(Was.Replace("\"b\"", "\"c\"", StringComparison.Ordinal).Replace("Where?", "Where, please?", StringComparison.Ordinal)));
        differences.Select(clash => (clash.Place, (string?)clash.Theirs, (string?)clash.Yours))
            .ShouldBe([("wordings.where", "Where, please?", "Where?"), ("parts.1.text", "c", "b")]);
        Merge.Differences(JsonNode.Parse(Was), JsonNode.Parse(Was)).ShouldBeEmpty();
    }

    [Fact]
    public void The_same_change_twice_is_no_clash() => ThreeWay(Was, Was.Replace("A wall", "Ours", StringComparison.Ordinal), Was.Replace("A wall", "Ours", StringComparison.Ordinal)).Clashes.ShouldBeEmpty();

    [Fact]
    public void Lists_of_unequal_length_are_one_value() =>
        ThreeWay("[1,2]", "[1,2,3]", "[1]").Clashes.Select(clash => clash.Place).ShouldBe([""]);

    [Fact]
    public void An_edit_of_what_is_still_stored_gives_the_edit_and_no_edit_gives_what_is_stored() => Values.Select(Values, Values).Sample((was, now, stored) =>
    {
        ThreeWay(was, now, was).ShouldBe((now, 0));
        ThreeWay(was, was, stored).ShouldBe((stored, 0));
        var (merged, clashes) = Merge.ThreeWay(JsonNode.Parse(was), JsonNode.Parse(now), JsonNode.Parse(stored));
        var (mirror, mirrored) = Merge.ThreeWay(JsonNode.Parse(was), JsonNode.Parse(stored), JsonNode.Parse(now));
        clashes.Select(clash => clash.Place).ShouldBe(mirrored.Select(clash => clash.Place), "who came first does not decide what clashes");
        if (clashes.Count == 0)
            JsonNode.DeepEquals(merged, mirror).ShouldBeTrue();

        static (string, int) ThreeWay(string before, string edited, string theirs)
        {
            var (merged, clashes) = MergeTests.ThreeWay(before, edited, theirs);
            return (merged, clashes.Count);
        }
    });

    private static Gen<string> Values => Gen.Select(Gen.Int[0, 2], Gen.Int[0, 2], Gen.Int[0, 2].Array[0, 2])
        .Select((a, b, list) => $$$"""{"a":{{{a}}},"deep":{"b":{{{b}}}},"list":[{{{string.Join(',', list)}}}]}""");

    private static (string Merged, IReadOnlyList<Clash> Clashes) ThreeWay(string was, string now, string stored)
    {
        var (merged, clashes) = Merge.ThreeWay(JsonNode.Parse(was), JsonNode.Parse(now), JsonNode.Parse(stored));
        return (merged!.ToJsonString(), clashes);
    }
}
