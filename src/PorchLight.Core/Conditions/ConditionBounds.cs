using PorchLight.Core.Answers;

namespace PorchLight.Core.Conditions;

/// <summary>Finds thresholds that cannot be meant.</summary>
public static class ConditionBounds
{
    /// <summary>What cannot be meant in a condition, as sentences, from left to right; none when all of it can.</summary>
    /// <param name="condition">The condition.</param>
    public static IEnumerable<string> Check(Condition condition) =>
        condition
            .Comparisons()
            .Select(comparison =>
                comparison switch
                {
                    NumberCondition c => ValueBounds.Check(c.Value),
                    NumberBetweenCondition c => ValueBounds.Check(c.Low)
                        ?? ValueBounds.Check(c.High)
                        ?? (
                            c.Low > c.High
                                ? "A condition here asks for a number between two that are the wrong way round. Write the smaller one first."
                                : null
                        ),
                    DateBetweenCondition c => ValueBounds.Check(c.From)
                        ?? ValueBounds.Check(c.To)
                        ?? (
                            c.From > c.To
                                ? "A condition here asks for a day between two that are the wrong way round. Write the earlier one first."
                                : null
                        ),
                    BeforeCondition c => ValueBounds.Check(c.Date),
                    AfterCondition c => ValueBounds.Check(c.Date),
                    WithinNextDaysCondition { Days: < 0 or > ValueBounds.MostDays } =>
                        $"A condition here counts days ahead. Choose from 0 to {ValueBounds.MostDays:N0} days.",
                    _ => null,
                }
            )
            .OfType<string>();
}
