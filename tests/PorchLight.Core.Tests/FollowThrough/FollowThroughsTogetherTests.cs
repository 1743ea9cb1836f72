using CsCheck;
using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.FollowThrough;

public sealed class FollowThroughsTogetherTests
{
    private static readonly Guid[] Ids = [.. Enumerable.Range(1, 5).Select(number => new Guid(number, 0, 0, new byte[8]))];
    private static readonly Guid[] Forms = [.. Enumerable.Range(11, 3).Select(number => new Guid(number, 0, 0, new byte[8]))];
    private static readonly string[] Stages = ["talking", "offered", "won"];

    [Fact]
    public void Two_that_start_each_other_are_found_also_by_the_stages_they_move_to()
    {
        var first = Content(new StageStart(["talking"]), new MoveStage("offered"));
        var second = Content(new StageStart(["offered"]), new MoveStage("talking"));
        FollowThroughsTogether.Round(first, Ids[0], [Other(Ids[1], second)])!.ShouldHaveSingleItem().Id.ShouldBe(Ids[1]);
        FollowThroughsTogether.Round(first, Ids[0], [Other(Ids[1], second) with { IsOn = false }]).ShouldBeNull("that one is off");
        FollowThroughsTogether.Round(Content(new StageStart(["won"]), new MoveStage("won")), Ids[0], [])!.ShouldBeEmpty("it starts itself");
        FollowThroughsTogether
            .Round(
                Content(new ByHandStart(), new StartAnother(Ids[1])),
                Ids[0],
                [Other(Ids[1], Content(new ByHandStart(), new StartAnother(Ids[0])))]
            )
            .ShouldNotBeNull("a step starts one that is off, too");
    }

    /// <summary>A second way: walked step by step for as long as there are follow-throughs, keeping all that can run by then.</summary>
    [Fact]
    public void Whatever_starts_whatever_a_round_is_found_where_a_walk_comes_back() =>
        Contents
            .Array[2, 5]
            .Sample(contents =>
            {
                var all = contents.Select((content, index) => Other(Ids[index], content)).ToList();
                var running = new HashSet<Guid>(Started(contents[0], all));
                for (var steps = 0; steps < all.Count; steps++)
                    running.UnionWith(running.SelectMany(id => Started(all.Single(one => one.Id == id).Content, all)).ToList());
                var round = FollowThroughsTogether.Round(contents[0], Ids[0], [.. all.Skip(1)]);
                (round is not null).ShouldBe(running.Contains(Ids[0]));
                for (var at = 0; at < (round?.Count ?? 0); at++)
                    Started(at == 0 ? contents[0] : round![at - 1].Content, all).ShouldContain(round![at].Id);
            });

    /// <summary>A second way: whatever fit, service and form an inquiry has, is it ever this one that starts?</summary>
    [Fact]
    public void One_is_beaten_by_a_form_exactly_where_no_inquiry_of_it_ever_starts_it() =>
        Gen.Select(Starts, Starts.Array[0, 3], Gen.Bool.Array[4], Gen.Bool.Array[4], Gen.Int[0, 3])
            .Sample(
                (start, others, sideBySide, asks, older) =>
                {
                    // Each asks for something of its own, so that any of them may be there without the rest.
                    start = start with
                    {
                        Condition = asks[3] ? PlayedFacts.True : null,
                    };
                    var content = Content(start) with { SideBySide = sideBySide[3] };
                    var beside = others
                        .Select((one, index) => one with { Condition = asks[index] ? new FitCondition(Asked[index]) : null })
                        .Select(
                            (one, index) =>
                                Other(Ids[index + 1], Content(one) with { SideBySide = sideBySide[index] }) with
                                {
                                    IsOlder = index < older,
                                }
                        )
                        .ToList();
                    OtherFollowThrough[] inOrder =
                    [
                        .. beside.Where(one => one.IsOlder),
                        Other(Ids[0], content),
                        .. beside.Where(one => !one.IsOlder),
                    ];
                    var beaten = FollowThroughsTogether.BeatenBy(content, beside, Forms);
                    foreach (var form in Forms.Where(form => start.Form is null || start.Form == form))
                    {
                        var starts = Inquiries(form)
                            .Where(one => start.IsStartedBy(one.Happened, one.Facts))
                            .Select(one => FollowThroughs.StartedBy(inOrder, one.Happened, one.Facts, other => other.Content))
                            .ToList();
                        beaten
                            .Any(one => one.Form == form)
                            .ShouldBe(starts.All(started => started.All(other => other.Id != Ids[0])), string.Join("; ", beside));
                        foreach (var by in beaten.Where(one => one.Form == form).SelectMany(one => one.By))
                            starts.ShouldContain(started => started.Any(other => other.Id == by.Id));
                    }
                }
            );

    [Fact]
    public void The_sentence_names_all_that_start_instead()
    {
        var any = Content(new InquiryStart(null, []));
        var good = Other(Ids[1], Content(new InquiryStart(Forms[0], [Fit.ComeIn, Fit.TalkFirst])) with { Name = "Welcome" });
        var poor = Other(Ids[2], Content(new InquiryStart(Forms[0], [])) with { Name = "A kind no" });
        FollowThroughsTogether
            .SayBeaten(any, [good, poor], Forms, _ => "A wall")
            .ShouldBe(["For “A wall”, “A kind no” or “Welcome” starts instead because it is more exact."]);
    }

    /// <summary>Every inquiry, whatever it answered to each of the conditions that starts ask for.</summary>
    private static IEnumerable<(InquiryReceived Happened, PlayedFacts Facts)> Inquiries(Guid form) =>
        from fit in new Fit?[] { null, Fit.ComeIn, Fit.TalkFirst, Fit.NotNow }
        from service in new string?[] { null, "mural", "sign" }
        from turnedAway in new[] { false, true }
        from held in Enumerable.Range(0, 8)
        select (
            new InquiryReceived(form, 1, fit, false, false) { TurnedAway = turnedAway },
            new PlayedFacts { Service = service, Sorted = [.. Asked.Where((_, index) => (held & (1 << index)) != 0)] }
        );

    private static readonly Fit[] Asked = [Fit.ComeIn, Fit.TalkFirst, Fit.NotNow];

    private static readonly Gen<InquiryStart> Starts = Gen.Select(
        Gen.Int[-1, 2],
        Gen.Int[0, 7],
        Gen.Int[0, 2],
        (form, fits, service) =>
            new InquiryStart(
                form < 0 ? null : Forms[form],
                [.. new[] { Fit.ComeIn, Fit.TalkFirst, Fit.NotNow }.Where((_, index) => (fits & (1 << index)) != 0)]
            )
            {
                Service =
                    service == 0 ? null
                    : service == 1 ? "mural"
                    : "sign",
            }
    );

    private static readonly Gen<FollowThroughContent> Contents = Gen.Select(
        Gen.Int[0, 3],
        Gen.Int[0, 8].Array[0, 2],
        (start, steps) =>
            Content(
                start == 3 ? new ByHandStart() : (StartOn)new StageStart([Stages[start]]),
                [
                    .. steps.Select(step =>
                        step < 3 ? new MoveStage(Stages[step])
                        : step < 8 ? (StepAction)new StartAnother(Ids[step - 3])
                        : Mail
                    ),
                ]
            )
    );

    private static SendMessage Mail => new(new MessageTemplate("Hello", [new TextPart("text", "A word.")]));

    private static IEnumerable<Guid> Started(FollowThroughContent content, IReadOnlyList<OtherFollowThrough> all) =>
        content
            .Steps.SelectMany(step =>
                step.Action switch
                {
                    StartAnother another => [another.FollowThrough],
                    MoveStage move => all.Where(one => one.Content.Starts is StageStart stage && stage.Stages.Contains(move.Stage))
                        .Select(one => one.Id),
                    _ => Enumerable.Empty<Guid>(),
                }
            )
            .Where(id => all.Any(one => one.Id == id));

    private static OtherFollowThrough Other(Guid id, FollowThroughContent content) => new(id, content, IsOn: true, IsOlder: false);

    private static FollowThroughContent Content(StartOn starts, params StepAction[] actions) =>
        new(
            "After",
            starts,
            [
                .. actions.Select(
                    (action, index) =>
                        new Step($"s{index}", $"s{index}", action, new Schedule(Anchor.PreviousSettled, 0, TimeUnit.Days), false)
                ),
            ],
            []
        );
}
