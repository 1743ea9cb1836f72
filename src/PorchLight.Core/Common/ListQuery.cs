namespace PorchLight.Core.Common;

/// <summary>Which rows a list shows, and in which order. A list adds what it can be filtered by; whatever is empty there stands for all.</summary>
public abstract record ListQuery
{
    /// <summary>How many characters can be searched for at once.</summary>
    public const int LongestWords = 300;

    /// <summary>Words to be searched for; empty for all rows.</summary>
    public string Words { get; init; } = "";

    /// <summary>Whether the order runs the other way round than it usually does.</summary>
    public bool Backwards { get; init; }

    /// <summary>What is wrong with it by itself, as sentences with the part they are about; none when a list can be made of it.</summary>
    public virtual IReadOnlyList<Finding> Check() =>
        Words.Length > LongestWords ? [new Finding("words", $"Please search for at most {LongestWords} characters.")] : [];
}
