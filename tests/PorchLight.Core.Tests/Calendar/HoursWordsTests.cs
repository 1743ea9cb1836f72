using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

public sealed class HoursWordsTests
{
    [Theory]
    [InlineData("9 to 17", "09:00 to 17:00")]
    [InlineData("09:00-12:30, 13:30–17:30", "09:00 to 12:30, 13:30 to 17:30")]
    [InlineData(" 13.30 TO 17 ; 9to12 ", "09:00 to 12:00, 13:30 to 17:00")]
    [InlineData("0:00 to 24:00", "00:00 to 24:00")]
    [InlineData("9-12,12-15", "09:00 to 12:00, 12:00 to 15:00")]
    [InlineData("9-5", "09:00 to 17:00")]
    [InlineData("9am to 5:30pm", "09:00 to 17:30")]
    [InlineData("10 a.m. - 12 a.m.", "10:00 to 24:00")]
    [InlineData("closed", "")]
    [InlineData("  ", "")]
    public void Hours_are_read_as_people_write_them(string words, string said)
    {
        var (spans, finding) = HoursWords.Read(words, "monday");
        finding.ShouldBeNull();
        HoursWords.Say(spans).ShouldBe(said);
        HoursWords.Say(HoursWords.Read(said, "monday").Spans).ShouldBe(said);
    }

    [Theory]
    [InlineData("nine to five", "cannot be read as hours")]
    [InlineData("9", "cannot be read as hours")]
    [InlineData("9 to 25", "cannot be read as hours")]
    [InlineData("9:60 to 12", "cannot be read as hours")]
    [InlineData("17 to 9", "ends before it begins")]
    [InlineData("9 to 9", "ends before it begins")]
    [InlineData("9 to 12, 11 to 15", "overlap")]
    public void What_is_no_span_gets_a_sentence_beside_its_day(string words, string sentence)
    {
        var finding = HoursWords.Read(words, "monday").Finding.ShouldNotBeNull();
        finding.Place.ShouldBe("monday");
        finding.Sentence.ShouldContain(sentence);
    }

    [Fact]
    public void Closed_days_are_read_one_by_one_and_as_spans()
    {
        var (days, finding) = HoursWords.ReadDays("2027-03-17\n2026-12-24 to 2026-12-26, 2026-12-25", "closed");
        finding.ShouldBeNull();
        days.ShouldBe([new LocalDate(2026, 12, 24), new LocalDate(2026, 12, 25), new LocalDate(2026, 12, 26), new LocalDate(2027, 3, 17)]);
        HoursWords.SayDays(days).ShouldBe("24 December 2026 to 26 December 2026, 17 March 2027", "days in a row stay one span");
        HoursWords.ReadDays(HoursWords.SayDays(days), "closed").Days.ShouldBe(days);
    }

    [Theory]
    [InlineData("24.12.2026")]
    [InlineData("24. 12. 2026")]
    [InlineData("24/12/2026")]
    [InlineData("12/24/2026")]
    [InlineData("24 December 2026")]
    [InlineData("24 Dec 2026")]
    public void A_day_is_read_however_people_write_it(string words) =>
        HoursWords.ReadDays(words, "closed").Days.ShouldBe([new LocalDate(2026, 12, 24)]);

    [Theory]
    [InlineData("4/5/2027")]
    [InlineData("2026-02-30")]
    [InlineData("2026-12-24 to 2026-12-20")]
    [InlineData("2026-01-01 to 2030-01-01")]
    public void What_is_no_day_gets_a_sentence(string words) =>
        HoursWords.ReadDays(words, "closed").Finding.ShouldNotBeNull().Place.ShouldBe("closed");
}
