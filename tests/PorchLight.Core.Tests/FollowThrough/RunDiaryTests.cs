using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Core.Tests.Calendar;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>Random follow-throughs under random acts, against a diary kept by hand.</summary>
public sealed class RunDiaryTests
{
    private static readonly Guid Maren = Guid.NewGuid();
    private static readonly LocalDate Closed = new(2026, 12, 8);

    // Three zones: clocks change in October, in April, and never.
    private static readonly string[] Zones = ["Europe/Dublin", "Australia/Sydney", "Asia/Tokyo"];

    [Fact]
    public void A_run_goes_as_a_diary_kept_by_hand_has_it() =>
        Gen.Select(
                RandomContent,
                Gen.Select(Gen.Int[0, 13], Gen.Int[0, 6 * 24 * 60]).Array[1, 30],
                Gen.Int[0, 3 * 24 * 60],
                Gen.Int[0, 2],
                RandomFacts
            )
            .Sample(
                (content, moves, minutes, zone, facts) =>
                {
                    var calendar = Office(zone);
                    var now =
                        calendar.ToInstant(new LocalDateTime(2026, zone == 1 ? 3 : 10, zone == 1 ? 31 : 23, 0, 0))
                        + Duration.FromMinutes(minutes);
                    facts = facts with { LastAutomaticMessage = facts.LastAutomaticMessage is null ? null : now - Duration.FromHours(5) };
                    var naive = new NaiveRun(content, new NaiveCalendar(calendar.Zone, Weekdays, [Closed]), calendar.Zone, facts, now);
                    var (run, diary) = (Planner().Start(now), new List<string>());
                    foreach (var (move, wait) in moves)
                    {
                        now += Duration.FromMinutes(wait);
                        Keep(Act(Planner(), naive, run, move, now, content));
                        naive.Work(now);
                        while (Planner() is var planner && planner.NextMoment(run) <= now)
                            Keep(planner.Advance(run, now));
                    }

                    diary.ShouldBe(naive.Diary);

                    RunPlanner Planner() => new(content, calendar, SendingWindow.Usual, facts);

                    void Keep(Transition? moved)
                    {
                        foreach (var effect in moved?.Effects ?? [])
                        {
                            if (effect.Kind != RunEffectKind.NoteEnd)
                                diary.Add($"{effect.Step} {Said[effect.Kind]} {effect.At}");
                            // What went by itself is known when the run is next looked at.
                            if (
                                effect.Kind == RunEffectKind.TakeEffect
                                && content.Step(effect.Step!) is { Action: SendMessage } step
                                && !content.IsAnswer(step)
                                && moved!.State.Steps.Single(state => state.Key == effect.Step).By is null
                            )
                                facts = facts with { LastAutomaticMessage = effect.At };
                        }

                        run = moved?.State ?? run;
                    }
                }
            );

    private static Transition? Act(RunPlanner planner, NaiveRun naive, RunState run, int move, Instant now, FollowThroughContent content)
    {
        var key = run.Current?.Key ?? "";
        switch (move)
        {
            case 0:
                naive.Skip(now);
                return planner.Skip(run, key, now);
            case 1 or 2:
                naive.Nod(now, atAnyHour: move == 2);
                return planner.Nod(run, key, now, Maren, move == 2);
            case 3:
                naive.DoNow(now);
                return key.Length == 0 ? null : planner.DoNow(run, key, now, Maren);
            case 4:
                naive.Pause();
                return RunPlanner.Pause(run) is { } paused ? new Transition(paused, []) : null;
            case 5 or 6:
                naive.Resume(now);
                return RunPlanner.Resume(run, now) is { } resumed ? new Transition(resumed, []) : null;
            case 7 or 8:
                DomainEvent what = move == 7 ? new MeetingBooked() : new ReplyReceived(null);
                naive.Happens(what, now);
                return content.EndedBy(what) is { } end
                    ? new Transition(planner.Stop(run, end.End, now, end.Stop?.Last), [])
                    : planner.Happened(run, what, now);
            default:
                naive.Work(now);
                return planner.Advance(run, now);
        }
    }

    internal static readonly Dictionary<RunEffectKind, string> Said = new()
    {
        [RunEffectKind.TakeEffect] = "done",
        [RunEffectKind.AskForNod] = "asked",
        [RunEffectKind.NoteLapse] = "lapsed",
        [RunEffectKind.NoteWaitedInVain] = "in vain",
        [RunEffectKind.NoteMoved] = "moved",
    };

    internal static DayHours[] Weekdays { get; } =
    [.. Enumerable.Range(1, 5).Select(day => new DayHours((IsoDayOfWeek)day, [new OpenSpan(new LocalTime(9, 0), new LocalTime(17, 0))]))];

    internal static BusinessCalendar Office(int zone) => new(DateTimeZoneProviders.Tzdb[Zones[zone]], Weekdays, [Closed]);

    internal static Gen<PlayedFacts> RandomFacts { get; } =
        Gen.Select(
            Gen.Bool,
            Gen.Int[0, 60],
            Gen.Bool,
            Gen.Int[-3 * 48, 60 * 48],
            (sentBefore, offset, hasDay, halfHours) =>
                new PlayedFacts
                {
                    Meeting = halfHours % 5 == 0 ? null : Instant.FromUtc(2026, 10, 23, 0, 0) + Duration.FromMinutes(30 * halfHours),
                    LastAutomaticMessage = sentBefore ? Instant.MinValue : null,
                    Days = hasDay
                        ? new Dictionary<string, LocalDate> { ["start"] = new LocalDate(2026, 10, 20).PlusDays(offset) }
                        : new Dictionary<string, LocalDate>(),
                }
        );

    private static Gen<Schedule> RandomSchedule { get; } =
        Gen.Select(
            Gen.Int[0, 8],
            Gen.Enum<TimeUnit>(),
            Gen.Int[0, 40],
            Gen.Bool,
            (anchor, unit, amount, atOnce) =>
                new Schedule(
                    anchor switch
                    {
                        0 or 1 => Anchor.RunStart,
                        2 => new ProjectDateAnchor("start"),
                        7 or 8 => new MeetingAnchor(),
                        _ => Anchor.PreviousSettled,
                    },
                    (anchor is 2 or 8 ? -1 : 1)
                        * unit switch
                        {
                            TimeUnit.Minutes => amount * 50,
                            TimeUnit.Hours => amount,
                            TimeUnit.Months => amount / 20,
                            _ => amount / 5,
                        },
                    unit,
                    atOnce
                )
        );

    private static Gen<Step> RandomStep { get; } =
        Gen.Select(
            Gen.Int[0, 11],
            RandomSchedule,
            Gen.Bool,
            Gen.Int[0, 9],
            Gen.Int[0, 7],
            Gen.Int[0, 7],
            (action, when, nod, condition, then, otherwise) =>
                new Step("", "", RandomAction(action, then, otherwise), when, nod)
                {
                    Condition = condition switch
                    {
                        0 => PlayedFacts.True,
                        1 => PlayedFacts.False,
                        2 => PlayedFacts.Unknown,
                        _ => null,
                    },
                }
        );

    private static StepAction RandomAction(int action, int then, int otherwise) =>
        action switch
        {
            0 or 1 => new MakeTask("Measure the wall", 1, null),
            2 => new WaitFor(new BookedOccasion(), Target(otherwise)),
            3 => new WaitFor(new RepliedOccasion()),
            4 => new Branch(then % 2 == 0 ? PlayedFacts.True : PlayedFacts.False, Target(then), Target(otherwise)),
            5 when then == 0 => new EndRun(),
            _ => new SendMessage(new MessageTemplate("A word", [])),
        };

    // A target that stands before the step, or nowhere, is none.
    private static string? Target(int index) => index < 6 ? $"s{index}" : null;

    internal static Gen<FollowThroughContent> RandomContent { get; } =
        Gen.Select(
            RandomStep.Array[1, 7],
            RandomStep,
            Gen.Bool,
            Gen.Int[0, 5],
            Gen.Int[1, 14],
            (steps, last, rhythm, stops, lapse) =>
                new FollowThroughContent(
                    "Random",
                    new InquiryStart(null, []),
                    [.. steps.Select((step, index) => step with { Key = $"s{index}" })],
                    stops switch
                    {
                        0 => [],
                        1 => [StopOn.Replied],
                        2 => [new StopOn(new BookedOccasion(), last with { Key = "last" })],
                        3 => [StopOn.Replied, new StopOn(new BookedOccasion(), last with { Key = "last" })],
                        _ => [StopOn.Replied, StopOn.Booked],
                    },
                    lapse
                )
                {
                    KeepsRhythm = rhythm,
                }
        );
}
