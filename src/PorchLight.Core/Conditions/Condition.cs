using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Answers;

namespace PorchLight.Core.Conditions;

/// <summary>
/// Something that is true, false or unknown of the answers given. A tree of all, any and not over comparisons;
/// <see cref="Conditions"/> judges it.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(AllCondition), "all")]
[JsonDerivedType(typeof(AnyCondition), "any")]
[JsonDerivedType(typeof(NotCondition), "not")]
[JsonDerivedType(typeof(IsCondition), "is")]
[JsonDerivedType(typeof(IsNotCondition), "isNot")]
[JsonDerivedType(typeof(IsOneOfCondition), "isOneOf")]
[JsonDerivedType(typeof(IncludesCondition), "includes")]
[JsonDerivedType(typeof(IncludesNoneOfCondition), "includesNoneOf")]
[JsonDerivedType(typeof(DoesNotKnowCondition), "doesNotKnow")]
[JsonDerivedType(typeof(NumberCondition), "numberIs")]
[JsonDerivedType(typeof(NumberBetweenCondition), "numberBetween")]
[JsonDerivedType(typeof(DateBetweenCondition), "dateBetween")]
[JsonDerivedType(typeof(BeforeCondition), "before")]
[JsonDerivedType(typeof(AfterCondition), "after")]
[JsonDerivedType(typeof(WithinNextDaysCondition), "withinNextDays")]
[JsonDerivedType(typeof(IsAnsweredCondition), "isAnswered")]
[JsonDerivedType(typeof(IsBlankCondition), "isBlank")]
[JsonDerivedType(typeof(FitCondition), "fitIs")]
public abstract record Condition;

/// <summary>True when every part is; true when there is none.</summary>
public sealed record AllCondition(IReadOnlyList<Condition> Parts) : Condition;

/// <summary>True when at least one part is; false when there is none.</summary>
public sealed record AnyCondition(IReadOnlyList<Condition> Parts) : Condition;

/// <summary>True when the part is false.</summary>
public sealed record NotCondition(Condition Part) : Condition;

/// <summary>A comparison of one value with something.</summary>
/// <param name="Of">What is compared.</param>
public abstract record ComparisonCondition(Subject Of) : Condition;

/// <summary>Equal: an option by its key, yes or no as "yes" and "no", text trimmed and without regard to case.</summary>
public sealed record IsCondition(Subject Of, string Value) : ComparisonCondition(Of);

/// <summary>The opposite of <see cref="IsCondition"/>; unknown where that is unknown.</summary>
public sealed record IsNotCondition(Subject Of, string Value) : ComparisonCondition(Of);

/// <summary>Equal to one of the values.</summary>
public sealed record IsOneOfCondition(Subject Of, IReadOnlyList<string> Values) : ComparisonCondition(Of);

/// <summary>The option is among the chosen ones.</summary>
public sealed record IncludesCondition(Subject Of, string Value) : ComparisonCondition(Of);

/// <summary>None of the options is among the chosen ones.</summary>
public sealed record IncludesNoneOfCondition(Subject Of, IReadOnlyList<string> Values) : ComparisonCondition(Of);

/// <summary>They say they don't know: an option marked unsure was chosen.</summary>
public sealed record DoesNotKnowCondition(Subject Of) : ComparisonCondition(Of);

/// <summary>A number, amount or band stands in a relation to a threshold. Another currency makes it unknown.</summary>
/// <param name="Of">What is compared.</param>
/// <param name="Relation">Under, at most, at least or over.</param>
/// <param name="Value">The threshold.</param>
/// <param name="Currency">The threshold's currency when money is compared, else null.</param>
public sealed record NumberCondition(Subject Of, NumberRelation Relation, decimal Value, string? Currency = null) : ComparisonCondition(Of);

/// <summary>A number, amount or band lies between two values, both included.</summary>
public sealed record NumberBetweenCondition(Subject Of, decimal Low, decimal High, string? Currency = null) : ComparisonCondition(Of);

/// <summary>A date lies between two days, both included.</summary>
public sealed record DateBetweenCondition(Subject Of, LocalDate From, LocalDate To) : ComparisonCondition(Of);

/// <summary>A date is strictly before a day.</summary>
public sealed record BeforeCondition(Subject Of, LocalDate Date) : ComparisonCondition(Of);

/// <summary>A date is strictly after a day.</summary>
public sealed record AfterCondition(Subject Of, LocalDate Date) : ComparisonCondition(Of);

/// <summary>A date is today or one of the next days: 0 &lt;= date - today &lt;= <paramref name="Days"/>.</summary>
public sealed record WithinNextDaysCondition(Subject Of, int Days) : ComparisonCondition(Of);

/// <summary>It was asked and answered. Unknown only while it has not been asked yet.</summary>
public sealed record IsAnsweredCondition(Subject Of) : ComparisonCondition(Of);

/// <summary>It was asked and left blank. Unknown only while it has not been asked yet; false off the route.</summary>
public sealed record IsBlankCondition(Subject Of) : ComparisonCondition(Of);

/// <summary>The verdict; for send-offs only, unknown where no verdict is reached yet.</summary>
public sealed record FitCondition(Fit Fit) : Condition;

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
