using System.Text.Json.Serialization;
using NodaTime;

namespace PorchLight.Core.Forms;

/// <summary>An answer of a known kind; never a bare string. Equal answers are equal as values.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(TextAnswer), "text")]
[JsonDerivedType(typeof(NumberAnswer), "number")]
[JsonDerivedType(typeof(MoneyAnswer), "money")]
[JsonDerivedType(typeof(BandAnswer), "band")]
[JsonDerivedType(typeof(DateAnswer), "date")]
[JsonDerivedType(typeof(YesNoAnswer), "yesNo")]
[JsonDerivedType(typeof(ChoiceAnswer), "choice")]
[JsonDerivedType(typeof(PhoneAnswer), "phone")]
[JsonDerivedType(typeof(PersonNameAnswer), "personName")]
[JsonDerivedType(typeof(AddressAnswer), "address")]
public abstract record Answer;

/// <summary>Words as typed: short or long text, an e-mail address.</summary>
/// <param name="Text">Trimmed, not empty.</param>
public sealed record TextAnswer(string Text) : Answer;

/// <summary>A number.</summary>
/// <param name="Value">In the unit the question names.</param>
public sealed record NumberAnswer(decimal Value) : Answer;

/// <summary>An amount of money.</summary>
/// <param name="Amount">In units of the currency.</param>
/// <param name="Currency">The ISO 4217 code.</param>
public sealed record MoneyAnswer(decimal Amount, string Currency) : Answer;

/// <summary>A chosen range, as it stands on file after an option with a band has landed.</summary>
/// <param name="Label">The option's words at the time.</param>
/// <param name="Band">The range of numbers it stood for.</param>
public sealed record BandAnswer(string Label, Band Band) : Answer;

/// <summary>A day.</summary>
/// <param name="Date">In the ISO calendar, without zone.</param>
public sealed record DateAnswer(LocalDate Date) : Answer;

/// <summary>Yes or no.</summary>
/// <param name="Yes">True for yes.</param>
public sealed record YesNoAnswer(bool Yes) : Answer;

/// <summary>One or several options. Their order does not matter for equality.</summary>
/// <param name="Keys">The keys of the options, none twice.</param>
public sealed record ChoiceAnswer(IReadOnlyList<string> Keys) : Answer
{
    /// <summary>One option.</summary>
    public static ChoiceAnswer Of(params string[] keys) => new(keys);

    /// <summary>Whether both hold the same keys.</summary>
    public bool Equals(ChoiceAnswer? other) => other is not null && Keys.ToHashSet().SetEquals(other.Keys);

    /// <inheritdoc/>
    public override int GetHashCode() => Keys.Distinct().Aggregate(0, (sum, key) => sum ^ key.GetHashCode(StringComparison.Ordinal));
}

/// <summary>A phone number.</summary>
/// <param name="Typed">As it was typed.</param>
/// <param name="E164">In E.164 form, worked out by the checks; null before them.</param>
public sealed record PhoneAnswer(string Typed, string? E164 = null) : Answer;

/// <summary>A person's name.</summary>
/// <param name="Given">What to call them by; not empty.</param>
/// <param name="Family">May be empty: some people have one name.</param>
public sealed record PersonNameAnswer(string Given, string Family) : Answer
{
    /// <summary>Both parts, as one would write them on an envelope.</summary>
    [JsonIgnore]
    public string Full => $"{Given} {Family}".Trim();
}

/// <summary>An address in parts, because people who are asked for one line leave the postal code out.</summary>
/// <param name="Street">Street and number.</param>
/// <param name="Unit">Flat, floor or unit.</param>
/// <param name="City">Town or city.</param>
/// <param name="Region">County, state or region.</param>
/// <param name="PostalCode">Postal code.</param>
/// <param name="Country">Country.</param>
public sealed record AddressAnswer(string? Street, string? Unit, string? City, string? Region, string? PostalCode, string? Country) : Answer
{
    /// <summary>The parts that are there, in writing order.</summary>
    [JsonIgnore]
    public IEnumerable<string> Parts => new[] { Street, Unit, City, Region, PostalCode, Country }.OfType<string>().Where(part => part.Length > 0);
}

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
    public static AnswerState Of(Answer answer) => new(AnswerStatus.Answered, answer);

    /// <summary>Answered when there is an answer, blank when there is none.</summary>
    public static AnswerState OfNullable(Answer? answer) => answer is null ? Blank : Of(answer);
}
