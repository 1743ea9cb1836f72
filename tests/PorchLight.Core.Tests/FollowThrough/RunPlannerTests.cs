using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.FollowThrough;

public sealed class RunPlannerTests
{
    private static readonly BusinessCalendar Clock = Dublin();
    private static readonly Instant Monday = Clock.At(2026, 11, 23, 10);

    private static readonly FollowThroughContent FollowUps = Content(
        Step("thanks", new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true)),
        Step("first", new Schedule(Anchor.PreviousSettled, 1, TimeUnit.WorkingDays), nod: true),
        Step("second", new Schedule(Anchor.PreviousSettled, 4, TimeUnit.Days), nod: true),
        Step("third", new Schedule(Anchor.PreviousSettled, 9, TimeUnit.Days), nod: true)
    );

    private static readonly RunPlanner Planner = new(FollowUps, Clock, SendingWindow.Usual);

    [Fact]
    public void The_first_step_at_once_goes_at_once_also_in_the_night_and_the_next_is_planned_from_then()
    {
        var night = Clock.At(2026, 11, 21, 23);
        var moved = Planner.Advance(Planner.Start(night), night);
        moved.Effects.ShouldBe([new RunEffect(RunEffectKind.TakeEffect, "thanks", night)]);
        moved
            .State.Current.Plain()
            .ShouldBe(new StepState("first", StepStatus.Planned, Clock.At(2026, 11, 24, 9)), "Monday 23:00 is held to Tuesday morning");
    }

    [Fact]
    public void A_step_that_needs_a_nod_waits_for_it_and_nothing_is_sent_by_itself()
    {
        var due = Clock.At(2026, 11, 24, 10);
        var run = Started();
        Planner.Advance(run, due - Duration.FromSeconds(1)).Effects.ShouldBeEmpty();
        var waiting = Planner.Advance(run, due);
        waiting.Effects.ShouldBe([new RunEffect(RunEffectKind.AskForNod, "first", due)]);
        Planner.Advance(waiting.State, due + Duration.FromDays(13)).Effects.ShouldBeEmpty();
    }

    [Fact]
    public void What_follows_counts_from_when_the_step_before_was_settled()
    {
        var run = Planner.Advance(Started(), Clock.At(2026, 11, 24, 10)).State;
        var late = Clock.At(2026, 11, 26, 15);
        var sent = Planner.Nod(run, "first", late, Maren)!;
        sent.Effects.ShouldBe([new RunEffect(RunEffectKind.TakeEffect, "first", late)]);
        sent.State.Current!.Due.ShouldBe(Clock.At(2026, 11, 30, 15));
    }

    [Fact]
    public void A_nod_outside_the_window_waits_for_it_unless_told_to_go_now()
    {
        var run = Planner.Advance(Started(), Clock.At(2026, 11, 24, 10)).State;
        var evening = Clock.At(2026, 11, 24, 20);
        var held = Planner.Nod(run, "first", evening, Maren)!;
        held.Effects.ShouldBeEmpty();
        held.State.Current.Plain().ShouldBe(new StepState("first", StepStatus.Approved, Clock.At(2026, 11, 25, 9), By: Maren));
        Planner.Nod(held.State, "first", evening, Maren).ShouldBeNull("it has its nod already");
        Planner.Advance(held.State, Clock.At(2026, 11, 25, 9)).Effects.Single().Kind.ShouldBe(RunEffectKind.TakeEffect);
        Planner.Nod(held.State, "first", evening, Maren, sendNow: true)!.Effects.Single().At.ShouldBe(evening);
    }

    [Fact]
    public void A_skipped_step_is_settled_without_effect()
    {
        var run = Planner.Advance(Started(), Clock.At(2026, 11, 24, 10)).State;
        var skipped = Planner.Skip(run, "first", Clock.At(2026, 11, 24, 11))!;
        skipped.Effects.ShouldBeEmpty();
        skipped.State.Current!.Due.ShouldBe(Clock.At(2026, 11, 30, 9), "Saturday the 28th is held to Monday");
        Planner.Skip(run, "second", Monday).ShouldBeNull("only the next step can be skipped");
    }

    [Fact]
    public void A_skip_can_be_taken_back_until_something_after_it_has_happened()
    {
        var waiting = Planner.Advance(Started(), Clock.At(2026, 11, 24, 10)).State;
        var skipped = Planner.Skip(waiting, "first", Clock.At(2026, 11, 24, 11))!.State;
        Planner.TakeSkipBack(skipped, "first")!.Steps.ShouldBe(waiting.Steps);
        Planner.TakeSkipBack(waiting, "first").ShouldBeNull("it was not skipped");
        Planner.TakeSkipBack(Planner.Advance(skipped, Clock.At(2026, 11, 30, 9)).State, "first").ShouldBeNull("the next one waits already");
        Planner.TakeSkipBack(Planner.Stop(skipped, RunEnd.Booked, Clock.At(2026, 11, 25)), "first").ShouldBeNull("the run has ended");

        var approved = Planner.Nod(waiting, "first", Clock.At(2026, 11, 24, 20), Maren)!.State;
        Planner
            .TakeSkipBack(Planner.Skip(approved, "first", Clock.At(2026, 11, 24, 21))!.State, "first")!
            .Current!.By.ShouldBeNull("it needs a nod again");

        var last = new RunPlanner(FollowUps with { Steps = [.. FollowUps.Steps.Take(2)] }, Clock, SendingWindow.Usual);
        var atEnd = last.Advance(last.Advance(last.Start(Monday), Monday).State, Clock.At(2026, 11, 24, 10)).State;
        var ended = last.Skip(atEnd, "first", Clock.At(2026, 11, 24, 11))!.State;
        ended.Status.ShouldBe(RunStatus.Finished);
        last.TakeSkipBack(ended, "first")!.Current!.Status.ShouldBe(StepStatus.Waiting, "also when it was the last step");
    }

    [Fact]
    public void A_skip_taken_back_leaves_what_follows_to_count_from_where_it_counted_before()
    {
        var waiting = Planner.Advance(Started(), Clock.At(2026, 11, 24, 10)).State;
        var back = Planner.TakeSkipBack(Planner.Skip(waiting, "first", Clock.At(2026, 11, 26, 11))!.State, "first")!;
        back.CountsFrom.ShouldBe(waiting.CountsFrom);
        Planner
            .Nod(back, "first", Clock.At(2026, 11, 27, 11), Maren)!
            .State.ShouldBeEquivalentTo(Planner.Nod(waiting, "first", Clock.At(2026, 11, 27, 11), Maren)!.State);
    }

    [Fact]
    public void Nods_that_came_due_while_nobody_could_see_them_are_asked_for_one_after_the_other_with_all_their_days()
    {
        var back = Clock.At(2027, 1, 25, 10);
        var first = Planner.Advance(Started(), back);
        first.Effects.ShouldBe([new RunEffect(RunEffectKind.AskForNod, "first", back)]);
        Planner.Advance(first.State, Clock.At(2027, 2, 8, 9)).Effects.ShouldBeEmpty("it has its fourteen days");
        Planner
            .Advance(first.State, Clock.At(2027, 2, 8, 10))
            .Effects.ShouldBe([new RunEffect(RunEffectKind.NoteLapse, "first", Clock.At(2027, 2, 8, 10))]);
    }

    [Fact]
    public void A_skip_of_a_step_whose_date_was_still_to_come_gives_it_its_date_back()
    {
        var planned = Planner.Skip(Started(), "first", Monday)!.State;
        var back = Planner.TakeSkipBack(planned, "first")!;
        back.Current.Plain().ShouldBe(new StepState("first", StepStatus.Planned, Clock.At(2026, 11, 24, 10)));
        Planner.Nod(back, "first", Monday, Maren).ShouldBeNull("it does not wait yet");
    }

    [Fact]
    public void A_worker_that_comes_back_in_the_night_sends_nothing_before_the_window_opens()
    {
        var planner = new RunPlanner(Content(Step("letter", new Schedule(Anchor.RunStart, 1, TimeUnit.Hours))), Clock, SendingWindow.Usual);
        var run = planner.Start(Clock.At(2026, 11, 20, 9));
        var night = planner.Advance(run, Clock.At(2026, 11, 21, 3));
        night.Effects.ShouldBeEmpty();
        planner.NextMoment(night.State).ShouldBe(Clock.At(2026, 11, 23, 9), "Monday");
        planner.Advance(night.State, Clock.At(2026, 11, 23, 9)).Effects[0].Kind.ShouldBe(RunEffectKind.TakeEffect);
    }

    [Fact]
    public void A_step_behind_a_lapsed_nod_does_not_go_out_on_a_closed_day()
    {
        var closed = Dublin(new LocalDate(2026, 12, 8));
        var planner = new RunPlanner(
            Content(
                Step("ask", new Schedule(Anchor.RunStart, 1, TimeUnit.Days), nod: true),
                Step("letter", new Schedule(Anchor.PreviousSettled, 0, TimeUnit.Minutes))
            ),
            closed,
            SendingWindow.Usual
        );
        var asked = planner.Advance(planner.Start(Monday), closed.At(2026, 11, 24, 10));
        var lapsed = planner.Advance(asked.State, closed.At(2026, 12, 8, 10));
        lapsed.Effects.Select(effect => effect.Kind).ShouldBe([RunEffectKind.NoteLapse]);
        lapsed.State.Current!.Due.ShouldBe(closed.At(2026, 12, 9, 9));
    }

    [Fact]
    public void Now_on_a_nod_sends_that_one_and_not_the_automatic_one_after_it()
    {
        var planner = new RunPlanner(
            Content(
                Step("ask", new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true), nod: true),
                Step("letter", new Schedule(Anchor.RunStart, 1, TimeUnit.Hours))
            ),
            Clock,
            SendingWindow.Usual
        );
        var run = planner.Advance(planner.Start(Monday), Monday).State;
        var night = Clock.At(2026, 11, 24, 22);
        var sent = planner.Nod(run, "ask", night, Maren, sendNow: true)!;
        sent.Effects.ShouldBe([new RunEffect(RunEffectKind.TakeEffect, "ask", night)]);
        sent.State.Current!.Due.ShouldBe(Clock.At(2026, 11, 25, 9));
    }

    [Fact]
    public void A_nod_after_its_days_comes_too_late_also_before_the_worker_has_seen_it()
    {
        var run = Planner.Advance(Started(), Clock.At(2026, 11, 24, 10)).State;
        Planner.Nod(run, "first", Clock.At(2026, 12, 8, 10), Maren).ShouldBeNull();
        Planner.Skip(run, "first", Clock.At(2026, 12, 8, 10)).ShouldBeNull();
        Planner.Nod(run, "first", Clock.At(2026, 12, 8, 9, 59), Maren).ShouldNotBeNull();
    }

    [Theory]
    [InlineData(500_000, TimeUnit.Weeks)]
    [InlineData(3_000_000, TimeUnit.Days)]
    [InlineData(int.MaxValue, TimeUnit.WorkingDays)]
    [InlineData(int.MaxValue, TimeUnit.Months)]
    public void A_wait_beyond_ten_years_never_comes(int amount, TimeUnit unit) =>
        new Schedule(Anchor.RunStart, amount, unit).Due(Monday, Clock, SendingWindow.Usual).ShouldBeNull();

    [Fact]
    public void An_unanswered_nod_lapses_after_its_days_and_the_run_goes_on()
    {
        var run = Planner.Advance(Started(), Clock.At(2026, 11, 24, 10)).State;
        var lapsed = Planner.Advance(run, Clock.At(2026, 12, 8, 10));
        lapsed.Effects.ShouldBe([new RunEffect(RunEffectKind.NoteLapse, "first", Clock.At(2026, 12, 8, 10))]);
        lapsed.State.Current.Plain().ShouldBe(new StepState("second", StepStatus.Planned, Clock.At(2026, 12, 14, 9)));
    }

    /// <summary>A second way: of the days from its asking on, those in which the program ran are counted one by one.</summary>
    [Fact]
    public void Days_in_which_the_program_did_not_run_are_no_days_of_a_nod() =>
        Gen.Select(Gen.Int[1, 13], Gen.Int[1, 200], Gen.Int[0, 30])
            .Sample(
                (ran, off, again) =>
                {
                    var asked = Clock.At(2026, 11, 24, 10);
                    var run = Planner.Advance(Started(), asked).State;
                    var (from, until) = (asked + Duration.FromDays(ran), asked + Duration.FromDays(ran + off));
                    run = RunPlanner.StoodStill(run, from, until);
                    var now = until + Duration.FromDays(again) + Duration.FromHours(2);
                    var days = Enumerable.Range(0, ran + off + again).Count(day => day < ran || day >= ran + off);
                    (Planner.Advance(run, now).State.Steps[1].Status == StepStatus.Lapsed).ShouldBe(days >= 14);
                    RunPlanner.StoodStill(run, until, from).ShouldBeSameAs(run);
                }
            );

    [Fact]
    public void A_stop_cancels_everything_pending_and_an_ended_run_stays_ended()
    {
        var run = Planner.Advance(Started(), Clock.At(2026, 11, 24, 10)).State;
        var stopped = Planner.Stop(run, RunEnd.Replied, Clock.At(2026, 11, 24, 12));
        stopped
            .Steps.Select(step => step.Status)
            .ShouldBe([StepStatus.Done, StepStatus.Cancelled, StepStatus.Cancelled, StepStatus.Cancelled]);
        (stopped.Status, stopped.StoppedBy).ShouldBe((RunStatus.Stopped, RunEnd.Replied));
        Planner.NextMoment(stopped).ShouldBeNull();
        Planner.Advance(stopped, Clock.At(2027, 11, 24)).Effects.ShouldBeEmpty();
        Planner.Nod(stopped, "first", Clock.At(2026, 11, 24, 12), Maren).ShouldBeNull();
        Planner.Stop(stopped, RunEnd.Booked, Clock.At(2027, 1, 1)).ShouldBe(stopped);
    }

    [Fact]
    public void A_run_ends_when_its_last_step_is_settled()
    {
        var run = Started();
        foreach (var _ in FollowUps.Steps.Skip(1))
        {
            run = Planner.Advance(run, Planner.NextMoment(run)!.Value).State;
            var transition = Planner.Nod(run, run.Current!.Key, run.Current.Due!.Value, Maren)!;
            run = transition.State;
        }

        run.Status.ShouldBe(RunStatus.Finished);
        run.Steps.Select(step => Clock.ToLocal(step.Settled!.Value).ToString("d MMM HH:mm", null))
            .ShouldBe(["23 Nov 10:00", "24 Nov 10:00", "30 Nov 09:00", "9 Dec 09:00"]);
    }

    // A follow-up rhythm of the trade: 24 hours, 3 days, 7 days, each from the one before; then 90 and another 90 days.
    // Common practice, no source.
    [Fact]
    public void The_rhythm_of_the_trade_falls_on_days_1_4_11_101_and_191()
    {
        var every = new BusinessCalendar(
            DateTimeZone.Utc,
            [
                .. Enumerable
                    .Range(1, 7)
                    .Select(day => new DayHours((IsoDayOfWeek)day, [new OpenSpan(new LocalTime(0, 0), new LocalTime(23, 59))])),
            ],
            []
        );
        var rhythm = Content([
            .. new[] { (24, TimeUnit.Hours), (3, TimeUnit.Days), (7, TimeUnit.Days), (90, TimeUnit.Days), (90, TimeUnit.Days) }.Select(
                (wait, index) => Step($"s{index}", new Schedule(Anchor.PreviousSettled, wait.Item1, wait.Item2))
            ),
        ]);
        var planner = new RunPlanner(rhythm, every, SendingWindow.Usual);
        var start = Instant.FromUtc(2026, 1, 5, 10, 0);
        var run = planner.Start(start);
        while (planner.NextMoment(run) is { } moment)
            run = planner.Advance(run, moment).State;
        run.Steps.Select(step => (step.Settled!.Value - start).Days).ShouldBe([1, 4, 11, 101, 191]);
    }

    [Theory]
    [InlineData(1, TimeUnit.Months, 2027, 2, 28)]
    [InlineData(2, TimeUnit.Weeks, 2027, 2, 14)]
    [InlineData(5, TimeUnit.Days, 2027, 2, 5)]
    public void Units_are_counted_on_the_calendar_and_months_are_clamped(int amount, TimeUnit unit, int year, int month, int day) =>
        new Schedule(Anchor.RunStart, amount, unit, AtOnce: true)
            .Due(Clock.At(2027, 1, 31, 12), Clock, SendingWindow.Usual)
            .ShouldBe(Clock.At(year, month, day, 12));

    [Fact]
    public void Whatever_happens_each_step_takes_effect_at_most_once_and_in_order() =>
        Gen.Int[0, 4]
            .Array[1, 60]
            .Sample(moves =>
            {
                var (run, now) = (Planner.Start(Monday), Monday);
                var effects = new List<string>();
                foreach (var move in moves)
                {
                    var ended = run.Status != RunStatus.Active;
                    var transition = move switch
                    {
                        0 => Planner.Advance(run, now),
                        1 => run.Current is { } step ? Planner.Nod(run, step.Key, now, Maren) : null,
                        2 => run.Current is { } step ? Planner.Nod(run, step.Key, now, Maren, sendNow: true) : null,
                        3 when moves.Length % 7 == 0 => new Transition(Planner.Stop(run, RunEnd.Booked, now), []),
                        _ => null,
                    };
                    if (transition is not null)
                    {
                        effects.AddRange(
                            transition.Effects.Where(effect => effect.Kind == RunEffectKind.TakeEffect).Select(effect => effect.Step!)
                        );
                        if (ended)
                            transition.Effects.ShouldBeEmpty();
                        run = transition.State;
                    }

                    now += Duration.FromHours(move * 11);
                }

                effects.ShouldBe(FollowUps.Steps.Select(step => step.Key).Where(effects.Contains), "once each, in order");
                if (run.Status == RunStatus.Stopped)
                    run.Steps.ShouldNotContain(step => step.IsPending);
            });

    private static readonly Guid Maren = Guid.NewGuid();

    private static RunState Started() => Planner.Advance(Planner.Start(Monday), Monday).State;

    private static FollowThroughContent Content(params Step[] steps) =>
        new("After an inquiry", new InquiryStart(null, []), steps, [StopOn.Replied, StopOn.Booked]);

    private static Step Step(string key, Schedule when, bool nod = false) =>
        new(key, key, new SendMessage(new MessageTemplate(key, [new TextPart("text", key)])), when, nod);
}
