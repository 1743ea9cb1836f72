using System.Text.Json.Serialization;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>Something that must hold between answers. What breaks it is said beside the later question.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(EndNotBeforeStartRule), "endNotBeforeStart")]
[JsonDerivedType(typeof(CountMatchesRowsRule), "countMatchesRows")]
[JsonDerivedType(typeof(NeverRule), "never")]
public abstract record AnswerRule;

/// <summary>A day may not lie before another one.</summary>
/// <param name="Start">The question for the first day.</param>
/// <param name="End">The question for the last day.</param>
public sealed record EndNotBeforeStartRule(string Start, string End) : AnswerRule;

/// <summary>A stated count must be the number of rows.</summary>
/// <param name="Count">The question for the count.</param>
/// <param name="Rows">The question with the rows.</param>
public sealed record CountMatchesRowsRule(string Count, string Rows) : AnswerRule;

/// <summary>Answers that do not go together.</summary>
/// <param name="When">What must not be true.</param>
/// <param name="At">The question beside which it is said.</param>
/// <param name="Sentence">What is said, with what to do.</param>
public sealed record NeverRule(Condition When, string At, string Sentence) : AnswerRule;
