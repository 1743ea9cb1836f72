using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Forms;

/// <summary>
/// Something that is true, false or unknown of the answers given. A tree of all, any and not over comparisons;
/// <see cref="Conditions.Evaluate"/> judges it.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(All), "all")]
[JsonDerivedType(typeof(Any), "any")]
[JsonDerivedType(typeof(Not), "not")]
[JsonDerivedType(typeof(Is), "is")]
[JsonDerivedType(typeof(IsNot), "isNot")]
[JsonDerivedType(typeof(IsOneOf), "isOneOf")]
[JsonDerivedType(typeof(Includes), "includes")]
[JsonDerivedType(typeof(IncludesNoneOf), "includesNoneOf")]
[JsonDerivedType(typeof(DoesNotKnow), "doesNotKnow")]
[JsonDerivedType(typeof(NumberIs), "numberIs")]
[JsonDerivedType(typeof(NumberBetween), "numberBetween")]
[JsonDerivedType(typeof(DateBetween), "dateBetween")]
[JsonDerivedType(typeof(Before), "before")]
[JsonDerivedType(typeof(After), "after")]
[JsonDerivedType(typeof(WithinNextDays), "withinNextDays")]
[JsonDerivedType(typeof(IsAnswered), "isAnswered")]
[JsonDerivedType(typeof(IsBlank), "isBlank")]
[JsonDerivedType(typeof(FitIs), "fitIs")]
public abstract record Condition;

/// <summary>True when every part is; true when there is none.</summary>
public sealed record All(IReadOnlyList<Condition> Parts) : Condition;

/// <summary>True when at least one part is; false when there is none.</summary>
public sealed record Any(IReadOnlyList<Condition> Parts) : Condition;

/// <summary>True when the part is false.</summary>
public sealed record Not(Condition Part) : Condition;

/// <summary>A comparison of one value with something.</summary>
/// <param name="Of">What is compared.</param>
public abstract record Comparison(Subject Of) : Condition;

/// <summary>Equal: an option by its key, yes or no as "yes" and "no", text trimmed and without regard to case.</summary>
public sealed record Is(Subject Of, string Value) : Comparison(Of);

/// <summary>The opposite of <see cref="Is"/>; unknown where that is unknown.</summary>
public sealed record IsNot(Subject Of, string Value) : Comparison(Of);

/// <summary>Equal to one of the values.</summary>
public sealed record IsOneOf(Subject Of, IReadOnlyList<string> Values) : Comparison(Of);

/// <summary>The option is among the chosen ones.</summary>
public sealed record Includes(Subject Of, string Value) : Comparison(Of);

/// <summary>None of the options is among the chosen ones.</summary>
public sealed record IncludesNoneOf(Subject Of, IReadOnlyList<string> Values) : Comparison(Of);

/// <summary>They say they don't know: an option marked unsure was chosen.</summary>
public sealed record DoesNotKnow(Subject Of) : Comparison(Of);

/// <summary>A number, amount or band stands in a relation to a threshold. Another currency makes it unknown.</summary>
/// <param name="Of">What is compared.</param>
/// <param name="Relation">Under, at most, at least or over.</param>
/// <param name="Value">The threshold.</param>
/// <param name="Currency">The threshold's currency when money is compared, else null.</param>
public sealed record NumberIs(Subject Of, NumberRelation Relation, decimal Value, string? Currency = null) : Comparison(Of);

/// <summary>A number, amount or band lies between two values, both included.</summary>
public sealed record NumberBetween(Subject Of, decimal Low, decimal High, string? Currency = null) : Comparison(Of);

/// <summary>A date lies between two days, both included.</summary>
public sealed record DateBetween(Subject Of, LocalDate From, LocalDate To) : Comparison(Of);

/// <summary>A date is strictly before a day.</summary>
public sealed record Before(Subject Of, LocalDate Date) : Comparison(Of);

/// <summary>A date is strictly after a day.</summary>
public sealed record After(Subject Of, LocalDate Date) : Comparison(Of);

/// <summary>A date is today or one of the next days: 0 &lt;= date - today &lt;= <paramref name="Days"/>.</summary>
public sealed record WithinNextDays(Subject Of, int Days) : Comparison(Of);

/// <summary>It was asked and answered. Unknown only while it has not been asked yet.</summary>
public sealed record IsAnswered(Subject Of) : Comparison(Of);

/// <summary>It was asked and left blank. Unknown only while it has not been asked yet; false off the route.</summary>
public sealed record IsBlank(Subject Of) : Comparison(Of);

/// <summary>The verdict; for send-offs only, unknown where no verdict is reached yet.</summary>
public sealed record FitIs(Fit Fit) : Condition;

/// <summary>What a comparison looks at.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(AnswerTo), "answer")]
[JsonDerivedType(typeof(ValueOnFile), "field")]
[JsonDerivedType(typeof(PointsSoFar), "points")]
public abstract record Subject;

/// <summary>The answer to a question of the same form.</summary>
public sealed record AnswerTo(string Question) : Subject;

/// <summary>The value of a field as it was on file at the instant of the submission; blank when the field is empty.</summary>
public sealed record ValueOnFile(string Field) : Subject;

/// <summary>The score of the screening; for send-offs only, unknown where no verdict is reached yet.</summary>
public sealed record PointsSoFar : Subject;
