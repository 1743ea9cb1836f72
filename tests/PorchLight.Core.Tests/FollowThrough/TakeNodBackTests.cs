using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.FollowThrough;

public sealed class TakeNodBackTests
{
    private static readonly Guid Maren = Guid.NewGuid();
    private static readonly Duration Ten = Duration.FromSeconds(10);

    /// <summary>What takes effect after its grace is what would have taken effect at that instant by a nod that waits for nothing.</summary>
    [Fact]
    public void After_its_grace_a_nod_does_what_it_does_without_one_and_before_it_nothing()
    {
        var seen = 0;
        Gen.Select(RunDiaryTests.RandomContent, RunDiaryTests.RandomFacts, Gen.Int[0, 20 * 24 * 60], Gen.Bool)
            .Sample(
                (content, facts, minutes, sendNow) =>
                {
                    var start = Instant.FromUtc(2026, 11, 23, 8, 0);
                    facts = facts with { LastAutomaticMessage = facts.LastAutomaticMessage is null ? null : start - Duration.FromHours(5) };
                    var planner = new RunPlanner(content, RunDiaryTests.Office(0), SendingWindow.Usual, facts);
                    var now = start + Duration.FromMinutes(minutes);
                    var run = planner.Start(start);
                    for (var step = 0; step < 20 && planner.NextMoment(run) <= now; step++)
                        run = planner.Advance(run, now).State;
                    if (run.Current is not { Status: StepStatus.Waiting } waiting)
                        return;
                    var atOnce = planner.Nod(run, waiting.Key, now, Maren, sendNow);
                    var held = planner.Nod(run, waiting.Key, now, Maren, sendNow, Ten);
                    (held is null).ShouldBe(atOnce is null);
                    if (atOnce is not { Effects.Count: > 0 })
                    {
                        held?.State.Steps.ShouldBe(atOnce!.State.Steps, "what waits for the window waits as ever");
                        return;
                    }

                    seen++;
                    held!.Effects.ShouldBeEmpty();
                    planner.Nod(held.State, waiting.Key, now, Maren, sendNow, Ten).ShouldBeNull("it has its nod");
                    planner.Advance(held.State, now + Ten - Duration.Epsilon).Effects.ShouldBeEmpty();
                    var back = RunPlanner.TakeNodBack(held.State, waiting.Key, now)!;
                    back.Current.ShouldBe(waiting with { Due = now });
                    var done = planner.Advance(held.State, now + Ten);
                    var then = planner.Nod(run, waiting.Key, now + Ten, Maren, sendNow: true)!;
                    done.Effects.Take(then.Effects.Count).ShouldBe(then.Effects);
                    done.State.Steps.Single(step => step.Key == waiting.Key)
                        .ShouldBe(then.State.Steps.Single(step => step.Key == waiting.Key) with { IsReleased = true });
                    RunPlanner.TakeNodBack(done.State, waiting.Key, now + Ten).ShouldBeNull("it has gone");
                }
            );
        seen.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void A_nod_a_moment_before_the_window_closes_still_goes_that_day()
    {
        var content = new FollowThroughContent(
            "Played",
            new ByHandStart(),
            [
                new Step(
                    "first",
                    "First",
                    new SendMessage(new MessageTemplate("A word", [new TextPart("text", "Hello.")])),
                    new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes),
                    NeedsNod: true
                ),
            ],
            []
        );
        var planner = new RunPlanner(content, RunDiaryTests.Office(0), SendingWindow.Usual);
        var start = Instant.FromUtc(2026, 11, 23, 9, 0);
        var run = planner.Advance(planner.Start(start), start).State;
        var closes = Instant.FromUtc(2026, 11, 23, 16, 59) + Duration.FromSeconds(55);
        var nodded = planner.Nod(run, run.Current!.Key, closes, Maren, grace: Ten)!.State;
        planner.NextMoment(nodded).ShouldBe(closes + Ten);
        planner.Advance(nodded, closes + Ten).Effects.ShouldContain(effect => effect.Kind == RunEffectKind.TakeEffect);
        planner
            .Stop(nodded, RunEnd.Replied, closes + Duration.FromSeconds(5))
            .Steps.ShouldContain(step => step.Status == StepStatus.Cancelled);
    }
}
