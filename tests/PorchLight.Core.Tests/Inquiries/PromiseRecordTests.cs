using CsCheck;
using NodaTime;
using PorchLight.Core.Inquiries;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class PromiseRecordTests
{
    private static readonly Instant Due = Instant.FromUtc(2026, 11, 24, 15, 0);
    private static readonly Instant Before = Due - Duration.FromHours(1);
    private static readonly Instant After = Due + Duration.FromTicks(1);

    [Fact]
    public void A_reply_at_the_promised_instant_is_in_time_and_a_moment_later_it_is_not()
    {
        PromiseRecord.Of([new PromisedReply(Due, Due, null)], After).ShouldBe(new PromiseRecord(1, 0));
        PromiseRecord.Of([new PromisedReply(Due, After, null)], After).ShouldBe(new PromiseRecord(0, 1));
    }

    [Fact]
    public void What_still_stands_counts_only_once_it_is_late_and_closing_in_time_counts_as_neither()
    {
        PromiseRecord.Of([new PromisedReply(Due, null, null)], Due).Decided.ShouldBe(0);
        PromiseRecord.Of([new PromisedReply(Due, null, null)], After).ShouldBe(new PromiseRecord(0, 1));
        PromiseRecord.Of([new PromisedReply(Due, Before, Before)], After).Decided.ShouldBe(0, "nobody wrote");
        PromiseRecord.Of([new PromisedReply(Due, After, After)], After).ShouldBe(new PromiseRecord(0, 1), "closing late does not mend it");
        PromiseRecord.Of([new PromisedReply(Due, Before, After)], After).ShouldBe(new PromiseRecord(1, 0), "answered, then closed");
    }

    [Fact]
    public void Of_any_promises_every_one_is_kept_broken_or_undecided_as_a_second_way_finds()
    {
        var hours = Gen.Int[-3, 3].Select(hour => Due + Duration.FromHours(hour));
        var perhaps = Gen.Int[-7, 3].Select(hour => hour < -3 ? (Instant?)null : Due + Duration.FromHours(hour));
        Gen.Select(hours, perhaps, perhaps, hours, (by, stopped, closed, now) => (Reply: new PromisedReply(by, stopped, closed), now))
            .Sample(one =>
            {
                var (kept, broken) = one.Reply switch
                {
                    { Stopped: null } waiting => (0, waiting.By < one.now ? 1 : 0),
                    { Stopped: { } at } done when at.CompareTo(done.By) > 0 => (0, 1),
                    { Stopped: { } at, Closed: { } closed } when at == closed => (0, 0),
                    _ => (1, 0),
                };
                return PromiseRecord.Of([one.Reply, one.Reply], one.now) == new PromiseRecord(2 * kept, 2 * broken);
            });
    }

    [Theory]
    [InlineData(0, 0, null)]
    [InlineData(1, 0, "You kept the one promise of the last 90 days.")]
    [InlineData(12, 0, "You kept all 12 promises of the last 90 days.")]
    [InlineData(0, 1, "You kept 0 of 1 promise in the last 90 days (0 %).")]
    [InlineData(199, 1, "You kept 199 of 200 promises in the last 90 days (99 %).")]
    public void It_is_said_in_a_sentence_that_never_rounds_a_broken_one_away(int kept, int broken, string? words) =>
        new PromiseRecord(kept, broken).Say().ShouldBe(words);
}
