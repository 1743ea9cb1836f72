using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Meetings;

/// <summary>Says when a meeting is.</summary>
public static class MeetingTimeWords
{
    private static readonly LocalDatePattern DayAndMonth = LocalDatePattern.CreateWithInvariantCulture("dddd d MMMM");

    /// <summary>A time of the business's clock, in one place only: "Thursday 3 December, 15:00".</summary>
    /// <param name="local">The time of day and the day; always said without the year.</param>
    public static string Say(LocalDateTime local) => $"{DayAndMonth.Format(local.Date)}, {TimeWords.Clock(local.TimeOfDay)}";

    /// <summary>" for Thursday 3 December, 15:00"; empty where it is not known.</summary>
    /// <param name="local">The time, or null.</param>
    internal static string ForTime(LocalDateTime? local) => local is { } time ? $" for {Say(time)}" : "";

    /// <summary>
    /// A meeting for whoever looks: "Thursday 3 December, 15:00 to 15:30 in Lisbon, 15:00 in Dublin". The business's time stands beside it
    /// where their clocks differ, or are called otherwise; with its day where that is another one: "…, Friday 01:00 in Auckland".
    /// </summary>
    /// <param name="when">When it is.</param>
    /// <param name="viewer">The zone of whoever looks.</param>
    /// <param name="business">The business's zone.</param>
    public static string Say(Span when, DateTimeZone viewer, DateTimeZone business)
    {
        var (from, to, ours) = (
            when.From.InZone(viewer).LocalDateTime,
            when.To.InZone(viewer).LocalDateTime,
            when.From.InZone(business).LocalDateTime
        );
        var end = to.Date == from.Date ? TimeWords.Clock(to.TimeOfDay) : $"{to.DayOfWeek} {TimeWords.Clock(to.TimeOfDay)}";
        var said = $"{Say(from)} to {end}";
        if (viewer.Id == business.Id)
            return said;
        var beside =
            ours == from ? "the same"
            : ours.Date == from.Date ? TimeWords.Clock(ours.TimeOfDay)
            : $"{ours.DayOfWeek} {TimeWords.Clock(ours.TimeOfDay)}";
        return $"{said} in {Locales.CityOf(viewer.Id)}, {beside} in {Locales.CityOf(business.Id)}";
    }
}
