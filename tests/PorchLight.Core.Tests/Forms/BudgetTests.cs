using PorchLight.Core.Answers;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Tests.Forms;

public sealed class BudgetTests
{
    private static readonly FormContent Asks = new(
        "A form",
        "",
        [
            new Page(
                "one",
                "One",
                [
                    new Question(
                        "budget",
                        "Budget?",
                        new ChoiceKind([
                            new Option("small", "Up to 900", new Band(null, new Bound(900), "EUR")),
                            new Option("unsure", "I don't know yet", Unsure: true),
                        ])
                    ),
                ]
            ),
            new Page("two", "Two", [new Question("more", "How much more?", new MoneyKind("EUR"))]),
        ],
        [],
        new SendOff("end", "Thanks", "Thanks.")
    );

    [Fact]
    public void A_budget_is_left_open_by_who_was_asked_and_named_no_amount()
    {
        Open(new() { ["budget"] = ChoiceAnswer.Of("unsure") }).ShouldBeTrue();
        Open([]).ShouldBeTrue("a blank names none either");
        Open(new() { ["budget"] = ChoiceAnswer.Of("small") }).ShouldBeFalse();
        Open(new() { ["budget"] = ChoiceAnswer.Of("unsure"), ["more"] = new MoneyAnswer(50, "EUR") }, "one", "two").ShouldBeFalse();
        Budgets
            .IsLeftOpen(Asks with { Pages = [] }, new Dictionary<string, Answer>(), [])
            .ShouldBeFalse("who is not asked leaves nothing open");
    }

    private static bool Open(Dictionary<string, Answer> answers, params string[] pages) =>
        Budgets.IsLeftOpen(Asks, answers, pages.Length == 0 ? ["one"] : pages);
}
