using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>Facts as a test has them.</summary>
internal sealed record PlayedFacts : IRunFacts
{
    /// <summary>A condition that is always so, one that never is, and one nobody knows.</summary>
    public static readonly Condition True = new AllCondition([]),
        False = new AnyCondition([]),
        Unknown = new FitCondition(Fit.ComeIn);

    public string? Service { get; init; }

    public Instant? LastAutomaticMessage { get; init; }

    public Instant? Meeting { get; init; }

    public IReadOnlyDictionary<string, LocalDate> Days { get; init; } = new Dictionary<string, LocalDate>();

    /// <summary>The fits that hold; null where nobody knows.</summary>
    public IReadOnlyList<Fit>? Sorted { get; init; }

    public LocalDate? DayOf(string field) => Days.TryGetValue(field, out var day) ? day : null;

    public Truth Judge(Condition condition) =>
        condition switch
        {
            AllCondition => Truth.True,
            AnyCondition => Truth.False,
            FitCondition { Fit: var fit } when Sorted is { } sorted => sorted.Contains(fit) ? Truth.True : Truth.False,
            _ => Truth.Unknown,
        };
}

internal static class StepStates
{
    /// <summary>The step without what only the planner remembers.</summary>
    public static StepState Plain(this StepState? step) => step! with { Counted = null };
}
