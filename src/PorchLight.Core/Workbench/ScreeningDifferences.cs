using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using static PorchLight.Core.Common.StructuralEquality;

namespace PorchLight.Core.Workbench;

/// <summary>Says how one screening differs from another.</summary>
public static class ScreeningDifferences
{
    /// <summary>What changes from one screening to the next, a sentence each; empty when they sort alike and say the same.</summary>
    /// <param name="before">The screening in force.</param>
    /// <param name="after">The one that is to come.</param>
    /// <param name="form">The form with the business's lists in it.</param>
    /// <param name="fields">The fields of the business.</param>
    public static IReadOnlyList<string> Say(ScreeningRules before, ScreeningRules after, FormContent form, FieldCatalogue fields)
    {
        var (was, now) = (before.Signals.ToLookup(signal => signal.Key), after.Signals.ToLookup(signal => signal.Key));
        return
        [
            .. Number("Everyone starts with", before.Base, after.Base),
            .. Number($"{Fit.ComeIn.Say()} begins at", before.ComeInAt, after.ComeInAt),
            .. Number($"{Fit.NotNow.Say()} ends at", before.Floor, after.Floor),
            .. before.FlagLimit == after.FlagLimit
                ? Array.Empty<string>()
                : [$"{after.FlagLimit} instead of {before.FlagLimit} flags are enough for {Fit.NotNow.Say()}."],
            .. after.Signals.SelectMany(signal =>
                was[signal.Key].FirstOrDefault() is { } old ? Changed(old, signal) : [$"New: {signal.Say()}."]
            ),
            .. before.Signals.Where(signal => !now.Contains(signal.Key)).Select(signal => $"Gone: {signal.Say()}."),
            .. Order(before, now).SequenceEqual(Order(after, was)) ? Array.Empty<string>() : ["The signals are in another order."],
        ];

        static IEnumerable<string> Order(ScreeningRules rules, ILookup<string, Signal> others) =>
            rules.Signals.Select(signal => signal.Key).Where(others.Contains);

        IEnumerable<string> Changed(Signal old, Signal signal)
        {
            if (old.IsOff != signal.IsOff)
                yield return $"Switched {(signal.IsOff ? "off" : "on")}: {signal.Sentence}.";
            if (old.Effect != signal.Effect)
                yield return $"{signal.Sentence}: {signal.Effect.Say()} instead of {old.Effect.Say()}.";
            if (old.When.Say(form, fields) is var condition && condition != signal.When.Say(form, fields))
                yield return $"{signal.Sentence}: when {signal.When.Say(form, fields)}, not when {condition}.";
            else if (!Same(old.When, signal.When))
                yield return $"{signal.Sentence}: when it counts reads the same, and means other answers than before.";
            if (old.Sentence != signal.Sentence)
                yield return $"“{old.Sentence}” is now called “{signal.Sentence}”.";
            if (old.Advice != signal.Advice)
                yield return $"{signal.Sentence}: other advice for the reply.";
        }
    }

    private static string[] Number(string what, int before, int after) =>
        before == after ? [] : [$"{what} {after} instead of {before} points."];
}
