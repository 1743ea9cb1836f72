using NodaTime;
using PorchLight.Core.Answers;

namespace PorchLight.Core.Conditions;

/// <summary>All that a condition may look at. Whoever judges conditions hands it in; nothing is fetched or read from a clock.</summary>
public interface IKnownAnswers
{
    /// <summary>The day of the submission in the business's zone.</summary>
    LocalDate Today { get; }

    /// <summary>Values on file by field key, as they were at the instant of the submission; a missing key counts as blank.</summary>
    IReadOnlyDictionary<string, Answer> OnFile { get; }

    /// <summary>The verdict; null while there is none.</summary>
    Fit? Fit { get; }

    /// <summary>The score; null while there is none.</summary>
    int? Points { get; }

    /// <summary>The state of a question; not asked yet for one the form does not have.</summary>
    /// <param name="question">The key of the question.</param>
    AnswerState Of(string question);

    /// <summary>
    /// What was chosen: the option an answer to a question names, also where a worked-out value repeats that answer. Null when
    /// the question offers no such option.
    /// </summary>
    /// <param name="question">The key of the question, or of the worked-out value.</param>
    /// <param name="option">The key of the option.</param>
    Option? OptionOf(string question, string option);
}
