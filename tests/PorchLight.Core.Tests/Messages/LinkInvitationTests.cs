using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.Messages;

public sealed class LinkInvitationTests
{
    [Fact]
    public void The_message_that_is_offered_can_be_sent_and_holds_the_link()
    {
        var (subject, text) = LinkInvitation.Write(
            BuiltInMessages.Find(BuiltInMessage.PersonalLink).Standard,
            new Dictionary<string, string>
            {
                ["form"] = "A wall [to paint]",
                ["owner"] = "Maren",
                ["business"] = "Ochre Wren",
            }
        );
        LinkInvitation.Check(subject, text).ShouldBeEmpty();
        FormattedText.Read(text).ToPlain().ShouldContain("It is our form “A wall [to paint]”");
        LinkInvitation.Fill(text, "https://example.com/f/abc").ShouldContain("\nhttps://example.com/f/abc\n");
    }

    [Fact]
    public void Without_a_place_for_the_link_or_without_a_subject_it_says_what_to_write()
    {
        LinkInvitation.Check(" ", "Hello").Select(finding => finding.Place).ShouldBe(["subject", "text"]);
        LinkInvitation.Check("A few questions", new string('x', 20_001)).ShouldHaveSingleItem().Sentence.ShouldContain("too long");
    }
}
