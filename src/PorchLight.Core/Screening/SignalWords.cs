namespace PorchLight.Core.Screening;

/// <summary>Says what signals do.</summary>
public static class SignalWords
{
    /// <summary>What it does when it is true: "25 points off", "12 points", "a flag", "cannot be done".</summary>
    /// <param name="effect">The effect.</param>
    public static string Say(this SignalEffect effect) =>
        effect switch
        {
            PointsEffect { Points: var points } =>
                $"{Math.Abs((long)points)} {(points is 1 or -1 ? "point" : "points")}{(points < 0 ? " off" : "")}",
            FlagEffect => "a flag",
            DealBreakerEffect => "cannot be done",
            _ => throw new ArgumentOutOfRangeException(nameof(effect), effect, "An effect of an unknown kind."),
        };

    /// <summary>The signal as a sentence: "Budget is under the starting price: 25 points off".</summary>
    /// <param name="signal">The signal; one that is switched off says so.</param>
    public static string Say(this Signal signal) => $"{signal.Sentence}: {signal.Effect.Say()}{(signal.IsOff ? " (switched off)" : "")}";
}
