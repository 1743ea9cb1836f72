using System.Globalization;
using System.Net;
using System.Text;
using System.Text.RegularExpressions;

namespace PorchLight.Core.Messages;

/// <summary>A run of words within a line.</summary>
/// <param name="Words">The words, as they are read.</param>
public abstract record Inline(string Words);

/// <summary>Words as they are.</summary>
/// <param name="Words">The words.</param>
/// <param name="IsBold">Whether they stand out.</param>
public sealed record PlainWords(string Words, bool IsBold = false) : Inline(Words);

/// <summary>Words that lead somewhere.</summary>
/// <param name="Words">What is read.</param>
/// <param name="Address">Where it leads: an address of the web or of mail.</param>
public sealed record LinkedWords(string Words, string Address) : Inline(Words);

/// <summary>A picture of the business's own files.</summary>
/// <param name="Words">What it shows, for those who do not see it.</param>
/// <param name="File">The identifier of the file.</param>
public sealed record Picture(string Words, Guid File) : Inline(Words);

/// <summary>How the lines of a block stand together.</summary>
public enum BlockKind
{
    /// <summary>Lines of running words.</summary>
    Paragraph,

    /// <summary>Each line is an item.</summary>
    List,

    /// <summary>Each line is an item with its number, from 1 on.</summary>
    NumberedList,
}

/// <summary>Lines that belong together.</summary>
/// <param name="Kind">How they stand together.</param>
/// <param name="Lines">The lines, at least one, each of which may be empty.</param>
public sealed record TextBlock(BlockKind Kind, IReadOnlyList<IReadOnlyList<Inline>> Lines);

/// <summary>
/// A message with the little formatting that mail needs, written as people write it by hand: <c>**bold**</c>, lines that begin with
/// <c>- </c> or <c>1. </c>, <c>[words](https://…)</c> and <c>![words](the identifier of a picture)</c>. Whatever is not quite one
/// of these stays the characters it is, and a backslash before <c>*</c>, <c>[</c>, <c>]</c>, <c>!</c>, or a backslash keeps that character,
/// as one does before the <c>-</c> or the full stop that would begin an item. Line ends stay line ends.
/// </summary>
/// <param name="Blocks">In reading order.</param>
public sealed partial record FormattedText(IReadOnlyList<TextBlock> Blocks)
{
    /// <summary>Reads a text. Every text can be read.</summary>
    /// <param name="text">The text; any line ends.</param>
    public static FormattedText Read(string text)
    {
        var blocks = new List<TextBlock>();
        var lines = new List<IReadOnlyList<Inline>>();
        BlockKind? kind = null;
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n'))
        {
            var here = Kind(line, kind == BlockKind.NumberedList ? lines.Count + 1 : 1);
            if (here != kind)
                End();
            if (here is { } of)
                (kind, lines) = (of, [.. lines, ReadLine(Body(line, of))]);
        }

        End();
        return new FormattedText(blocks);

        void End()
        {
            if (kind is { } of)
                blocks.Add(new TextBlock(of, lines));
            (kind, lines) = (null, []);
        }
    }

    /// <summary>Whether it says nothing that plain text does not say as well.</summary>
    public bool IsPlain =>
        Blocks.All(block => block.Lines.All(line => line.All(part => part is PlainWords { IsBold: false })))
        && Blocks.All(block => block.Kind == BlockKind.Paragraph);

    /// <summary>The pictures it shows, each once.</summary>
    public IReadOnlyList<Guid> Pictures =>
        [.. Blocks.SelectMany(block => block.Lines).SelectMany(line => line).OfType<Picture>().Select(picture => picture.File).Distinct()];

    /// <summary>The text for those who read mail without formatting: links with their address, pictures by their words.</summary>
    public string ToPlain() =>
        string.Join(
            "\n\n",
            Blocks.Select(block =>
                string.Join(
                    '\n',
                    block.Lines.Select(
                        (line, index) =>
                            block.Kind switch
                            {
                                BlockKind.List => "- ",
                                BlockKind.NumberedList => $"{(index + 1).ToString(CultureInfo.InvariantCulture)}. ",
                                _ => "",
                            } + string.Concat(line.Select(Plain))
                    )
                )
            )
        );

    /// <summary>The text as HTML: p, br, ul, ol, li, strong, a and img only, every character of the words encoded.</summary>
    /// <param name="picture">The address of a picture; null where it is not there any more, and its words stand for it.</param>
    public string ToHtml(Func<Guid, string?> picture)
    {
        var html = new StringBuilder();
        foreach (var block in Blocks)
        {
            var (open, close) = block.Kind switch
            {
                BlockKind.List => ("<ul>", "</ul>"),
                BlockKind.NumberedList => ("<ol>", "</ol>"),
                _ => ("<p>", "</p>"),
            };
            var lines = block.Lines.Select(line => string.Concat(line.Select(part => Html(part, picture))));
            html.Append(open)
                .Append(
                    block.Kind == BlockKind.Paragraph ? string.Join("<br>", lines) : string.Concat(lines.Select(line => $"<li>{line}</li>"))
                )
                .Append(close);
        }

        return html.ToString();
    }

    /// <summary>
    /// Words that are read back as nothing but themselves, wherever in a text they come to stand: what others wrote formats no message.
    /// </summary>
    /// <param name="words">Any words; line ends stay, and begin no items.</param>
    public static string Escape(string words) => ItemMark().Replace(Special().Replace(words, "\\$0"), @"${before}\${mark} ");

    // Only the number that comes next makes an item: other numbers are words, and stay as they were written.
    private static BlockKind? Kind(string line, int next) =>
        string.IsNullOrWhiteSpace(line) ? null
        : line.StartsWith("- ", StringComparison.Ordinal) ? BlockKind.List
        : line.StartsWith($"{next.ToString(CultureInfo.InvariantCulture)}. ", StringComparison.Ordinal) ? BlockKind.NumberedList
        : BlockKind.Paragraph;

    private static string Body(string line, BlockKind kind) =>
        kind switch
        {
            BlockKind.List => line[2..].Trim(),
            BlockKind.NumberedList => line[Number().Match(line).Length..].Trim(),
            _ => line.Trim(),
        };

    private static List<Inline> ReadLine(string line)
    {
        var (parts, words) = (new List<Inline>(), new StringBuilder());
        var isBold = false;
        for (var at = 0; at < line.Length; )
        {
            if (line[at] == '\\' && at + 1 < line.Length && IsKept(line, at + 1))
            {
                words.Append(line[at + 1]);
                at += 2;
            }
            else if (Marks(line, at) && (isBold ? Ends(line, at) : Begins(line, at)))
            {
                Say();
                isBold = !isBold;
                at += 2;
            }
            else if (Linked().Match(line, at) is { Success: true, Index: var begins } found && begins == at && Meant(found) is { } meant)
            {
                Say();
                parts.Add(meant);
                at += found.Length;
            }
            else
            {
                words.Append(line[at++]);
            }
        }

        Say();
        return parts;

        void Say()
        {
            if (words.Length > 0)
                parts.Add(new PlainWords(words.ToString(), isBold));
            words.Clear();
        }
    }

    private static bool IsKept(string line, int at) =>
        line[at] is '*' or '[' or ']' or '!' or '\\' || (line[at] is '-' or '.' && at + 1 < line.Length && line[at + 1] == ' ');

    private static bool Marks(string line, int at) => at + 1 < line.Length && line[at] == '*' && line[at + 1] == '*';

    private static bool Ends(string line, int at) => !char.IsWhiteSpace(line[at - 1]);

    /// <summary>Whether bold words begin here, close to the mark, and also end.</summary>
    private static bool Begins(string line, int from)
    {
        var first = from + 2;
        if (first >= line.Length || char.IsWhiteSpace(line[first]) || line[first] == '*')
            return false;
        for (var at = first; at < line.Length; at++)
        {
            if (line[at] == '\\')
                at++;
            else if (Marks(line, at) && Ends(line, at))
                return true;
        }

        return false;
    }

    private static Inline? Meant(Match found)
    {
        var (words, target) = (Unescaped(found.Groups["words"].Value), found.Groups["target"].Value);
        if (found.Groups["picture"].Length > 0)
            return Guid.TryParse(target, out var file) ? new Picture(words, file) : null;
        return words.Length > 0 && Uri.TryCreate(target, UriKind.Absolute, out var uri) && uri.Scheme is "http" or "https" or "mailto"
            ? new LinkedWords(words, target)
            : null;
    }

    private static string Unescaped(string words) => Escaped().Replace(words, "$1");

    private static string Plain(Inline part) =>
        part switch
        {
            LinkedWords link when link.Words == link.Address || $"mailto:{link.Words}" == link.Address => link.Words,
            LinkedWords link => $"{link.Words} ({link.Address})",
            Picture picture => $"[{picture.Words}]",
            _ => part.Words,
        };

    private static string Html(Inline part, Func<Guid, string?> picture) =>
        part switch
        {
            PlainWords { IsBold: true } => $"<strong>{Encode(part.Words)}</strong>",
            LinkedWords link => $"<a href=\"{Encode(link.Address)}\">{Encode(link.Words)}</a>",
            Picture shown when picture(shown.File) is { } address => $"<img src=\"{Encode(address)}\" alt=\"{Encode(shown.Words)}\">",
            Picture shown => Encode($"[{shown.Words}]"),
            _ => Encode(part.Words),
        };

    private static string Encode(string words) => WebUtility.HtmlEncode(words);

    [GeneratedRegex(@"^\d{1,3}\. ", RegexOptions.CultureInvariant)]
    private static partial Regex Number();

    [GeneratedRegex(@"(?<picture>!?)\[(?<words>(?:\\.|[^\[\]\\])*)\]\((?<target>[^\s()]+)\)", RegexOptions.CultureInvariant)]
    private static partial Regex Linked();

    [GeneratedRegex(@"[*\[\]!\\]", RegexOptions.CultureInvariant)]
    private static partial Regex Special();

    [GeneratedRegex(@"(?<before>^\s*\d*)(?<mark>[-.]) ", RegexOptions.CultureInvariant | RegexOptions.Multiline)]
    private static partial Regex ItemMark();

    [GeneratedRegex(@"\\([*\[\]!\\]|[-.](?= ))", RegexOptions.CultureInvariant)]
    private static partial Regex Escaped();
}
