namespace PorchLight.Core.Forms;

/// <summary>How large a form, and what is answered to it, may be. Checked before anything is walked.</summary>
public static class FormLimits
{
    /// <summary>No list has more rows.</summary>
    public const int MostRows = 200;

    /// <summary>No date is reckoned from further away: a hundred years, in days.</summary>
    public const int MostDays = 36_525;

    /// <summary>No threshold, end or price is larger.</summary>
    public const decimal LargestNumber = 1_000_000_000_000m;

    /// <summary>No amount is paid in more months: fifty years.</summary>
    public const int MostInstalments = 600;
}
