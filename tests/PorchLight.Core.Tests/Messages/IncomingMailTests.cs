using CsCheck;
using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.Messages;

public sealed class IncomingMailTests
{
    /// <summary>RFC 3834, 5: the values of Auto-Submitted, in any case, with comments and parameters.</summary>
    [Theory]
    [InlineData(null, IncomingKind.Reply)]
    [InlineData("no", IncomingKind.Reply)]
    [InlineData("No (a person wrote it)", IncomingKind.Reply)]
    [InlineData("auto-generated", IncomingKind.Automatic)]
    [InlineData("AUTO-REPLIED", IncomingKind.Automatic)]
    [InlineData("auto-replied; owner-email=\"someone@example.com\"", IncomingKind.Automatic)]
    [InlineData("(comment) auto-notified", IncomingKind.Automatic)]
    public void What_says_itself_that_a_program_sent_it_is_no_reply(string? submitted, IncomingKind kind) =>
        IncomingMail.Of(Plain with { AutoSubmitted = submitted }).ShouldBe(kind);

    /// <summary>RFC 3464, 2.3.3: the actions of a delivery status. RFC 6522 and RFC 8098: other reports.</summary>
    [Theory]
    [InlineData("delivery-status", "failed", IncomingKind.CameBack)]
    [InlineData("Delivery-Status", "delivered failed", IncomingKind.CameBack)]
    [InlineData("delivery-status", "delayed", IncomingKind.Automatic)]
    [InlineData("delivery-status", "delivered", IncomingKind.Automatic)]
    [InlineData("delivery-status", "relayed expanded", IncomingKind.Automatic)]
    [InlineData("disposition-notification", "", IncomingKind.Automatic)]
    [InlineData("feedback-report", "", IncomingKind.Automatic)]
    public void A_report_comes_back_only_where_delivery_failed(string type, string actions, IncomingKind kind) =>
        IncomingMail
            .Of(Plain with { ReportType = type, DeliveryActions = actions.Split(' ', StringSplitOptions.RemoveEmptyEntries) })
            .ShouldBe(kind);

    /// <summary>RFC 5321, 4.5.5: what must not be answered has an empty path. RFC 2919: lists. Precedence: common practice.</summary>
    [Fact]
    public void What_must_not_be_answered_and_what_goes_to_many_is_no_reply()
    {
        IncomingMail.Of(Plain with { ReturnPath = "<>" }).ShouldBe(IncomingKind.Automatic);
        IncomingMail.Of(Plain with { ReturnPath = "<ada@example.com>" }).ShouldBe(IncomingKind.Reply);
        IncomingMail.Of(Plain with { Precedence = "Bulk" }).ShouldBe(IncomingKind.Automatic);
        IncomingMail.Of(Plain with { Precedence = "first-class" }).ShouldBe(IncomingKind.Reply);
        IncomingMail.Of(Plain with { IsOfList = true }).ShouldBe(IncomingKind.Automatic);
    }

    /// <summary>RFC 3463, 3: the enumerated status codes.</summary>
    [Theory]
    [InlineData("5.1.1", "no such address")]
    [InlineData("5.1.2", "no such address")]
    [InlineData("5.2.2", "mailbox is full")]
    [InlineData("5.3.4", "too large")]
    [InlineData("4.4.7", "could not be reached")]
    [InlineData("5.7.1", "does not want it")]
    [InlineData("5.0.0", "could not be delivered")]
    [InlineData("", "could not be delivered")]
    [InlineData(null, "could not be delivered")]
    public void Why_it_came_back_is_said_in_everyday_words(string? status, string words) =>
        IncomingMail.SayWhy(status).ShouldContain(words);

    [Theory]
    [InlineData("Yes, gladly.", "Yes, gladly.", "")]
    [InlineData("Yes.\n\nOn Monday Maren wrote:\n> Shall we?\n> M.\n", "Yes.", "On Monday Maren wrote:\n> Shall we?\n> M.")]
    [InlineData("Yes.\n\nAm Montag schrieb Maren:\n\n> Passt es?\n", "Yes.", "Am Montag schrieb Maren:\n\n> Passt es?")]
    [InlineData("Yes.\n> Shall we?", "Yes.", "> Shall we?")]
    [InlineData("> Shall we?\nYes.", "> Shall we?\nYes.", "")]
    [InlineData("> Shall we?\nYes.\n> When?\n", "> Shall we?\nYes.\n> When?", "")]
    [InlineData("> only a quote", "> only a quote", "")]
    [InlineData("It is so:\nfine", "It is so:\nfine", "")]
    [InlineData("", "", "")]
    public void What_is_quoted_at_the_end_is_told_from_what_they_wrote(string text, string own, string quoted) =>
        QuotedText.Split(text).ShouldBe(new QuotedText(own, quoted));

    [Fact]
    public void Splitting_loses_no_line_and_never_leaves_a_person_without_words()
    {
        string[] lines = ["> quoted", ">", "", "  ", "words", "On Monday she wrote:", "more words"];
        Gen.Int[0, lines.Length - 1]
            .Array[0, 8]
            .Sample(chosen =>
            {
                var text = string.Join("\r\n", chosen.Select(line => lines[line]));
                var (own, quoted) = QuotedText.Split(text);
                Filled(own).Concat(Filled(quoted)).ShouldBe(Filled(text.ReplaceLineEndings("\n")));
                (own.Length == 0).ShouldBe(string.IsNullOrWhiteSpace(text));
                if (quoted.Length > 0)
                    Filled(own).ShouldAllBe(one => !one.StartsWith('>'));
            });

        static IEnumerable<string> Filled(string text) => text.Split('\n').Select(one => one.Trim()).Where(one => one.Length > 0);
    }

    /// <summary>RFC 5322, 3.6.5: "Re: " once.</summary>
    [Theory]
    [InlineData("Your wall", "Re: Your wall")]
    [InlineData("Re: Your wall", "Re: Your wall")]
    [InlineData("RE: Your wall", "RE: Your wall")]
    [InlineData("Rewrite it", "Re: Rewrite it")]
    public void An_answer_says_so_once_in_its_subject(string subject, string answer) => MailSubject.Answering(subject).ShouldBe(answer);

    private static IncomingHead Plain { get; } = new(null, null, [], null, null, false);

    [Theory]
    [InlineData(
        "Yes, gladly.\n\nOn Tue, 1 Dec 2026 at 10:00, Maren Tolliver <maren@ochrewren.example>\nwrote:\n\n> Shall we talk?",
        "Yes, gladly."
    )]
    [InlineData("Ja.\n\nAm Di., 1. Dez. 2026 um 10:00 Uhr\nschrieb Maren <maren@ochrewren.example>:\n> Wann?", "Ja.")]
    [InlineData("We need:\n> quotes", "We need:\n> quotes")]
    [InlineData("On second thoughts\nI wrote:\n> no", "On second thoughts")]
    public void The_line_above_a_quote_goes_with_it_also_where_it_was_broken(string text, string own) =>
        QuotedText.Split(text).Own.ShouldBe(own);
}
