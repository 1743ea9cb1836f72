using CsCheck;
using NodaTime;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>Starts that time brings: days counted from a date, once or each year, and forms that were left half-finished.</summary>
public sealed class TimedStartTests
{
    private static Gen<LocalDate> AnyDate { get; } = Gen.Int[0, 4000].Select(days => new LocalDate(2020, 1, 1).PlusDays(days));

    [Fact]
    public void A_day_of_a_project_comes_on_the_one_day_that_counting_finds() =>
        Gen.Select(AnyDate, Gen.Int[-DatedStart.MostDays, DatedStart.MostDays])
            .Sample(
                (date, days) =>
                {
                    var start = new ProjectDateStart("project.start", days);
                    var found = Days(date.PlusDays(-400), 800).Where(day => start.Comes(date, day)).ToList();
                    var counted = date;
                    for (var step = 0; step != days; step += Math.Sign(days))
                        counted = days > 0 ? counted.PlusDays(1) : counted.PlusDays(-1);
                    found.ShouldBe([counted]);
                },
                iter: 50
            );

    /// <summary>A second way: a walk through the days, until the last that was asked.</summary>
    [Fact]
    public void A_start_that_was_missed_is_told_for_a_month_and_until_the_day_it_counts_from() =>
        Gen.Select(AnyDate, Gen.Int[-60, 60], Gen.Int[-80, 120])
            .Sample(
                (date, days, later) =>
                {
                    var (start, last) = (new ProjectDateStart("project.start", days), date.PlusDays(later));
                    LocalDate? came = null;
                    var (since, dateIsOver) = (0, false);
                    foreach (var day in Days(date.PlusDays(-80), 201).TakeWhile(day => day <= last))
                    {
                        (came, since) = start.Comes(date, day) ? (day, 0) : (came, since + 1);
                        dateIsOver |= day == date.PlusDays(1);
                    }

                    var isTold = came is not null && (since <= ProjectDateStart.DaysTold || !dateIsOver);
                    start.Missed(date, last).ShouldBe(isTold ? came : null);
                }
            );

    [Fact]
    public void Nothing_is_missed_before_anybody_asked() =>
        new ProjectDateStart("project.start", -7).Missed(new(2026, 11, 27), null).ShouldBeNull();

    /// <summary>A second way: a calendar in which each year's day is entered by hand, moved by the days one by one.</summary>
    [Fact]
    public void A_day_of_a_person_comes_once_for_each_later_year() =>
        Gen.Select(AnyDate, Gen.Int[-40, 40])
            .Sample(
                (date, days) =>
                {
                    var start = new YearlyDateStart("client.born", days);
                    var entered = new List<LocalDate>();
                    for (var year = date.Year + 1; year <= date.Year + 5; year++)
                    {
                        var day = date.Day;
                        while (day > DateTime.DaysInMonth(year, date.Month))
                            day--;
                        entered.Add(new LocalDate(year, date.Month, day).PlusDays(days));
                    }

                    Days(date.PlusDays(-60), 366 * 6).Where(day => start.Comes(date, day)).Take(5).ShouldBe(entered);
                },
                iter: 50
            );

    /// <summary>29 February is kept on the 28th in years without one (NodaTime, AnnualDate.InYear).</summary>
    [Theory]
    [InlineData("2026-02-28", true)]
    [InlineData("2027-03-01", false)]
    [InlineData("2028-02-29", true)]
    [InlineData("2028-02-28", false)]
    public void A_leap_day_comes_every_year(string day, bool comes) =>
        new YearlyDateStart("client.born", 0)
            .Comes(new LocalDate(2000, 2, 29), NodaTime.Text.LocalDatePattern.Iso.Parse(day).Value)
            .ShouldBe(comes);

    [Fact]
    public void The_day_itself_is_no_anniversary()
    {
        var born = new LocalDate(2026, 11, 23);
        new YearlyDateStart("client.born", 0).Comes(born, born).ShouldBeFalse();
        new YearlyDateStart("client.born", -14).Comes(born, new LocalDate(2027, 11, 9)).ShouldBeTrue();
        new YearlyDateStart("client.born", -14).Comes(new LocalDate(2020, 1, 5), new LocalDate(2025, 12, 22)).ShouldBeTrue();
    }

    /// <summary>A second way: of the days since, those of the last week, written down one by one.</summary>
    [Fact]
    public void Days_are_asked_once_each_and_those_of_more_than_a_week_ago_not_any_more() =>
        Gen.Select(AnyDate, Gen.Int[0, 30])
            .Sample(
                (today, ago) =>
                {
                    var last = today.PlusDays(-ago);
                    var asked = Days(DatedStart.FirstDay(last, today), 40).TakeWhile(day => day <= today).ToList();
                    asked.ShouldBe(Days(today.PlusDays(-40), 41).Where(day => day > last).TakeLast(7));
                    DatedStart.FirstDay(null, today).ShouldBe(today);
                },
                iter: 100
            );

    [Theory]
    [InlineData(Standing.Lead, null, true)]
    [InlineData(Standing.Past, StageKind.Done, true)]
    [InlineData(Standing.Active, StageKind.Lost, false)]
    [InlineData(Standing.Archived, null, false)]
    [InlineData(Standing.Archived, StageKind.Open, false)]
    public void Nobody_is_followed_up_who_was_archived_or_about_work_that_was_lost(Standing standing, StageKind? stage, bool concerns) =>
        DatedStart.Concerns(standing, stage).ShouldBe(concerns);

    [Theory]
    [InlineData(23.99, false)]
    [InlineData(24, true)]
    [InlineData(47.99, true)]
    [InlineData(48, false)]
    public void Who_left_a_form_is_followed_up_for_a_day_from_the_hour_on(double hoursAway, bool starts)
    {
        var form = Guid.NewGuid();
        new LeftUnfinishedStart(form, 24).IsStartedBy(form, Duration.FromHours(hoursAway)).ShouldBe(starts);
        new LeftUnfinishedStart(null, 24).IsStartedBy(form, Duration.FromHours(hoursAway)).ShouldBe(starts);
        new LeftUnfinishedStart(Guid.NewGuid(), 24).IsStartedBy(form, Duration.FromHours(hoursAway)).ShouldBeFalse();
    }

    [Fact]
    public void Who_left_a_form_can_be_sent_one_mail_with_their_link_and_nothing_that_needs_a_client()
    {
        Found(Mail("one", "Here: {link}"), Step("chat", new PostToChat("Someone left"))).ShouldBeEmpty();
        Found(Mail("one", "Here.")).ShouldHaveSingleItem().ShouldContain("Set the link");
        Found(Mail("one", "Here: {link}"), Mail("two", "And: {link}")).ShouldHaveSingleItem().ShouldContain("one mail at most");
        Found(Step("text", new SendMessage(Words("{link}")) { Channel = Channel.Text }))
            .ShouldHaveSingleItem()
            .ShouldContain("only be sent one mail");
        Found(Step("news", new SendMessage(Words("{link}")) { IsAdvertising = true }))
            .ShouldHaveSingleItem()
            .ShouldContain("only be sent one mail");
        Found(Step("task", new MakeTask("Call", 1, null))).ShouldHaveSingleItem().ShouldContain("needs a client");

        static List<string> Found(params Step[] steps) =>
            [
                .. FollowThroughCheck
                    .Check(new FollowThroughContent("Left", new LeftUnfinishedStart(null, 24), steps, []), FollowThroughDeskTests.Around)
                    .Select(finding => finding.Sentence),
            ];
    }

    [Fact]
    public void What_starts_it_reads_as_a_sentence()
    {
        Say(new LeftUnfinishedStart(null, 1)).ShouldBe("someone leaves a form half-finished and is away for one hour");
        Say(new ProjectDateStart("project.start", -7)).ShouldBe("seven days are left to the day of “Start”");
        Say(new ProjectDateStart("project.start", 1)).ShouldBe("one day has passed since the day of “Start”");
        Say(new YearlyDateStart("client.born", 0)).ShouldBe("the day of “Birth date” comes, each year");

        static string Say(StartOn start) => start.Say(FollowThroughDeskTests.Names);
    }

    private static IEnumerable<LocalDate> Days(LocalDate from, int count) => Enumerable.Range(0, count).Select(from.PlusDays);

    private static MessageTemplate Words(string text) => new("A word", [new TextPart("text", text)]);

    private static Step Mail(string key, string text) => Step(key, new SendMessage(Words(text)));

    private static Step Step(string key, StepAction action) =>
        new(key, key, action, new Schedule(Anchor.PreviousSettled, 1, TimeUnit.Hours), NeedsNod: false);
}
