namespace PorchLight.Core.Common;

/// <summary>Says several things as one.</summary>
public static class WordLists
{
    /// <summary>"one, two or three"; empty for nothing.</summary>
    /// <param name="words">What is said, in order.</param>
    public static string Either(IEnumerable<string> words) => Join([.. words], "or");

    /// <summary>"one, two and three"; empty for nothing.</summary>
    /// <param name="words">What is said, in order.</param>
    public static string All(IEnumerable<string> words) => Join([.. words], "and");

    private static string Join(IReadOnlyList<string> words, string last) =>
        words.Count < 2 ? string.Concat(words) : $"{string.Join(", ", words.SkipLast(1))} {last} {words[^1]}";
}
