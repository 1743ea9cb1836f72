using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Meetings;

/// <summary>A part of a day, by the clock of whoever looks.</summary>
public enum PartOfDay
{
    /// <summary>Before 6:00.</summary>
    Night,

    /// <summary>From 6:00.</summary>
    Morning,

    /// <summary>From 12:00.</summary>
    Midday,

    /// <summary>From 14:00.</summary>
    Afternoon,

    /// <summary>From 18:00.</summary>
    Evening,
}

/// <summary>A free time in the table.</summary>
/// <param name="Start">When it begins.</param>
/// <param name="Clock">The time of day: "15:00".</param>
/// <param name="Says">The whole of it: <see cref="MeetingTimeWords.Say(Span, DateTimeZone, DateTimeZone)"/>.</param>
public sealed record BookingTime(Instant Start, string Clock, string Says);

/// <summary>A day in the table.</summary>
/// <param name="Day">The day.</param>
/// <param name="Name">How it is called from today: "Tomorrow", "Thursday".</param>
/// <param name="Date">Its date beside that: "Wednesday 2 December", "3 December".</param>
/// <param name="Parts">Its times, in the same order as the parts of the table; a part without any is empty.</param>
public sealed record BookingDay(LocalDate Day, string Name, string Date, IReadOnlyList<IReadOnlyList<BookingTime>> Parts);

/// <summary>Free times as whoever books looks at them: days with parts of the day, by their own clock.</summary>
/// <param name="Zone">What people call the zone of their clock: "Lisbon".</param>
/// <param name="Parts">The parts of the day in which any time lies, in order.</param>
/// <param name="Days">The days on which any time lies, in order.</param>
public sealed record BookingTable(string Zone, IReadOnlyList<PartOfDay> Parts, IReadOnlyList<BookingDay> Days)
{
    private static readonly LocalDatePattern WithWeekday = LocalDatePattern.CreateWithInvariantCulture("dddd d MMMM");
    private static readonly LocalDatePattern WithoutWeekday = LocalDatePattern.CreateWithInvariantCulture("d MMMM");

    /// <summary>The table of some free times.</summary>
    /// <param name="slots">The free times, in order. One whose time of day another has for whoever looks is left out (<see cref="Slots.SeenFrom"/>).</param>
    /// <param name="viewer">The zone of whoever looks.</param>
    /// <param name="business">The business's zone.</param>
    /// <param name="now">The current instant.</param>
    public static BookingTable Of(IEnumerable<Slot> slots, DateTimeZone viewer, DateTimeZone business, Instant now)
    {
        var today = now.InZone(viewer).Date;
        var days = Slots
            .SeenFrom(slots, viewer)
            .Select(slot => (Slot: slot, Local: slot.Start.InZone(viewer).LocalDateTime))
            .GroupBy(one => one.Local.Date)
            .Select(day => (day.Key, Times: day.ToLookup(one => PartOf(one.Local.TimeOfDay), one => TimeOf(one.Slot, viewer, business))))
            .ToList();
        var parts = Enum.GetValues<PartOfDay>().Where(part => days.Any(day => day.Times.Contains(part))).ToList();
        return new BookingTable(
            Locales.CityOf(viewer.Id),
            parts,
            [
                .. days.Select(day => new BookingDay(
                    day.Key,
                    NameOf(day.Key, today),
                    DateOf(day.Key, today),
                    [.. parts.Select(part => day.Times[part].ToList())]
                )),
            ]
        );
    }

    /// <summary>Single free times, as whoever books looks at them: those nearest to one that is taken.</summary>
    /// <param name="slots">The free times, in order.</param>
    /// <param name="viewer">The zone of whoever looks.</param>
    /// <param name="business">The business's zone.</param>
    public static IReadOnlyList<BookingTime> TimesOf(IEnumerable<Slot> slots, DateTimeZone viewer, DateTimeZone business) =>
        [.. Slots.SeenFrom(slots, viewer).Select(slot => TimeOf(slot, viewer, business))];

    private static BookingTime TimeOf(Slot slot, DateTimeZone viewer, DateTimeZone business) =>
        new(
            slot.Start,
            TimeWords.Clock(slot.Start.InZone(viewer).TimeOfDay),
            MeetingTimeWords.Say(new Span(slot.Start, slot.End), viewer, business)
        );

    private static PartOfDay PartOf(LocalTime time) =>
        time.Hour switch
        {
            < 6 => PartOfDay.Night,
            < 12 => PartOfDay.Morning,
            < 14 => PartOfDay.Midday,
            < 18 => PartOfDay.Afternoon,
            _ => PartOfDay.Evening,
        };

    private static string NameOf(LocalDate day, LocalDate today) =>
        Period.DaysBetween(today, day) switch
        {
            0 => "Today",
            1 => "Tomorrow",
            _ => day.DayOfWeek.ToString(),
        };

    private static string DateOf(LocalDate day, LocalDate today) =>
        (Period.DaysBetween(today, day) <= 1 ? WithWeekday : WithoutWeekday).Format(day) + (day.Year == today.Year ? "" : $" {day.Year}");
}
