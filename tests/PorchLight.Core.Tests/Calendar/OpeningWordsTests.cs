using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

public sealed class OpeningWordsTests
{
    private static readonly OpeningWords Week = new(
        "09:00 to 12:30, 13:30 to 17:30",
        "",
        "9-17",
        "",
        "",
        "10 to 24",
        "",
        "2026-12-24 to 2026-12-26, 2027-03-17",
        "9:00",
        "17:30"
    );

    [Fact]
    public void Words_are_read_and_written_back_in_one_manner()
    {
        var (hours, findings) = Week.Read();
        findings.ShouldBeEmpty();
        hours.Weekly.Select(day => day.Day).ShouldBe([IsoDayOfWeek.Monday, IsoDayOfWeek.Wednesday, IsoDayOfWeek.Saturday]);
        hours.Closed.ShouldBe([
            new LocalDate(2026, 12, 24),
            new LocalDate(2026, 12, 25),
            new LocalDate(2026, 12, 26),
            new LocalDate(2027, 3, 17),
        ]);
        hours.Window.ShouldBe(new SendingWindow(new LocalTime(9, 0), new LocalTime(17, 30)));
        var said = OpeningWords.Of(hours);
        said.ShouldBe(
            Week with
            {
                Wednesday = "09:00 to 17:00",
                Saturday = "10:00 to 24:00",
                SendFrom = "09:00",
                Closed = "24 December 2026 to 26 December 2026, 17 March 2027",
            }
        );
        OpeningWords.Of(said.Read().Hours).ShouldBe(said);
    }

    [Fact]
    public void What_cannot_be_read_is_named_day_by_day() =>
        (Week with { Monday = "morning", Friday = "17 to 9", Closed = "Christmas", SendFrom = "early" })
            .Read()
            .Findings.Select(finding => finding.Place)
            .ShouldBe(["monday", "friday", "closed", "sendFrom"]);

    [Fact]
    public void A_week_without_any_hours_promises_nothing_and_is_refused() =>
        new OpeningWords("", "closed", "", "", "", "", "", "", "09:00", "17:00").Read().Findings.Single().Place.ShouldBe("monday");

    [Theory]
    [InlineData(0, false)]
    [InlineData(1, true)]
    [InlineData(480, true)]
    [InlineData(481, false)]
    [InlineData(int.MinValue, false)]
    public void A_promise_is_of_one_to_480_hours(int hours, bool good) =>
        (new ReplyPromise(hours, PromiseClock.OpenHours).Check().Count == 0).ShouldBe(good);
}
