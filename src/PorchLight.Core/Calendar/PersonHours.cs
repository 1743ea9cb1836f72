using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Calendar;

/// <summary>When one person can be met, beside the business's hours.</summary>
/// <param name="Weekly">Their own weekly hours; null for the business's.</param>
/// <param name="DaysOff">Their days off, beside the days on which the business is closed.</param>
public sealed record PersonHours(IReadOnlyList<DayHours>? Weekly, IReadOnlyList<LocalDate> DaysOff)
{
    /// <summary>The business's hours and no days off of their own.</summary>
    public static PersonHours AsBusiness { get; } = new(null, []);

    /// <summary>Their weekly hours.</summary>
    /// <param name="business">When the business works.</param>
    public IReadOnlyList<DayHours> WeeklyWithin(WorkingHours business) => Weekly ?? business.Weekly;

    /// <summary>Every day on which they cannot be met, whatever their hours: the business's closed days and their own.</summary>
    /// <param name="business">When the business works.</param>
    public IReadOnlyList<LocalDate> AllDaysOff(WorkingHours business) => [.. business.Closed.Union(DaysOff).Order()];
}

/// <summary>The same, as a person writes it down.</summary>
/// <param name="Weekly">Their own weekly hours; null for the business's.</param>
/// <param name="DaysOff">Their days off: "24 December 2026 to 3 January 2027, 17 March 2027".</param>
public sealed record PersonHoursWords(WeekWords? Weekly, string DaysOff)
{
    /// <summary>Hours as they are kept, in words.</summary>
    /// <param name="hours">Hours as they are kept.</param>
    public static PersonHoursWords Of(PersonHours hours) =>
        new(hours.Weekly is { } own ? WeekWords.Of(own) : null, HoursWords.SayDays(hours.DaysOff));

    /// <summary>Reads the words; the hours are only good when there are no findings.</summary>
    public (PersonHours Hours, IReadOnlyList<Finding> Findings) Read()
    {
        var (weekly, found) = Weekly is null ? (null, []) : Weekly.Read();
        var (days, wrong) = HoursWords.ReadDays(DaysOff, "daysOff");
        return (new PersonHours(weekly, days), [.. found, .. wrong is null ? Array.Empty<Finding>() : [wrong]]);
    }
}
