using CsCheck;
using NodaTime;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class InquiryTurnTests
{
    private static readonly Guid Owner = Guid.CreateVersion7();
    private static readonly InquiryTurn Owed = InquiryTurn.At(At(0), owesReply: true);

    [Fact]
    public void A_persons_word_keeps_the_promise_and_an_automatic_one_does_not()
    {
        Owed.After(new MessageSent("Thank you", "thanks", null), At(1)).PromiseStopped.ShouldBeNull();
        Owed.After(new MessageSent("Your wall", null, Owner), At(1)).PromiseStopped.ShouldBe(At(1));
        Owed.After(new AnsweredElsewhere(Owner), At(1)).PromiseStopped.ShouldBe(At(1));
        Owed.After(new MeetingBooked(), At(1)).PromiseStopped.ShouldBe(At(1));
    }

    [Fact]
    public void The_first_word_counts_and_later_ones_only_answer_what_they_wrote()
    {
        var kept = Owed.After(new AnsweredElsewhere(Owner), At(1)).After(new ReplyReceived("Re: wall"), At(2));
        kept.ShouldBe(new InquiryTurn(At(1), At(2), null));
        kept.After(new MessageSent("Re: wall", null, Owner), At(3)).ShouldBe(new InquiryTurn(At(1), null, null));
    }

    [Fact]
    public void Nothing_is_owed_to_whom_the_page_said_no() => InquiryTurn.At(At(5), owesReply: false).PromiseStopped.ShouldBe(At(5));

    [Fact]
    public void A_closing_that_is_taken_back_brings_back_only_the_promise_that_it_ended()
    {
        Owed.After(new InquiryClosed(Owner), At(1)).After(new InquiryReopened(Owner), At(2)).ShouldBe(Owed);
        var kept = Owed.After(new AnsweredElsewhere(Owner), At(1));
        kept.After(new InquiryClosed(Owner), At(2)).After(new InquiryReopened(Owner), At(3)).ShouldBe(kept);
    }

    [Fact]
    public void Whose_turn_it_is_can_be_read_off_the_whole_history() =>
        Gen.Int[0, 5]
            .List[0, 10]
            .Sample(kinds =>
            {
                var history = kinds.Select((kind, index) => (What: Kinds[kind], At: At(index + 1))).ToList();
                var turn = history.Aggregate(Owed, (now, happened) => now.After(happened.What, happened.At));

                // A second way: look back over everything that happened, as somebody who reads the timeline does.
                Instant? closed = null;
                foreach (var (what, at) in history)
                {
                    if (what is InquiryClosed)
                        closed ??= at;
                    if (what is InquiryReopened)
                        closed = null;
                }

                turn.Closed.ShouldBe(closed);
                var lastWord = history.FindLastIndex(happened => happened.What is MeetingBooked or MessageSent { By: not null });
                var lastTheirs = history.FindLastIndex(happened => happened.What is ReplyReceived);
                var lastClosing = closed is { } since ? history.FindIndex(happened => happened.At == since) : -1;
                var everClosedSince = history
                    .Select((happened, index) => (happened, index))
                    .Any(one => one.happened.What is InquiryClosed && one.index > lastTheirs && IsClosing(history, one.index));
                turn.WroteBack.ShouldBe(
                    lastTheirs < 0 || lastTheirs < lastWord || lastTheirs < lastClosing || everClosedSince ? null : history[lastTheirs].At
                );
                if (lastWord >= 0)
                    turn.PromiseStopped.ShouldNotBeNull();
                else if (closed is null)
                    turn.PromiseStopped.ShouldBeNull();
                else
                    turn.PromiseStopped.ShouldBe(closed);
            });

    private static readonly DomainEvent[] Kinds =
    [
        new ReplyReceived("Re: wall"),
        new MessageSent("Your wall", null, Owner),
        new MessageSent("Thank you", "thanks", null),
        new MeetingBooked(),
        new InquiryClosed(Owner),
        new InquiryReopened(Owner),
    ];

    /// <summary>Whether a closing closes: the inquiry was open just before.</summary>
    private static bool IsClosing(List<(DomainEvent What, Instant At)> history, int index) =>
        history.Take(index).LastOrDefault(happened => happened.What is InquiryClosed or InquiryReopened).What is not InquiryClosed;

    private static Instant At(int hour) => Instant.FromUtc(2026, 11, 23, 8, 0) + Duration.FromHours(hour);
}
