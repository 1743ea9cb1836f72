using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Meetings;
using PorchLight.Core.Projects;
using PorchLight.Core.Ready;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>Steps around a meeting. Common practice, no source: a reminder a day before, and one an hour before.</summary>
public sealed class MeetingStepTests
{
    private static readonly BusinessCalendar Office = RunDiaryTests.Office(0);
    private static readonly FollowThroughContent Reminders = ReadyFollowThroughs
        .All.Single(ready => ready.Key == "meeting")
        .Make(Stage.Usual);

    // Thursday 3 December 2026, 15:00 in Dublin.
    private static readonly Instant Meeting = Instant.FromUtc(2026, 12, 3, 15, 0);

    [Fact]
    public void It_reminds_a_day_before_and_an_hour_before() =>
        Done(Meeting - Duration.FromDays(5))
            .ShouldBe([("day-before", Meeting - Duration.FromDays(1)), ("hour-before", Meeting - Duration.FromHours(1))]);

    [Fact]
    public void A_reminder_whose_time_had_gone_by_when_it_was_booked_is_passed_over() =>
        Done(Meeting - Duration.FromHours(20)).ShouldBe([("hour-before", Meeting - Duration.FromHours(1))]);

    [Fact]
    public void Nobody_is_reminded_of_a_meeting_that_has_begun_however_late_the_worker_comes()
    {
        var run = Planner(Meeting).Start(Meeting - Duration.FromDays(5));
        var late = Planner(Meeting).Advance(run, Meeting);
        late.Effects.ShouldNotContain(effect => effect.Kind == RunEffectKind.TakeEffect);
        late.State.Steps.ShouldAllBe(step => step.Status == StepStatus.PassedOver);
        late.State.Status.ShouldBe(RunStatus.Finished);
    }

    [Fact]
    public void A_meeting_that_is_moved_moves_its_reminders()
    {
        var run = Planner(Meeting).Start(Meeting - Duration.FromDays(5));
        var later = Meeting + Duration.FromDays(2);
        Planner(later).PlanAnew(run, Meeting - Duration.FromDays(3)).Current!.Due.ShouldBe(later - Duration.FromDays(1));
        Planner(null).PlanAnew(run, Meeting - Duration.FromDays(3)).Current!.Due.ShouldBeNull("there is none any more");
    }

    [Fact]
    public void It_starts_on_a_booking_and_stops_when_the_meeting_is_cancelled_or_nobody_comes()
    {
        Reminders.Starts.IsStartedBy(new MeetingBooked(), NoFacts.Instance).ShouldBeTrue();
        Reminders.EndedBy(new MeetingCancelled(null, default))?.End.ShouldBe(RunEnd.MeetingCancelled);
        Reminders.EndedBy(new MeetingMissed(null, default, Guid.Empty))?.End.ShouldBe(RunEnd.MeetingMissed);
        Reminders.EndedBy(new MeetingMoved(null, default, default)).ShouldBeNull("it goes on with the new time");
    }

    [Fact]
    public void What_becomes_of_a_meeting_starts_and_stops_what_waits_for_that_and_nothing_else()
    {
        DomainEvent[] happened =
        [
            new MeetingBooked(),
            new MeetingMoved(null, default, default),
            new MeetingCancelled(null, default),
            new MeetingMissed(null, default, Guid.Empty),
        ];
        StartOn[] starts = [new BookedStart(), new MeetingMovedStart(), new MeetingCancelledStart(), new MeetingMissedStart()];
        Occasion[] occasions =
        [
            new BookedOccasion(),
            new MeetingMovedOccasion(),
            new MeetingCancelledOccasion(),
            new MeetingMissedOccasion(),
        ];
        for (var one = 0; one < happened.Length; one++)
        {
            for (var other = 0; other < happened.Length; other++)
            {
                starts[one].IsStartedBy(happened[other], NoFacts.Instance).ShouldBe(one == other);
                occasions[one].IsMetBy(happened[other]).ShouldBe(one == other);
            }
        }
    }

    private static List<(string Step, Instant At)> Done(Instant booked) =>
        [
            .. new Rehearsal(Reminders, Office, SendingWindow.Usual, new PlayedFacts { Meeting = Meeting })
                .Play(booked, [], nodsAfter: null)
                .Effects.Where(effect => effect.Kind == RunEffectKind.TakeEffect)
                .Select(effect => (effect.Step!, effect.At)),
        ];

    private static RunPlanner Planner(Instant? meeting) =>
        new(Reminders, Office, SendingWindow.Usual, new PlayedFacts { Meeting = meeting });
}
