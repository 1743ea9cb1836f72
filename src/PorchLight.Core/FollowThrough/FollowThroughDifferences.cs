using PorchLight.Core.Common;
using static PorchLight.Core.Common.StructuralEquality;

namespace PorchLight.Core.FollowThrough;

/// <summary>Says how one version of a follow-through differs from another.</summary>
public static class FollowThroughDifferences
{
    /// <summary>What changes from one version to the next, a sentence each; empty when they do the same and say the same.</summary>
    /// <param name="before">The version that is there.</param>
    /// <param name="after">The one that is to come.</param>
    /// <param name="names">What those are called whom they name.</param>
    public static IReadOnlyList<string> Say(FollowThroughContent before, FollowThroughContent after, FollowThroughNames names)
    {
        var (was, now) = (before.Steps.ToDictionary(step => step.Key), after.Steps.ToDictionary(step => step.Key));
        return
        [
            .. before.Name == after.Name ? Array.Empty<string>() : [$"“{before.Name}” is now called “{after.Name}”."],
            .. Same(before.Starts, after.Starts)
                ? Array.Empty<string>()
                : [$"It starts when {after.Starts.Say(names)}, not when {before.Starts.Say(names)}."],
            .. after.Steps.SelectMany(
                (step, index) =>
                    was.TryGetValue(step.Key, out var old)
                        ? Changed(old, step, index == 0)
                        : [$"New: “{step.Name}”, {step.Schedule.Say(index == 0, names)}."]
            ),
            .. before.Steps.Where(step => !now.ContainsKey(step.Key)).Select(step => $"Gone: “{step.Name}”."),
            .. Order(before, now.Keys).SequenceEqual(Order(after, was.Keys)) ? Array.Empty<string>() : ["The steps are in another order."],
            .. Same(before.Stops, after.Stops) ? Array.Empty<string>() : [Ends()],
            .. before.LapseAfterDays == after.LapseAfterDays
                ? Array.Empty<string>()
                :
                [
                    $"A nod waits {FollowThroughWords.Span(after.LapseAfterDays, TimeUnit.Days)} instead of {NumberWords.Say(before.LapseAfterDays)}.",
                ],
            .. before.KeepsRhythm == after.KeepsRhythm
                ? Array.Empty<string>()
                : [after.KeepsRhythm ? "What follows a late nod keeps its day." : "What follows a late nod moves with it."],
            .. before.SideBySide == after.SideBySide
                ? Array.Empty<string>()
                : [after.SideBySide ? "It may run beside others." : "It does not run beside others any more."],
        ];

        string Ends() =>
            (before.SayStops(names), after.SayStops(names)) switch
            {
                var (_, then) when then.Length == 0 => "Only a person ends it.",
                var (first, then) when first == then => "What is still done when it ends is another step.",
                var (_, then) => $"It ends if {then}.",
            };

        IEnumerable<string> Changed(Step old, Step step, bool isFirst)
        {
            if (old.Name != step.Name)
                yield return $"“{old.Name}” is now called “{step.Name}”.";
            if (old.Schedule != step.Schedule)
                yield return step.Action.WaitsFor() is not null
                    ? $"“{step.Name}” waits at most {FollowThroughWords.Span(step.Schedule.Amount, step.Schedule.Unit)}."
                    : $"“{step.Name}” comes {step.Schedule.Say(isFirst, names)}, not {old.Schedule.Say(isFirst, names)}.";
            if (old.NeedsNod != step.NeedsNod)
                yield return step.NeedsNod ? $"“{step.Name}” waits for a nod." : $"“{step.Name}” is done automatically, without a nod.";
            if (!Same(old.Condition, step.Condition))
                yield return step.Condition is { } condition
                    ? $"“{step.Name}” is done only if {names.Condition(condition)}."
                    : $"“{step.Name}” is always done.";
            if (!Same(old.Action, step.Action))
                yield return old.SayAction(names) is var first && step.SayAction(names) is var then && first != then
                    ? $"“{step.Name}”: {then}; before, {first}."
                    : $"“{step.Name}” has other words.";
        }
    }

    private static IEnumerable<string> Order(FollowThroughContent content, ICollection<string> others) =>
        content.Steps.Select(step => step.Key).Where(others.Contains);
}
