using CsCheck;
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

    private static readonly FieldColumn[] Columns = [new("who", "Name", FieldKind.PersonName), new("shirt", "Shirt", FieldKind.Text)];

    private static readonly FieldCatalogue Own = new([
        .. BuiltInFields.All.Select(field => field.Key == "client.phone" ? field with { ClientKeepsIt = true } : field),
        new Field("project.photos", "Photos", FieldKind.Files),
        new Field("project.painters", "Painters", FieldKind.Rows) { Columns = Columns },
        new Field("client.colour", "Colour", FieldKind.OneOf) { Options = ["Ochre"] },
        new Field("client.extras", "Extras", FieldKind.SeveralOf) { Options = ["Gilding"] },
    ]);

    [Fact]
    public void By_a_link_of_their_own_they_replace_what_they_keep_up_to_date_and_nothing_else()
    {
        var onFile = new Dictionary<string, Answer>
        {
            ["client.name"] = new PersonNameAnswer("T.", "Brackenridge"),
            ["client.phone"] = new PhoneAnswer("+353 1 555 0100", "+35315550100"),
        };
        var plan = Landing.Plan(Known(Contact, Tilda), onFile, Own, LandingTrust.OwnLink);
        plan.Writes.Select(write => (write.Field, write.Before is null))
            .ShouldBe([("client.email", true), ("client.phone", false), ("project.budget", true)]);
        plan.Differences.Single().Field.ShouldBe("client.name");
        plan.Notes.Count.ShouldBe(1);
    }

    [Fact]
    public void Files_are_added_to_files_and_options_land_as_their_words()
    {
        var (one, two) = (new FileRef(Guid.NewGuid(), "one.jpg"), new FileRef(Guid.NewGuid(), "two.jpg"));
        var form = OnePage(
            new Question("photos", "Photos?", new FilesKind()) { LandsIn = new SetField("project.photos") },
            Extras with
            {
                LandsIn = new SetField("client.extras"),
            },
            new Question("colour", "Colour?", new ChoiceKind([new Option("red", "Signal red")])) { LandsIn = new SetField("client.colour") }
        );
        var known = Known(
            form,
            ("photos", AnswerState.Of(new FilesAnswer([two]))),
            ("extras", AnswerState.Of(ChoiceAnswer.Of("lighting", "gilding"))),
            ("colour", AnswerState.Of(ChoiceAnswer.Of("red")))
        );
        var plan = Landing.Plan(
            known,
            new Dictionary<string, Answer> { ["project.photos"] = new FilesAnswer([one]) },
            Own,
            LandingTrust.NewClient
        );
        plan.Writes.Select(write => write.Value)
            .ShouldBe([new FilesAnswer([one, two]), new TextsAnswer(["Gilding", "Lighting"]), new TextAnswer("Signal red")]);
        plan.Differences.ShouldBeEmpty();
        var claimed = Landing.Plan(known, new Dictionary<string, Answer>(), Own, LandingTrust.Claims);
        (claimed.Writes.Count, claimed.Differences.Count).ShouldBe((0, 3));
    }

    [Fact]
    public void New_rows_are_added_and_changed_ones_are_left_to_be_settled()
    {
        var form = OnePage(
            new Question("painters", "Who paints?", new PeopleKind("name", null, [new Question("shirt", "Shirt", new ShortTextKind())]))
            {
                LandsIn = new SetField("project.painters"),
            }
        );
        form.Questions.Single().RefusesToLand(new SetField("project.painters"), Own).ShouldBeNull();
        var ours = new Dictionary<string, Answer> { ["project.painters"] = new RowsAnswer([Painter("Robin", "S")]) };
        Plan(("Robin", "S"), ("Ada", "M")).Writes.Single().Value.ShouldBe(new RowsAnswer([Painter("Robin", "S"), Painter("Ada", "M")]));
        Plan(("Robin", "S")).ShouldSatisfyAllConditions(plan => plan.Writes.ShouldBeEmpty(), plan => plan.Differences.ShouldBeEmpty());
        Plan(("Ada", "M"))
            .Writes.Single()
            .Value.ShouldBe(
                new RowsAnswer([Painter("Robin", "S"), Painter("Ada", "M")]),
                "who is not named again is not thereby taken away"
            );
        Plan(("Robin", "L")).Differences.Single().Field.ShouldBe("project.painters");

        LandingPlan Plan(params (string Name, string Shirt)[] painters) =>
            Landing.Plan(
                Known(
                    form,
                    (
                        "painters",
                        AnswerState.Of(
                            new RowsAnswer([
                                .. painters.Select(one => new AnswerRow(
                                    new Dictionary<string, Answer?>
                                    {
                                        ["name"] = new PersonNameAnswer(one.Name, "Pell"),
                                        ["shirt"] = new TextAnswer(one.Shirt),
                                    }
                                )),
                            ])
                        )
                    )
                ),
                ours,
                Own,
                LandingTrust.OwnLink
            );

        static AnswerRow Painter(string name, string shirt) =>
            new(new Dictionary<string, Answer?> { ["who"] = new PersonNameAnswer(name, "Pell"), ["shirt"] = new TextAnswer(shirt) });
    }

    [Fact]
    public void What_is_put_away_is_still_written_and_what_is_gone_is_not()
    {
        var form = OnePage(new Question("words", "Words?", new ShortTextKind()) { LandsIn = new SetField("client.motto") });
        var known = Known(form, ("words", AnswerState.Of(new TextAnswer("Bread first"))));
        var away = new FieldCatalogue([new Field("client.motto", "Motto", FieldKind.Text) { Archived = true }]);
        Landing.Plan(known, new Dictionary<string, Answer>(), away, LandingTrust.NewClient).Writes.Count.ShouldBe(1);
        var gone = Landing.Plan(known, new Dictionary<string, Answer>(), FieldCatalogue.BuiltIn, LandingTrust.NewClient);
        (gone.Writes.Count, gone.Differences.Count).ShouldBe((0, 0));
        form.Questions.Single().RefusesToLand(new SetField("client.motto"), FieldCatalogue.BuiltIn)!.ShouldContain("gone");
    }

    [Fact]
    public void Landing_twice_changes_nothing_the_second_time() =>
        Gen.Select(Gen.Int[0, 3].Array[5], Gen.Bool, RandomForms.Pick(LandingTrust.NewClient, LandingTrust.OwnLink))
            .Sample(
                (said, asksTwice, trust) =>
                {
                    var form = OnePage([
                        Name,
                        Email,
                        Phone,
                        Money,
                        .. asksTwice ? [Phone with { Key = "again" }] : Array.Empty<Question>(),
                    ]);
                    var known = Known(
                        form,
                        [
                            .. form.Questions.Select(
                                (question, index) =>
                                    (question.Key, said[index] == 3 ? AnswerState.Blank : AnswerState.Of(Any(question, said[index])))
                            ),
                        ]
                    );
                    var first = Landing.Plan(known, new Dictionary<string, Answer>(), Own, trust);
                    var then = first.Writes.GroupBy(write => write.Field).ToDictionary(field => field.Key, field => field.Last().Value);
                    // A link of their own may put the second of two answers where the first stood; one that is settled stays.
                    var second = Landing.Plan(known, then, Own, LandingTrust.NewClient);
                    second.Writes.ShouldBeEmpty();
                    second.Differences.Count.ShouldBeLessThanOrEqualTo(asksTwice ? 1 : 0);
                }
            );

    private static Answer Any(Question question, int pick) =>
        question.Kind switch
        {
            PersonNameKind => new PersonNameAnswer($"T{pick}", "Brackenridge"),
            PhoneKind => new PhoneAnswer($"01 555 010{pick + question.Key.Length}"),
            ChoiceKind choice => ChoiceAnswer.Of(choice.Options[pick].Key),
            _ => new TextAnswer($"a{pick}@bakes.example"),
        };

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
