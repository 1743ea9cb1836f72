using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

public sealed class SlotsAgainstASecondWayTests
{
    private static readonly Guid[] People =
    [
        Guid.Parse("a0000000-0000-7000-8000-000000000001"),
        Guid.Parse("b0000000-0000-7000-8000-000000000002"),
        Guid.Parse("c0000000-0000-7000-8000-000000000003"),
    ];

    private static readonly Gen<SlotRules> Rules = Gen.Select(
        Gen.Select(
            RandomForms.Pick(5, 30, 60, 95, 720),
            RandomForms.Pick(5, 10, 15, 20, 30, 60),
            RandomForms.Pick(0, 15, 90),
            RandomForms.Pick(0, 15, 60)
        ),
        Gen.Select(Gen.Int[0, 30], Gen.Int[0, 3], Gen.Bool, Gen.Int[0, 3]),
        Gen.Select(Gen.Int[0, 3], Gen.Int[0, 4], Gen.Enum<HostChoice>()),
        BusinessTimeAgainstASecondWayTests.Day.Array[0, 5],
        (lengths, notice, most, hours) =>
            new SlotRules(lengths.Item1)
            {
                Grid = lengths.Item2,
                BufferBefore = lengths.Item3,
                BufferAfter = lengths.Item4,
                Notice = new SlotNotice(notice.Item3 ? notice.Item2 : notice.Item1, notice.Item3),
                HorizonDays = notice.Item4,
                MostADay = most.Item1 == 0 ? null : most.Item1,
                MostAWeek = most.Item2 == 0 ? null : most.Item2,
                HostChoice = most.Item3,
                Hours = hours.Length == 0 ? null : hours,
            }
    );

    // Everything is told from a moment, in steps of five minutes, within some days before and after.
    private static readonly Gen<int> Steps = Gen.Int[-3 * 288, 5 * 288];

    private static readonly Gen<Func<Instant, LocalDate, SlotHost>> Host = Gen.Select(
        BusinessTimeAgainstASecondWayTests.Day.Array[3, 9],
        Gen.Int[0, 6].Array[0, 1],
        Gen.Select(Steps, Gen.Int[0, 60]).Array[0, 6],
        Steps.Array[0, 4],
        (weekly, off, busy, meetings) =>
            (Func<Instant, LocalDate, SlotHost>)(
                (moment, day) =>
                    new SlotHost(
                        Guid.Empty,
                        weekly,
                        [.. off.Select(day.PlusDays)],
                        [.. busy.Select(one => new Span(After(moment, one.Item1), After(moment, one.Item1 + one.Item2)))],
                        [.. meetings.Select(step => After(moment, step))]
                    )
            )
    );

    private static readonly Gen<SlotScene> Scenes = Gen.Select(
        Rules,
        Host.Array[0, 3],
        Gen.Select(
            RandomForms.Pick(BusinessTimeAgainstASecondWayTests.Zones),
            RandomForms.Pick(BusinessTimeAgainstASecondWayTests.Beginnings)
        ),
        Steps.Array[0, 4],
        Gen.Select(
            Gen.Int[0, 2 * 288],
            RandomForms.Pick(IsoDayOfWeek.Monday, IsoDayOfWeek.Sunday, IsoDayOfWeek.Saturday),
            Gen.Int[-288, 288],
            Gen.Bool
        ),
        (rules, hosts, when, taken, at) =>
        {
            var zone = DateTimeZoneProviders.Tzdb[when.Item1];
            var now = After(zone.AtStartOfDay(when.Item2).ToInstant(), at.Item1);
            var today = now.InZone(zone).Date;
            return new SlotScene(
                rules,
                [.. hosts.Select((host, index) => host(now, today) with { Id = People[index] })],
                [.. taken.Select(step => After(now, step))],
                zone,
                at.Item2,
                now,
                at.Item4 ? After(now, at.Item3) : null
            );
        }
    );

    [Fact]
    public void Times_are_free_that_are_found_free_by_trying_every_moment()
    {
        var found = 0;
        Scenes.Sample(
            scene =>
            {
                var free = scene.Slots.Free().ToList();
                Interlocked.Add(ref found, free.Count);
                free.Select(slot => (slot.Start, string.Join(' ', slot.Hosts))).ShouldBe(new NaiveSlots(scene).Free());
                free.ShouldAllBe(slot => slot.End - slot.Start == scene.Rules.Length);
            },
            iter: 20_000
        );
        found.ShouldBeGreaterThan(20_000, "most would be found without a time to book");
    }

    [Fact]
    public void One_moment_is_found_exactly_when_it_is_among_all_free_times() =>
        Gen.Select(Scenes, Steps)
            .Sample(
                (scene, step) =>
                {
                    var free = scene.Slots.Free().ToList();
                    foreach (var moment in free.Select(slot => slot.Start).Append(After(scene.Now, step)))
                        (scene.Slots.Find(moment)?.Start).ShouldBe(free.Find(slot => slot.Start == moment)?.Start);
                },
                iter: 2_000
            );

    [Fact]
    public void The_nearest_three_are_those_with_the_least_time_between() =>
        Gen.Select(Scenes, Steps)
            .Sample(
                (scene, step) =>
                {
                    var wanted = After(scene.Now, step);
                    var left = scene.Slots.Free().Select(slot => slot.Start).Where(start => start != wanted).ToList();
                    var nearest = new List<Instant>();
                    while (nearest.Count < 3 && left.Count > 0)
                    {
                        var best = left[0];
                        foreach (var start in left)
                        {
                            var (far, least) = ((start - wanted).TotalTicks, (best - wanted).TotalTicks);
                            if (Math.Abs(far) < Math.Abs(least))
                                best = start;
                        }

                        nearest.Add(best);
                        left.Remove(best);
                    }

                    scene.Slots.NearestTo(wanted).Select(slot => slot.Start).ShouldBe(nearest.Order());
                },
                iter: 2_000
            );

    private static Instant After(Instant moment, int steps) => moment + Duration.FromMinutes(5 * steps);
}
