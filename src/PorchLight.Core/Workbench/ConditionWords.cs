using System.Globalization;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Money;

namespace PorchLight.Core.Workbench;

/// <summary>Says conditions as sentences, for the people who build forms.</summary>
public static class ConditionWords
{
    /// <summary>
    /// The condition as a part of a sentence: "“Your budget” is under 1,500 EUR and “Who decides?” is “I decide”". Parts within parts
    /// stand in brackets. A question that is not in the form is "a question that is gone".
    /// </summary>
    /// <param name="condition">The condition.</param>
    /// <param name="form">The form whose questions it looks at.</param>
    /// <param name="fields">The fields of the business.</param>
    public static string Say(this Condition condition, FormContent form, FieldCatalogue fields) =>
        Say(condition, form, fields, inner: false);

    private static string Say(Condition condition, FormContent form, FieldCatalogue fields, bool inner) =>
        condition switch
        {
            AllCondition { Parts.Count: 0 } => "it is always so",
            AnyCondition { Parts.Count: 0 } => "it is never so",
            AllCondition all => Joined(all.Parts, " and ", form, fields, inner),
            AnyCondition any => Joined(any.Parts, " or ", form, fields, inner),
            NotCondition not => $"it is not so that {Say(not.Part, form, fields, inner: true)}",
            FitCondition fit => $"the fit is {fit.Fit.Say()}",
            ComparisonCondition comparison => $"{Say(comparison.Of, form, fields)} {Compared(comparison, form)}",
            _ => throw new ArgumentOutOfRangeException(nameof(condition), condition, "A condition of an unknown kind."),
        };

    private static string Joined(IReadOnlyList<Condition> parts, string between, FormContent form, FieldCatalogue fields, bool inner)
    {
        var joined = string.Join(between, parts.Select(part => Say(part, form, fields, inner: inner || parts.Count > 1)));
        return inner && parts.Count > 1 ? $"({joined})" : joined;
    }

    private static string Compared(ComparisonCondition comparison, FormContent form)
    {
        var question = comparison.Of is AnswerTo of ? form.FindQuestion(of.Question) : null;
        var options = question is null ? [] : Comparisons.OptionsOf(question, form);
        return comparison switch
        {
            IsCondition c => $"is {Value(c.Value)}",
            IsNotCondition c => $"is not {Value(c.Value)}",
            IsOneOfCondition c => $"is {OneOf(c.Values)}",
            IncludesCondition c => $"includes {Value(c.Value)}",
            IncludesNoneOfCondition c => $"includes none of {string.Join(", ", c.Values.Select(Value))}",
            DoesNotKnowCondition => "is not known to them yet",
            NumberCondition c => $"is {Say(c.Relation)} {Amount(c.Value, c.Currency)}",
            NumberBetweenCondition c => $"is between {Amount(c.Low, null)} and {Amount(c.High, c.Currency)}",
            DateBetweenCondition c => $"is between {DateWords.Say(c.From)} and {DateWords.Say(c.To)}",
            BeforeCondition c => $"is before {DateWords.Say(c.Date)}",
            AfterCondition c => $"is after {DateWords.Say(c.Date)}",
            WithinNextDaysCondition { Days: 1 } => "is today or tomorrow",
            WithinNextDaysCondition c => $"is within the next {c.Days.ToString("N0", CultureInfo.InvariantCulture)} days",
            IsAnsweredCondition => "is answered",
            IsBlankCondition => "is left blank",
            _ => throw new ArgumentOutOfRangeException(nameof(comparison), comparison, "A comparison of an unknown kind."),
        };

        string OneOf(IReadOnlyList<string> values) => values.Count == 0 ? "one of none" : string.Join(" or ", values.Select(Value));

        string Value(string value) =>
            options.FirstOrDefault(option => option.Key == value) is { } option ? $"“{option.Label}”"
            : question?.Kind is YesNoKind && value is "yes" or "no" ? value
            : $"“{value}”";
    }

    private static string Say(Subject subject, FormContent form, FieldCatalogue fields) =>
        subject switch
        {
            AnswerTo of => form.FindQuestion(of.Question) is { } question
                ? $"“{KnownValues.BeforeAnswers(question.Wording)}”"
                : "a question that is gone",
            ValueOnFile of => fields.Find(of.Field) is { } field ? $"what you know of {field.Say()}" : "a field that is gone",
            PointsSoFar => "the number of points",
            _ => throw new ArgumentOutOfRangeException(nameof(subject), subject, "A subject of an unknown kind."),
        };

    private static string Say(Answers.NumberRelation relation) =>
        relation switch
        {
            Answers.NumberRelation.Under => "under",
            Answers.NumberRelation.AtMost => "at most",
            Answers.NumberRelation.AtLeast => "at least",
            _ => "over",
        };

    private static string Amount(decimal value, string? currency) =>
        currency is null ? value.ToString("#,0.##########", CultureInfo.InvariantCulture) : new MoneyAmount(value, currency).ToString();
}
