using PorchLight.Core.Brand;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Workbench;

/// <summary>A value an answer can have, as a condition compares it.</summary>
/// <param name="Key">What the condition keeps: an option's key, "yes", "no".</param>
/// <param name="Label">What a person reads.</param>
public sealed record PossibleValue(string Key, string Label);

/// <summary>What whoever builds a form has to know of one question.</summary>
/// <param name="Sort">What sort of answer it gives.</param>
/// <param name="Comparisons">What can be compared with its answer.</param>
/// <param name="Values">The values its answer can have; empty where there are too many to list.</param>
/// <param name="Currency">The currency of its amounts; null for anything but money.</param>
/// <param name="Fields">The keys of the fields that can keep its answer.</param>
/// <param name="OfPeople">What it can say of a person of the client.</param>
/// <param name="MayBeRequired">Whether it may be asked for as a must.</param>
/// <param name="Reads">How the wording reads before the answers it names are given; null when it names none.</param>
/// <param name="Signals">What it tells about fit, a sentence each.</param>
/// <param name="LandsIn">Where it lands, in words; null when it stays with the inquiry.</param>
public sealed record QuestionFacts(
    AnswerSort Sort,
    IReadOnlyList<Comparison> Comparisons,
    IReadOnlyList<PossibleValue> Values,
    string? Currency,
    IReadOnlyList<string> Fields,
    IReadOnlyList<PersonPart> OfPeople,
    bool MayBeRequired,
    string? Reads,
    IReadOnlyList<string> Signals,
    string? LandsIn
);

/// <summary>What whoever builds a form has to know of all of it, beside what it says itself.</summary>
/// <param name="Questions">By key, what rows ask included.</param>
/// <param name="Conditions">The conditions of pages, items and send-offs as parts of sentences, by key.</param>
/// <param name="Findings">What keeps it from being published.</param>
/// <param name="Accent">How well its accent can be read.</param>
public sealed record FormFacts(
    IReadOnlyDictionary<string, QuestionFacts> Questions,
    IReadOnlyDictionary<string, string> Conditions,
    IReadOnlyList<Finding> Findings,
    AccentContrast Accent
)
{
    private static readonly IReadOnlyList<PossibleValue> YesOrNo = [new("yes", "yes"), new("no", "no")];

    /// <summary>The facts of a form as it stands, finished or not. Of two questions with one key the first counts.</summary>
    /// <param name="form">The form with the business's lists in it.</param>
    /// <param name="rules">The screening of the form.</param>
    /// <param name="brand">How the business looks.</param>
    /// <param name="fields">The fields of the business.</param>
    public static FormFacts Of(FormContent form, ScreeningRules? rules, BrandLook brand, FieldCatalogue fields)
    {
        var conditions = new Dictionary<string, string>();
        foreach (var page in form.Pages)
        {
            Note(page.Key, page.ShownOnlyWhen);
            foreach (var item in page.Items)
            {
                Note(item.Key, item.OnlyWhen);
                foreach (var asked in (item as Question)?.RowQuestions ?? [])
                    Note(asked.Key, asked.AskedOnlyWhen);
            }
        }

        foreach (var sendOff in form.SendOffs)
            Note(sendOff.Key, sendOff.When);
        return new FormFacts(
            form.Questions.SelectMany(question => question.RowQuestions.Prepend(question))
                .DistinctBy(question => question.Key)
                .ToDictionary(question => question.Key, question => Of(question, form, rules, fields)),
            conditions,
            FormStructure.Check(form, fields),
            (form.Look ?? new FormLook()).Measure(brand)
        );

        void Note(string key, Condition? condition)
        {
            if (condition is not null)
                conditions.TryAdd(key, condition.Say(form, fields));
        }
    }

    private static QuestionFacts Of(Question question, FormContent form, ScreeningRules? rules, FieldCatalogue fields)
    {
        var sort = Workbench.Comparisons.SortOf(question, form);
        var reads = KnownValues.BeforeAnswers(question.Wording);
        return new QuestionFacts(
            sort,
            Workbench.Comparisons.Of(question, form),
            sort == AnswerSort.YesNo
                ? YesOrNo
                : [.. Workbench.Comparisons.OptionsOf(question, form).Select(option => new PossibleValue(option.Key, option.Label))],
            Workbench.Comparisons.CurrencyOf(question, form),
            [.. fields.Offered.Where(question.Fits).Select(field => field.Key)],
            [.. Enum.GetValues<PersonPart>().Where(part => question.Fits(ClientPeople.FieldOf(part)))],
            question.Kind.Uses().HasFlag(KindUses.MayBeRequired),
            reads == question.Wording ? null : reads,
            [.. (rules?.Signals ?? []).Where(signal => signal.When.QuestionsUsed().Contains(question.Key)).Select(signal => signal.Say())],
            question.LandsIn?.Say(fields)
        );
    }
}
