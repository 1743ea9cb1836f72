using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class PlainAnswerTests
{
    private static readonly Question When = new("when", "When?", new DateRangeKind(OrMonth: true));
    private static readonly Question Signs = new(
        "signs",
        "Which?",
        new ListKind([new Question("says", "What?", new ShortTextKind()), new Question("wide", "Wide?", new NumberKind())], "sign")
    );
    private static readonly FormContent Plain = OnePage(
        new Question("name", "Name?", new PersonNameKind()),
        new Question("where", "Where?", new AddressKind()),
        When,
        Signs,
        new Question("keep", "?", new ConsentKind("You may keep this.")),
        Width,
        Extras,
        Wanted
    );

    [Fact]
    public void Parts_are_named_by_their_question_and_rows_by_their_number()
    {
        var (answers, unreadable) = Read(
            ("name.given", "Robin"),
            ("name.family", "Pell"),
            ("where.street", "1 Quay"),
            ("where.postalCode", "D13"),
            ("when.from", "2027-05-01"),
            ("when.to", "2027-05-03"),
            ("signs.0.says", "Bread"),
            ("signs.0.wide", "2.5"),
            ("signs.1.says", "Cake"),
            ("keep", "yes"),
            ("width", "3"),
            ("extras", "gilding"),
            ("extras", "lighting"),
            ("wanted", "2027-06-01"),
            ("somebody-elses-field", "x")
        );
        unreadable.ShouldBeEmpty();
        answers["name"].ShouldBe(new PersonNameAnswer("Robin", "Pell"));
        answers["where"].ShouldBe(new AddressAnswer("1 Quay", null, null, null, "D13", null));
        answers["when"].ShouldBe(new DateRangeAnswer(new LocalDate(2027, 5, 1), new LocalDate(2027, 5, 3)));
        answers["signs"]
            .ShouldBe(
                new RowsAnswer([
                    Row(("says", new TextAnswer("Bread")), ("wide", new NumberAnswer(2.5m))),
                    Row(("says", new TextAnswer("Cake"))),
                ])
            );
        answers["keep"].ShouldBe(new ConsentAnswer());
        answers["extras"].ShouldBe(ChoiceAnswer.Of("gilding", "lighting"));
        answers["wanted"].ShouldBe(new DateAnswer(new LocalDate(2027, 6, 1)));
        answers.Keys.ShouldNotContain("somebody-elses-field");
    }

    [Fact]
    public void A_month_is_all_of_its_days_also_in_a_leap_year() =>
        Read(("when.month", "2028-02"))
            .Answers["when"]
            .ShouldBe(new DateRangeAnswer(new LocalDate(2028, 2, 1), new LocalDate(2028, 2, 29), Roughly: true));

    [Fact]
    public void The_last_month_of_the_calendar_is_read_too() =>
        Read(("when.month", "9999-12"))
            .Answers["when"]
            .ShouldBe(new DateRangeAnswer(new LocalDate(9999, 12, 1), new LocalDate(9999, 12, 31), Roughly: true));

    [Fact]
    public void Rows_numbered_with_gaps_and_more_rows_than_fit_are_all_read()
    {
        Read(("signs.0.says", "Bread"), ("signs.2.says", "Cake"), ("signs.x.says", "?"), ("signs.-1.says", "?"))
            .Answers["signs"]
            .ShouldBe(new RowsAnswer([Row(("says", new TextAnswer("Bread"))), Row(("says", new TextAnswer("Cake")))]));
        var many = Enumerable.Range(0, 60).Select(index => ($"signs.{index}.says", "Bread")).ToArray();
        Read(many)
            .Answers["signs"]
            .ShouldBeOfType<RowsAnswer>()
            .Rows.Count.ShouldBe(60, "that only fifty fit is said, not settled in silence");
        AnswerLimits.Check(Signs, Read(many).Answers["signs"], Today, required: false)!.ShouldContain("At most 50");
    }

    [Fact]
    public void What_cannot_be_read_is_pointed_at_and_not_passed_over() =>
        Read(("width", "three"), ("wanted", "1.6.2027"), ("when.from", "2027-05-01"), ("signs.0.wide", "wide"))
            .Unreadable.Select(finding => finding.Place)
            .ShouldBe(["when", "signs/0/wide", "width", "wanted"]);

    [Fact]
    public void Blanks_are_blank()
    {
        var (answers, unreadable) = Read(("width", " "), ("name.given", ""), ("when.from", ""), ("when.to", ""), ("signs.0.says", ""));
        (answers.Values.OfType<Answer>().Any(), unreadable.Count).ShouldBe((false, 0));
    }

    [Fact]
    public void What_needs_more_than_markup_is_never_read_from_it()
    {
        var form = OnePage(
            new Question("files", "?", new FilesKind()),
            new Question("sign", "?", new SignatureKind("So be it.")),
            new Question("list", "?", new LookUpKind(Guid.Empty, ["A"]))
        );
        PlainAnswers
            .Read(
                form,
                new Dictionary<string, IReadOnlyList<string>>
                {
                    ["files"] = ["x"],
                    ["sign"] = ["x"],
                    ["list"] = ["x"],
                }
            )
            .Answers.Values.ShouldAllBe(answer => answer == null);
    }

    private static (Dictionary<string, Answer?> Answers, IReadOnlyList<Finding> Unreadable) Read(
        params (string Name, string Value)[] values
    ) =>
        PlainAnswers.Read(
            Plain,
            values
                .GroupBy(one => one.Name)
                .ToDictionary(group => group.Key, group => (IReadOnlyList<string>)[.. group.Select(one => one.Value)])
        );

    private static AnswerRow Row(params (string Key, Answer Answer)[] cells) =>
        new(cells.ToDictionary(cell => cell.Key, cell => (Answer?)cell.Answer));
}
