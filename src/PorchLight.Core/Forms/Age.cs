using NodaTime;

namespace PorchLight.Core.Forms;

/// <summary>How old people are.</summary>
public static class Age
{
    /// <summary>
    /// Completed years on a day; negative before birth. Somebody born on 29 February completes a year on 1 March in
    /// common years (NodaTime's Period would say 28 February).
    /// </summary>
    /// <param name="born">The birth date.</param>
    /// <param name="on">The day that counts: the event, not the day of asking.</param>
    public static int On(LocalDate born, LocalDate on)
    {
        var years = on.Year - born.Year;
        return (on.Month, on.Day).CompareTo((born.Month, born.Day)) < 0 ? years - 1 : years;
    }
}
