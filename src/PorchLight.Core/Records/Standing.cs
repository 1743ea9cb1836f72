namespace PorchLight.Core.Records;

/// <summary>How the business stands with a client.</summary>
public enum Standing
{
    /// <summary>They asked; nothing is agreed.</summary>
    Lead,

    /// <summary>The business works for them.</summary>
    Active,

    /// <summary>The business worked for them.</summary>
    Past,

    /// <summary>Put away: not shown unless somebody looks for them.</summary>
    Archived,
}

/// <summary>Says standings.</summary>
public static class StandingWords
{
    /// <summary>The standing in one word: "Lead".</summary>
    /// <param name="standing">The standing.</param>
    public static string Say(this Standing standing) => standing.ToString();
}
