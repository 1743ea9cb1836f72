using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Ready;
using PorchLight.Core.Tests.Forms;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

public sealed class FormDifferenceTests
{
    private static readonly JsonSerializerOptions Strict = new(RandomForms.Wire) { RespectNullableAnnotations = true };
    private static readonly Question Wall = new("wall", "Which wall?", new ShortTextKind());
    private static readonly Question Colour = new(
        "colour",
        "Which colour?",
        new ChoiceKind([new Option("red", "Red"), new Option("blue", "Blue")])
    );

    private static readonly FormContent Before = Form(new Page("one", "You", [Wall, Colour]), new Page("two", "The work", [Width]));

    [Fact]
    public void What_was_done_is_said_in_form_order_with_the_numbers_people_see()
    {
        var kind = (ChoiceKind)Colour.Kind;
        var after = Before with
        {
            Title = "A wall to paint",
            Pages =
            [
                new Page(
                    "one",
                    "About you",
                    [
                        Colour with
                        {
                            Kind = kind with { Options = [.. kind.Options, new Option("gold", "Gold"), new Option("grey", "Grey")] },
                        },
                    ]
                ),
                new Page(
                    "two",
                    "The work",
                    [Width with { Required = true, LandsIn = new AppendToNotes(RecordScope.Project) }, new Heading("h", "Colours")]
                ),
                new Page("three", "The end", [new Question("when", "When, {firstName|friend}?", new DateKind())]),
            ],
        };
        FormDifferences
            .Between(Before, after)
            .Select(one => one.Sentence)
            .ShouldBe([
                "The title is now “A wall to paint”.",
                "Page 1 is now called “About you”.",
                "Page 3 is new: “The end”.",
                "Question 1, “Which wall?”, is gone.",
                "Question 1: two answers added.",
                "Question 2: must be answered.",
                "Question 2: lands in another place.",
                "A heading is new: “Colours”.",
                "Question 3 is new: “When, friend?”.",
            ]);
        FormDifferences
            .Between(after, Before)
            .Select(one => one.Sentence)
            .ShouldBe([
                "The title is now “A form”.",
                "Page 3, “The end”, is gone.",
                "Page 1 is now called “You”.",
                "A heading, “Colours”, is gone.",
                "Question 3, “When, friend?”, is gone.",
                "Question 1 is new: “Which wall?”.",
                "Question 2: two answers taken away.",
                "Question 3: need not be answered any more.",
                "Question 3: lands nowhere any more.",
            ]);
    }

    [Fact]
    public void Moving_is_no_deleting_and_adding()
    {
        Said(Before with { Pages = [Before.Pages[1], Before.Pages[0]] }).ShouldBe(["The pages are in another order."]);
        Said(Before with { Pages = [Before.Pages[0] with { Items = [Colour, Wall] }, Before.Pages[1]] })
            .ShouldBe(["The order on “You” has changed."]);
        Said(Before with { Pages = [Before.Pages[0] with { Items = [Wall] }, Before.Pages[1] with { Items = [Colour, Width] }] })
            .ShouldBe(["Question 2 is on another page."]);
        Said(
                Before with
                {
                    Pages =
                    [
                        Before.Pages[0] with
                        {
                            Items =
                            [
                                Wall,
                                Colour with
                                {
                                    Kind = ((ChoiceKind)Colour.Kind) with { Options = [.. Colour.Options.Reverse()] },
                                },
                            ],
                        },
                        Before.Pages[1],
                    ],
                }
            )
            .ShouldBe(["Question 2: answers in another order."]);
    }

    [Fact]
    public void Send_offs_and_the_form_around_the_questions_are_said_too()
    {
        var notNow = new SendOff("not-now", "Not for us", "Sorry.") { When = new FitCondition(Fit.NotNow) };
        Said(Before with { SendOffs = [notNow], Cover = new Cover("Welcome"), Review = true })
            .ShouldBe(["The cover is new.", "Answers are looked over before they are sent.", "The send-off “Not for us” is new."]);
        Said(Before with { DefaultSendOff = Before.DefaultSendOff with { Text = "Thanks!" } })
            .ShouldBe(["The send-off for everyone else, “Thank you” was rewritten."]);
        FormDifferences
            .Between(Before with { SendOffs = [notNow] }, Before with { SendOffs = [notNow with { When = null, Title = "Not this time" }] })
            .Select(one => one.Sentence)
            .ShouldBe(["The send-off “Not this time” is taken under another condition.", "The send-off “Not this time” was rewritten."]);
    }

    /// <summary>The second way: two forms differ when their JSON does, whatever part of it.</summary>
    [Fact]
    public void Whatever_is_changed_in_a_form_is_said_and_nothing_is_said_of_equal_ones()
    {
        var everyKind = OnePage([
            .. QuestionKindTests.EachKind.Select((kind, index) => new Question($"q{index}", $"Question {index}", kind)),
        ]);
        string[] forms = [.. new[] { everyKind, ReadyForms.Inquiry("A wall", 1500, "EUR").Content }.Select(Write)];
        Gen.Select(Gen.Int[0, forms.Length - 1], Gen.Int[0, 100_000], Gen.Int[0, 100_000])
            .Sample(
                (which, where, how) =>
                {
                    var tree = JsonNode.Parse(forms[which])!;
                    var places = PlacesIn(tree).ToList();
                    Change(places[where % places.Count], how);
                    if (Read(tree) is not { } changed)
                        return;
                    var same = JsonNode.DeepEquals(JsonNode.Parse(Write(changed)), JsonNode.Parse(forms[which]));
                    var said = FormDifferences.Between(Read(JsonNode.Parse(forms[which])!)!, changed);
                    (said.Count == 0).ShouldBe(same, places[where % places.Count].GetPath());
                }
            );
    }

    private static IEnumerable<JsonNode> PlacesIn(JsonNode node) =>
        node switch
        {
            JsonObject map => map.Select(entry => entry.Value).OfType<JsonNode>().SelectMany(PlacesIn),
            JsonArray list => list.OfType<JsonNode>().SelectMany(PlacesIn).Append(list),
            _ => [node],
        };

    private static void Change(JsonNode at, int how)
    {
        if (at is JsonArray list)
        {
            if (list.Count == 0)
                return;
            var one = list[how % list.Count];
            list.Remove(one);
            if (how % 3 == 0)
                list.Add(one);
            return;
        }

        JsonNode? other = at.GetValueKind() switch
        {
            JsonValueKind.String => how % 4 == 0 ? null : at.GetValue<string>() + "x",
            JsonValueKind.Number => at.GetValue<decimal>() + 1,
            JsonValueKind.True => false,
            JsonValueKind.False => true,
            _ => null,
        };
        at.ReplaceWith(other);
    }

    private static FormContent? Read(JsonNode tree)
    {
        try
        {
            return tree.Deserialize<FormContent>(Strict);
        }
        catch (JsonException)
        {
            // No form any more: a kind, a width or a number that there is not.
            return null;
        }
    }

    private static string Write(FormContent form) => JsonSerializer.Serialize(form, RandomForms.Wire);

    private static IEnumerable<string> Said(FormContent after) => FormDifferences.Between(Before, after).Select(one => one.Sentence);
}
