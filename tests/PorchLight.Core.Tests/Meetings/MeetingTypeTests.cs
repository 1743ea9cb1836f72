using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;

namespace PorchLight.Core.Tests.Meetings;

public sealed class MeetingTypeTests
{
    private static readonly Guid Maren = Guid.Parse("a0000000-0000-7000-8000-000000000001");
    private static readonly Guid Sunil = Guid.Parse("b0000000-0000-7000-8000-000000000002");
    private static readonly MeetingType Usual = MeetingType.Usual(Maren);

    [Fact]
    public void The_one_to_start_from_is_good_as_it_is() => Wrong(Usual).ShouldBeEmpty();

    [Fact]
    public void What_is_wrong_is_said_at_its_place()
    {
        Wrong(Usual with { Name = " " }).ShouldBe(["name"]);
        Wrong(Usual with { Places = [] }).ShouldBe(["places"]);
        Wrong(Usual with { Places = [new(MeetingPlaceKind.Phone), new(MeetingPlaceKind.Phone)] }).ShouldBe(["places"]);
        Wrong(Usual with { Places = [new(MeetingPlaceKind.Ours)] }).ShouldBe(["places.ours"]);
        Wrong(Usual with { Places = [new(MeetingPlaceKind.Video, "our room")] }).ShouldBe(["places.video"]);
        Wrong(Usual with { Places = [new(MeetingPlaceKind.Video, "https://video.example/room"), new(MeetingPlaceKind.Video)] })
            .ShouldBe(["places"]);
        Wrong(Usual with { Places = [new(MeetingPlaceKind.Video)] }).ShouldBeEmpty("it can be sent later");
        Wrong(Usual with { Hosts = [] }).ShouldBe(["hosts"]);
        Wrong(Usual with { Hosts = [Maren, Maren] }).ShouldBe(["hosts"]);
        Wrong(Usual with { Hosts = [Guid.NewGuid()] }).ShouldBe(["hosts"]);
        Wrong(Usual with { Rules = new SlotRules(3) }).ShouldBe(["minutes"]);
        Wrong(Usual with { Rules = new SlotRules(30) { Hours = [new DayHours(IsoDayOfWeek.Monday, [])] } }).ShouldBe(["hours"]);
        Wrong(Usual with { Questions = [new("a", " ", false)] }).ShouldBe(["questions.0"]);
        Wrong(Usual with { Questions = [new("a", "One?", false), new("a", "Two?", false)] }).ShouldBe(["questions"]);
        Wrong(Usual with { ChangeHours = -1 }).ShouldBe(["changeHours"]);
        Wrong(Usual with { WritesDate = "project.start" }).ShouldBeEmpty();
        Wrong(Usual with { WritesDate = "project.what" }).ShouldBe(["writesDate"]);
    }

    [Fact]
    public void It_is_said_how_long_it_is_and_where_and_with_whom()
    {
        MeetingTypeWords.Summary(Usual, ["Maren"]).ShouldBe("30 minutes, by phone, with Maren");
        var two = Usual with
        {
            Places = [new(MeetingPlaceKind.Phone), new(MeetingPlaceKind.Video), new(MeetingPlaceKind.Theirs)],
            Hosts = [Maren, Sunil],
        };
        MeetingTypeWords.Summary(two, ["Maren", "Sunil"]).ShouldBe("30 minutes, by phone, by video or at theirs, with Maren or Sunil");
        MeetingTypeWords
            .Summary(two with { Rules = new SlotRules(90) { HostChoice = HostChoice.AllTogether } }, ["Maren", "Sunil"])
            .ShouldBe("1 hour 30 minutes, by phone, by video or at theirs, with Maren and Sunil");
        MeetingTypeWords.Length(60).ShouldBe("1 hour");
        MeetingTypeWords.Length(125).ShouldBe("2 hours 5 minutes");
        MeetingTypeWords.Note(two, ["Maren", "Sunil"]).ShouldBeNull();
        MeetingTypeWords.Note(two, ["Maren", null]).ShouldBe("Someone who held it no longer works here. It is booked with Maren now.");
        MeetingTypeWords.Note(two, [null, null])!.ShouldContain("no times are offered");
    }

    [Theory]
    [InlineData("", "A first talk with Tess Ivory")]
    [InlineData("{client}: {answer:what}", "Tess Ivory: the long wall")]
    [InlineData("{answer:nothing}", "A first talk")]
    [InlineData("{type}\n{client}", "A first talk Tess Ivory")]
    public void Its_title_is_made_of_what_is_known(string template, string title) =>
        MeetingTitle
            .Of(template, "A first talk", "Tess Ivory", new Dictionary<string, string> { ["what"] = "the long wall" })
            .ShouldBe(title);

    [Fact]
    public void A_title_is_cut_to_its_longest() =>
        MeetingTitle.Of("", "A first talk", new string('x', 400), new Dictionary<string, string>()).Length.ShouldBe(MeetingTitle.Longest);

    [Theory]
    [InlineData(12, false, "Someone booking now (today 22:00) can take tomorrow 10:00 or later.")]
    [InlineData(2, true, "Someone booking now (today 22:00) can take Thursday 00:00 or later.")]
    [InlineData(0, false, "Someone booking now can take the next free time.")]
    public void What_a_notice_means_is_said_with_the_example_of_today(int count, bool inDays, string said) =>
        new SlotNotice(count, inDays)
            .Example(Instant.FromUtc(2026, 12, 1, 22, 0), DateTimeZoneProviders.Tzdb["Europe/Dublin"])
            .ShouldBe(said);

    private static IReadOnlyList<string> Wrong(MeetingType type) =>
        [.. type.Check([Maren, Sunil], key => key == "project.start").Select(finding => finding.Place).Distinct()];
}
