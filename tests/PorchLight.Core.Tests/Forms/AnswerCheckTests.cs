using PhoneNumbers;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class AnswerCheckTests
{
    private static readonly Question Email = new("email", "E-mail", new EmailKind()) { Required = true };

    // WHATWG HTML Living Standard, "valid email address": the grammar allows and forbids these.
    [Theory]
    [InlineData("a@b", true)]
    [InlineData("first.last+tag@example.com", true)]
    [InlineData("!#$%&'*+/=?^_`{|}~-@example.com", true)]
    [InlineData("a..b@example.com", true)]
    [InlineData("name@xn--bcher-kva.example", true)]
    [InlineData("name@-example.com", false)]
    [InlineData("name@example-.com", false)]
    [InlineData("name@example..com", false)]
    [InlineData("name@", false)]
    [InlineData("@example.com", false)]
    [InlineData("two words@example.com", false)]
    [InlineData("name@example.com\nBcc: all@example.com", false)]
    [InlineData("\"quoted\"@example.com", false)]
    public void An_email_address_is_valid_as_published(string text, bool valid) =>
        (Check(Email, new TextAnswer(text)) is null).ShouldBe(valid);

    [Fact]
    public void A_label_of_63_letters_is_allowed_and_64_are_not_as_published()
    {
        Check(Email, new TextAnswer($"a@{new string('x', 63)}.com")).ShouldBeNull();
        Check(Email, new TextAnswer($"a@{new string('x', 64)}.com")).ShouldNotBeNull();
    }

    [Theory]
    [InlineData("IE")]
    [InlineData("GB")]
    [InlineData("US")]
    [InlineData("DE")]
    [InlineData("FR")]
    [InlineData("AU")]
    [InlineData("JP")]
    [InlineData("BR")]
    [InlineData("IN")]
    [InlineData("ZA")]
    public void The_example_number_of_a_region_gets_its_E164_form(string region)
    {
        // Outside check: the example numbers that come with the phone library.
        var phones = PhoneNumberUtil.GetInstance();
        var example = phones.GetExampleNumber(region);
        PhoneReader
            .Read(phones.Format(example, PhoneNumberFormat.NATIONAL), region)
            .E164.ShouldBe(phones.Format(example, PhoneNumberFormat.E164));
    }

    [Theory]
    [InlineData("twelve")]
    [InlineData("1")]
    [InlineData("+")]
    public void What_cannot_be_dialled_is_refused_with_what_to_do(string typed)
    {
        var phone = new Question("phone", "Phone", new PhoneKind());
        var tidy = Tidy(OnePage(phone), Given(("phone", new PhoneAnswer(typed))));
        Check(phone, tidy["phone"])!.ShouldContain("check the digits");
    }

    // ITU-T E.164 knows only whole numbers; what is dialled within one town alone has none. "555 0100" is such a number in
    // Ireland and in the United States; the way of telling them apart is the phone library's.
    [Theory]
    [InlineData("IE", "555 0100")]
    [InlineData("US", "555 0100")]
    [InlineData("GB", "7946 0018")]
    [InlineData("AU", "5550 1234")]
    public void A_number_without_its_area_code_is_kept_as_typed_and_gets_no_false_E164_form(string region, string typed)
    {
        var read = PhoneReader.Read(typed, region);
        (read.Typed, read.E164, read.LocalOnly).ShouldBe((typed, null, true));
        Check(new Question("phone", "Phone", new PhoneKind()), read).ShouldBeNull("it may be all they have");
    }

    [Fact]
    public void A_stated_count_is_held_against_a_list_left_blank()
    {
        var signs = new Question("signs", "Which?", new ListKind([Words with { Key = "says" }], "sign"));
        var form = OnePage(Width, signs) with { Rules = [new CountMatchesRowsRule("width", "signs")] };
        AnswerChecks
            .Check(Known(form), Routes.Trace(Known(form), Given(("width", new NumberAnswer(3)))))
            .Select(finding => (finding.Place, finding.Sentence))
            .ShouldBe([("signs", "You said 3, and there are none here. Please change one of them.")]);
        AnswerChecks.Check(Known(form), Routes.Trace(Known(form), Given(("width", new NumberAnswer(0))))).ShouldBeEmpty();
        AnswerChecks.Check(Known(form), Routes.Trace(Known(form), Given())).ShouldBeEmpty();
    }

    [Fact]
    public void Blanks_are_blank_however_they_are_typed_and_text_is_trimmed()
    {
        var tidy = Tidy(
            Everything,
            Given(("words", new TextAnswer("  \n ")), ("extras", new ChoiceAnswer([])), ("stranger", new TextAnswer("x")))
        );
        tidy["words"].ShouldBeNull();
        tidy["extras"].ShouldBeNull();
        tidy.ShouldNotContainKey("stranger");
        Tidy(Everything, Given(("words", new TextAnswer(" a wall "))))["words"].ShouldBe(new TextAnswer("a wall"));
        Tidy(Everything, Given(("words", new TextAnswer("a\0 wall\u0007\nof bricks"))))["words"]
            .ShouldBe(new TextAnswer("a wall\nof bricks"));
    }

    [Fact]
    public void An_answer_of_another_kind_is_refused_beside_its_question()
    {
        Check(Width, new TextAnswer("three"))!.ShouldContain("answer it again");
        Check(Budget, ChoiceAnswer.Of("invented"))!.ShouldContain("not on offer");
        Check(Budget, ChoiceAnswer.Of("small", "large"))!.ShouldContain("only one");
        Check(Extras, ChoiceAnswer.Of("gilding", "gilding"))!.ShouldContain("choose again");
    }

    [Fact]
    public void Limits_are_named_in_the_sentence()
    {
        Check(Words, new TextAnswer(new string('x', 4000))).ShouldBeNull();
        Check(Words, new TextAnswer(new string('x', 4001)))!.ShouldContain("4,000 fit here");
        Check(Width, new NumberAnswer(101))!.ShouldContain("100");
        Check(Width, new NumberAnswer(-1))!.ShouldContain("smallest");
        Check(new Question("fee", "Fee", new MoneyKind("EUR")), new MoneyAnswer(5, "USD"))!.ShouldContain("EUR");
    }

    [Fact]
    public void A_person_may_have_one_name_but_must_be_called_something()
    {
        var name = new Question("name", "Name", new PersonNameKind());
        Check(name, new PersonNameAnswer("Björk", "")).ShouldBeNull();
        Check(name, new PersonNameAnswer("", "Pell"))!.ShouldContain("first name");
    }

    [Fact]
    public void Findings_come_in_form_order_and_only_for_the_page_that_is_left()
    {
        var form = Form(
            new Page("one", "One", [Decides with { Required = true }]),
            new Page("two", "Two", [Width with { Required = true }])
        );
        var route = Routes.Trace(Known(form), Given());
        AnswerChecks.Check(Known(form), route).Select(finding => finding.Place).ShouldBe(["decides", "width"]);
        AnswerChecks.Check(Known(form), route, "two").Select(finding => finding.Place).ShouldBe(["width"]);
    }
}
