using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using CsCheck;
using PorchLight.Core.Messages;

namespace PorchLight.Server.Tests;

/// <summary>What others wrote formats no message, as a parser of HTML sees it that knows nothing of ours.</summary>
public sealed class EscapeTests
{
    private static readonly MessageTemplate Letter = new(
        "Hello {firstName}",
        [
            new TextPart(
                "text",
                "Dear {firstName},\n{firstName}\n\n- {firstName}\n- **{firstName}** and more\n\n1. {firstName}\n\n[see {firstName}](https://ours.example/a) {firstName}[again](https://ours.example/b) {firstName}"
            ),
        ]
    );

    private static readonly string[] Traps =
    [
        "[Anna](https://evil.example/)",
        "](https://evil.example/) [x",
        "![a](019abc00-0000-7000-8000-00000000000a)",
        "**bold**",
        "- item",
        "1. item",
        "<b>x</b>",
        "https://evil.example/",
        "{firstName}",
    ];

    private static readonly Gen<string> Noise = Gen.Int[0, 12]
        .Array[1, 12]
        .Select(picks => string.Concat(picks.Select(pick => @"*[]()!\-.1 a<"[pick])));

    private static readonly Gen<string> Names = Gen.Select(
            Gen.Int[0, Traps.Length - 1].Select(pick => Traps[pick]),
            Noise,
            Gen.Int[0, 2],
            (trap, noise, which) =>
                which == 0 ? trap
                : which == 1 ? noise
                : $"{noise}{trap}"
        )
        .Select(name => name.Trim())
        .Where(name => name.Length > 0);

    [Fact]
    public void A_name_is_text_wherever_it_stands_in_a_message()
    {
        var plain = Shape(Written("x"));
        Names.Sample(
            name =>
            {
                var document = Written(name);
                Shape(document).ShouldBe(plain, name);
                document
                    .QuerySelectorAll("a")
                    .Select(link => link.GetAttribute("href"))
                    .ShouldBe(["https://ours.example/a", "https://ours.example/b"], name);
                Words(document.QuerySelector("p")!.TextContent).ShouldBe(Words($"Dear {name}, {name}"), name);
            },
            iter: 2000
        );
    }

    private static IDocument Written(string name) =>
        new HtmlParser().ParseDocument(
            FormattedText
                .Read(Letter.Draft(new Dictionary<string, string> { ["firstName"] = name }).FinishedText!)
                .ToHtml(_ => "cid:picture")
        );

    /// <summary>The elements in order, without their words and without line breaks.</summary>
    private static string Shape(IDocument document) =>
        string.Join(' ', document.Body!.QuerySelectorAll("*").Select(one => one.LocalName).Where(name => name != "br"));

    private static string Words(string text) => string.Concat(text.Where(c => !char.IsWhiteSpace(c)));
}
