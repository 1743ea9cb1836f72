using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using MimeKit;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using MessagePart = MimeKit.MessagePart;

namespace PorchLight.Server.Messages;

/// <summary>Reads messages that come in.</summary>
internal static class MailText
{
    private const int Longest = 20_000;

    private static readonly HashSet<string> Blocks = new(StringComparer.OrdinalIgnoreCase)
    {
        "p",
        "div",
        "br",
        "li",
        "tr",
        "h1",
        "h2",
        "h3",
        "h4",
        "blockquote",
        "ul",
        "ol",
        "table",
    };

    /// <summary>The words of a message in plain text; of one that has only HTML what a person would read of it.</summary>
    public static string Of(MimeMessage message)
    {
        var text = message.TextBody ?? (message.HtmlBody is { } html ? Plain(html) : "");
        text = text.ReplaceLineEndings("\n").Trim();
        return text.Length <= Longest ? text : UnicodeText.Start(text, Longest) + " …";
    }

    /// <summary>What its head says about who wrote it.</summary>
    public static IncomingHead HeadOf(MimeMessage message) =>
        new(
            message.Headers[HeaderId.AutoSubmitted],
            message.Body is MultipartReport report ? report.ReportType ?? "" : null,
            [.. StatusOf(message).Select(group => group["Action"]).OfType<string>()],
            message.Headers[HeaderId.ReturnPath],
            message.Headers[HeaderId.Precedence],
            message.Headers.Contains(HeaderId.ListId) || message.Headers.Contains(HeaderId.ListUnsubscribe)
        );

    /// <summary>What a delivery status says of each recipient (RFC 3464, 2.3); nothing for any other message.</summary>
    public static IEnumerable<HeaderList> StatusOf(MimeMessage message) =>
        message.Body is MultipartReport report && report.OfType<MessageDeliveryStatus>().FirstOrDefault() is { } status
            ? status.StatusGroups.Skip(1)
            : [];

    /// <summary>The names of our messages that it may be about, the likeliest first.</summary>
    public static IReadOnlyList<string> Refers(MimeMessage message)
    {
        var reported = message.Body is MultipartReport report
            ? report.OfType<MessagePart>().Select(part => part.Message?.MessageId).OfType<string>()
            : [];
        return
        [
            .. reported
                .Concat(message.InReplyTo is { } answered ? [answered] : [])
                .Concat(message.References.Reverse())
                .Select(id => $"<{id.Trim('<', '>')}>")
                .Distinct(),
        ];
    }

    private static string Plain(string html)
    {
        var lines = new System.Text.StringBuilder();
        Read(new HtmlParser().ParseDocument(html).Body, lines);
        return string.Join('\n', lines.ToString().Split('\n').Select(line => line.Trim()))
            .Replace("\n\n\n", "\n\n", StringComparison.Ordinal);
    }

    private static void Read(INode? node, System.Text.StringBuilder lines)
    {
        switch (node)
        {
            case IText text:
                lines.Append(
                    string.Join(' ', text.Text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)) is { Length: > 0 } words
                        ? words + " "
                        : ""
                );
                break;
            case IElement element when element.LocalName is "script" or "style" or "template" or "head" or "title":
                break;
            case not null:
                foreach (var child in node.ChildNodes)
                    Read(child, lines);
                if (node is IElement block && Blocks.Contains(block.LocalName))
                    lines.Append('\n');
                break;
        }
    }
}
