using System.Text.Json.Nodes;
using CsCheck;
using PorchLight.Core.Common;

namespace PorchLight.Server.Tests;

/// <summary>
/// What the screens do with edits (<c>saving/merge.ts</c>) beside what the server does. The same random edits go through both.
/// </summary>
public sealed class UiMergeTests
{
    private const string Answer = """
        const { was, now, stored, clashes } = asked;
        const settled = (keep) => clashes.reduce((edit, clash) => code.settle(edit, clash, keep), { was, now });
        return { rebased: code.rebase(was, now, stored), yours: settled("yours"), theirs: settled("theirs") };
        """;

    [Fact]
    public async Task What_was_typed_during_a_save_stays_as_the_server_would_merge_it_and_every_choice_settles_its_clash()
    {
        var cases = Gen.Select(List, List, List).Array[400].Single();
        var asked = cases
            .Select(one =>
            {
                var (was, now, stored) = (JsonNode.Parse(one.Item1), JsonNode.Parse(one.Item2), JsonNode.Parse(one.Item3));
                var (merged, clashes) = Merge.ThreeWay(was, now, stored);
                return (was, now, stored, merged, clashes);
            })
            .ToList();
        var answers = await UiCode.AnswersAsync(
            "business/saving/merge.ts",
            Answer,
            asked.Select(one =>
                new JsonObject
                {
                    ["was"] = one.was?.DeepClone(),
                    ["now"] = one.now?.DeepClone(),
                    ["stored"] = one.stored?.DeepClone(),
                    ["clashes"] = new JsonArray([
                        .. one.clashes.Select(clash => new JsonObject
                        {
                            ["place"] = clash.Place,
                            ["theirs"] = clash.Theirs?.DeepClone(),
                            ["yours"] = clash.Yours?.DeepClone(),
                        }),
                    ]),
                }.ToJsonString()
            )
        );

        answers.Count.ShouldBe(cases.Length);
        asked.Count(one => one.clashes.Count == 0).ShouldBeInRange(40, 360, "both sorts of cases are tried");
        foreach (var ((was, now, stored, merged, clashes), answer) in asked.Zip(answers))
        {
            var about = $"was {was}\nnow {now}\nstored {stored}\nsaid {answer}";
            if (clashes.Count == 0)
                JsonNode.DeepEquals(answer["rebased"], merged).ShouldBeTrue($"merged {merged}\n{about}");
            foreach (var choice in (string[])["yours", "theirs"])
            {
                var (settled, left) = Merge.ThreeWay(answer[choice]!["was"], answer[choice]!["now"], stored);
                left.ShouldBeEmpty($"{choice} of\n{about}");
                foreach (var clash in clashes.Where(clash => choice == "theirs" && clash.Theirs is not null))
                    At(settled, clash.Place).ShouldBe(clash.Theirs!.ToJsonString(), about);
                foreach (var clash in clashes.Where(clash => choice == "yours" && clash.Yours is JsonValue))
                    At(settled, clash.Place).ShouldBe(clash.Yours!.ToJsonString(), about);
            }
        }
    }

    /// <summary>What stands at a place, as text; of the order only the keys both know count.</summary>
    private static string? At(JsonNode? value, string place)
    {
        foreach (var step in place.Split('.'))
        {
            if (step == Merge.Order)
                return new JsonArray([.. value!.AsArray().Select(one => one!["key"]!.DeepClone())]).ToJsonString();
            value = value is JsonArray list ? list.FirstOrDefault(one => (string?)one!["key"] == step) : value?[step];
        }

        return value?.ToJsonString();
    }

    /// <summary>A form-like tree: a title, words by name, and a keyed list of entries with words and a plain list.</summary>
    private static Gen<string> List
    {
        get
        {
            string[] words = ["\"x\"", "\"y\"", "\"z\""];
            string[] lists = ["[]", "[1]", "[1,2]"];
            var word = Gen.Int[0, 2].Select(n => words[n]);
            var list = Gen.Int[0, 2].Select(n => lists[n]);
            var entry = Gen.Select(word, list).Select((text, plain) => (text, plain));
            var keys = Gen.Int[0, 6]
                .Select(n =>
                    (string[])(
                        n switch
                        {
                            0 => ["a", "b"],
                            1 => ["b", "a"],
                            2 => ["a", "c", "b"],
                            3 => ["a"],
                            4 => ["d", "a", "b"],
                            _ => ["a", "b"],
                        }
                    )
                );
            return Gen.Select(word, word, keys, entry.Array[3])
                .Select(
                    (title, what, order, entries) =>
                        $$"""{"title":{{title}},"wordings":{"what":{{what}}},"parts":[{{string.Join(',', order.Select((key, n) =>
                    $$"""{"key":"{{key}}","text":{{entries[n].text}},"plain":{{entries[n].plain}}}"""))}}]}"""
                );
        }
    }
}
