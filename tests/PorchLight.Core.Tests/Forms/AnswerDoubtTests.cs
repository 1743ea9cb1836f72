using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class AnswerDoubtTests
{
    private static readonly Question Mail = new("mail", "Mail?", new EmailKind());
    private static readonly Question Where = new("where", "Where?", new AddressKind());
    private static readonly Question Phone = new("phone", "Phone?", new PhoneKind());
    private static readonly Question Finished = Wanted with { LandsIn = new SetField("project.wanted") };
    private static readonly Question Painters = new("painters", "Who?", new PeopleKind("who", "born", []));

    [Theory]
    [InlineData("pla@example", true)]
    [InlineData("pla@example.com", false)]
    [InlineData("not an address", false)]
    public void An_address_without_an_ending_is_valid_and_asked_about(string text, bool doubted) =>
        (About(Mail, new TextAnswer(text)) is not null).ShouldBe(doubted);

    [Fact]
    public void A_street_alone_and_a_country_nobody_knows_are_asked_about()
    {
        About(Where, new AddressAnswer("1 Quay", null, null, null, null, null))!.ShouldContain("whole address");
        About(Where, new AddressAnswer("1 Quay", null, "Howth", null, null, null)).ShouldBeNull();
        About(Where, new AddressAnswer("1 Quay", null, "Howth", null, null, "Atlantis"))!.ShouldContain("Atlantis");
        foreach (var country in new[] { "Ireland", "ie", "Deutschland" })
            About(Where, new AddressAnswer("1 Quay", null, "Howth", null, null, country)).ShouldBeNull(country);
    }

    [Fact]
    public void A_day_that_has_passed_is_asked_about_where_work_is_meant_and_not_where_somebody_was_born()
    {
        var passed = new DateAnswer(new LocalDate(2020, 5, 1));
        About(Finished, passed)!.ShouldContain("Is the year right?");
        About(Finished, new DateAnswer(Today)).ShouldBeNull();
        About(Wanted, passed).ShouldBeNull();
        About(Phone, new PhoneAnswer("555 0100", LocalOnly: true))!.ShouldContain("area code");
    }

    [Fact]
    public void Somebody_who_stands_in_a_list_twice_is_asked_about_and_a_namesake_is_not()
    {
        var form = OnePage(Painters);
        Doubts(Row("Ada Roe", 1990), Row("ada roe", 1990)).ShouldBe(["painters/1/who"]);
        Doubts(Row("Ada Roe", 1990), Row("Ada Roe", 1991)).ShouldBeEmpty();

        IEnumerable<string> Doubts(params AnswerRow[] rows) =>
            AnswerDoubts.About(Known(form), Routes.Trace(Known(form), Given(("painters", new RowsAnswer(rows))))).Keys;

        static AnswerRow Row(string name, int year) =>
            new(
                new Dictionary<string, Answer?>
                {
                    ["who"] = new PersonNameAnswer(name, ""),
                    ["born"] = new DateAnswer(new LocalDate(year, 3, 4)),
                }
            );
    }

    [Fact]
    public void A_doubt_holds_nobody_up()
    {
        var form = OnePage(Mail, Where, Phone, Finished);
        var given = Given(
            ("mail", new TextAnswer("pla@example")),
            ("where", new AddressAnswer("1 Quay", null, null, null, null, "Atlantis")),
            ("phone", new PhoneAnswer("555 0100", LocalOnly: true))
        );
        var route = Routes.Trace(Known(form), given);
        AnswerDoubts.About(Known(form), route).Count.ShouldBe(3);
        AnswerChecks.Check(Known(form), route).ShouldBeEmpty();
    }

    private static string? About(Question question, Answer answer)
    {
        var form = OnePage(question);
        return AnswerDoubts.About(Known(form), Routes.Trace(Known(form), Given((question.Key, answer)))).GetValueOrDefault(question.Key);
    }
}
