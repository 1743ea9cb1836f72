using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class ReferralThanksTests
{
    private static readonly BusinessLists Lists = new(
        [],
        [new Source("friend", "A friend") { IsReferral = true, AlsoWritten = ["word of mouth"] }, new Source("search", "By searching")]
    );

    private static readonly LocalDate Friday = new(2027, 3, 12);

    private static readonly BusinessCalendar Calendar = new(
        DateTimeZone.Utc,
        [.. Enumerable.Range(1, 5).Select(day => new DayHours((IsoDayOfWeek)day, HoursWords.Read("9 to 17", "day").Spans))],
        [new LocalDate(2027, 3, 15)]
    );

    [Theory]
    [InlineData("A friend", "Thank who sent Una Venn")]
    [InlineData(" a FRIEND ", "Thank who sent Una Venn")]
    [InlineData("Word of mouth", "Thank who sent Una Venn: Word of mouth")]
    public void A_person_who_sent_somebody_is_thanked_and_what_was_written_is_told_where_it_says_more(string written, string title) =>
        ReferralThanks.For(written, "Una Venn", Lists, Calendar, Friday)!.Title.ShouldBe(title);

    [Fact]
    public void Nobody_is_thanked_for_what_is_no_referral_or_on_no_list()
    {
        foreach (var written in new[] { "By searching", "Ned from the harbour", "" })
            ReferralThanks.For(written, "Una Venn", Lists, Calendar, Friday).ShouldBeNull();
    }

    [Fact]
    public void It_is_for_the_next_working_day_or_no_day_where_none_comes()
    {
        ReferralThanks.For("A friend", "Una Venn", Lists, Calendar, Friday)!.On.ShouldBe(new LocalDate(2027, 3, 16), "Monday is closed");
        ReferralThanks.For("A friend", "Una Venn", Lists, new BusinessCalendar(DateTimeZone.Utc, [], []), Friday)!.On.ShouldBeNull();
    }

    [Fact]
    public void A_title_never_grows_longer_than_a_task_holds() =>
        ReferralThanks
            .For("word of mouth", new string('n', 300), Lists, Calendar, Friday)!
            .Title.Length.ShouldBe(ReferralThanks.LongestTitle);
}
