using System.Globalization;

namespace PorchLight.Core.Common;

/// <summary>Says how many there are.</summary>
public static class NumberWords
{
    private static readonly string[] Small =
    [
        "no",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
    ];

    /// <summary>Numbers up to twelve in words, larger ones in digits.</summary>
    /// <param name="count">The number; a negative one is said in digits.</param>
    public static string Say(int count) => count >= 0 && count < Small.Length ? Small[count] : count.ToString(CultureInfo.InvariantCulture);
}
