using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Screening;

public sealed class SortingAgainTests
{
    // R. G. Newcombe, Two-sided confidence intervals for the single proportion, Statistics in Medicine 17 (1998), table I, method 3.
    [Theory]
    [InlineData(81, 263, 0.2553, 0.3662)]
    [InlineData(15, 148, 0.0624, 0.1605)]
    [InlineData(0, 20, 0, 0.1611)]
    [InlineData(1, 29, 0.0061, 0.1718)]
    public void Intervals_of_a_share_as_published(int count, int of, double low, double high)
    {
        var share = Proportion.Wilson(count, of);
        Math.Round(share.Low, 4).ShouldBe(low);
        Math.Round(share.High, 4).ShouldBe(high);
    }

    [Fact]
    public void An_interval_holds_its_share_mirrors_and_narrows_with_more_cases() =>
        Gen.Select(Gen.Int[1, 400], Gen.Double[0, 1])
            .Sample(
                (of, part) =>
                {
                    var share = Proportion.Wilson((int)(part * of), of);
                    share.Share.ShouldBeInRange(share.Low, share.High);
                    share.Low.ShouldBeGreaterThanOrEqualTo(0);
                    share.High.ShouldBeLessThanOrEqualTo(1);
                    Proportion.Wilson(of - share.Count, of).High.ShouldBe(1 - share.Low, 1e-9);
                    var more = Proportion.Wilson(share.Count * 4, of * 4);
                    (more.High - more.Low).ShouldBeLessThan(share.High - share.Low);
                }
            );

    [Fact]
    public void Of_nobody_nothing_is_known() => Proportion.Wilson(0, 0).ShouldBe(new Proportion(0, 0, 0, 0, 1));

    // J. A. Hanley, B. J. McNeil, The meaning and use of the area under a ROC curve, Radiology 143 (1982), tables I and II: ratings
    // 1 to 5 of 58 normal and 51 abnormal pictures; area 0.893. The counts are written from memory.
    [Fact]
    public void The_area_under_a_curve_as_published()
    {
        var curve = RocCurve.Of(Ratings(3, 2, 2, 11, 33), Ratings(33, 6, 6, 11, 2))!;
        Math.Round(curve.Area, 3).ShouldBe(0.893);
        curve.Points[0].ShouldBe(new RocPoint(0, 0));
        curve.Points[^1].ShouldBe(new RocPoint(1, 1));
        curve.Points.Count.ShouldBe(6, "one for each rating, and the beginning");

        static List<int> Ratings(params int[] counts) => [.. counts.SelectMany((count, index) => Enumerable.Repeat(index + 1, count))];
    }

    [Fact]
    public void The_area_is_the_share_of_pairs_that_stand_right_and_lies_under_its_points() =>
        Gen.Select(Gen.Int[-9, 9].List[1, 25], Gen.Int[-9, 9].List[1, 25])
            .Sample(
                (booked, not) =>
                {
                    var curve = RocCurve.Of(booked, not)!;
                    var right = booked.Sum(one =>
                        not.Sum(other =>
                            one > other ? 1.0
                            : one == other ? 0.5
                            : 0
                        )
                    );
                    curve.Area.ShouldBe(right / (booked.Count * not.Count), 1e-9);
                    var trapezoids = curve
                        .Points.Zip(curve.Points.Skip(1), (a, b) => (b.NotBooked - a.NotBooked) * (a.Booked + b.Booked) / 2)
                        .Sum();
                    trapezoids.ShouldBe(curve.Area, 1e-9);
                }
            );

    [Fact]
    public void What_is_sorted_again_is_what_one_counts_by_hand() =>
        Gen.Select(OddForms.Forms, Gen.Select(OddForms.Answers, Gen.Int[0, 3], Gen.Int[0, 3], Gen.Bool).List[0, 12], OddForms.Screening(5))
            .Sample(
                (form, sent, rules) =>
                {
                    var past = sent.Select(
                            (one, at) =>
                                new PastInquiry(
                                    new Guid(at, 0, 0, new byte[8]),
                                    one.Item2 == 3 ? null : (Fit)one.Item2,
                                    (Outcome)one.Item3,
                                    one.Item4,
                                    Routes.Trace(Known(form), one.Item1).Know(Known(form))
                                )
                        )
                        .ToList();
                    var report = SortingAgain.Run(rules, past, 45);
                    var hand = past.Select(one => (Past: one, Now: ScreeningAgainstASecondWayTests.ByHand(rules, one.Known))).ToList();
                    report
                        .Inquiries.Select(one => (one.Id, one.Now, one.Score))
                        .ShouldBe(hand.Select(one => (one.Past.Id, one.Now.Fit, one.Now.Score)));

                    report.Moves.Count.ShouldBe(9);
                    foreach (var move in report.Moves)
                    {
                        var moved = hand.Where(one => one.Past.Before == move.From && one.Now.Fit == move.To).ToList();
                        (move.Count, move.Booked).ShouldBe((moved.Count, moved.Count(one => one.Past.Outcome == Outcome.Booked)));
                    }

                    foreach (var first in report.Unsorted)
                    {
                        var met = hand.Where(one => one.Past.Before is null && one.Now.Fit == first.To).ToList();
                        (first.Count, first.Booked).ShouldBe((met.Count, met.Count(one => one.Past.Outcome == Outcome.Booked)));
                    }

                    (report.Moves.Sum(move => move.Count) + report.Unsorted.Sum(first => first.Count)).ShouldBe(past.Count);
                    foreach (var share in report.Shares)
                    {
                        var of = hand.Where(one => one.Now.Fit == share.Fit && one.Past.Outcome is Outcome.Booked or Outcome.NotBooked)
                            .Where(one => one.Now.Fit == share.Fit)
                            .ToList();
                        (share.Booked.Count, share.Booked.Of).ShouldBe((of.Count(one => one.Past.Outcome == Outcome.Booked), of.Count));
                    }

                    var booked = hand.Where(one => one.Past.Outcome == Outcome.Booked).ToList();
                    report.TurnedAway.ShouldBe(Proportion.Wilson(booked.Count(one => one.Now.Fit == Fit.NotNow), booked.Count));
                    report.MinutesSaved.ShouldBe(
                        45
                            * hand.Count(one =>
                                one.Past.HadFirstCall
                                && one.Past.Before is Fit.ComeIn or Fit.TalkFirst
                                && one.Past.HadFirstCall
                                && one.Now.Fit == Fit.NotNow
                            )
                    );
                    (report.Booked + report.NotBooked + report.Declined + report.Open).ShouldBe(past.Count);
                    (report.Roc is null).ShouldBe(report.Booked == 0 || report.NotBooked == 0);
                }
            );

    // Worked by hand: rules.md of this product; 20 points stand for odds that are twice as good.
    [Fact]
    public void Suggested_points_as_worked_by_hand()
    {
        var counts = new SignalCounts(TrueBooked: 18, TrueNotBooked: 2, FalseBooked: 24, FalseNotBooked: 16);
        var ofTrue = 20 / Math.Log(2) * Math.Log(18.5 / 43 / (2.5 / 19));
        var ofFalse = 20 / Math.Log(2) * Math.Log(24.5 / 43 / (16.5 / 19));
        (Math.Round(ofTrue, 2), Math.Round(ofFalse, 2)).ShouldBe((34.18, -12.16));
        Math.Round(SuggestedPoints.Weigh(counts)!.Value).ShouldBe(46);
        SuggestedPoints.Weigh(counts)!.Value.ShouldBe(ofTrue - ofFalse, 1e-9);
    }

    [Theory]
    [InlineData(9, 30)]
    [InlineData(30, 9)]
    public void Nothing_is_suggested_from_fewer_than_ten(int booked, int notBooked) =>
        SuggestedPoints.Weigh(new SignalCounts(booked - 1, 1, 1, notBooked - 1)).ShouldBeNull();

    [Fact]
    public void What_was_true_of_nobody_suggests_nothing() => SuggestedPoints.Weigh(new SignalCounts(0, 0, 30, 30)).ShouldBeNull();

    [Fact]
    public void Suggestions_learn_only_from_what_is_decided_and_known_and_keep_the_average()
    {
        var decides = new Signal("decides", "Decides", new IsCondition(Of(Decides), "yes"), new PointsEffect(5));
        var flag = new Signal("flag", "A flag", new IsCondition(Of(Decides), "no"), new FlagEffect());
        var rules = Rules(decides, flag);
        List<PastInquiry> past =
        [
            .. Many(Outcome.Booked, yes: 18, no: 24),
            .. Many(Outcome.NotBooked, yes: 2, no: 16),
            .. Many(Outcome.Declined, yes: 50, no: 0),
            .. Many(Outcome.Open, yes: 0, no: 50),
            new(Guid.Empty, null, Outcome.Booked, false, Known(Everything)),
        ];
        var suggested = PointSuggestions.For(rules, past);
        suggested.Signals[0].ShouldBe(new SuggestedPoints("decides", new SignalCounts(18, 2, 24, 16), 46));
        suggested.Signals[1].Points.ShouldBeNull("a flag is no matter of points");

        var tried = suggested.Into(rules);
        Average(tried).ShouldBe(Average(rules), 0.51, "whole points can be half a point off");
        tried.Signals[1].ShouldBe(flag);

        double Average(ScreeningRules by) =>
            past.Where(one => one.Outcome is Outcome.Booked or Outcome.NotBooked).Average(one => Screener.Sort(by, one.Known).Score);

        static IEnumerable<PastInquiry> Many(Outcome outcome, int yes, int no) =>
            Enumerable
                .Range(0, yes + no)
                .Select(at => new PastInquiry(
                    Guid.NewGuid(),
                    Fit.TalkFirst,
                    outcome,
                    false,
                    Known(Everything, ("decides", AnswerState.Of(new YesNoAnswer(at < yes))))
                ));
    }

    [Fact]
    public void Points_learnt_from_any_history_are_those_a_second_way_counts()
    {
        // Two signals at once, answered or not, under any outcome.
        var signals = Rules(
            new Signal("decides", "Decides", new IsCondition(Of(Decides), "yes"), new PointsEffect(5)),
            new Signal("wide", "Is wide", new NumberBetweenCondition(Of(Width), 10, 100), new PointsEffect(-7))
        );
        var one = Gen.Select(Gen.Int[0, 3], Gen.Int[0, 2], Gen.Int[0, 2]);
        one.Array[0, 90]
            .Sample(drawn =>
            {
                var past = drawn
                    .Select(each => new PastInquiry(Guid.NewGuid(), null, (Outcome)each.Item1, false, Said(each.Item2, each.Item3)))
                    .ToList();
                var suggested = PointSuggestions.For(signals, past);
                suggested.Signals[0].Points.ShouldBe(Naive(drawn.Select(each => (each.Item1, each.Item2))));
                suggested.Signals[1].Points.ShouldBe(Naive(drawn.Select(each => (each.Item1, each.Item3))));
            });

        static AnswerContext Said(int decides, int wide)
        {
            var answers = new List<(string, AnswerState)>();
            if (decides < 2)
                answers.Add(("decides", AnswerState.Of(new YesNoAnswer(decides == 0))));
            if (wide < 2)
                answers.Add(("width", AnswerState.Of(new NumberAnswer(wide == 0 ? 20 : 5))));
            return Known(Everything, [.. answers]);
        }

        // The odds of a booking among those it is true of, to the odds among those it is false of, in doublings of twenty points each; all
        // that belongs to both alike falls away.
        static int? Naive(IEnumerable<(int Outcome, int Truth)> cases)
        {
            var counted = cases.Where(one => one.Truth < 2).ToList();
            int Count(Outcome outcome, int truth) => counted.Count(one => one.Outcome == (int)outcome && one.Truth == truth);
            var (b, n) = (
                counted.Count(one => one.Outcome == (int)Outcome.Booked),
                counted.Count(one => one.Outcome == (int)Outcome.NotBooked)
            );
            if (
                b < 10
                || n < 10
                || Count(Outcome.Booked, 0) + Count(Outcome.NotBooked, 0) == 0
                || Count(Outcome.Booked, 1) + Count(Outcome.NotBooked, 1) == 0
            )
                return null;
            var oddsOfTrue = (Count(Outcome.Booked, 0) + 0.5) / (Count(Outcome.NotBooked, 0) + 0.5);
            var oddsOfFalse = (Count(Outcome.Booked, 1) + 0.5) / (Count(Outcome.NotBooked, 1) + 0.5);
            return (int)Math.Round(20 * Math.Log2(oddsOfTrue / oddsOfFalse), MidpointRounding.AwayFromZero);
        }
    }

    [Fact]
    public void Without_history_nothing_is_suggested_and_the_base_stays()
    {
        var rules = Rules(new Signal("decides", "Decides", new IsCondition(Of(Decides), "yes"), new PointsEffect(5)));
        var suggested = PointSuggestions.For(rules, []);
        (suggested.Base, suggested.Signals[0].Points).ShouldBe((null, null));
        (suggested.Into(rules).Base, suggested.Into(rules).Signals[0]).ShouldBe((rules.Base, rules.Signals[0]));
        var report = SortingAgain.Run(rules, [], 60);
        (report.HasEnough, report.Roc, report.TurnedAway.Of).ShouldBe((false, null, 0));
    }
}
