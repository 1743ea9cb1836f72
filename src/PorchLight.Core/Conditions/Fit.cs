namespace PorchLight.Core.Conditions;

/// <summary>How well an inquiry fits the business, from worst to best.</summary>
public enum Fit
{
    /// <summary>A kind no.</summary>
    NotNow,

    /// <summary>Worth a look before a call is offered.</summary>
    TalkFirst,

    /// <summary>Welcome; a call can be offered at once.</summary>
    ComeIn,
}

/// <summary>Says how well an inquiry fits.</summary>
public static class FitWords
{
    /// <summary>The fit in the words of the program.</summary>
    /// <param name="fit">The fit.</param>
    public static string Say(this Fit fit) =>
        fit switch
        {
            Fit.ComeIn => "Come in",
            Fit.TalkFirst => "Talk first",
            _ => "Not now",
        };
}
