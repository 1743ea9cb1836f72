using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>A question after its kind was changed.</summary>
/// <param name="Question">The question with its new kind.</param>
/// <param name="Lost">What the new kind has no place for, a sentence each; empty when all was kept.</param>
public sealed record ChangedKind(Question Question, IReadOnlyList<string> Lost);

/// <summary>Changes the kind of a question, keeping what the new one has a place for.</summary>
public static class KindChange
{
    /// <summary>
    /// The question asked in another way. Wording, help, width and conditions stay. Limits, options, statements and what rows ask
    /// go over where both kinds have them; so do being required, a prefill and the place where it lands, where the new kind allows
    /// them.
    /// </summary>
    /// <param name="question">The question as it is.</param>
    /// <param name="kind">The new kind, with the limits it has by itself; those that go over replace them.</param>
    /// <param name="fields">The fields of the business.</param>
    public static ChangedKind To(Question question, QuestionKind kind, FieldCatalogue fields)
    {
        var lost = new List<string>();
        var changed = question with { Kind = Carried(question.Kind, kind) };
        if (question.Options.Count > 0 && changed.Options.Count == 0 && question.Kind is ChoiceKind { From: null })
            lost.Add("Its answers to choose from are gone.");
        if (question.RowQuestions.Count > 0 && changed.RowQuestions.Count == 0)
            lost.Add("What it asked in each row is gone.");
        if ((question.Required || question.RequiredWhen is not null) && !kind.Uses().HasFlag(KindUses.MayBeRequired))
        {
            changed = changed with { Required = false, RequiredWhen = null };
            lost.Add("It can be left blank now: this kind of answer has to be given freely.");
        }

        if (question.LandsIn is { } place && changed.RefusesToLand(place, fields) is { } refusal)
        {
            changed = changed with { LandsIn = null };
            lost.Add(refusal);
        }

        if (KindLimits.Chosen(question.Kind).Except(KindLimits.Of(changed.Kind)).ToList() is { Count: > 0 } gone)
            lost.Add($"This kind of answer does not keep {string.Join(", ", gone)}.");
        return new ChangedKind(changed, lost);
    }

    private static QuestionKind Carried(QuestionKind from, QuestionKind to) =>
        (from, to) switch
        {
            (ChoiceKind was, ChoiceKind now) => was with
            {
                Several = now.Several,
                DropDown = was.DropDown && !now.Several,
                AtLeast = now.Several ? was.AtLeast : null,
                AtMost = now.Several ? was.AtMost : null,
            },
            (YesNoKind, ChoiceKind now) => now with { Options = [new Option("yes", "Yes"), new Option("no", "No")], From = null },
            (ShortTextKind was, LongTextKind now) => now with { MinLength = was.MinLength },
            (LongTextKind was, ShortTextKind now) => now with { MinLength = Math.Min(was.MinLength, now.MaxLength) },
            (NumberKind was, ScaleKind now) => Scale(was.Min, was.Max, now),
            (MoneyKind was, ScaleKind now) => Scale(was.Min, was.Max, now),
            (ScaleKind was, NumberKind now) => now with { Min = was.Low, Max = was.High, Whole = true },
            (ScaleKind was, MoneyKind now) => now with { Min = was.Low, Max = was.High },
            (NumberKind was, MoneyKind now) => now with { Min = was.Min, Max = was.Max },
            (MoneyKind was, NumberKind now) => now with { Min = was.Min, Max = was.Max },
            (DateKind was, DateRangeKind now) => now with { Limits = was.Limits },
            (DateRangeKind was, DateKind now) => now with { Limits = was.Limits },
            (AgreementKind was, ConsentKind) => new ConsentKind(was.Statement),
            (AgreementKind was, AdvertisingKind) => new AdvertisingKind(was.Statement),
            (AgreementKind was, SignatureKind now) => now with { Statement = was.Statement },
            (SignatureKind was, ConsentKind) => new ConsentKind(was.Statement),
            (SignatureKind was, AdvertisingKind) => new AdvertisingKind(was.Statement),
            (ListKind was, PeopleKind now) => now with
            {
                More = Free(was.Asks, now.NameKey, now.BornKey),
                Least = was.Least,
                Most = was.Most,
            },
            (PeopleKind was, ListKind now) => now with { Asks = was.Questions, Called = was.Called, Least = was.Least, Most = was.Most },
            _ when from.GetType() == to.GetType() => from,
            _ => to,
        };

    private static ScaleKind Scale(decimal? min, decimal? max, ScaleKind now) =>
        min is >= -1_000 and { } low
        && max is <= 1_000 and { } high
        && low % 1 == 0
        && high % 1 == 0
        && now with { Low = (int)low, High = (int)high } is var scale
        && !scale.Faults().Any()
            ? scale
            : now;

    private static IReadOnlyList<Question> Free(IReadOnlyList<Question> questions, params string?[] taken) =>
        [.. questions.Where(question => !taken.Contains(question.Key))];
}
