using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Inquiries;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class PromiseWordsTests
{
    private static readonly BusinessCalendar Clock = Dublin();
    private static readonly Instant Now = Clock.At(2026, 11, 23, 10);
    private static readonly Instant Earlier = Clock.At(2026, 11, 20, 9);
    private static readonly Instant Later = Clock.At(2026, 11, 24, 15);

    [Fact]
    public void A_promise_is_open_late_kept_missed_or_not_owed()
    {
        Say(Later, null).ShouldBe("You promised a first reply by tomorrow 15:00.");
        Say(Earlier, null).ShouldBe("Your first reply was due last Friday 09:00.");
        Say(Later, Now).ShouldBe("Kept: first personal reply today 10:00.");
        Say(Earlier, Earlier).ShouldBe("Kept: first personal reply last Friday 09:00.");
        Say(Earlier, Now).ShouldBe("Missed: the first personal reply went today 10:00.");
        Say(null, Now, turnedAway: true).ShouldBe("The page said a friendly no, so you owe no reply.");
        Say(null, Now).ShouldBe("First personal reply today 10:00.", "nothing could be promised, and they were answered all the same");
        Say(null, null).ShouldBeNull();
        Say(Clock.At(2026, 11, 24, 3, 28), null).ShouldBe("Answer by 17:00 today, promised until tomorrow morning.");
    }

    [Fact]
    public void The_gist_is_their_own_words_in_one_line_else_the_title()
    {
        var said = new Dictionary<string, Answer> { ["words"] = new TextAnswer("Gulls\nand bread"), ["width"] = new NumberAnswer(3) };
        InquirySummary.Of(Everything, said).ShouldBe("Gulls and bread");
        InquirySummary.Of(Everything, new Dictionary<string, Answer>()).ShouldBe("A form");
        InquirySummary
            .Of(Everything, new Dictionary<string, Answer> { ["words"] = new TextAnswer(new string('w', 500)) })
            .Length.ShouldBe(161);
    }

    private static string? Say(Instant? promisedBy, Instant? stopped, bool turnedAway = false) =>
        PromiseWords.Say(promisedBy, stopped, turnedAway, Now, Clock);
}
