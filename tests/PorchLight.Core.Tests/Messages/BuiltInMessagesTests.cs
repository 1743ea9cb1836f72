using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.Messages;

public sealed class BuiltInMessagesTests
{
    [Fact]
    public void Each_is_there_once_says_what_happens_without_it_or_why_it_stays_and_is_good_as_it_comes()
    {
        BuiltInMessages.All.Select(one => one.Kind).Order().ShouldBe(Enum.GetValues<BuiltInMessage>());
        foreach (var one in BuiltInMessages.All)
        {
            (one.WithoutIt is null).ShouldNotBe(one.StaysOn is null, one.Name);
            one.Check(one.Standard).ShouldBeNull(one.Name);
            var draft = one.Standard.Draft(one.Values.ToDictionary(value => value.Name, value => value.Example));
            (draft.Subject + draft.FinishedText).ShouldNotContain("{", Case.Sensitive, one.Name);
        }
    }

    [Theory]
    [InlineData("Here: {link}", null)]
    [InlineData("Here: {link|later}", null)]
    [InlineData("Here: the link", "Set “The link” into the text; the message does not work without it.")]
    [InlineData("Here: {Link}", "Set “The link” into the text; the message does not work without it.")]
    [InlineData(" ", "The message says nothing yet.")]
    public void What_it_is_for_has_to_stand_in_it(string text, string? wrong) =>
        BuiltInMessages.Find(BuiltInMessage.OpenAgain).Check(new MessageTemplate("Open", [new TextPart("t", text)])).ShouldBe(wrong);

    [Fact]
    public void It_has_no_gap_and_goes_alone()
    {
        var code = BuiltInMessages.Find(BuiltInMessage.AccessCode);
        code.Check(new MessageTemplate("Code", [new TextPart("t", "{code}"), new GapPart("g", "a word")]))!
            .ShouldContain("Take the gap out");
        code.Check(new MessageTemplate("Code", [new TextPart("t", "{code}")]) { Enclosed = new Enclosed(["a@b.example"], [], null) })!
            .ShouldContain("goes alone");
    }

    /// <summary>Against a table of all nine cases: what a form says goes before what the business says.</summary>
    [Theory]
    [InlineData(Wording.Standard, Wording.Standard, "came")]
    [InlineData(Wording.Standard, Wording.Own, "form")]
    [InlineData(Wording.Standard, Wording.Off, null)]
    [InlineData(Wording.Own, Wording.Standard, "business")]
    [InlineData(Wording.Own, Wording.Own, "form")]
    [InlineData(Wording.Own, Wording.Off, null)]
    [InlineData(Wording.Off, Wording.Standard, null)]
    [InlineData(Wording.Off, Wording.Own, "form")]
    [InlineData(Wording.Off, Wording.Off, null)]
    public void A_form_says_for_itself_what_the_business_says_for_all(Wording business, Wording form, string? said)
    {
        var one = BuiltInMessages.Find(BuiltInMessage.FinishLater) with { Standard = Saying("came") };
        one.InForce((business, Saying("business")), (form, Saying("form")))?.Subject.ShouldBe(said);
        (one.InForce((business, Saying("business")), (form, Saying("form"))) is null).ShouldBe(said is null);

        static MessageTemplate Saying(string subject) => new(subject, []);
    }
}
