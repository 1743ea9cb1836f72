using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>
/// Splits the answers to a question into the classes a set of comparisons can tell apart, one example a class: an answer
/// the question allows, as far as there is one.
/// </summary>
internal static class AnswerClasses
{
    /// <summary>
    /// One example state for each class of answers, blank and off the route included; or null when there are more than
    /// <paramref name="limit"/>, or when they cannot be told.
    /// </summary>
    /// <param name="question">A question, or a worked-out value, which is split like one.</param>
    /// <param name="known">The form and the day.</param>
    /// <param name="conditions">What looks at it.</param>
    /// <param name="limit">How many there may be.</param>
    public static IReadOnlyList<AnswerState>? Of(Question question, AnswerContext known, IEnumerable<Condition> conditions, int limit)
    {
        var comparisons = conditions
            .SelectMany(condition => condition.Comparisons())
            .Where(comparison => comparison.Of is AnswerTo of && of.Question == question.Key)
            .ToList();
        return question.Kind.Examples(comparisons, known)?.Take(limit).ToList() is { } examples && examples.Count + 2 <= limit
            ? [.. examples.Select(AnswerState.Of), AnswerState.Blank, AnswerState.OffRoute]
            : null;
    }
}
