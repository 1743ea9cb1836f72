using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.FollowThrough;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>Runs that are moved to another version: random ones, against the rule written down step by step.</summary>
public sealed class MovingTests
{
    private static readonly Guid Maren = Guid.NewGuid();

    [Fact]
    public void What_is_settled_stays_nobody_goes_back_and_what_waits_keeps_its_nod() =>
        Gen.Select(RunDiaryTests.RandomContent, RunDiaryTests.RandomContent, Gen.Int[0, 400].Array[0, 12], Gen.Int[0, 7].Array[7])
            .Sample(
                (before, other, hours, order) =>
                {
                    var calendar = RunDiaryTests.Office(0);
                    var facts = new PlayedFacts();
                    var start = Instant.FromUtc(2026, 10, 20, 9, 0);
                    var (run, now) = Played(new RunPlanner(before, calendar, SendingWindow.Usual, facts), start, hours);
                    // Another version: some of the old steps in another order, and some new ones between them.
                    var after = before with
                    {
                        Steps =
                        [
                            .. before
                                .Steps.Concat(other.Steps.Select(step => step with { Key = $"new {step.Key}" }))
                                .Select((step, index) => (step, Place: order[index % order.Length]))
                                .Where(one => one.Place != 7)
                                .OrderBy(one => one.Place)
                                .Select(one => one.step),
                        ],
                    };
                    var moved = new RunPlanner(after, calendar, SendingWindow.Usual, facts).MoveHere(run, now);
                    if (run.IsOver || run.StoppedBy is not null)
                    {
                        moved.ShouldBe(run);
                        return;
                    }

                    var isLive = false;
                    var live = run.Next;
                    for (var index = 0; index < after.Steps.Count; index++)
                    {
                        var (step, stands) = (after.Steps[index], moved.Steps[index]);
                        stands.Key.ShouldBe(step.Key);
                        var old = run.Steps.FirstOrDefault(one => one.Key == step.Key);
                        var settledBehind = after.Steps.Skip(index + 1).Any(one => IsSettled(run, one.Key));
                        if (IsSettled(run, step.Key))
                            stands.ShouldBe(old);
                        else if (settledBehind)
                            stands.Status.ShouldBe(StepStatus.PassedOver);
                        else if (isLive)
                            stands.IsPending.ShouldBeTrue();
                        else
                        {
                            isLive = true;
                            var waits = live?.Key == step.Key && live.Status is StepStatus.Waiting or StepStatus.Approved;
                            if (waits && live!.Key == step.Key)
                                stands.ShouldBe(live);
                            else
                                (stands.Status, stands.Due is null || stands.Due >= now).ShouldBe((StepStatus.Planned, true));
                        }
                    }

                    moved.IsOver.ShouldBe(!isLive);
                }
            );

    private static bool IsSettled(RunState run, string key) => run.Steps.Any(step => step.Key == key && !step.IsPending);

    private static (RunState Run, Instant Now) Played(RunPlanner planner, Instant start, int[] hours)
    {
        var (run, now) = (planner.Start(start), start);
        foreach (var passed in hours)
        {
            now += Duration.FromHours(passed);
            while (planner.NextMoment(run) <= now)
                run = planner.Advance(run, now).State;
            if (passed % 2 == 0 && run.Current is { Status: StepStatus.Waiting } waits)
                run = planner.Nod(run, waits.Key, now, Maren)?.State ?? run;
        }

        return (run, now);
    }
}
