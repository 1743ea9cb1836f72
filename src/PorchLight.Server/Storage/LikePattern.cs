namespace PorchLight.Server.Storage;

/// <summary>Patterns of LIKE, with a backslash as their escape.</summary>
internal static class LikePattern
{
    public const string Escape = "\\";

    /// <summary>Finds texts that hold some words, whatever signs stand among them.</summary>
    public static string Within(string words) =>
        $"%{words.Trim().Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%", StringComparison.Ordinal).Replace("_", "\\_", StringComparison.Ordinal)}%";
}
