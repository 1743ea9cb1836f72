using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>Finds numbers, days and counts of a form that cannot be meant, before anybody meets them.</summary>
public static class FormBounds
{
    /// <summary>The findings, in form order; the place is the key of a page, question or send-off.</summary>
    /// <param name="form">The form; it need not be fit to be published.</param>
    public static IEnumerable<Finding> Check(FormContent form) =>
        [
            .. form.Pages.SelectMany(page =>
                page.Items.SelectMany(CheckItem)
                    .Concat(CheckConditions([page.ShownOnlyWhen, .. page.Routes.Select(rule => rule.When)], page.Key))
            ),
            .. form.SendOffs.Append(form.DefaultSendOff).SelectMany(sendOff => CheckConditions([sendOff.When], sendOff.Key)),
            .. form.Rules.OfType<NeverRule>().SelectMany(rule => CheckConditions([rule.When], rule.At)),
        ];

    private static IEnumerable<Finding> CheckItem(Item item) =>
        item is not Question question
            ? CheckConditions([item.OnlyWhen], item.Key)
            :
            [
                .. CheckConditions([question.AskedOnlyWhen, question.RequiredWhen], question.Key),
                .. question.Kind.Faults().Distinct().Select(sentence => new Finding(question.Key, sentence)),
                .. question.RowQuestions.SelectMany(CheckItem),
            ];

    private static IEnumerable<Finding> CheckConditions(IEnumerable<Condition?> conditions, string place) =>
        conditions.OfType<Condition>().SelectMany(ConditionBounds.Check).Distinct().Select(sentence => new Finding(place, sentence));
}
