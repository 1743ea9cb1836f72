using System.Runtime.CompilerServices;
using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class DomainEventTests
{
    [Fact]
    public void Every_event_reads_as_a_sentence()
    {
        Say(new InquiryReceived(Guid.NewGuid(), 1, Fit.ComeIn, false, false)).ShouldBe("Tilda sent “A wall”: Come in.");
        Say(new InquiryReceived(Guid.NewGuid(), 1, Fit.NotNow, true, true))
            .ShouldBe("Tilda sent “A wall”: Not now. It joins the open project.");
        Say(new AnswersLanded(5, 1, 0)).ShouldBe("5 answers written into the records; one answer added to the notes.");
        Say(new AnswersLanded(0, 0, 2)).ShouldBe("2 answers differ from what is on file, for you to settle.");
        Say(new AnswersLanded(0, 0, 0)).ShouldBe("Nothing new was written into the records.");
        Say(new NodAsked("first", 1)).ShouldBe("“First follow-up” waits for your nod, with one gap to fill.");
        Say(new MessageSent("Thank you", "thanks", null)).ShouldBe("“Thank you” was sent automatically.");
        Say(new SkipTakenBack("first", Maren)).ShouldBe("Maren took it back: “First follow-up” waits again.");
        Say(new MessageNotSent("Thank you")).ShouldBe("“Thank you” was not sent: Tilda left no e-mail address.");
        Say(new MessageSent("Hello", null, Maren)).ShouldBe("Maren sent “Hello”.");
        Say(new DeliveryFailed("Hello", "The mailbox is full.")).ShouldBe("“Hello” could not be delivered to Tilda: The mailbox is full.");
        Say(new PerhapsDelivered("Hello")).ShouldBe("“Hello” to Tilda was perhaps sent; please look.");
        Say(new DeliverySettled("Hello", true, Maren)).ShouldBe("Maren sends “Hello” again.");
        Say(new DeliverySettled("Hello", false, Maren)).ShouldBe("Maren looked, and leaves “Hello” as it is.");
        Say(new ProjectStageSet("wall", Maren)).ShouldBe("Maren set the stage to On the wall.");
        Say(new ProjectClosed(Maren, "gone")).ShouldBe("Maren closed a project: gone.", "a stage that was taken away keeps its key");
        Say(new ProjectClosed(Maren)).ShouldBe("Maren closed a project.");
        Say(new ProjectGiven(Maren, Maren)).ShouldBe("Maren looks after a project now.");
        Say(new ProjectGiven(Guid.NewGuid(), Maren)).ShouldBe("Maren gave a project to Someone.");
        Say(new TaskDone("Order the gold leaf", Maren)).ShouldBe("Maren did “Order the gold leaf”.");
        Say(new RunStopped(RunEnd.Replied, 3)).ShouldBe("“After an inquiry” stopped because Tilda answered; 3 steps cancelled.");
        Say(new ProjectStageSet("wall", null)).ShouldBe("A follow-through set the stage to On the wall.");
        Say(new StepDone("first", null)).ShouldBe("“First follow-up” was done automatically.");
        Say(new StepDone("first", Maren)).ShouldBe("Maren had “First follow-up” done.");
        Say(new WaitedInVain("first")).ShouldBe("The time of “First follow-up” was over.");
        Say(new RunMoved(3, Maren)).ShouldBe("Maren moved Tilda to version 3 of “After an inquiry”.");
        Say(new MessageMoved("first")).ShouldBe("“First follow-up” waits until another day: Tilda was sent one automatic message today.");
        Say(new RunStopped(RunEnd.Booked, 0)).ShouldBe("“After an inquiry” stopped because Tilda booked; nothing was pending.");
    }

    [Fact]
    public void The_bell_rings_for_what_somebody_should_know_and_not_for_an_automatic_message()
    {
        new CallAsked().Rings().ShouldBeTrue();
        new DeliveryFailed("Hello", "Full.").Rings().ShouldBeTrue();
        new PerhapsDelivered("Hello").Rings().ShouldBeTrue();
        new RunFailed("first").Rings().ShouldBeTrue();
        new MessageSent("Thank you", "thanks", null).Rings().ShouldBeFalse();
    }

    [Fact]
    public void What_outlives_the_erasing_of_a_person_says_nothing_in_words()
    {
        var kinds = typeof(DomainEvent).Assembly.GetTypes().Where(type => type.IsSubclassOf(typeof(DomainEvent))).ToList();
        var kept = kinds.Where(type => ((DomainEvent)RuntimeHelpers.GetUninitializedObject(type)).OutlivesErasing()).ToList();
        kept.ShouldContain(typeof(InquiryReceived), "it is counted later");
        kept.Count.ShouldBeLessThan(kinds.Count);
        kept.SelectMany(type => type.GetProperties())
            .Where(member =>
                member.PropertyType == typeof(string) && member.Name is not (nameof(ProjectStageSet.Stage) or nameof(ProjectClosed.Reason))
            )
            .ShouldBeEmpty("the key of a stage, and a reason of the list, are words of the business");
    }

    [Fact]
    public void Every_kind_of_event_has_a_name_of_its_own_and_a_sentence()
    {
        DomainEvents.All.Count.ShouldBe(typeof(DomainEvent).Assembly.GetTypes().Count(type => type.IsSubclassOf(typeof(DomainEvent))));
        new CallAsked().Kind().ShouldBe("callAsked");
        foreach (var type in DomainEvents.All.Values)
            Say((DomainEvent)RuntimeHelpers.GetUninitializedObject(type)).ShouldNotBeNullOrWhiteSpace(type.Name);
    }

    [Fact]
    public void Who_did_it_is_said_by_the_kind_and_where_that_leaves_it_open_by_the_user_it_names()
    {
        new MessageSent("Hello", null, Maren).IsByAPerson().ShouldBeTrue();
        new MessageSent("Hello", "first", null).IsByAPerson().ShouldBeFalse();
        new InquiryReceived(Guid.NewGuid(), 1, null, false, false).IsByAPerson().ShouldBeTrue("the client is a person, too");
        new RunFinished().IsByAPerson().ShouldBeFalse();
        new MessageSent("Hello", null, Maren).IsPersonalWord().ShouldBeTrue();
        new MessageSent("Hello", "first", null).IsPersonalWord().ShouldBeFalse();
        new ReplyReceived("Hello").Rings().ShouldBeTrue();
        new ReplyReceived("Hello", null, Maren).Rings().ShouldBeFalse("whoever wrote it down knows of it");
        foreach (var (name, type) in DomainEvents.All)
        {
            var perhaps = type.IsAssignableTo(typeof(IPerhapsByAUser));
            var open = ((DomainEvent)RuntimeHelpers.GetUninitializedObject(type)).IsByAPerson();
            DomainEvents.PerhapsByItself.Contains(name).ShouldBe(!open, name);
            (type.GetProperty("By")?.PropertyType == typeof(Guid?)).ShouldBe(perhaps, name);
        }
    }

    private static readonly Guid Maren = Guid.NewGuid();

    private static string Say(DomainEvent happening) =>
        happening.Say(
            new EventNames(
                "Tilda",
                "A wall",
                "After an inquiry",
                step => step == "first" ? "First follow-up" : step,
                stage => stage == "wall" ? "On the wall" : stage,
                user => user == Maren ? "Maren" : "Someone"
            )
        );
}
