using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Tests.Calendar;

namespace PorchLight.Core.Tests.FollowThrough;

public sealed class RehearsalTests
{
    private static readonly string[] Zones = ["Europe/Dublin", "America/New_York", "Australia/Sydney"];

    private static readonly Schedule AtOnce = new(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true);

    [Fact]
    public void It_goes_as_a_diary_kept_by_hand_every_ten_minutes_has_it() =>
        Gen.Select(
                RunDiaryTests.RandomContent,
                RunDiaryTests.RandomFacts,
                Gen.Int[0, 2],
                Gen.Int[0, 500],
                Gen.Select(Gen.Int[0, 5000], Gen.Bool).Array[0, 3],
                Gen.Int[0, 3]
            )
            .Sample(
                (content, facts, zone, start, acts, nodding) =>
                {
                    var calendar = RunDiaryTests.Office(zone);
                    var begins =
                        calendar.ToInstant(new LocalDateTime(2026, zone == 1 ? 3 : 10, 20, 0, 0)) + Duration.FromMinutes(start * 10);
                    facts = facts with { LastAutomaticMessage = facts.LastAutomaticMessage is null ? null : begins };
                    var assumed = acts.Select(act => new Assumption(
                            begins + Duration.FromMinutes(act.Item1 * 10),
                            act.Item2 ? new MeetingBooked() : new ReplyReceived(null)
                        ))
                        .OrderBy(one => one.At)
                        .ToList();
                    var naive = new NaiveRun(
                        content,
                        new NaiveCalendar(calendar.Zone, RunDiaryTests.Weekdays, [new LocalDate(2026, 12, 8)]),
                        calendar.Zone,
                        facts,
                        begins
                    );
                    var until = begins + Duration.FromDays(50);
                    naive.Work(begins);
                    for (var now = begins; now <= until; now += Duration.FromMinutes(10))
                    {
                        foreach (var act in assumed.Where(one => one.At == now))
                            naive.Happens(act.What, now);
                        naive.Work(now);
                        // One nod may lead to the next step that waits for one.
                        while (nodding > 0 && naive.Waits)
                        {
                            naive.Nod(now, atAnyHour: false);
                            naive.Work(now);
                        }
                    }

                    var rehearsed = new Rehearsal(content, calendar, SendingWindow.Usual, facts).Play(
                        begins,
                        assumed,
                        nodding > 0 ? Duration.Zero : null
                    );
                    rehearsed
                        .Effects.Where(effect => effect.Kind != RunEffectKind.NoteEnd && effect.At <= until)
                        .Select(effect => $"{effect.Step} {RunDiaryTests.Said[effect.Kind]} {effect.At}")
                        .ShouldBe(naive.Diary);
                },
                iter: 150
            );

    // The rhythms of the trade: common practice, no source. Days are those of the calendar, whatever clocks do meanwhile.
    [Theory]
    [InlineData("an inquiry", "1 4 11 101 191")]
    [InlineData("a proposal", "2 5 7")]
    [InlineData("support", "7 23 30 120")]
    public void The_rhythms_of_the_trade_fall_on_their_days_in_three_zones_across_clock_changes(string rhythm, string days)
    {
        var steps = rhythm switch
        {
            "an inquiry" => Chain(
                Anchor.PreviousSettled,
                (24, TimeUnit.Hours),
                (3, TimeUnit.Days),
                (7, TimeUnit.Days),
                (90, TimeUnit.Days),
                (90, TimeUnit.Days)
            ),
            "a proposal" => Chain(Anchor.PreviousSettled, (2, TimeUnit.Days), (3, TimeUnit.Days), (2, TimeUnit.Days)),
            _ =>
            [
                .. Chain(Anchor.RunStart, (7, TimeUnit.Days), (23, TimeUnit.Days), (30, TimeUnit.Days)),
                Step("later", new Schedule(Anchor.PreviousSettled, 90, TimeUnit.Days, AtOnce: true)),
            ],
        };
        foreach (var (zone, start) in Zones.SelectMany(zone => Starts(zone).Select(start => (zone, start))))
        {
            var calendar = EveryDay(zone);
            var played = new Rehearsal(Content([.. steps]), calendar, SendingWindow.Usual, NoFacts.Instance).Play(start, [], Duration.Zero);
            var first = calendar.Today(start);
            string.Join(' ', played.Steps.Select(step => Period.DaysBetween(first, calendar.Today(step.At!.Value)))).ShouldBe(days, zone);
        }
    }

    [Fact]
    public void What_is_cancelled_says_when_it_would_have_been()
    {
        var calendar = EveryDay("Europe/Dublin");
        var start = calendar.At(2026, 12, 4, 16);
        var content = Content(
            Step("thanks", AtOnce),
            Step("guide", new Schedule(Anchor.PreviousSettled, 4, TimeUnit.Days), nod: true),
            Step("walls", new Schedule(Anchor.PreviousSettled, 9, TimeUnit.Days), nod: true)
        );
        var played = new Rehearsal(content, calendar, SendingWindow.Usual, NoFacts.Instance).Play(
            start,
            [new Assumption(calendar.At(2026, 12, 10, 12), new ReplyReceived(null))],
            Duration.Zero
        );
        played.Steps.ShouldBe([
            new RehearsedStep("thanks", StepStatus.Done, start, null),
            new RehearsedStep("guide", StepStatus.Done, calendar.At(2026, 12, 8, 16), calendar.At(2026, 12, 8, 16)),
            new RehearsedStep("walls", StepStatus.Cancelled, calendar.At(2026, 12, 17, 16), null),
        ]);
        (played.Run.StoppedBy, played.Run.Ended).ShouldBe((RunEnd.Replied, calendar.At(2026, 12, 10, 12)));
    }

    [Fact]
    public void A_step_that_counts_from_a_day_nobody_knows_never_comes_and_nothing_behind_it()
    {
        var calendar = EveryDay("Europe/Dublin");
        var content = Content(Step("before", new Schedule(new ProjectDateAnchor("start"), -7, TimeUnit.Days)), Step("after", AtOnce));
        var rehearsal = new Rehearsal(content, calendar, SendingWindow.Usual, NoFacts.Instance);
        rehearsal.Play(calendar.At(2026, 12, 4), [], null).Steps.ShouldAllBe(step => step.At == null);
        var known = new PlayedFacts { Days = new Dictionary<string, LocalDate> { ["start"] = new(2027, 3, 1) } };
        new Rehearsal(content, calendar, SendingWindow.Usual, known)
            .Play(calendar.At(2026, 12, 4), [], null)
            .Steps[0]
            .At.ShouldBe(calendar.At(2027, 2, 22, 9), "a week before, when messages may first go");
    }

    private static IEnumerable<Instant> Starts(string zone)
    {
        // The days before clocks go forward and back, north and south, and one in between.
        LocalDate[] days =
        [
            new(2026, 3, 7),
            new(2026, 3, 28),
            new(2026, 4, 4),
            new(2026, 10, 3),
            new(2026, 10, 24),
            new(2026, 10, 31),
            new(2026, 7, 1),
        ];
        return days.Select(day => EveryDay(zone).ToInstant(day.At(new LocalTime(10, 0))));
    }

    private static BusinessCalendar EveryDay(string zone) =>
        new(
            DateTimeZoneProviders.Tzdb[zone],
            [
                .. Enumerable
                    .Range(1, 7)
                    .Select(day => new DayHours((IsoDayOfWeek)day, [new OpenSpan(new LocalTime(0, 0), new LocalTime(23, 59))])),
            ],
            []
        );

    private static Step[] Chain(Anchor anchor, params (int Amount, TimeUnit Unit)[] waits) =>
        [.. waits.Select((wait, index) => Step($"s{index}", new Schedule(anchor, wait.Amount, wait.Unit)))];

    private static FollowThroughContent Content(params Step[] steps) =>
        new("After an inquiry", new InquiryStart(null, []), steps, [StopOn.Replied, StopOn.Booked]);

    private static Step Step(string key, Schedule when, bool nod = false) =>
        new(key, key, new SendMessage(new MessageTemplate(key, [new TextPart("text", key)])), when, nod);
}
