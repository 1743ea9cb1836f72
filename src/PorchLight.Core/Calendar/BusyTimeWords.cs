using System.Globalization;

namespace PorchLight.Core.Calendar;

/// <summary>Says what is known of somebody's busy times.</summary>
public static class BusyTimeWords
{
    /// <summary>"1 busy time to come", "1,204 busy times to come", "Nothing to come".</summary>
    /// <param name="count">How many there are.</param>
    public static string ToCome(int count) =>
        count switch
        {
            0 => "Nothing to come",
            1 => "1 busy time to come",
            _ => string.Create(CultureInfo.InvariantCulture, $"{count:N0} busy times to come"),
        };
}
