using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Tests.Forms;

public sealed class AgeTests
{
    // Counted by hand on a calendar. 2024 and 2028 are leap years; 2100 is none (Gregorian rule, ISO 8601).
    [Theory]
    [InlineData("2017-05-14", "2027-05-13", 9)]
    [InlineData("2017-05-14", "2027-05-14", 10)]
    [InlineData("2017-05-14", "2027-05-15", 10)]
    [InlineData("2016-02-29", "2027-02-28", 10)]
    [InlineData("2016-02-29", "2027-03-01", 11)]
    [InlineData("2016-02-29", "2028-02-28", 11)]
    [InlineData("2016-02-29", "2028-02-29", 12)]
    [InlineData("2016-02-28", "2027-02-28", 11)]
    [InlineData("2016-03-01", "2027-02-28", 10)]
    [InlineData("2096-02-29", "2100-02-28", 3)]
    [InlineData("2096-02-29", "2100-03-01", 4)]
    [InlineData("2000-12-31", "2027-01-01", 26)]
    [InlineData("2027-01-01", "2027-01-01", 0)]
    [InlineData("2027-06-01", "2027-05-31", -1)]
    public void Age_is_completed_years_on_the_event_date_and_a_leap_day_birthday_comes_on_1_March_in_common_years(
        string born,
        string on,
        int age
    ) => Age.On(Day(born), Day(on)).ShouldBe(age);

    [Fact]
    public void Somebody_who_turns_ten_before_the_event_counts_as_ten()
    {
        // Common practice, no source: who is nine today and ten at the event pays as ten.
        var form = Sample.OnePage(
            new Question("event", "When?", new DateKind()),
            new Question("born", "Born?", new DateKind()),
            new Question("age", "Age then", new WorkedOutKind(new AgeOn("born", "event")))
        );
        var route = Routes.Trace(
            Sample.Known(form),
            Sample.Given(("event", new DateAnswer(Day("2027-06-05"))), ("born", new DateAnswer(Day("2017-02-01"))))
        );
        Age.On(Day("2017-02-01"), Sample.Today).ShouldBe(9);
        route.Answers["age"].Answer.ShouldBe(new NumberAnswer(10));
    }

    private static LocalDate Day(string text) => NodaTime.Text.LocalDatePattern.Iso.Parse(text).Value;
}
