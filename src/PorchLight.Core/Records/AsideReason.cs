namespace PorchLight.Core.Records;

/// <summary>Why an inquiry is kept apart from the others and never counts.</summary>
public enum AsideReason
{
    /// <summary>Nobody meant it.</summary>
    Spam,

    /// <summary>Somebody of the business tried the form.</summary>
    Test,
}

/// <summary>Says why inquiries are kept apart.</summary>
public static class AsideReasons
{
    /// <summary>The reason in a sentence: "as spam", "as just a test".</summary>
    /// <param name="reason">The reason.</param>
    public static string Say(this AsideReason reason) => reason == AsideReason.Spam ? "spam" : "just a test";
}
