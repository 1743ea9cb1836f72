using System.Text.Json.Serialization;
using PorchLight.Core.Records;

namespace PorchLight.Core.Forms;

/// <summary>One question of a form.</summary>
/// <param name="Key">Names it within the form for ever, also across versions; small letters, digits and hyphens.</param>
/// <param name="Wording">What the lead reads.</param>
/// <param name="Kind">What sort of answer it takes, with its limits.</param>
public sealed record Question(string Key, string Wording, QuestionKind Kind)
{
    /// <summary>A line of help under the wording, or null.</summary>
    public string? Help { get; init; }

    /// <summary>Whether it must be answered when it is asked.</summary>
    public bool Required { get; init; }

    /// <summary>It is asked only when this is true (not when it is unknown); null means always.</summary>
    public Condition? AskedOnlyWhen { get; init; }

    /// <summary>Where its answer is written; null means only with the inquiry.</summary>
    public LandsIn? LandsIn { get; init; }

    /// <summary>The options of a choice; empty for other kinds.</summary>
    [JsonIgnore]
    public IReadOnlyList<Option> Options => Kind is ChoiceKind choice ? choice.Options : [];

    /// <summary>The option with the key, or null.</summary>
    public Option? FindOption(string key) => Options.FirstOrDefault(option => option.Key == key);
}

/// <summary>One of the answers a choice offers.</summary>
/// <param name="Key">Names it within the question, also across versions.</param>
/// <param name="Label">What the lead reads.</param>
/// <param name="Band">The range of numbers it stands for, or null.</param>
/// <param name="Unsure">Whether it means "I don't know yet".</param>
public sealed record Option(string Key, string Label, Band? Band = null, bool Unsure = false);

/// <summary>What sort of answer a question takes, with the limits that belong to that sort.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(ShortTextKind), "shortText")]
[JsonDerivedType(typeof(LongTextKind), "longText")]
[JsonDerivedType(typeof(EmailKind), "email")]
[JsonDerivedType(typeof(PhoneKind), "phone")]
[JsonDerivedType(typeof(NumberKind), "number")]
[JsonDerivedType(typeof(MoneyKind), "money")]
[JsonDerivedType(typeof(DateKind), "date")]
[JsonDerivedType(typeof(YesNoKind), "yesNo")]
[JsonDerivedType(typeof(ChoiceKind), "choice")]
[JsonDerivedType(typeof(PersonNameKind), "personName")]
[JsonDerivedType(typeof(AddressKind), "address")]
public abstract record QuestionKind;

/// <summary>One line of text.</summary>
/// <param name="MaxLength">In UTF-16 code units, at least 1.</param>
public sealed record ShortTextKind(int MaxLength = 200) : QuestionKind;

/// <summary>Several lines of text.</summary>
/// <param name="MaxLength">In UTF-16 code units, at least 1.</param>
public sealed record LongTextKind(int MaxLength = 4000) : QuestionKind;

/// <summary>An e-mail address.</summary>
public sealed record EmailKind : QuestionKind;

/// <summary>A phone number.</summary>
public sealed record PhoneKind : QuestionKind;

/// <summary>A number.</summary>
/// <param name="Min">The smallest allowed, or null.</param>
/// <param name="Max">The largest allowed, or null.</param>
/// <param name="Unit">Shown behind the number ("m"), or null.</param>
public sealed record NumberKind(decimal? Min = null, decimal? Max = null, string? Unit = null) : QuestionKind;

/// <summary>An amount of money in one currency.</summary>
/// <param name="Currency">The ISO 4217 code.</param>
/// <param name="Min">The smallest allowed, or null.</param>
/// <param name="Max">The largest allowed, or null.</param>
public sealed record MoneyKind(string Currency, decimal? Min = null, decimal? Max = null) : QuestionKind;

/// <summary>A day.</summary>
public sealed record DateKind : QuestionKind;

/// <summary>Yes or no.</summary>
public sealed record YesNoKind : QuestionKind;

/// <summary>One option, or several.</summary>
/// <param name="Options">At least one.</param>
/// <param name="Several">Whether more than one may be chosen.</param>
public sealed record ChoiceKind(IReadOnlyList<Option> Options, bool Several = false) : QuestionKind;

/// <summary>A person's name.</summary>
public sealed record PersonNameKind : QuestionKind;

/// <summary>An address in parts.</summary>
public sealed record AddressKind : QuestionKind;
