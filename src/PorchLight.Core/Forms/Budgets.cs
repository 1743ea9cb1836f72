using PorchLight.Core.Answers;

namespace PorchLight.Core.Forms;

/// <summary>What somebody said of what they can spend.</summary>
public static class Budgets
{
    /// <summary>
    /// Whether a form asked what somebody can spend, by an amount or by options that stand for amounts, and got no amount: left blank, or
    /// "I don't know yet". A form that does not ask, or not on their way, leaves nothing open.
    /// </summary>
    /// <param name="form">The version that was answered.</param>
    /// <param name="answers">What was sent, by question key.</param>
    /// <param name="pages">The keys of the pages that were shown.</param>
    public static bool IsLeftOpen(FormContent form, IReadOnlyDictionary<string, Answer> answers, IReadOnlyList<string> pages)
    {
        var asked = form.Pages.Where(page => pages.Contains(page.Key)).SelectMany(page => page.Questions).Where(AsksForMoney).ToList();
        return asked.Count > 0 && !asked.Exists(question => NamesAmount(question, answers.GetValueOrDefault(question.Key)));
    }

    private static bool AsksForMoney(Question question) =>
        question.Kind is MoneyKind
        || (question.Kind is ChoiceKind choice && choice.Options.Any(option => option.Band is { Currency: not null }));

    private static bool NamesAmount(Question question, Answer? answer) =>
        answer switch
        {
            null => false,
            ChoiceAnswer chosen => chosen.Keys.Any(key => question.FindOption(key) is { Unsure: false }),
            _ => true,
        };
}
