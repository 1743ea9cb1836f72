using System.Diagnostics;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Server.Demo;

namespace PorchLight.Bench;

/// <summary>A hundred thousand past inquiries sorted again by twenty signals, and whether half of either takes half as long.</summary>
internal static class SortingBench
{
    private const int Inquiries = 100_000;
    private const int Signals = 20;
    private const int Times = 5;

    public static void Measure()
    {
        var past = Past(Inquiries);
        var (all, halfOfThem, halfOfSignals) = (
            Median(past, Rules(Signals)),
            Median(past[..(Inquiries / 2)], Rules(Signals)),
            Median(past, Rules(Signals / 2))
        );
        Console.WriteLine(
            $"{Inquiries:N0} inquiries sorted again by {Signals} signals: {all:0} ms (median of {Times}); half of the inquiries {halfOfThem:0} ms, half of the signals {halfOfSignals:0} ms"
        );
    }

    private static double Median(IReadOnlyList<PastInquiry> past, ScreeningRules rules)
    {
        SortingAgain.Run(rules, past, 45);
        var took = new double[Times];
        for (var time = 0; time < Times; time++)
        {
            var began = Stopwatch.GetTimestamp();
            SortingAgain.Run(rules, past, 45);
            took[time] = Stopwatch.GetElapsedTime(began).TotalMilliseconds;
        }

        return took.Order().ElementAt(Times / 2);
    }

    /// <summary>The signals of the demo's murals, again and again until there are enough.</summary>
    private static ScreeningRules Rules(int signals) =>
        DemoForm.Screening with
        {
            Signals =
            [
                .. Enumerable
                    .Range(0, signals)
                    .Select(index => DemoForm.Screening.Signals[index % DemoForm.Screening.Signals.Count] with { Key = $"signal-{index}" }),
            ],
        };

    private static PastInquiry[] Past(int count)
    {
        var form = DemoForm.Wall;
        var today = new LocalDate(2026, 11, 27);
        string[] budgets = ["under-1500", "1500-4000", "4000-9000", "over-9000", "unsure"];
        string[] deciders = ["me", "together", "someone-else"];
        var known = Enumerable
            .Range(0, 500)
            .Select(index =>
            {
                var nothing = new AnswerContext(form, new Dictionary<string, AnswerState>(), today);
                var given = new Dictionary<string, Answer?>
                {
                    ["budget"] = ChoiceAnswer.Of(budgets[index % budgets.Length]),
                    ["decides"] = ChoiceAnswer.Of(deciders[index / 5 % deciders.Length]),
                    ["wanted"] = new DateAnswer(today.PlusDays(index)),
                    ["found"] = ChoiceAnswer.Of(index % 2 == 0 ? "past-client" : "search"),
                };
                return Routes.Trace(nothing, given).Know(nothing);
            })
            .ToList();
        return
        [
            .. Enumerable
                .Range(0, count)
                .Select(index => new PastInquiry(
                    new Guid(index, 0, 0, new byte[8]),
                    (Fit)(index % 3),
                    (Outcome)(index % 4),
                    index % 5 == 0,
                    known[index % known.Count]
                )),
        ];
    }
}
