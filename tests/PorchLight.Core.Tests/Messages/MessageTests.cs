using PorchLight.Core.Common;
using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.Messages;

public sealed class MessageTests
{
    private static readonly MessageTemplate Template = new(
        "Your wall, {firstName|friend}",
        [
            new TextPart("opening", "Dear {firstName|friend},\n\nwe answer {promise}."),
            new GapPart("place", "one line about their place"),
            new TextPart("closing", "Warmly"),
        ]
    );

    [Fact]
    public void Known_values_are_set_in_and_fallbacks_stand_while_they_are_unknown()
    {
        var values = new Dictionary<string, string> { ["firstName"] = "Tilda", ["promise"] = "by Tuesday" };
        Template.Draft(values).Subject.ShouldBe("Your wall, Tilda");
        Template.Draft(new Dictionary<string, string>()).Subject.ShouldBe("Your wall, friend");
        ((TextPart)Template.Draft(values).Parts[0]).Text.ShouldBe("Dear Tilda,\n\nwe answer by Tuesday.");
    }

    [Fact]
    public void Braces_that_come_from_a_person_stay_words()
    {
        var values = new Dictionary<string, string> { ["firstName"] = "{promise}", ["promise"] = "never" };
        KnownValues.Fill("{firstName}", values).ShouldBe("{promise}");
        KnownValues.Fill("{ not a name } {}", values).ShouldBe("{ not a name } {}");
    }

    [Fact]
    public void A_message_with_an_open_gap_has_no_finished_text()
    {
        var draft = Draft();
        draft.FinishedText.ShouldBeNull();
        draft.OpenGaps.Single().Prompt.ShouldBe("one line about their place");
        Filled(draft, "   ").FinishedText.ShouldBeNull("blanks fill no gap");
        Filled(draft, " I saw it. ").FinishedText.ShouldBe("Dear Tilda,\n\nwe answer.\n\nI saw it.\n\nWarmly");
    }

    [Theory]
    [InlineData("Dear {firstName},", "Dear,")]
    [InlineData("Thank you, {firstName}.", "Thank you.")]
    [InlineData("Thank you, {firstName}", "Thank you")]
    [InlineData("Hello {firstName}, welcome", "Hello, welcome")]
    [InlineData("by {owner}, {firstName}!", "by!")]
    [InlineData("Thank you, {firstName|all of you}.", "Thank you, all of you.")]
    public void A_blank_name_takes_the_space_or_comma_that_led_to_it_along_and_leaves_the_one_behind(string words, string filled) =>
        KnownValues.Fill(words, new Dictionary<string, string> { ["firstName"] = "" }).ShouldBe(filled);

    [Theory]
    [InlineData("{firstName}, thank you for writing.", "Thank you for writing.")]
    [InlineData("Hello.\n\n{firstName}, we read it. {firstName}, we will call.", "Hello.\n\nWe read it. We will call.")]
    [InlineData("We call it “{firstName}” here.", "We call it here.")]
    [InlineData("We call it \"{firstName}\".", "We call it.")]
    [InlineData("Your wall (**{firstName}**) is dry", "Your wall is dry")]
    [InlineData("**{firstName}**\nhello", "\nhello")]
    [InlineData("{firstName}", "")]
    [InlineData("{firstName} {owner}, hello", "Hello")]
    [InlineData("{firstName}'s wall", "'s wall")]
    [InlineData("Version 2.{firstName}", "Version 2.")]
    public void What_belongs_to_a_blank_goes_with_it_and_a_sentence_begins_with_a_capital(string words, string filled) =>
        KnownValues.Fill(words, new Dictionary<string, string>()).ShouldBe(filled);

    [Fact]
    public void Words_can_be_rewritten_but_a_gap_cannot_be_edited_away()
    {
        var draft = Draft();
        var edited = new MessageDraft(
            "New\r\nBcc: all@example.com",
            [new TextPart("opening", "Hi"), new GapPart("place", "changed", "seen it"), new TextPart("closing", "")]
        );
        var revised = draft.Revise(edited)!;
        revised.FinishedText.ShouldBe("Hi\n\nseen it");
        revised.Subject.ShouldBe("New Bcc: all@example.com", "a subject is one line");
        ((GapPart)revised.Parts[1]).Prompt.ShouldBe("one line about their place");
        draft.Revise(draft with { Parts = [new TextPart("opening", "Hi")] }).ShouldBeNull();
        draft
            .Revise(draft with { Parts = [new TextPart("opening", "Hi"), new TextPart("place", "no gap"), new TextPart("closing", "x")] })
            .ShouldBeNull();
    }

    [Fact]
    public void Words_can_be_joined_and_parted_around_the_gaps_and_no_part_comes_twice()
    {
        var draft = Draft();
        var gap = new GapPart("place", "", "seen it");
        draft.Revise(draft with { Parts = [gap, new TextPart("closing", "Bye")] })!.FinishedText.ShouldBe("seen it\n\nBye");
        draft
            .Revise(draft with { Parts = [new TextPart("opening", "Hi"), new TextPart("more", "there"), gap] })!
            .FinishedText.ShouldBe("Hi\n\nthere\n\nseen it");
        draft.Revise(draft with { Parts = [gap, gap] }).ShouldBeNull();
        draft.Revise(draft with { Parts = [new TextPart("opening", "Hi"), gap, new TextPart("opening", "Bye")] }).ShouldBeNull();
    }

    private static MessageDraft Draft() => Template.Draft(new Dictionary<string, string> { ["firstName"] = "Tilda" });

    private static MessageDraft Filled(MessageDraft draft, string words) =>
        draft with
        {
            Parts = [.. draft.Parts.Select(part => part is GapPart gap ? gap with { Filled = words } : part)],
        };
}
