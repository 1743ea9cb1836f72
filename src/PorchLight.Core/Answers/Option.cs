namespace PorchLight.Core.Answers;

/// <summary>One of the answers a choice offers.</summary>
/// <param name="Key">Names it within the question, also across versions.</param>
/// <param name="Label">What the lead reads.</param>
/// <param name="Band">The range of numbers it stands for, or null.</param>
/// <param name="Unsure">Whether it means "I don't know yet".</param>
public sealed record Option(string Key, string Label, Band? Band = null, bool Unsure = false)
{
    /// <summary>A line under the label, or null.</summary>
    public string? Explanation { get; init; }

    /// <summary>The identifier of a stored picture beside the label, or null.</summary>
    public Guid? Picture { get; init; }

    /// <summary>Whether whoever chooses it says in their own words what they mean.</summary>
    public bool OwnWords { get; init; }

    /// <summary>Whether it means "none of these": it cannot be chosen together with another.</summary>
    public bool NoneOfThese { get; init; }
}
