using System.Text.Json.Serialization;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>One question of a form.</summary>
/// <param name="Key">Names it within the form for ever, also across versions; small letters, digits and hyphens.</param>
/// <param name="Wording">What the lead reads; may hold earlier answers and known values.</param>
/// <param name="Kind">What sort of answer it takes, with its limits.</param>
public sealed record Question(string Key, string Wording, QuestionKind Kind) : Item(Key)
{
    /// <summary>A line of help under the wording, or null.</summary>
    public string? Help { get; init; }

    /// <summary>An example inside the empty control, or null. It never says anything that the wording or help does not.</summary>
    public string? Placeholder { get; init; }

    /// <summary>Whether it must be answered when it is asked.</summary>
    public bool Required { get; init; }

    /// <summary>It must be answered when this is true, too; null adds nothing to <see cref="Required"/>.</summary>
    public Condition? RequiredWhen { get; init; }

    /// <summary>It is asked only when this is true (not when it is unknown); null means always.</summary>
    public Condition? AskedOnlyWhen { get; init; }

    /// <summary>What already stands in the control when the form is opened, or null.</summary>
    public Prefill? Prefill { get; init; }

    /// <summary>Where its answer is written; null means only with the inquiry.</summary>
    public LandsIn? LandsIn { get; init; }

    /// <inheritdoc/>
    [JsonIgnore]
    public override Condition? OnlyWhen => AskedOnlyWhen;

    /// <summary>The options of a choice; empty for other kinds.</summary>
    [JsonIgnore]
    public IReadOnlyList<Option> Options => Kind is ChoiceKind choice ? choice.Options : [];

    /// <summary>What is agreed to or signed; null for other kinds.</summary>
    [JsonIgnore]
    public string? Statement =>
        Kind switch
        {
            AgreementKind agreement => agreement.Statement,
            SignatureKind signature => signature.Statement,
            _ => null,
        };

    /// <summary>The questions each row asks; empty for kinds without rows.</summary>
    [JsonIgnore]
    public IReadOnlyList<Question> RowQuestions => Kind is RowsKind rows ? rows.Questions : [];

    /// <summary>The option with the key, or null.</summary>
    /// <param name="key">The key, case counts; a kind without options has none.</param>
    public Option? FindOption(string key) => Options.FirstOrDefault(option => option.Key == key);

    /// <summary>Why its answers cannot land in a place, as a sentence, or null when they can.</summary>
    /// <param name="landsIn">The place.</param>
    /// <param name="fields">The fields of the business.</param>
    public string? RefusesToLand(LandsIn landsIn, FieldCatalogue fields) =>
        landsIn switch
        {
            AppendToNotes => null,
            SetField set when fields.Find(set.Field) is { } field => RefusesToLand(field),
            SetPerson person => RefusesToLand(ClientPeople.FieldOf(person.Part)),
            SetField => "The field this lands in is gone. Choose another place for it.",
            _ => throw new ArgumentOutOfRangeException(nameof(landsIn)),
        };

    /// <summary>Whether its answers can be kept in a field; rows only in one of whose columns at least one is asked.</summary>
    /// <param name="field">The field.</param>
    public bool Fits(Field field) => RefusesToLand(field) is null;

    private string? RefusesToLand(Field field) =>
        !Kind.FitsField(field.Kind)
            ? $"This kind of answer cannot be kept in the field “{field.Label}”. Choose another field, or let it land in the notes."
        : field.Kind == FieldKind.Rows && FieldColumns.Filled(this, field).Count == 0
            ? $"Nothing that is asked in each line is a column of “{field.Label}”. Name the questions as its columns are named, or choose another field."
        : null;

    /// <summary>Whether it must be answered now: always, or because its condition is true.</summary>
    /// <param name="known">What is known; in a row, with the row's own answers.</param>
    public bool IsRequired(AnswerContext known) => Required || RequiredWhen?.Evaluate(known) == Truth.True;
}

/// <summary>Where an answer that already stands in the form comes from.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(FromAddress), "address")]
[JsonDerivedType(typeof(FromRecord), "record")]
public abstract record Prefill;

/// <summary>From the address the form was opened by: <c>?service=mural</c>.</summary>
/// <param name="Parameter">The name in the address.</param>
public sealed record FromAddress(string Parameter) : Prefill;

/// <summary>From what is known of the person a personal link was made for; never for anybody else.</summary>
/// <param name="Field">The field's key.</param>
public sealed record FromRecord(string Field) : Prefill;
