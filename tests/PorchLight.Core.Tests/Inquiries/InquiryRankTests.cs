using CsCheck;
using NodaTime;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class InquiryRankTests
{
    private static readonly Instant Came = Instant.FromUtc(2026, 11, 23, 9, 0);
    private static readonly Instant Due = Came + Duration.FromDays(2);
    private static readonly Instant Later = Came + Duration.FromHours(3);

    [Theory]
    [InlineData(StageKind.Open, false, false, false, InquiryNeed.Reply)]
    [InlineData(StageKind.Open, true, false, false, InquiryNeed.Theirs)]
    [InlineData(StageKind.Open, true, true, false, InquiryNeed.Reply)]
    [InlineData(StageKind.Won, true, true, false, InquiryNeed.Reply)]
    [InlineData(StageKind.Won, true, false, false, InquiryNeed.Agreed)]
    [InlineData(StageKind.Parked, true, false, false, InquiryNeed.Parked)]
    [InlineData(StageKind.Lost, true, false, false, InquiryNeed.Ended)]
    [InlineData(StageKind.Done, true, false, false, InquiryNeed.Ended)]
    [InlineData(StageKind.Open, true, false, true, InquiryNeed.Ended)]
    public void What_it_needs_follows_from_its_turn_and_from_the_stage(
        StageKind stage,
        bool answered,
        bool wroteBack,
        bool closed,
        InquiryNeed need
    ) => Of(new InquiryTurn(answered ? Later : null, wroteBack ? Later : null, closed ? Later : null), stage).Need.ShouldBe(need);

    [Fact]
    public void Who_was_turned_away_on_the_page_is_new_and_nothing_is_promised() =>
        Of(InquiryTurn.At(Came, owesReply: false), StageKind.Open).Need.ShouldBe(InquiryNeed.New);

    [Fact]
    public void Among_those_who_wait_whose_time_is_up_first_is_first_however_it_came_about()
    {
        var owed = Of(InquiryTurn.At(Came, owesReply: true), StageKind.Open);
        var wrote = Of(new InquiryTurn(Later, Later, null), StageKind.Open);
        var unpromised = InquiryRank.Of(InquiryTurn.At(Came, owesReply: true), Came, null, StageKind.Open, null);
        owed.Urgency.ShouldBe(Due.ToUnixTimeTicks());
        wrote.Urgency.ShouldBe(Later.ToUnixTimeTicks());
        unpromised.Urgency.ShouldBe(Came.ToUnixTimeTicks());
    }

    [Fact]
    public void The_parked_stand_by_the_day_they_come_back_and_those_without_one_last() =>
        Gen.Int[1, 400]
            .Array[2, 8]
            .Sample(days =>
            {
                var answered = new InquiryTurn(Later, null, null);
                var ranks = days.Select(day =>
                    InquiryRank.Of(answered, Came, null, StageKind.Parked, new LocalDate(2026, 1, 1).PlusDays(day))
                );
                ranks
                    .OrderBy(rank => rank.Urgency)
                    .Select(rank => rank.Urgency)
                    .ShouldBe(
                        days.Order()
                            .Select(day =>
                                InquiryRank.Of(answered, Came, null, StageKind.Parked, new LocalDate(2026, 1, 1).PlusDays(day)).Urgency
                            )
                    );
                InquiryRank.Of(answered, Came, null, StageKind.Parked, null).Urgency.ShouldBeGreaterThan(ranks.Max(rank => rank.Urgency));
            });

    [Fact]
    public void Of_all_others_the_newest_is_first()
    {
        var answered = new InquiryTurn(Later, null, null);
        InquiryRank
            .Of(answered, Came, null, StageKind.Won, null)
            .Urgency.ShouldBeGreaterThan(InquiryRank.Of(answered, Later, null, StageKind.Won, null).Urgency);
    }

    [Fact]
    public void Whatever_happened_two_inquiries_stand_as_a_second_way_puts_them()
    {
        var hour = Gen.Int[0, 5].Select(hours => Came + Duration.FromHours(hours));
        var perhaps = Gen.Int[-4, 5].Select(hours => hours < 0 ? (Instant?)null : Came + Duration.FromHours(hours));
        var inquiry = Gen.Select(
            Gen.Select(perhaps, perhaps, perhaps, (stopped, wrote, closed) => new InquiryTurn(stopped, wrote, closed)),
            hour,
            perhaps,
            Gen.Int[0, 5],
            Gen.Int[-2, 3],
            Gen.Int[-6, 1]
        );
        Gen.Select(inquiry, inquiry)
            .Sample(
                (one, other) =>
                {
                    var (first, second) = (Rank(one), Rank(other));
                    var (a, b) = (Naive(one), Naive(other));
                    first.Need.ShouldBe(a.Need);
                    if (a.Need == b.Need)
                        first.Urgency.CompareTo(second.Urgency).ShouldBe(a.Order.CompareTo(b.Order));
                }
            );

        // Told as a person would: what is the first thing true of it, and what is it sorted by then.
        static (InquiryNeed Need, double Order) Naive((InquiryTurn, Instant, Instant?, int, int, int) one)
        {
            var (turn, received, promised, stage, day, aside) = one;
            double Hours(Instant at) => (at - Came).TotalHours;
            var newest = -Hours(received);
            if (aside >= 0)
                return (InquiryNeed.Aside, newest);
            if (turn.Closed != null)
                return (InquiryNeed.Ended, newest);
            if (stage == 2 && turn.WroteBack == null)
                return (InquiryNeed.Parked, day < 0 ? double.MaxValue : day);
            var waits = new List<double>();
            if (turn.PromiseStopped == null)
                waits.Add(Hours(promised ?? received));
            if (turn.WroteBack is { } wrote)
                waits.Add(Hours(wrote));
            if (waits.Count > 0)
                return (InquiryNeed.Reply, waits.Min());
            if (stage == 3)
                return (InquiryNeed.Agreed, newest);
            if (stage is 4 or 5)
                return (InquiryNeed.Ended, newest);
            if (stage == 2)
                return (InquiryNeed.Parked, day < 0 ? double.MaxValue : day);
            return (turn.PromiseStopped!.Value > received ? InquiryNeed.Theirs : InquiryNeed.New, newest);
        }

        static InquiryRank Rank((InquiryTurn, Instant, Instant?, int, int, int) one)
        {
            var (turn, received, promised, stage, day, aside) = one;
            StageKind?[] kinds = [null, StageKind.Open, StageKind.Parked, StageKind.Won, StageKind.Lost, StageKind.Done];
            return InquiryRank.Of(
                turn,
                received,
                promised,
                kinds[stage],
                day < 0 ? null : new LocalDate(2026, 12, 1).PlusDays(day),
                aside < 0 ? null : (AsideReason)aside
            );
        }
    }

    private static InquiryRank Of(InquiryTurn turn, StageKind stage) => InquiryRank.Of(turn, Came, Due, stage, null);
}
