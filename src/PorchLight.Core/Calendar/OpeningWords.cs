using NodaTime.Text;
using PorchLight.Core.Common;

namespace PorchLight.Core.Calendar;

/// <summary>When the business works and sends, as a person writes it down.</summary>
/// <param name="Monday">"09:00 to 17:30"; empty when closed. So for each day.</param>
/// <param name="Tuesday">As for Monday.</param>
/// <param name="Wednesday">As for Monday.</param>
/// <param name="Thursday">As for Monday.</param>
/// <param name="Friday">As for Monday.</param>
/// <param name="Saturday">As for Monday.</param>
/// <param name="Sunday">As for Monday.</param>
/// <param name="Closed">Closed days: "2026-12-24 to 2027-01-03, 2027-03-17".</param>
/// <param name="SendFrom">From when messages go out on a working day: "09:00".</param>
/// <param name="SendTo">Until when.</param>
public sealed record OpeningWords(
    string Monday,
    string Tuesday,
    string Wednesday,
    string Thursday,
    string Friday,
    string Saturday,
    string Sunday,
    string Closed,
    string SendFrom,
    string SendTo
)
{
    private static readonly LocalTimePattern Clock = LocalTimePattern.CreateWithInvariantCulture("H:mm");

    /// <summary>Hours as they are kept, in words.</summary>
    /// <param name="hours">Hours as they are kept; a weekday they do not name has none.</param>
    public static OpeningWords Of(WorkingHours hours)
    {
        var week = WeekWords.Of(hours.Weekly);
        return new OpeningWords(
            week.Monday,
            week.Tuesday,
            week.Wednesday,
            week.Thursday,
            week.Friday,
            week.Saturday,
            week.Sunday,
            HoursWords.SayDays(hours.Closed),
            HoursWords.Say(hours.Window.From),
            HoursWords.Say(hours.Window.To)
        );
    }

    /// <summary>Reads the words; the hours are only good when there are no findings.</summary>
    public (WorkingHours Hours, IReadOnlyList<Finding> Findings) Read()
    {
        var (weekly, wrong) = new WeekWords(Monday, Tuesday, Wednesday, Thursday, Friday, Saturday, Sunday).Read();
        var found = new List<Finding>(wrong);
        if (weekly.Count == 0 && found.Count == 0)
            found.Add(new Finding("monday", "Please give the hours of at least one day; promises and messages need a working day."));
        var (closed, notDays) = HoursWords.ReadDays(Closed, "closed");
        if (notDays is not null)
            found.Add(notDays);
        var (from, to) = (Clock.Parse(SendFrom.Trim()), Clock.Parse(SendTo.Trim()));
        if (!from.Success || !to.Success || to.Value <= from.Value)
            found.Add(new Finding("sendFrom", "Please write from when until when messages may go out, like 09:00 and 17:00."));
        return (new WorkingHours(weekly, closed, found.Count == 0 ? new SendingWindow(from.Value, to.Value) : SendingWindow.Usual), found);
    }
}
