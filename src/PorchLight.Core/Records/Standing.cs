using PorchLight.Core.Projects;

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

/// <summary>Says and compares standings.</summary>
public static class StandingWords
{
    /// <summary>The standing in one word: "Lead".</summary>
    /// <param name="standing">The standing.</param>
    public static string Say(this Standing standing) => standing.ToString();

    /// <summary>Of two standings of one person the one that says more: active, then past, then lead, then archived.</summary>
    /// <param name="a">One standing.</param>
    /// <param name="b">The other; the order does not matter.</param>
    public static Standing Closer(Standing a, Standing b) =>
        new[] { Standing.Active, Standing.Past, Standing.Lead }.FirstOrDefault(one => a == one || b == one, Standing.Archived);

    /// <summary>The standing of a client once a project of theirs came to a stage: whoever wins work is worked for now.</summary>
    /// <param name="standing">The standing until then.</param>
    /// <param name="stage">The kind of the stage; only one that is won changes anything.</param>
    public static Standing Once(this Standing standing, StageKind stage) => stage == StageKind.Won ? Standing.Active : standing;
}
