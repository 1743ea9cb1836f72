using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>Splits what a worked-out value can come to into the classes that comparisons can tell apart.</summary>
internal static class CalculationClasses
{
    /// <summary>One example for each class; null when they cannot be told.</summary>
    public static IEnumerable<Answer>? Of(Calculation calculation, IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        Of(calculation, comparisons, known, 0);

    private static IEnumerable<Answer>? Of(
        Calculation calculation,
        IReadOnlyList<ComparisonCondition> comparisons,
        AnswerContext known,
        int depth
    ) =>
        calculation switch
        {
            // A form that is still being built may go round in a circle.
            _ when depth > 20 => null,
            CopiedAnswer c => known.Form.FindQuestion(c.Question) is { } question
                ? question.Kind is WorkedOutKind worked
                    ? Of(worked.Value, comparisons, known, depth + 1)
                    : question.Kind.Examples(comparisons, known)
                : [],
            FixedValue c => [c.Value],
            JoinedText => comparisons.Texts().Select(text => new TextAnswer(text)),
            OverRows or ArithmeticOfTwo => comparisons
                .Numbers(null, null, null, whole: false)
                .Select(Answer (number) => new NumberAnswer(number))
                .Concat(
                    comparisons
                        .Currencies()
                        .SelectMany(currency =>
                            comparisons.Numbers(currency, null, null, whole: false).Select(amount => new MoneyAnswer(amount, currency))
                        )
                ),
            // Which question a chosen option belongs to hangs on which branch is taken; one class alone does not say that.
            IfElse c => MayRepeatAChoice(c, known, depth) ? null
            : Of(c.Then, comparisons, known, depth + 1) is { } then && Of(c.Otherwise, comparisons, known, depth + 1) is { } otherwise
                ? then.Concat(otherwise)
            : null,
            _ => comparisons.Numbers(null, null, null, whole: false).Select(number => new NumberAnswer(number)),
        };

    private static bool MayRepeatAChoice(Calculation calculation, AnswerContext known, int depth) =>
        depth > 20
        || calculation switch
        {
            CopiedAnswer c => known.Form.FindQuestion(c.Question)?.Kind switch
            {
                WorkedOutKind worked => MayRepeatAChoice(worked.Value, known, depth + 1),
                ChoiceKind => true,
                _ => false,
            },
            IfElse c => MayRepeatAChoice(c.Then, known, depth + 1) || MayRepeatAChoice(c.Otherwise, known, depth + 1),
            _ => false,
        };
}
