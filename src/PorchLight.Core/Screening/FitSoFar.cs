using PorchLight.Core.Conditions;

namespace PorchLight.Core.Screening;

/// <summary>Says what the fit can still become while somebody answers.</summary>
public static class FitSoFar
{
    /// <summary>"From Not now to Come in, −35 to 82 points", or "Come in for certain, 62 points".</summary>
    /// <param name="range">The bounds.</param>
    public static string Say(this FitRange range) =>
        (
            range.WorstFit == range.BestFit
                ? $"{range.BestFit.Say()} for certain, "
                : $"From {range.WorstFit.Say()} to {range.BestFit.Say()}, "
        )
        + (
            range.LowScore == range.HighScore
                ? $"{Number(range.LowScore)} points"
                : $"{Number(range.LowScore)} to {Number(range.HighScore)} points"
        );

    private static string Number(int points) => points < 0 ? $"−{-(long)points}" : $"{points}";
}
