using System.Globalization;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;
using PorchLight.Core.Ready;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>What whoever edits a follow-through is told about it.</summary>
public sealed class FollowThroughDeskTests
{
    private static readonly Guid Maren = Guid.NewGuid();
    private static readonly Guid Wall = Guid.NewGuid();
    private static readonly Guid Board = Guid.NewGuid();

    internal static readonly FollowThroughNames Names = new(
        _ => "A wall to paint",
        service => service,
        key => Stage.Usual.FirstOrDefault(stage => stage.Key == key)?.Name ?? "a stage that is gone",
        key => BuiltInFields.All.FirstOrDefault(field => field.Key == key)?.Label ?? "a field that is gone",
        _ => "Maren",
        _ => "Onboarding",
        _ => "Board",
        _ => "the budget is large"
    );

    internal static readonly FollowThroughSurroundings Around = new(
        new HashSet<Guid> { Wall },
        new HashSet<string> { "mural" },
        Stage.Usual,
        BuiltInFields.All.ToDictionary(field => field.Key),
        new HashSet<Guid> { Maren },
        new HashSet<Guid>(),
        new HashSet<Guid> { Board }
    );

    public static TheoryData<string> Ready => [.. ReadyFollowThroughs.All.Select(one => one.Key)];

    [Theory]
    [MemberData(nameof(Ready))]
    public void Every_one_that_is_ready_can_be_put_into_force_as_it_is(string key)
    {
        var content = ReadyFollowThroughs.All.Single(one => one.Key == key).Make(Stage.Usual);
        FollowThroughCheck.Check(content, Around).ShouldBeEmpty();
        PlanTable.Unfinished(content).ShouldBeEmpty();
        FollowThroughCheck
            .Check(ReadyFollowThroughs.All.Single(one => one.Key == key).Make([]), Around)
            .ShouldBeEmpty("also without the usual stages");
    }

    // Rhythms of the trade: common practice, no source.
    [Theory]
    [InlineData("inquiry", "0 1 4 11 101")]
    [InlineData("proposal", "2 5 7 8")]
    [InlineData("support", "0 7 23 30 120")]
    [InlineData("onboarding", "0 0 2 9 -")]
    [InlineData("later", "90 104")]
    public void The_day_rule_shows_the_rhythms_of_the_trade(string key, string days) =>
        string.Join(
                ' ',
                StepDays
                    .DaysOf(ReadyFollowThroughs.All.Single(one => one.Key == key).Make(Stage.Usual))
                    .Select(day => day?.ToString(CultureInfo.InvariantCulture) ?? "-")
            )
            .ShouldBe(days);

    [Fact]
    public void Starts_ends_and_steps_read_as_sentences()
    {
        Say(new InquiryStart(Wall, [Fit.TalkFirst, Fit.ComeIn])).ShouldBe("“A wall to paint” comes in as Come in or Talk first");
        Say(new InquiryStart(null, []) { Service = "mural", Condition = PlayedFacts.True })
            .ShouldBe("an inquiry comes in for mural, if the budget is large");
        Say(new StageStart(["booked", "under-way"])).ShouldBe("a project reaches Booked or Under way");
        Say(new BookedStart()).ShouldBe("they book a meeting");
        Content([]).SayStops(Names).ShouldBe("they reply, they book or the stage moves on");
        When(Anchor.PreviousSettled, 3, TimeUnit.Days).ShouldBe("three days after the one before");
        When(Anchor.PreviousSettled, 0, TimeUnit.Days).ShouldBe("right after the one before");
        When(Anchor.RunStart, 0, TimeUnit.Days, atOnce: true).ShouldBe("at once");
        When(Anchor.RunStart, 1, TimeUnit.WorkingDays, atOnce: true).ShouldBe("one working day after the start, at any hour");
        When(new ProjectDateAnchor("project.start"), -1, TimeUnit.Weeks).ShouldBe("one week before the day of “Start”");
        When(new ProjectDateAnchor("project.start"), 0, TimeUnit.Weeks).ShouldBe("on the day of “Start”");
        Does(new MakeTask("Measure", 2, Maren)).ShouldBe("a task: “Measure”, to be done within two working days by Maren");
        Does(new MoveStage("parked", 90)).ShouldBe("the stage moves to Parked for 90 days");
        Does(new FillField("project.start", null)).ShouldBe("“Start” is set to that day");
        Does(new HandOverProject(Maren, KeepWatching: true)).ShouldBe("Maren takes it over; the person before keeps watching");
        Does(new PostToChat("A wall!")).ShouldBe("a line in the team chat: “A wall!”");
        Does(new CallWebhook(Board)).ShouldBe("the webhook “Board” is called");
        Does(new TellTeam([Maren], "helper@example.com", "A wall", "")).ShouldBe("Maren and helper@example.com are told: “A wall”");
        Does(new WaitFor(new BookedOccasion())).ShouldBe("waits until they book, at most five days");
    }

    [Fact]
    public void What_stands_in_the_way_is_said_at_its_place()
    {
        Findings(Content([])).ShouldBe([("", "Add a first step.")]);
        Findings(Content([Step("a", Mail())]) with { Name = " ", LapseAfterDays = 0 }).Select(one => one.Place).ShouldBe(["", ""]);
        Only(Step("a", new SendMessage(new MessageTemplate("Hello", [new GapPart("g", "a line")])))).ShouldContain("needs your nod");
        Only(Step("a", new SendMessage(new MessageTemplate(" ", [])))).ShouldContain("needs a subject");
        Only(Step("a", new SendMessage(new MessageTemplate("Hello", [new TextPart("t", " ")])))).ShouldContain("says nothing");
        Only(Step("a", new MoveStage("gone"))).ShouldContain("Choose the stage");
        Only(Step("a", new MoveStage("booked", 3))).ShouldContain("Only a parked stage");
        Only(Step("a", new FillField("client.company", null))).ShouldContain("Only a field for dates");
        Only(Step("a", new FillField("client.email", new TextAnswer("a@bakes.example")))).ShouldContain("cannot write into this field");
        Only(Step("a", new HandOverProject(Guid.NewGuid()))).ShouldContain("Choose who takes it over");
        Only(Step("a", new PostToChat(" "))).ShouldContain("what is posted");
        Only(Step("a", new CallWebhook(Guid.NewGuid()))).ShouldContain("Choose the webhook");
        Only(Step("a", new TellTeam([], null, "Hello", ""))).ShouldContain("who is told");
        Only(Step("a", new TellTeam([], "no address", "Hello", ""))).ShouldContain("not an e-mail address");
        Only(Step("a", new StartAnother(Guid.NewGuid()))).ShouldContain("has to be in force");
        Only(Step("a", new Unwritten("the guide"))).ShouldContain("still to be written");
        Only(Step("a", new WaitFor(new RepliedOccasion()))).ShouldContain("already ends the whole");
        Only(Step("a", new Branch(PlayedFacts.Unknown, "a", null))).ShouldContain("does not come later");
        Only(Step("a", new Branch(new AllCondition([]), "a", null))).ShouldContain("what decides which way");
        Only(Step("a", new Branch(PlayedFacts.Unknown, null, null))).ShouldContain("Both ways");
        Only(Step("a", Mail()) with { Condition = new IsAnsweredCondition(new AnswerTo("budget")) }).ShouldContain("Say which form");
        Only(Step("a", Mail(), new Schedule(Anchor.RunStart, -1, TimeUnit.Days))).ShouldContain("counted back");
        Only(Step("a", Mail(), new Schedule(Anchor.RunStart, 11, TimeUnit.Months) with { Amount = 200 })).ShouldContain("ten years");
        Only(Step("a", Mail(), new Schedule(new ProjectDateAnchor("name"), 1, TimeUnit.Days))).ShouldContain("a day that no project has");
        Findings(Content([Step("a", Mail())]) with { Starts = new InquiryStart(Guid.NewGuid(), []) })
            .ShouldHaveSingleItem()
            .Place.ShouldBe("starts");
        Findings(Content([Step("a", Mail())]) with { Stops = [new StopOn(new BookedOccasion(), Step("z", new EndRun()))] })
            .ShouldHaveSingleItem()
            .Place.ShouldBe("stops");
        Findings(Content([Step("a", Mail()), Step("a", Mail())])).ShouldHaveSingleItem().Sentence.ShouldContain("same key");
    }

    [Fact]
    public void Two_versions_are_told_apart_in_sentences()
    {
        var before = Content([Step("a", Mail()), Step("b", Mail()), Step("c", Mail())]);
        FollowThroughDifferences.Say(before, before with { Steps = [.. before.Steps] }, Names).ShouldBeEmpty();
        var after = before with
        {
            Steps =
            [
                Step("c", Mail()) with
                {
                    NeedsNod = true,
                },
                Step("b", Mail("Other words"), new Schedule(Anchor.PreviousSettled, 4, TimeUnit.Days)),
                Step("d", new EndRun()),
            ],
            Stops = [StopOn.Replied],
            LapseAfterDays = 7,
            KeepsRhythm = true,
        };
        FollowThroughDifferences
            .Say(before, after, Names)
            .ShouldBe([
                "“c” waits for a nod.",
                "“b” comes four days after the one before, not right after the one before.",
                "“b”: a message: “Other words”; before, a message: “Hello”.",
                "New: “d”, right after the one before.",
                "Gone: “a”.",
                "The steps are in another order.",
                "It ends if they reply.",
                "A nod waits seven days instead of 14.",
                "What follows a late nod keeps its day.",
            ]);
    }

    private static string Say(StartOn start) => start.Say(Names);

    private static string When(Anchor anchor, int amount, TimeUnit unit, bool atOnce = false) =>
        new Schedule(anchor, amount, unit, atOnce).Say(isFirst: false, Names);

    private static string Does(StepAction action) =>
        Step("a", action, new Schedule(Anchor.PreviousSettled, 5, TimeUnit.Days)).SayAction(Names);

    private static string Only(Step step) => Findings(Content([step])).ShouldHaveSingleItem().Sentence;

    private static (string Place, string Sentence)[] Findings(FollowThroughContent content) =>
        [.. FollowThroughCheck.Check(content, Around).Select(one => (one.Place, one.Sentence))];

    internal static SendMessage Mail(string subject = "Hello") => new(new MessageTemplate(subject, [new TextPart("text", "A word.")]));

    internal static FollowThroughContent Content(Step[] steps) =>
        new("After", new InquiryStart(null, []), steps, [StopOn.Replied, StopOn.Booked, new StopOn(new StageOccasion([]))]);

    internal static Step Step(string key, StepAction action, Schedule? when = null) =>
        new(key, key, action, when ?? new Schedule(Anchor.PreviousSettled, action is WaitFor ? 1 : 0, TimeUnit.Days), NeedsNod: false);
}
