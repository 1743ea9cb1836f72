using System.Text.Json.Serialization;
using NodaTime;

namespace PorchLight.Core.Answers;

/// <summary>An answer of a known kind; never a bare string. Equal answers are equal as values.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(TextAnswer), "text")]
[JsonDerivedType(typeof(TextsAnswer), "texts")]
[JsonDerivedType(typeof(NumberAnswer), "number")]
[JsonDerivedType(typeof(MoneyAnswer), "money")]
[JsonDerivedType(typeof(BandAnswer), "band")]
[JsonDerivedType(typeof(DateAnswer), "date")]
[JsonDerivedType(typeof(YesNoAnswer), "yesNo")]
[JsonDerivedType(typeof(ChoiceAnswer), "choice")]
[JsonDerivedType(typeof(PhoneAnswer), "phone")]
[JsonDerivedType(typeof(PersonNameAnswer), "personName")]
[JsonDerivedType(typeof(AddressAnswer), "address")]
[JsonDerivedType(typeof(DateRangeAnswer), "dateRange")]
[JsonDerivedType(typeof(LookUpAnswer), "lookUp")]
[JsonDerivedType(typeof(FilesAnswer), "files")]
[JsonDerivedType(typeof(RowsAnswer), "rows")]
[JsonDerivedType(typeof(ConsentAnswer), "consent")]
[JsonDerivedType(typeof(SignatureAnswer), "signature")]
public abstract record Answer;

/// <summary>Words as typed: short or long text, an e-mail address, a web address, a hidden value.</summary>
/// <param name="Text">Trimmed, not empty.</param>
public sealed record TextAnswer(string Text) : Answer;

/// <summary>Several words of a list, as they stand on file. Their order does not matter for equality.</summary>
/// <param name="Texts">At least one, none twice.</param>
public sealed record TextsAnswer(IReadOnlyList<string> Texts) : Answer
{
    /// <summary>Whether both hold the same words.</summary>
    public bool Equals(TextsAnswer? other) => other is not null && Texts.ToHashSet().SetEquals(other.Texts);

    /// <inheritdoc/>
    public override int GetHashCode() => Texts.Distinct().Aggregate(0, (sum, text) => sum ^ text.GetHashCode(StringComparison.Ordinal));
}

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
/// <param name="OwnWords">What they mean by an option that asks for their own words; null when none of those was chosen.</param>
public sealed record ChoiceAnswer(IReadOnlyList<string> Keys, string? OwnWords = null) : Answer
{
    /// <summary>One option.</summary>
    /// <param name="keys">The keys of the chosen options; one given twice counts once. None is an answer that chooses nothing.</param>
    public static ChoiceAnswer Of(params string[] keys) => new(keys);

    /// <summary>Whether both hold the same keys.</summary>
    public bool Equals(ChoiceAnswer? other) => other is not null && OwnWords == other.OwnWords && Keys.ToHashSet().SetEquals(other.Keys);

    /// <inheritdoc/>
    public override int GetHashCode() => Keys.Distinct().Aggregate(0, (sum, key) => sum ^ key.GetHashCode(StringComparison.Ordinal));
}

/// <summary>A phone number.</summary>
/// <param name="Typed">As it was typed.</param>
/// <param name="E164">In E.164 form, worked out by the program; null before, and for a number that has none.</param>
/// <param name="LocalOnly">Whether it can be dialled only within its own town or district, for want of an area code.</param>
public sealed record PhoneAnswer(string Typed, string? E164 = null, bool LocalOnly = false) : Answer;

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
    public IEnumerable<string> Parts =>
        new[] { Street, Unit, City, Region, PostalCode, Country }.OfType<string>().Where(part => part.Length > 0);
}

/// <summary>From one day to another, or some time in a month.</summary>
/// <param name="From">The first day.</param>
/// <param name="To">The last day, included; not before <paramref name="From"/>.</param>
/// <param name="Roughly">Whether a whole month was named ("some time in May") rather than days.</param>
public sealed record DateRangeAnswer(LocalDate From, LocalDate To, bool Roughly = false) : Answer;

/// <summary>A line of a list, with the columns that were shown as they stood then.</summary>
/// <param name="Key">Names the line within its list.</param>
/// <param name="Columns">The shown columns in order; empty until it has been looked up.</param>
public sealed record LookUpAnswer(string Key, IReadOnlyList<string>? Columns = null) : Answer
{
    /// <summary>Whether both are the same line with the same words.</summary>
    public bool Equals(LookUpAnswer? other) => other is not null && Key == other.Key && (Columns ?? []).SequenceEqual(other.Columns ?? []);

    /// <inheritdoc/>
    public override int GetHashCode() => Key.GetHashCode(StringComparison.Ordinal);
}

/// <summary>A file that was uploaded.</summary>
/// <param name="Id">The identifier of the stored file.</param>
/// <param name="Name">The name it had, without any path; only for people, never for finding it.</param>
/// <param name="Bytes">Its size.</param>
/// <param name="Group">What sort of file its content shows it to be.</param>
public sealed record FileRef(Guid Id, string Name = "", long Bytes = 0, FileGroup Group = FileGroup.Document);

/// <summary>Files, in the order they were added.</summary>
/// <param name="Files">At least one, none twice.</param>
public sealed record FilesAnswer(IReadOnlyList<FileRef> Files) : Answer
{
    /// <summary>Whether both hold the same files in the same order.</summary>
    public bool Equals(FilesAnswer? other) => other is not null && Files.SequenceEqual(other.Files);

    /// <inheritdoc/>
    public override int GetHashCode() => Files.Aggregate(0, HashCode.Combine);
}

/// <summary>The answers of one row.</summary>
/// <param name="Answers">By question key; null or absent for a blank.</param>
public sealed record AnswerRow(IReadOnlyDictionary<string, Answer?> Answers)
{
    /// <summary>Whether nothing was answered in it.</summary>
    [JsonIgnore]
    public bool IsEmpty => Answers.Values.All(answer => answer is null);

    /// <summary>The answer to a question of the row, or null.</summary>
    public Answer? this[string question] => Answers.GetValueOrDefault(question);

    /// <summary>Whether both hold the same answers; a blank is the same as none.</summary>
    public bool Equals(AnswerRow? other) =>
        other is not null && Answers.Keys.Union(other.Answers.Keys).All(key => Equals(this[key], other[key]));

    /// <inheritdoc/>
    public override int GetHashCode() => Answers.Values.OfType<Answer>().Aggregate(0, (sum, answer) => sum ^ answer.GetHashCode());
}

/// <summary>A list of rows, in the order the lead put them.</summary>
/// <param name="Rows">At least one once tidied; on a route not all of them empty.</param>
public sealed record RowsAnswer(IReadOnlyList<AnswerRow> Rows) : Answer
{
    /// <summary>Whether both hold equal rows in the same order.</summary>
    public bool Equals(RowsAnswer? other) => other is not null && Rows.SequenceEqual(other.Rows);

    /// <inheritdoc/>
    public override int GetHashCode() => Rows.Aggregate(0, HashCode.Combine);
}

/// <summary>They agreed. What they agreed to is written by the program, never taken from the browser.</summary>
/// <param name="Wording">What was agreed to, word for word.</param>
/// <param name="Version">The version of the form that said so.</param>
/// <param name="At">When it was sent; written by the program.</param>
public sealed record ConsentAnswer(string Wording = "", int Version = 0, Instant? At = null) : Answer;

/// <summary>A signature.</summary>
/// <param name="Name">Who signs, written out.</param>
/// <param name="Strokes">
/// The drawn line as moves and lines on a field of 600 by 200 ("M10 20L11 22"); null when the name was typed as the
/// signature.
/// </param>
/// <param name="OnBehalfOf">Whom they represent; empty while they have not said whom; null when they sign for themselves.</param>
/// <param name="Date">The day in the business's zone, written by the program.</param>
public sealed record SignatureAnswer(string Name, string? Strokes = null, string? OnBehalfOf = null, LocalDate? Date = null) : Answer;
