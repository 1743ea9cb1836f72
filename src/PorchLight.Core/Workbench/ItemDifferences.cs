using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using static PorchLight.Core.Common.StructuralEquality;

namespace PorchLight.Core.Workbench;

/// <summary>Says what changed in one item of a form, in parts of sentences.</summary>
internal static class ItemDifferences
{
    /// <summary>What is not the same: "two answers added", "must be answered"; empty exactly when the two hold the same.</summary>
    public static IEnumerable<string> Between(Item was, Item now)
    {
        var found = was is Question before && now is Question after ? OfQuestions(before, after).ToList() : [];
        // Whatever has no words of its own is said as well.
        return found.Count == 0 && !Same(was, now) ? ["was changed"] : found;
    }

    private static IEnumerable<string> OfQuestions(Question was, Question now)
    {
        if (was.Wording != now.Wording)
            yield return $"now reads “{KnownValues.BeforeAnswers(now.Wording)}”";
        if (was.Help != now.Help)
            yield return "other words under it";
        if (was.Placeholder != now.Placeholder)
            yield return "another example in it";
        foreach (var what in OfKinds(was.Kind, now.Kind))
            yield return what;
        if (was.Required != now.Required)
            yield return now.Required ? "must be answered" : "need not be answered any more";
        if (!Same(was.RequiredWhen, now.RequiredWhen))
            yield return now.RequiredWhen is null ? "is required by no condition any more" : "is required under another condition";
        if (!Same(was.AskedOnlyWhen, now.AskedOnlyWhen))
            yield return now.AskedOnlyWhen is null ? "is always asked" : "is asked under another condition";
        if (was.Prefill != now.Prefill)
            yield return "is filled in beforehand in another way";
        if (was.LandsIn != now.LandsIn)
            yield return now.LandsIn is null ? "lands nowhere any more" : "lands in another place";
        if (was.Width != now.Width)
            yield return "has another width";
    }

    private static List<string> OfKinds(QuestionKind was, QuestionKind now)
    {
        var found = (
            (was, now) switch
            {
                _ when was.GetType() != now.GetType() => ["is asked in another way"],
                (ChoiceKind before, ChoiceKind after) => OfChoices(before, after),
                (RowsKind before, RowsKind after) => OfRows(before, after),
                (WorkedOutKind before, WorkedOutKind after) when !Same(before.Value, after.Value) => ["is worked out in another way"],
                (AgreementKind before, AgreementKind after) when before.Statement != after.Statement => ["people agree to other words"],
                _ => Enumerable.Empty<string>(),
            }
        ).ToList();
        return found.Count == 0 && !Same(was, now) ? ["has other limits"] : found;
    }

    private static IEnumerable<string> OfChoices(ChoiceKind was, ChoiceKind now)
    {
        var (before, after) = (was.Options.Select(option => option.Key).ToList(), now.Options.Select(option => option.Key).ToList());
        if (Count(after.Except(before).Count(), "added") is { } added)
            yield return added;
        if (Count(before.Except(after).Count(), "taken away") is { } gone)
            yield return gone;
        var changed = now.Options.Count(option => was.Find(option.Key) is { } other && !Same(other, option));
        if (Count(changed, "changed") is { } other)
            yield return other;
        if (FormDifferences.IsReordered(before, after))
            yield return "answers in another order";
        if (was.Several != now.Several)
            yield return now.Several ? "several answers may be chosen" : "one answer is chosen";
        IReadOnlyList<Option> none = [];
        if (!Same(was with { Options = none, Several = false }, now with { Options = none, Several = false }))
            yield return "has other limits";
    }

    private static IEnumerable<string> OfRows(RowsKind was, RowsKind now)
    {
        var (before, after) = (ByKey(was), ByKey(now));
        foreach (var gone in was.Questions.Where(one => !after.ContainsKey(one.Key)))
            yield return $"“{gone.Wording}” is not asked any more in each row";
        foreach (var question in now.Questions)
        {
            if (!before.TryGetValue(question.Key, out var other))
                yield return $"“{question.Wording}” is asked in each row";
            else
                foreach (var what in Between(other, question))
                    yield return $"in each row, “{question.Wording}” {what}";
        }

        if (FormDifferences.IsReordered(before.Keys, after.Keys))
            yield return "asks in another order in each row";
    }

    // An unfinished copy may have a key twice; the first counts.
    private static Dictionary<string, Question> ByKey(RowsKind rows) =>
        rows.Questions.DistinctBy(question => question.Key).ToDictionary(question => question.Key);

    private static string? Count(int count, string done) =>
        count == 0 ? null : $"{NumberWords.Say(count)} {(count == 1 ? "answer" : "answers")} {done}";
}
