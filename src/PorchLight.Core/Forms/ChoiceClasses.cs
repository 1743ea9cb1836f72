using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>Splits the answers to a choice of several into the classes that comparisons can tell apart.</summary>
internal static class ChoiceClasses
{
    /// <summary>
    /// Options that no comparison tells apart stand for each other: each set of such groups once with one option of each,
    /// once with two where it is one group, and once filled up to as many as must be chosen.
    /// </summary>
    public static IEnumerable<Answer> Of(ChoiceKind choice, IReadOnlyList<ComparisonCondition> comparisons)
    {
        var groups = choice
            .Options.GroupBy(option =>
                (
                    Sign(option),
                    option.Unsure,
                    option.NoneOfThese,
                    comparisons.Any(comparison => comparison is NumberCondition or NumberBetweenCondition) ? option.Band : null
                )
            )
            .Select(group => group.ToList())
            .ToList();
        return groups.Count > 12
            ? EachAlone()
            : Enumerable
                .Range(1, (1 << groups.Count) - 1)
                .SelectMany(bits => OfGroups([.. groups.Where((_, index) => (bits >> index & 1) == 1)]))
                .Select(options => new ChoiceAnswer(
                    [.. choice.Options.Where(options.Contains).Select(option => option.Key)],
                    options.Select(OwnWords).FirstOrDefault(words => words is not null)
                ));

        // More than anybody will walk through; whoever asks sees that there are more than the limit.
        IEnumerable<Answer> EachAlone() => Enumerable.Range(0, int.MaxValue).Select(_ => ChoiceAnswer.Of(choice.Options[0].Key));

        string Sign(Option option) =>
            string.Concat(
                comparisons.Select(comparison =>
                    comparison switch
                    {
                        IncludesCondition c => c.Value == option.Key,
                        IncludesNoneOfCondition c => c.Values.Contains(option.Key),
                        IsCondition c => c.Value == option.Key,
                        IsNotCondition c => c.Value == option.Key,
                        IsOneOfCondition c => c.Values.Contains(option.Key),
                        _ => false,
                    }
                        ? '1'
                        : '0'
                )
            );

        IEnumerable<List<Option>> OfGroups(List<List<Option>> chosen)
        {
            List<Option> one = [.. chosen.Select(group => group[0])];
            yield return one;
            if (chosen is [[_, var second, ..]])
                yield return [one[0], second];
            if (
                choice.AtLeast > one.Count
                && chosen.SelectMany(group => group.Skip(1)).ToList() is var more
                && one.Count + more.Count >= choice.AtLeast
            )
                yield return [.. one, .. more.Take(choice.AtLeast.Value - one.Count)];
        }
    }

    /// <summary>Own words for an option that asks for them, or null.</summary>
    public static string? OwnWords(Option option) => option.OwnWords ? "something else" : null;
}
