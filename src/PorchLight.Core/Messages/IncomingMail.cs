namespace PorchLight.Core.Messages;

/// <summary>What a message that comes in is.</summary>
public enum IncomingKind
{
    /// <summary>Somebody wrote it.</summary>
    Reply,

    /// <summary>A program wrote it: an absence note, a receipt, a notice of delay, a mailing.</summary>
    Automatic,

    /// <summary>It says that a message of ours could not be delivered.</summary>
    CameBack,
}

/// <summary>What the head of a message says about who wrote it.</summary>
/// <param name="AutoSubmitted">The field Auto-Submitted (RFC 3834, 5); null where it is missing.</param>
/// <param name="ReportType">The report type of a multipart/report (RFC 6522); null for anything else.</param>
/// <param name="DeliveryActions">The actions a delivery status names, one for each recipient (RFC 3464, 2.3.3); else empty.</param>
/// <param name="ReturnPath">The field Return-Path, as it stands there; null where it is missing.</param>
/// <param name="Precedence">The field Precedence; null where it is missing.</param>
/// <param name="IsOfList">Whether it came over a mailing list (RFC 2919, RFC 2369).</param>
public sealed record IncomingHead(
    string? AutoSubmitted,
    string? ReportType,
    IReadOnlyList<string> DeliveryActions,
    string? ReturnPath,
    string? Precedence,
    bool IsOfList
);

/// <summary>Tells what people write from what programs write: only the first is a reply.</summary>
public static class IncomingMail
{
    private static readonly string[] InBulk = ["bulk", "junk", "list", "auto_reply"];

    /// <summary>
    /// What a message is. A delivery status came back where one recipient at least failed; one that reports a delay or a success is
    /// automatic, and so are all other reports, what says so itself, what must not be answered (an empty Return-Path, RFC 5321, 4.5.5),
    /// and bulk mail (Precedence: common practice, named in RFC 3834, 2).
    /// </summary>
    /// <param name="head">What its head says.</param>
    public static IncomingKind Of(IncomingHead head)
    {
        if (Is(head.ReportType, "delivery-status"))
            return head.DeliveryActions.Any(action => Is(action, "failed")) ? IncomingKind.CameBack : IncomingKind.Automatic;
        return
            head.ReportType is not null
            || head.AutoSubmitted is { } submitted && !Is(Bare(submitted), "no")
            || head.ReturnPath is { } path && path.Replace(" ", "", StringComparison.Ordinal) == "<>"
            || InBulk.Any(word => Is(head.Precedence, word))
            || head.IsOfList
            ? IncomingKind.Automatic
            : IncomingKind.Reply;
    }

    /// <summary>Why a message came back, as a sentence, from its status (RFC 3463).</summary>
    /// <param name="status">The status: "5.1.1"; null where there is none.</param>
    public static string SayWhy(string? status) =>
        Detail(status) switch
        {
            "1.1" or "1.2" or "1.3" or "1.6" or "1.10" => "Returned: there is no such address.",
            "2.1" => "It came back: their mailbox takes nothing at the moment.",
            "2.2" => "It came back: their mailbox is full.",
            "2.3" or "3.4" => "It came back: it is too large for their mailbox.",
            "4.1" or "4.2" or "4.4" or "4.7" or "4.3" => "It came back: their mail server could not be reached.",
            { } detail when detail.StartsWith("7.", StringComparison.Ordinal) => "It came back: their mail server does not want it.",
            _ => "It came back: it could not be delivered.",
        };

    private static string? Detail(string? status) =>
        status?.Trim().Split('.') is [_, var subject, var detail] ? $"{subject}.{detail}" : null;

    /// <summary>A value without comments and parameters: "auto-replied (rejected); owner-email=…" is "auto-replied".</summary>
    private static string Bare(string value)
    {
        var (kept, depth) = (new System.Text.StringBuilder(), 0);
        foreach (var letter in value)
        {
            if (letter == '(')
                depth++;
            else if (letter == ')')
                depth = Math.Max(0, depth - 1);
            else if (depth == 0 && letter == ';')
                break;
            else if (depth == 0)
                kept.Append(letter);
        }

        return kept.ToString().Trim();
    }

    private static bool Is(string? value, string word) => string.Equals(value?.Trim(), word, StringComparison.OrdinalIgnoreCase);
}
