using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Which of the business's own lists the options of a choice are.</summary>
public enum OptionList
{
    /// <summary>What the business sells.</summary>
    Services,

    /// <summary>How people find it.</summary>
    Sources,
}

/// <summary>One option, or several.</summary>
/// <param name="Options">At least one. When they come from a list, a published version keeps them as they stood then.</param>
/// <param name="Several">Whether more than one may be chosen.</param>
[QuestionKindName("choice", "A choice")]
public sealed record ChoiceKind(IReadOnlyList<Option> Options, bool Several = false) : QuestionKind<ChoiceAnswer>
{
    private const int LongestOwnWords = 500;

    /// <summary>Whether a single choice is folded into a drop-down.</summary>
    public bool DropDown { get; init; }

    /// <summary>Of several: at least this many, or null.</summary>
    public int? AtLeast { get; init; }

    /// <summary>Of several: at most this many, or null.</summary>
    public int? AtMost { get; init; }

    /// <summary>The business's list the options are taken from; null for options of its own.</summary>
    public OptionList? From { get; init; }

    /// <summary>
    /// The keys of the options that cannot be chosen together with one: all others of a single choice and of "none of these", and
    /// that of the rest.
    /// </summary>
    /// <param name="option">One of the options.</param>
    public IReadOnlyList<string> NotWith(Option option) =>
        [
            .. Options
                .Where(other => other.Key != option.Key && (!Several || option.NoneOfThese || other.NoneOfThese))
                .Select(other => other.Key),
        ];

    /// <summary>The option with the key, or null.</summary>
    /// <param name="key">The key, case counts.</param>
    public Option? Find(string key) => Options.FirstOrDefault(option => option.Key == key);

    /// <inheritdoc/>
    public override string Describe() => $"{(Several ? "Any of" : "One of")}: {string.Join(" / ", Options.Select(option => option.Label))}";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) =>
        field switch
        {
            FieldKind.Text or FieldKind.LongText or FieldKind.SeveralOf => true,
            FieldKind.OneOf => !Several,
            FieldKind.Number => !Several && EveryBand(band => band.Currency is null),
            FieldKind.Money => !Several && EveryBand(band => band.Currency is not null),
            _ => false,
        };

    /// <inheritdoc/>
    public override PlainControl? PlainControl() =>
        new PlainChoices([.. Options.Select(option => new PlainChoice(option.Key, option.Label))])
        {
            Several = Several,
            DropDown = DropDown && !Several,
            OwnWords = Options.FirstOrDefault(option => option.OwnWords)?.Label,
        };

    internal override string MissingSentence() => Several ? "Please choose at least one." : "Please choose one.";

    internal override IEnumerable<string> Faults() =>
        [
            .. new[]
            {
                Options.Count == 0 ? "This choice offers nothing to choose. Add an answer." : null,
                Options.DistinctBy(option => option.Key).Count() < Options.Count ? "Two answers of this choice have the same key." : null,
                Options.Any(option => string.IsNullOrWhiteSpace(option.Label)) ? "One of the answers has no words." : null,
                Options.Any(option => option.Band is { IsEmpty: true }) ? "The range of one of the answers ends before it starts." : null,
                Several && (AtLeast < 0 || AtMost < 1 || AtLeast > AtMost || AtLeast > Options.Count)
                    ? "The least and the most that may be chosen do not go together."
                    : null,
            }
                .Concat(Options.Select(option => option.Band).OfType<Band>().Select(ValueBounds.Check))
                .OfType<string>(),
        ];

    internal override Answer? Normalise(ChoiceAnswer answer, NormaliseContext context) =>
        answer.Keys.Count == 0
            ? null
            : new ChoiceAnswer(
                answer.Keys,
                answer.Keys.Any(key => Find(key) is { OwnWords: true }) ? TextParts.Part(answer.OwnWords) : null
            );

    internal override string? Check(ChoiceAnswer answer, LocalDate today)
    {
        var chosen = answer.Keys.Select(Find).OfType<Option>().ToList();
        if (chosen.Count < answer.Keys.Count || answer.Keys.Distinct().Count() != answer.Keys.Count)
            return "One of these answers is not on offer. Please choose again.";
        if (!Several && chosen.Count > 1)
            return "Please choose only one.";
        if (chosen.Count > 1 && chosen.FirstOrDefault(option => option.NoneOfThese) is { } none)
            return $"“{none.Label}” does not go together with another answer. Please take one or the other back.";
        if (Several && chosen.Count < AtLeast && !chosen.Any(option => option.NoneOfThese || option.Unsure))
            return $"Please choose at least {AtLeast}.";
        if (Several && chosen.Count > AtMost)
            return $"Please choose at most {AtMost}.";
        if (answer.OwnWords is null)
            return chosen.FirstOrDefault(option => option.OwnWords) is { } own ? $"Please say what you mean by “{own.Label}”." : null;
        return TextLength.TooLong(answer.OwnWords, LongestOwnWords) ?? TextLength.MoreThanALine(answer.OwnWords);
    }

    internal override Answer? Read(string text)
    {
        var keys = Several
            ? text.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Distinct().ToArray()
            : [text];
        return keys.Length > 0 && keys.All(key => Find(key) is not null) ? new ChoiceAnswer(keys) : null;
    }

    internal override Answer? ReadPosted(PostedAnswer posted) =>
        posted.All() is { Count: > 0 } keys ? new ChoiceAnswer([.. keys.Distinct()], posted.One("ownWords")) : null;

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        Several
            ? ChoiceClasses.Of(this, comparisons)
            : Options.Select(option => new ChoiceAnswer([option.Key], ChoiceClasses.OwnWords(option)));

    private bool EveryBand(Func<Band, bool> fits) =>
        Options.Where(option => !option.Unsure).All(option => option.Band is { } band && fits(band));
}
