using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using static PorchLight.Server.Tests.RunTests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What starts and ends for two people with three pieces of work, against a second way to say it: a list of names on paper.</summary>
public sealed class JourneysAgainstASecondWayTests
{
    private const int Rounds = 6;
    private const int Moves = 25;
    private static readonly string[] Stages = ["new", "booked", "finished"];
    private static readonly Fit[] Fits = [Fit.ComeIn, Fit.TalkFirst, Fit.NotNow];

    [Fact]
    public async Task Whatever_happens_and_whichever_day_comes_the_same_journeys_are_under_way()
    {
        var seed = Random.Shared.Next();
        var random = new Random(seed);
        var (begun, ended) = (0, 0);
        for (var round = 0; round < Rounds; round++)
        {
            await using var app = new TestApp { Time = new(TestClock.Written) };
            await OthersAreOffAsync(app);
            // Today has been asked for what it starts: what is put into a field now comes too late for it.
            await app.WorkAsync();
            var works = await PeopleAsync(app, random);
            var plans = Plans(random, works[0].Form);
            await app.ChangeAsync(db =>
            {
                db.AddFollowThroughs(plans);
                return Task.CompletedTask;
            });
            await app.WorkAsync();
            var paper = new Paper(plans);
            var story = new List<string> { $"seed {seed}, round {round}" };
            story.AddRange(plans.Select(plan => $"{plan.Name}: {plan.Starts}, beside {plan.SideBySide}, {string.Join(", ", plan.Stops)}"));
            for (var move = 0; move < Moves; move++)
            {
                story.Add(await MoveAsync(app, random, works, paper));
                var underWay = await UnderWayAsync(app, works);
                underWay.ShouldBe(paper.UnderWay(), string.Join('\n', story));
            }

            (begun, ended) = (begun + paper.Begun, ended + paper.Ended);
        }

        begun.ShouldBeGreaterThan(20, "something went on");
        ended.ShouldBeGreaterThan(10, "and came to its end");
    }

    /// <summary>Lets one thing happen in the program and on paper; says which.</summary>
    private static async Task<string> MoveAsync(TestApp app, Random random, IReadOnlyList<Work> works, Paper paper)
    {
        var work = works[random.Next(works.Count)];
        if (random.Next(8) == 0)
        {
            await app.PassTimeAsync(Duration.FromDays(1));
            paper.DayComes(app.Now.InUtc().Date, works);
            return $"{app.Now.InUtc().Date}";
        }

        if (random.Next(6) == 0)
        {
            var plan = paper.Plans[random.Next(paper.Plans.Count)];
            await InWriteAsync(
                app,
                async (db, services) =>
                {
                    var version = (await db.FollowThroughVersions.ToListAsync()).Last(one => one.Content.Name == plan.Name);
                    await services.GetRequiredService<RunEngine>().StartAsync(version, work.About, app.Now);
                }
            );
            paper.Begin(plan, work);
            return $"{plan.Name} by hand for {work.Name}";
        }

        var fit = Fits[random.Next(3)];
        DomainEvent what = random.Next(7) switch
        {
            0 => new ReplyReceived("Yes"),
            1 => new MeetingBooked(),
            2 or 3 => new ProjectStageSet(Stages[random.Next(3)], null),
            4 when random.Next(2) == 0 => new ProjectClosed(null, "finished"),
            4 when work.About.InquiryId is not null => new InquiryClosed(Guid.Empty),
            _ => new InquiryReceived(work.Form, 1, fit, KnownBefore: true, Joined: random.Next(4) == 0)
            {
                TurnedAway = fit == Fit.NotNow && random.Next(2) == 0,
            },
        };
        await InWriteAsync(
            app,
            async (_, services) => await services.GetRequiredService<EventLog>().AppendAsync(what, app.Now, work.About)
        );
        paper.Happens(what, work, works);
        return $"{what} to {work.Name}";
    }

    private static Task<List<string>> UnderWayAsync(TestApp app, IReadOnlyList<Work> works)
    {
        var clients = works.Select(work => work.About.ClientId!.Value).ToHashSet();
        return app.AskAsync(async db =>
            (await db.RunsWithVersion().Where(one => one.Run.Active).ToListAsync())
                .Where(one => clients.Contains(one.Run.ClientId!.Value))
                .Select(one => $"{one.Version.Content.Name} for {works.Single(work => work.About.ProjectId == one.Run.ProjectId).Name}")
                .Order(StringComparer.Ordinal)
                .ToList()
        );
    }

    /// <summary>One person with two pieces of work, the second of which nobody asked for by a form, and one with one; each has its day.</summary>
    private static async Task<IReadOnlyList<Work>> PeopleAsync(TestApp app, Random random)
    {
        var (first, second) = (await SomebodyAsync(app), await SomebodyAsync(app));
        (
            await app.Owner().PostAsync($"/api/clients/{first.Client}/projects", Body(new { title = "A second wall", service = "" }))
        ).EnsureSuccessStatusCode();
        var (form, other) = await app.AskAsync(async db =>
            (
                (await db.Submissions.FirstAsync()).FormId.Value,
                await db.Projects.Where(one => one.ClientId == first.Client && one.Id != first.Project).Select(one => one.Id).SingleAsync()
            )
        );
        Work[] works =
        [
            new("A1", new EventContext(first.Client, first.Project, first.Inquiry), form, Day()),
            new("A2", new EventContext(first.Client, other), form, Day()),
            new("B", new EventContext(second.Client, second.Project, second.Inquiry), form, Day()),
        ];
        foreach (var work in works)
            await ConsentTests.PutAsync(
                app.Owner(),
                work.About,
                "project.start",
                new { kind = "date", date = work.Date },
                work.About.ProjectId!.Value.Value
            );
        return works;

        LocalDate Day() => app.Now.InUtc().Date.PlusDays(random.Next(1, 6));
    }

    private static List<FollowThroughContent> Plans(Random random, Guid form) =>
        [
            .. Enumerable
                .Range(0, 6)
                .Select(number => new FollowThroughContent(
                    $"{(char)('a' + number)} {Guid.NewGuid():N}",
                    random.Next(6) switch
                    {
                        0 => new StageStart([Stages[random.Next(3)]]),
                        1 => new RepliedStart(),
                        2 => new BookedStart(),
                        3 => new ProjectDateStart("project.start", random.Next(-3, 3)),
                        _ => new InquiryStart(random.Next(2) == 0 ? form : null, [.. Fits.Where(_ => random.Next(3) == 0)]),
                    },
                    [Step("later", new MakeTask("Later", 1, null)) with { Schedule = new Schedule(Anchor.RunStart, 9, TimeUnit.Months) }],
                    [
                        .. new[]
                        {
                            StopOn.Replied,
                            StopOn.Booked,
                            new StopOn(new StageOccasion([])),
                            new StopOn(new StageOccasion([Stages[random.Next(3)]])),
                        }.Where(_ => random.Next(3) == 0),
                    ]
                )
                {
                    SideBySide = random.Next(2) == 0,
                }),
        ];

    /// <summary>A piece of work of somebody, and the day that stands in its field.</summary>
    private sealed record Work(string Name, EventContext About, Guid Form, LocalDate Date);

    /// <summary>
    /// The second way: what is under way stands in a list of names. It is read off rules.md 11 and asks nothing of the program but what the
    /// words of a plan are.
    /// </summary>
    private sealed class Paper(IReadOnlyList<FollowThroughContent> plans)
    {
        private readonly List<(FollowThroughContent Plan, Work Work)> _underWay = [];

        public IReadOnlyList<FollowThroughContent> Plans => plans;
        public int Begun { get; private set; }
        public int Ended { get; private set; }

        public List<string> UnderWay() =>
            [.. _underWay.Select(one => $"{one.Plan.Name} for {one.Work.Name}").Order(StringComparer.Ordinal)];

        public void Happens(DomainEvent what, Work work, IReadOnlyList<Work> works)
        {
            foreach (var one in _underWay.ToList())
                if (IsOver(one.Plan, one.Work, what, work))
                    End(one);
            Choose([.. plans.Where(plan => Starts(plan.Starts, what))], work);
        }

        public void DayComes(LocalDate day, IReadOnlyList<Work> works)
        {
            foreach (var work in works)
                Choose([.. plans.Where(plan => plan.Starts is ProjectDateStart start && work.Date.PlusDays(start.Days) == day)], work);
        }

        public void Begin(FollowThroughContent plan, Work work)
        {
            foreach (var one in _underWay.Where(one => one.Work.About.ClientId == work.About.ClientId).ToList())
            {
                var again = one.Plan == plan && one.Work == work;
                if (again || !one.Plan.SideBySide || !plan.SideBySide)
                    End(one);
            }

            _underWay.Add((plan, work));
            Begun++;
        }

        private void End((FollowThroughContent, Work) one)
        {
            _underWay.Remove(one);
            Ended++;
        }

        /// <summary>The one that asks for most begins, the first of several; beside one that may have company, all that may.</summary>
        private void Choose(List<FollowThroughContent> could, Work work)
        {
            if (could.Count == 0)
                return;
            var most = could.Max(Asks);
            var chosen = could.First(plan => Asks(plan) == most);
            if (!chosen.SideBySide)
                Begin(chosen, work);
            else
                foreach (var plan in could.Where(plan => plan.SideBySide))
                    Begin(plan, work);
        }

        // A form is asked for before a fit is.
        private static int Asks(FollowThroughContent plan) =>
            plan.Starts is InquiryStart start ? (start.Form is null ? 0 : 2) + (start.Fits.Count == 0 ? 0 : 1) : 0;

        private static bool Starts(StartOn start, DomainEvent what) =>
            (start, what) switch
            {
                (RepliedStart, ReplyReceived) => true,
                (BookedStart, MeetingBooked) => true,
                (StageStart on, ProjectStageSet set) => on.Stages.Contains(set.Stage),
                (StageStart on, ProjectClosed) => on.Stages.Contains("finished"),
                (InquiryStart on, InquiryReceived came) => !came.Joined
                    && (on.Form is null || on.Form == came.Form)
                    && (on.Fits.Count == 0 ? !came.TurnedAway : on.Fits.Contains(came.Fit!.Value)),
                _ => false,
            };

        private static bool IsOver(FollowThroughContent plan, Work on, DomainEvent what, Work about)
        {
            if (on.About.ClientId != about.About.ClientId)
                return false;
            return what switch
            {
                ReplyReceived => plan.Stops.Any(stop => stop.On is RepliedOccasion),
                MeetingBooked => plan.Stops.Any(stop => stop.On is BookedOccasion),
                ProjectStageSet set => on == about
                    && plan.Stops.Any(stop => stop.On is StageOccasion at && (at.Stages.Count == 0 || at.Stages.Contains(set.Stage))),
                ProjectClosed or InquiryClosed => on == about,
                _ => false,
            };
        }
    }
}
