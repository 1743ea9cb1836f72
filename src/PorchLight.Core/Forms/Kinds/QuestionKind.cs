using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>
/// What sort of answer a question takes, with the limits that belong to that sort, and all that is particular to it. Each kind
/// is a record in a file of its own with a <see cref="QuestionKindNameAttribute"/>; <see cref="Kinds"/> finds it.
/// </summary>
[KindFamily]
public abstract record QuestionKind
{
    internal const string NotOfThisKind = "This answer is not of the kind the question asks for. Please answer it again.";

    /// <summary>What it takes, in words, for the people who build forms: "One of: Yes, I decide / Together with others".</summary>
    public abstract string Describe();

    /// <summary>What a question of this kind may be used for.</summary>
    public abstract KindUses Uses();

    /// <summary>Whether its answers can be kept in a field of a kind.</summary>
    /// <param name="field">The kind of field.</param>
    public abstract bool FitsField(FieldKind field);

    /// <summary>How it is asked in markup a developer writes by hand; null when plain markup cannot ask it.</summary>
    public abstract PlainControl? PlainControl();

    /// <summary>What is said to whoever left it blank although it must be answered.</summary>
    internal abstract string MissingSentence();

    /// <summary>What cannot be meant in its limits, as sentences for whoever builds the form.</summary>
    internal abstract IEnumerable<string> Faults();

    /// <summary>
    /// An answer in its stored shape; null when nothing is left of it. One of another kind is left as it is, for the check to refuse.
    /// </summary>
    internal abstract Answer? Normalise(Answer answer, NormaliseContext context);

    /// <summary>
    /// What is wrong with one normalised answer, as a sentence that says what to do, or null. What rows hold is checked question by
    /// question.
    /// </summary>
    /// <param name="answer">The answer.</param>
    /// <param name="today">The day of asking in the business's zone.</param>
    internal abstract string? Check(Answer answer, LocalDate today);

    /// <summary>A text read as an answer, or null when it is none: as an address or a plain form gives it.</summary>
    /// <param name="text">Trimmed, not empty.</param>
    internal abstract Answer? Read(string text);

    /// <summary>One example for each class of answers that comparisons can tell apart; null when they cannot be told.</summary>
    /// <param name="comparisons">What looks at the answer.</param>
    /// <param name="known">The form and the day.</param>
    internal abstract IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known);

    /// <summary>What a plain form posted, read as an answer; what cannot be read is refused beside its place.</summary>
    internal virtual Answer? ReadPosted(PostedAnswer posted)
    {
        if (posted.One() is not { } text)
            return null;
        if (Prefilling.Read(this, text, PostedAnswer.Longest) is { } answer)
            return answer;
        posted.Refuse();
        return null;
    }

    /// <summary>What stands in it when the form is opened, whatever is known of the person; null for nothing.</summary>
    /// <param name="parameters">Names and values in the address.</param>
    /// <param name="cameFrom">The page they came from, or null.</param>
    internal virtual Answer? StartsWith(IReadOnlyDictionary<string, string> parameters, string? cameFrom) => null;

    /// <summary>What the person may have meant otherwise, as a question to them, or null. It holds nobody up.</summary>
    /// <param name="answer">A normalised answer.</param>
    /// <param name="today">The day of asking.</param>
    /// <param name="aboutTheWork">Whether it is about the work to come rather than about the person.</param>
    internal virtual string? Doubt(Answer answer, LocalDate today, bool aboutTheWork) => null;

    /// <summary>The unit its numbers are in, or null.</summary>
    internal virtual string? UnitOfAnswers() => null;

    /// <summary>The type all its answers have; null when that hangs on the question.</summary>
    internal virtual Type? AnswerType => null;
}

/// <summary>A kind whose answers are all of one type.</summary>
/// <typeparam name="TAnswer">The type of its answers.</typeparam>
public abstract record QuestionKind<TAnswer> : QuestionKind
    where TAnswer : Answer
{
    internal sealed override Type AnswerType => typeof(TAnswer);

    internal sealed override Answer? Normalise(Answer answer, NormaliseContext context) =>
        answer is TAnswer ours ? Normalise(ours, context) : answer;

    internal sealed override string? Check(Answer answer, LocalDate today) => answer is TAnswer ours ? Check(ours, today) : NotOfThisKind;

    internal sealed override string? Doubt(Answer answer, LocalDate today, bool aboutTheWork) =>
        answer is TAnswer ours ? Doubt(ours, today, aboutTheWork) : null;

    /// <summary>An answer in its stored shape; null when nothing is left of it.</summary>
    internal abstract Answer? Normalise(TAnswer answer, NormaliseContext context);

    /// <summary>What is wrong with one normalised answer, as a sentence that says what to do, or null.</summary>
    internal abstract string? Check(TAnswer answer, LocalDate today);

    /// <summary>What the person may have meant otherwise, as a question to them, or null.</summary>
    internal virtual string? Doubt(TAnswer answer, LocalDate today, bool aboutTheWork) => null;
}

/// <summary>What a question of a kind may be used for.</summary>
[Flags]
public enum KindUses
{
    /// <summary>Nothing beyond being asked on a page.</summary>
    None = 0,

    /// <summary>It may be asked in the rows of a list.</summary>
    InRows = 1,

    /// <summary>It may be required. What has to be given freely may not.</summary>
    MayBeRequired = 2,

    /// <summary>Another answer to it is worth naming when it is said what would change a fit; how to reach somebody is not.</summary>
    InWhatIfs = 4,

    /// <summary>All of these.</summary>
    All = InRows | MayBeRequired | InWhatIfs,
}
