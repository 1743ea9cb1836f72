using NodaTime;
using PorchLight.Core.Answers;

namespace PorchLight.Core.Forms;

/// <summary>Checks one answer against its question.</summary>
public static class AnswerLimits
{
    /// <summary>
    /// What is wrong with one normalised answer, as a sentence that says what to do, or null. Rows are checked cell by cell
    /// elsewhere.
    /// </summary>
    /// <param name="question">The question.</param>
    /// <param name="answer">The answer, or null when it was left blank.</param>
    /// <param name="today">The day of asking in the business's zone.</param>
    /// <param name="required">Whether it must be answered now; what nobody can see is never missing.</param>
    public static string? Check(Question question, Answer? answer, LocalDate today, bool required) =>
        question.Kind is WorkedOutKind or HiddenKind ? null
        : answer is not null ? question.Kind.Check(answer, today)
        : required ? question.Kind.MissingSentence()
        : null;
}
