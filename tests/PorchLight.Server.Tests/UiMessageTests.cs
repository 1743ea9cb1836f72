using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests;

/// <summary>
/// The document in which one writes a message (<c>messages/editor</c>) beside what is sent of it: it shows every text as the server reads
/// it, and what it writes is read as what it showed.
/// </summary>
public sealed class UiMessageTests
{
    private const string Answer = """
        const { text, stage } = asked;
        const doc = code.readParts([{ kind: "text", key: "t", text }], stage);
        const [{ text: written }] = code.writeParts(doc, stage);
        const known = ({ name, fallback }) => (fallback ? `{${name}|${fallback}}` : `{${name}}`);
        const mark = (node, type) => (node.marks ?? []).find((one) => one.type === type);
        const line = (kind) => (paragraph) => ({
          kind,
          runs: (paragraph.content ?? []).map((node) => ({
            words: node.type === "known" ? known(node.attrs) : node.type === "picture" ? node.attrs.words : node.text,
            bold: !!mark(node, "bold"),
            address: mark(node, "link")?.attrs.href ?? null,
            file: node.attrs?.file ?? null,
          })),
        });
        const kinds = { bulletList: "List", orderedList: "NumberedList" };
        const lines = doc.content.flatMap((block) =>
          block.type === "paragraph" ? [line("Paragraph")(block)] : block.content.map((item) => line(kinds[block.type])(item.content[0])),
        );
        const [{ text: again }] = code.writeParts(code.readParts([{ kind: "text", key: "t", text: written }], stage), stage);
        return { lines, written, again };
        """;

    private static readonly Dictionary<string, string> Known = new()
    {
        ["firstName"] = "https://known.example/Tilda",
        ["a"] = "https://known.example/a",
        ["link"] = "https://known.example/f/1",
    };

    [Fact]
    public Task A_value_nobody_knows_is_shown_with_what_stands_in_its_place() =>
        ShouldBeShownAsItIsSentAsync(["{aa|x}\\[here](https://example.com/{firstName})-", "{aa|x}", "{aa}", "**{aa|x}** b"]);

    [Fact]
    public Task Every_text_is_shown_as_it_is_sent_and_what_is_written_again_is_sent_the_same() =>
        ShouldBeShownAsItIsSentAsync(Text.Array[3000].Single());

    [Fact]
    public async Task Parts_are_the_same_parts_again_and_a_draft_can_be_revised_with_them()
    {
        string[] words = ["Dear **Tilda**,", "- a\n- b", "One.\n\nTwo.", "1. x", "Warmly\nMaren"];
        var drafts = Gen.Select(Gen.Bool, Gen.Int[0, words.Length - 1], (isGap, which) => (isGap, Text: words[which]))
            .Array[1, 7]
            .Select(parts =>
                parts.Select(
                    (part, index) =>
                        part.isGap ? new GapPart($"p{index}", "a line", part.Text) : (MessagePart)new TextPart($"p{index}", part.Text)
                )
            )
            .Select(parts => new MessageDraft("About it", [.. parts]))
            .Array[200]
            .Single();
        var answers = await UiCode.AnswersAsync(
            "business/messages/editor/messageDocument.ts",
            """return code.writeParts(code.readParts(asked.parts, "draft"), "draft");""",
            drafts.Select(draft => JsonSerializer.Serialize(draft, Json.Options))
        );
        foreach (var (draft, answer) in drafts.Zip(answers))
        {
            var again = draft with { Parts = answer.Deserialize<List<MessagePart>>(Json.Options)! };
            again.Parts.ShouldBe(draft.Parts);
            draft.Revise(again)!.FinishedText.ShouldBe(draft.FinishedText);
        }
    }

    private static async Task ShouldBeShownAsItIsSentAsync(string[] texts)
    {
        foreach (var stage in (string[])["template", "draft"])
        {
            var answers = await UiCode.AnswersAsync(
                "business/messages/editor/messageDocument.ts",
                Answer,
                texts.Select(text => new JsonObject { ["text"] = text, ["stage"] = stage }.ToJsonString())
            );
            answers.Count.ShouldBe(texts.Length);
            foreach (var (text, answer) in texts.Zip(answers))
            {
                var sent = Letters(FormattedText.Read(Filled(text)));
                var about = $"{stage}\n{JsonSerializer.Serialize(text)}\n{answer.ToJsonString()}";
                Letters(answer["lines"]!.AsArray().Select(line => Shown(line!, Filled))).ShouldBe(sent, about);
                Letters(FormattedText.Read(Filled((string)answer["written"]!))).ShouldBe(sent, about);
                ((string)answer["again"]!).ShouldBe((string)answer["written"]!, "what was written once is written the same again");
            }

            string Filled(string words) => stage == "template" ? KnownValues.Fill(words, Known) : words;
        }
    }

    private static (BlockKind Kind, IReadOnlyList<Inline> Line) Shown(JsonNode line, Func<string, string> filled) =>
        (
            Enum.Parse<BlockKind>((string)line["kind"]!),
            [
                .. line["runs"]!
                    .AsArray()
                    .Select(run =>
                    {
                        var words = filled((string)run!["words"]!);
                        return (string?)run["file"] is { } file ? new Picture(words, Guid.Parse(file))
                            : (string?)run["address"] is { } address ? new LinkedWords(words, filled(address))
                            : (Inline)new PlainWords(words, (bool)run["bold"]!);
                    }),
            ]
        );

    private static List<string> Letters(FormattedText text) =>
        Letters(text.Blocks.SelectMany(block => block.Lines.Select(line => (block.Kind, line))));

    /// <summary>What the lines come to, letter by letter: a blank is not bold, nor is one at the ends, and a line without words is none.</summary>
    private static List<string> Letters(IEnumerable<(BlockKind Kind, IReadOnlyList<Inline> Line)> lines)
    {
        var letters = lines
            .Select(line =>
                (
                    line.Kind,
                    Said: string.Concat(
                            line.Line.Select(part =>
                                part switch
                                {
                                    Picture picture => $"<{picture.Words} {picture.File}>",
                                    LinkedWords link => string.Concat(link.Words.Select(letter => $"{letter}<{link.Address}>")),
                                    PlainWords { IsBold: true } bold => string.Concat(
                                        bold.Words.Select(letter => letter == ' ' ? " " : $"{letter}<b>")
                                    ),
                                    _ => part.Words,
                                }
                            )
                        )
                        .Trim()
                )
            )
            .ToList();
        var (first, last) = (letters.FindIndex(line => line.Said.Length > 0), letters.FindLastIndex(line => line.Said.Length > 0));
        return first < 0
            ? []
            :
            [
                .. letters[first..(last + 1)]
                    .Where(line => line.Said.Length > 0 || line.Kind != BlockKind.Paragraph)
                    .Select(line => $"{line.Kind} {line.Said}"),
            ];
    }

    private static Gen<string> Text { get; } =
        Gen.Int[0, Pieces.Length - 1].Array[0, 14].Select(chosen => string.Concat(chosen.Select(piece => Pieces[piece])));

    private static string[] Pieces =>
        [
            "**",
            "*",
            "[",
            "](",
            ")",
            "!",
            "\\",
            "- ",
            "-",
            "1. ",
            "2. ",
            "a",
            "b c",
            " ",
            "\n",
            "\n",
            "\n\n",
            "{firstName}",
            "{firstName|friend}",
            "{",
            "|x}",
            "(https://example.com)",
            "[here](https://example.com/{firstName})",
            "[{firstName}'s page]({link})",
            "https://example.com",
            "mailto:a@example.com",
            "javascript:",
            "![wall](019abc00-0000-7000-8000-00000000000a)",
        ];
}
