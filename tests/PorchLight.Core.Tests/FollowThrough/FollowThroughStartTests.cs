using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.FollowThrough;

public sealed class FollowThroughStartTests
{
    [Fact]
    public void An_inquiry_starts_only_what_is_meant_for_its_form_and_fit()
    {
        var form = Guid.NewGuid();
        new InquiryStart(form, [Fit.ComeIn]).IsStartedBy(Received(form, Fit.ComeIn), NoFacts.Instance).ShouldBeTrue();
        new InquiryStart(form, [Fit.ComeIn]).IsStartedBy(Received(form, Fit.NotNow), NoFacts.Instance).ShouldBeFalse();
        new InquiryStart(form, [Fit.ComeIn]).IsStartedBy(Received(form, null), NoFacts.Instance).ShouldBeFalse("the form sorts nothing");
        new InquiryStart(form, []).IsStartedBy(Received(Guid.NewGuid(), Fit.ComeIn), NoFacts.Instance).ShouldBeFalse();
        new InquiryStart(null, []).IsStartedBy(Received(form, Fit.NotNow), NoFacts.Instance).ShouldBeTrue();
        new InquiryStart(null, [])
            .IsStartedBy(Received(form, Fit.NotNow) with { Joined = true }, NoFacts.Instance)
            .ShouldBeFalse("it joins what is under way");
    }

    [Fact]
    public void Of_several_that_an_inquiry_could_start_the_one_that_asks_for_most_is_meant_then_the_oldest()
    {
        var form = Guid.NewGuid();
        FollowThroughContent Named(string name, InquiryStart starts) => Content() with { Name = name, Starts = starts };
        FollowThroughContent[] live =
        [
            Named("any", new InquiryStart(null, [])),
            Named("any that come in", new InquiryStart(null, [Fit.ComeIn])),
            Named("of the form", new InquiryStart(form, [])),
            Named("of the form, later", new InquiryStart(form, [])),
            Named("another form", new InquiryStart(Guid.NewGuid(), [Fit.ComeIn])),
        ];
        Started(live, Received(form, Fit.ComeIn)).Single().Name.ShouldBe("of the form");
        Started(live, Received(Guid.NewGuid(), Fit.ComeIn)).Single().Name.ShouldBe("any that come in");
        Started(live, Received(Guid.NewGuid(), Fit.NotNow)).Single().Name.ShouldBe("any");
        Started(live, new CallAsked()).ShouldBeEmpty();
    }

    [Fact]
    public void A_start_may_ask_for_a_service_and_for_answers_that_are_certain()
    {
        var form = Guid.NewGuid();
        var received = Received(form, Fit.ComeIn);
        var murals = new InquiryStart(null, []) { Service = "mural" };
        murals.IsStartedBy(received, new PlayedFacts { Service = "mural" }).ShouldBeTrue();
        murals.IsStartedBy(received, new PlayedFacts { Service = "sign" }).ShouldBeFalse();
        murals.IsStartedBy(received, NoFacts.Instance).ShouldBeFalse("nobody said which service");
        bool Starts(Condition condition) => (new InquiryStart(null, []) { Condition = condition }).IsStartedBy(received, new PlayedFacts());
        Starts(PlayedFacts.True).ShouldBeTrue();
        Starts(PlayedFacts.False).ShouldBeFalse();
        Starts(PlayedFacts.Unknown).ShouldBeFalse("what is not certain starts nothing");
        murals.IsStartedBy(received with { StartsNothing = true }, new PlayedFacts { Service = "mural" }).ShouldBeFalse();
    }

    [Fact]
    public void Stages_bookings_and_replies_start_what_waits_for_them_and_nothing_starts_what_is_started_by_hand()
    {
        DomainEvent[] events =
        [
            new ProjectStageSet("booked", Guid.NewGuid()),
            new ProjectClosed(Guid.NewGuid(), "finished"),
            new ProjectClosed(Guid.NewGuid()),
            new ProjectCameBack("new"),
            new MeetingBooked(),
            new ReplyReceived("Yes"),
            Received(Guid.NewGuid(), null),
        ];
        bool[] StartedBy(StartOn start) => [.. events.Select(one => start.IsStartedBy(one, NoFacts.Instance))];
        StartedBy(new StageStart(["booked", "finished"])).ShouldBe([true, true, false, false, false, false, false]);
        StartedBy(new BookedStart()).ShouldBe([false, false, false, false, true, false, false]);
        StartedBy(new RepliedStart()).ShouldBe([false, false, false, false, false, true, false]);
        StartedBy(new ByHandStart()).ShouldAllBe(starts => !starts);
    }

    [Fact]
    public void Every_event_that_something_starts_ends_or_waits_on_moves_runs()
    {
        var form = Guid.NewGuid();
        DomainEvent[] events =
        [
            Received(form, Fit.ComeIn),
            new ReplyReceived("Yes"),
            new MeetingBooked(),
            new ProjectStageSet("booked", null),
            new ProjectClosed(null, "finished"),
            new ProjectReopened(null, "new"),
            new ProjectCameBack("new"),
            new InquiryClosed(form),
            new InquirySetAside(AsideReason.Spam, form),
            new NoteWritten(form),
            new MessageSent("Hello", null, null),
        ];
        StartOn[] starts =
        [
            new InquiryStart(null, []),
            new BookedStart(),
            new RepliedStart(),
            new StageStart(["booked", "finished", "new"]),
        ];
        Occasion[] occasions = [new RepliedOccasion(), new BookedOccasion(), new StageOccasion([])];
        foreach (var one in events)
            one.MovesRuns()
                .ShouldBe(
                    starts.Any(start => start.IsStartedBy(one, NoFacts.Instance))
                        || occasions.Any(occasion => occasion.IsMetBy(one))
                        || Content().EndedBy(one) is not null,
                    one.Kind()
                );
    }

    [Fact]
    public void Only_what_may_run_side_by_side_starts_together()
    {
        FollowThroughContent Named(string name, Guid? form, bool beside) =>
            Content() with
            {
                Name = name,
                Starts = new InquiryStart(form, []),
                SideBySide = beside,
            };
        var form = Guid.NewGuid();
        Started([Named("a", null, true), Named("b", form, true), Named("c", null, false)], Received(form, null))
            .Select(one => one.Name)
            .ShouldBe(["a", "b"]);
        Started([Named("a", null, true), Named("b", form, false), Named("c", null, true)], Received(form, null))
            .Select(one => one.Name)
            .ShouldBe(["b"], "the one that asks for most goes alone");
    }

    [Fact]
    public void A_follow_through_chooses_whether_a_reply_ends_it_but_not_whether_a_person_does()
    {
        var last = new Step(
            "last",
            "Last",
            new SendMessage(new MessageTemplate("Goodbye", [])),
            new Schedule(Anchor.RunStart, 0, TimeUnit.Days),
            false
        );
        var content = Content() with { Stops = [StopOn.Booked, new StopOn(new StageOccasion(["booked"]), last)] };
        content.EndedBy(new MeetingBooked()).ShouldBe((RunEnd.Booked, StopOn.Booked));
        content.EndedBy(new ReplyReceived("Yes")).ShouldBeNull();
        content.EndedBy(new ProjectStageSet("booked", null))!.Value.Stop!.Last.ShouldBe(last);
        content.EndedBy(new ProjectStageSet("talking", null)).ShouldBeNull();
        content.EndedBy(new InquiryClosed(Guid.NewGuid())).ShouldBe((RunEnd.Closed, null));
        content.EndedBy(new ProjectClosed(Guid.NewGuid(), "lost")).ShouldBe((RunEnd.Closed, null));
        content.EndedBy(new InquirySetAside(AsideReason.Spam, Guid.NewGuid())).ShouldBe((RunEnd.SetAside, null));
        content.Step("last").ShouldBe(last);
    }

    private static IReadOnlyList<FollowThroughContent> Started(IReadOnlyList<FollowThroughContent> live, DomainEvent happened) =>
        FollowThroughs.StartedBy(live, happened, NoFacts.Instance, one => one);

    private static InquiryReceived Received(Guid form, Fit? fit) => new(form, 1, fit, KnownBefore: false, Joined: false);

    private static FollowThroughContent Content() => new("After an inquiry", new InquiryStart(null, []), [], []);

    /// <summary>One journey a person: only what may run beside others on both sides goes on.</summary>
    [Theory]
    [InlineData(false, false, false, true)]
    [InlineData(false, false, true, true)]
    [InlineData(false, true, false, true)]
    [InlineData(false, true, true, true)]
    [InlineData(true, false, false, true)]
    [InlineData(true, false, true, true)]
    [InlineData(true, true, false, false)]
    [InlineData(true, true, true, true)]
    public void Where_one_starts_what_runs_ends_unless_both_may_run_side_by_side(bool running, bool next, bool isSame, bool ends)
    {
        FollowThroughs.Ends(Beside(running), Beside(next), isSame).ShouldBe(ends);

        static FollowThroughContent Beside(bool sideBySide) => new("One", new ByHandStart(), [], []) { SideBySide = sideBySide };
    }
}
