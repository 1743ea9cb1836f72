using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Records;

public sealed class LandingTests
{
    private static readonly Question Name = new("name", "Name?", new PersonNameKind()) { LandsIn = new SetField("client.name") };
    private static readonly Question Email = new("email", "E-mail?", new EmailKind()) { LandsIn = new SetField("client.email") };
    private static readonly Question Phone = new("phone", "Phone?", new PhoneKind()) { LandsIn = new SetField("client.phone") };
    private static readonly Question Money = Budget with { LandsIn = new SetField("project.budget") };
    private static readonly Question Story = Words with { LandsIn = new AppendToNotes(RecordScope.Client) };
    private static readonly FormContent Contact = OnePage(Name, Email, Phone, Money, Story);

    private static readonly (string, AnswerState)[] Tilda =
    [
        ("name", AnswerState.Of(new PersonNameAnswer("Tilda", "Brackenridge"))),
        ("email", AnswerState.Of(new TextAnswer("tilda@bakes.example"))),
        ("phone", AnswerState.Of(new PhoneAnswer("01 555 0142", "+35315550142"))),
        ("budget", AnswerState.Of(ChoiceAnswer.Of("middle"))),
        ("words", AnswerState.Of(new TextAnswer("Gulls"))),
    ];

    [Fact]
    public void Empty_fields_are_filled_and_notes_added()
    {
        var plan = Plan([], knownBefore: false, Tilda);
        plan.Writes.Select(write => write.Field).ShouldBe(["client.name", "client.email", "client.phone", "project.budget"]);
        plan.Writes[3].Value.ShouldBeOfType<BandAnswer>().Label.ShouldBe("4,000 to 9,000", "an option lands as what it stood for");
        plan.Notes.ShouldBe([new NoteWrite(RecordScope.Client, "words", "In your words?", "Gulls")]);
        plan.Differences.ShouldBeEmpty();
    }

    [Fact]
    public void Of_a_client_known_before_nothing_is_filled_or_added_and_only_what_is_unlike_is_kept_to_settle()
    {
        var onFile = new Dictionary<string, Answer>
        {
            ["client.name"] = new PersonNameAnswer("tilda", " Brackenridge"),
            ["client.phone"] = new PhoneAnswer("+353 1 555 0100", "+35315550100"),
        };
        var plan = Plan(onFile, knownBefore: true, Tilda);
        plan.Writes.ShouldBeEmpty();
        plan.Notes.ShouldBeEmpty();
        plan.Differences.Select(difference => (difference.Field, difference.Ours is null))
            .ShouldBe([("client.email", true), ("client.phone", false), ("project.budget", true), ("client.notes", true)]);
    }

    [Fact]
    public void What_is_unknown_blank_or_off_the_route_lands_nowhere()
    {
        Plan([], false, ("budget", AnswerState.Of(ChoiceAnswer.Of("unsure")))).Writes.ShouldBeEmpty();
        Plan([], false, ("email", AnswerState.Blank), ("phone", AnswerState.OffRoute)).Writes.ShouldBeEmpty();
    }

    [Fact]
    public void Two_questions_for_one_field_never_overwrite_each_other()
    {
        var form = OnePage(Email, Email with { Key = "again" });
        var plan = Landing.Plan(
            Known(form, ("email", AnswerState.Of(new TextAnswer("a@b.example"))), ("again", AnswerState.Of(new TextAnswer("c@d.example")))),
            new Dictionary<string, Answer>(),
            FieldCatalogue.BuiltIn,
            LandingTrust.NewClient
        );
        plan.Writes.Single().Question.ShouldBe("email");
        plan.Differences.Single().Question.ShouldBe("again");
    }

    [Fact]
    public void Values_are_the_same_once_normalised()
    {
        FieldValues.IsSame(new TextAnswer("Dún  Laoghaire "), new TextAnswer("dún laoghaire")).ShouldBeTrue();
        FieldValues.IsSame(new TextAnswer("Bray"), new TextAnswer("Howth")).ShouldBeFalse();
        FieldValues
            .IsSame(new PhoneAnswer("01 555 0142", "+35315550142"), new PhoneAnswer("+353 1 555 0142", "+35315550142"))
            .ShouldBeTrue();
        FieldValues
            .IsSame(new BandAnswer("4,000 to 9,000", new Band(new Bound(4), null)), new BandAnswer("from 4", new Band(new Bound(4), null)))
            .ShouldBeTrue();
        FieldValues.IsSame(new YesNoAnswer(true), new TextAnswer("yes")).ShouldBeFalse();
        // Unicode Standard Annex 15: U+00FA and u with U+0301 are canonically equivalent.
        FieldValues.IsSame(new TextAnswer("D\u00fan"), new TextAnswer("Du\u0301n")).ShouldBeTrue();
        FieldValues
            .IsSame(
                new BandAnswer("a", new Band(new Bound(4), null, "EUR")),
                new BandAnswer("b", new Band(new Bound(4), null, "EUR", Instalments: 1))
            )
            .ShouldBeTrue("one instalment is none");
        FieldValues.IsSame(new TextAnswer("a lone half \ud800"), new TextAnswer("something else")).ShouldBeFalse();
    }

    [Fact]
    public void Several_choices_are_the_same_in_whatever_order_they_were_ticked()
    {
        var form = OnePage(Extras with { LandsIn = new SetField("project.what") });
        var plan = Landing.Plan(
            Known(form, ("extras", AnswerState.Of(ChoiceAnswer.Of("lighting", "gilding")))),
            new Dictionary<string, Answer> { ["project.what"] = new TextAnswer("Gilding, Lighting") },
            FieldCatalogue.BuiltIn,
            LandingTrust.NewClient
        );
        (plan.Writes.Count, plan.Differences.Count).ShouldBe((0, 0));
    }

    [Fact]
    public void A_repeated_choice_lands_as_what_it_stands_for()
    {
        var form = OnePage(
            Budget,
            new Question("again", "Again", new WorkedOutKind(new CopiedAnswer("budget"))) { LandsIn = new SetField("project.what") }
        );
        Landing
            .Plan(
                Known(form, ("budget", AnswerState.Of(ChoiceAnswer.Of("middle"))), ("again", AnswerState.Of(ChoiceAnswer.Of("middle")))),
                new Dictionary<string, Answer>(),
                FieldCatalogue.BuiltIn,
                LandingTrust.NewClient
            )
            .Writes.Single()
            .Value.ShouldBe(new TextAnswer("4,000 to 9,000"));
    }

    [Fact]
    public void Contact_details_are_what_lands_in_the_contact_fields()
    {
        var contact = PorchLight.Core.Records.Contact.Of(Contact, Known(Contact, Tilda).Answers);
        (contact.ListName, contact.Email, contact.IsReachable).ShouldBe(("Tilda Brackenridge", "tilda@bakes.example", true));
        var nobody = PorchLight.Core.Records.Contact.Of(Contact, Known(Contact, Tilda[0]).Answers);
        nobody.IsReachable.ShouldBeFalse("a name alone reaches nobody");
    }

    [Fact]
    public void Addresses_are_recognised_without_regard_to_case_and_space_and_nothing_else()
    {
        EmailAddress.Key(" Tilda@Bakes.Example ").ShouldBe(EmailAddress.Key("tilda@bakes.example"));
        EmailAddress.Key("tilda+walls@bakes.example").ShouldNotBe(EmailAddress.Key("tilda@bakes.example"));
    }

    private static LandingPlan Plan(Dictionary<string, Answer> onFile, bool knownBefore, params (string, AnswerState)[] answers) =>
        Landing.Plan(Known(Contact, answers), onFile, FieldCatalogue.BuiltIn, knownBefore ? LandingTrust.Claims : LandingTrust.NewClient);
}
