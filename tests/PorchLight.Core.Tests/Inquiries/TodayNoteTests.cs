using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class TodayNoteTests
{
    private static readonly BusinessCalendar Clock = Dublin();
    private static readonly Instant Now = Clock.At(2026, 11, 23, 10);
    private static readonly Instant AtThree = Clock.At(2026, 11, 23, 15);
    private static readonly Instant Thursday = Clock.At(2026, 11, 26, 9);
    private static readonly Instant Friday = Clock.At(2026, 11, 20, 9);

    [Fact]
    public void The_day_is_told_in_a_sentence_or_two()
    {
        Say(0).ShouldBe("Nobody is waiting for a first reply.");
        Say(1, AtThree).ShouldBe("One person is waiting for a first reply, by 15:00 today. One message waits for your nod.");
        Say(4, Thursday, AtThree, null)
            .ShouldBe("Three people are waiting for a first reply, one of them by 15:00 today. Four messages wait for your nod.");
        Say(0, Friday).ShouldBe("One person is waiting for a first reply, overdue.");
        Say(0, Friday, AtThree).ShouldBe("Two people are waiting for a first reply, one of them overdue.");
        Say(0, Friday, Friday).ShouldBe("Two people are waiting for a first reply, all of them overdue.");
        Say(0, Thursday).ShouldBe("One person is waiting for a first reply.");
        TodayNote.SayGaps(2).ShouldBe("two have a gap to fill");
        NumberWords.Say(13).ShouldBe("13");
    }

    [Fact]
    public void The_end_of_a_day_belongs_to_that_day()
    {
        TodayNote.Group(Clock.At(2026, 11, 24), Now, Clock.Zone).ShouldBe(PromiseGroup.Today);
        TodayNote.Group(Clock.At(2026, 11, 24, 0, 1), Now, Clock.Zone).ShouldBe(PromiseGroup.Later);
        TodayNote.Group(Friday, Now, Clock.Zone).ShouldBe(PromiseGroup.Late);
        TodayNote.Group(null, Now, Clock.Zone).ShouldBe(PromiseGroup.Later);
    }

    [Fact]
    public void Messages_that_are_stuck_are_told_last()
    {
        TodayNote.Say([], [], 0, 1, Now, Clock).ShouldBe("Nobody is waiting for a first reply. One message did not get through.");
        TodayNote.Say([], [], 2, 3, Now, Clock).ShouldEndWith("Two messages wait for your nod. Three messages did not get through.");
    }

    [Fact]
    public void A_person_with_two_inquiries_is_one_person_and_who_wrote_back_is_told()
    {
        var (tilda, oskar) = (Guid.NewGuid(), Guid.NewGuid());
        TodayNote
            .Say([new OwedReply(tilda, Thursday), new OwedReply(tilda, AtThree)], [oskar, oskar], 0, 0, Now, Clock)
            .ShouldBe("One person is waiting for a first reply, by 15:00 today. One person has written back.");
        TodayNote
            .Say([new OwedReply(tilda, null), new OwedReply(tilda, null)], [tilda, oskar], 0, 0, Now, Clock)
            .ShouldBe("One person is waiting for a first reply. Two people have written back.");
    }

    private static string Say(int nods, params Instant?[] deadlines) =>
        TodayNote.Say([.. deadlines.Select(deadline => new OwedReply(Guid.NewGuid(), deadline))], [], nods, 0, Now, Clock);
}
