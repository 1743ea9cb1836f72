namespace PorchLight.Core.Answers;

/// <summary>In which of four states a question is.</summary>
public enum AnswerStatus
{
    /// <summary>Its page has not been left yet, so it may still be answered.</summary>
    NotAskedYet,

    /// <summary>It was asked and left blank.</summary>
    Blank,

    /// <summary>It was asked and answered.</summary>
    Answered,

    /// <summary>The way through the form does not pass it.</summary>
    OffRoute,
}

/// <summary>The state of one question, with the answer exactly when there is one.</summary>
public readonly record struct AnswerState
{
    private AnswerState(AnswerStatus status, Answer? answer) => (Status, Answer) = (status, answer);

    /// <summary>Which of the four states; the default value is <see cref="AnswerStatus.NotAskedYet"/>.</summary>
    public AnswerStatus Status { get; }

    /// <summary>The answer; null unless <see cref="Status"/> is <see cref="AnswerStatus.Answered"/>.</summary>
    public Answer? Answer { get; }

    /// <summary>Not asked yet.</summary>
    public static AnswerState NotAskedYet => default;

    /// <summary>Asked and left blank.</summary>
    public static AnswerState Blank => new(AnswerStatus.Blank, null);

    /// <summary>Off the route.</summary>
    public static AnswerState OffRoute => new(AnswerStatus.OffRoute, null);

    /// <summary>Asked and answered.</summary>
    /// <param name="answer">The answer, normalised.</param>
    public static AnswerState Of(Answer answer) => new(AnswerStatus.Answered, answer);

    /// <summary>Answered when there is an answer, blank when there is none.</summary>
    /// <param name="answer">The answer, or null.</param>
    public static AnswerState OfNullable(Answer? answer) => answer is null ? Blank : Of(answer);
}
