using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class PageEvaluationTests
{
    private static readonly FormContent Form = new(
        "Signs",
        "",
        [
            new Page("first", "First", [new Question("name", "Your name?", new PersonNameKind()) { Required = true }, Wanted]),
            new Page("blank", "Nothing said", [Decides]) { ShownOnlyWhen = new IsBlankCondition(new AnswerTo("wanted")) },
            new Page(
                "last",
                "Thank you, {answer:name|you}",
                [new Question("more", "Anything else, {answer:name|friend}?", new LongTextKind())]
            ),
        ],
        [],
        new SendOff("end", "Thank you", "We write.")
    )
    {
        Review = true,
    };

    private static readonly Capacity Full = new("wanted", [new MonthLimit(new YearMonth(2026, 12), 1)]);
    private static readonly Dictionary<YearMonth, int> Taken = new() { [new YearMonth(2026, 12)] = 1 };

    [Fact]
    public void An_open_page_is_not_checked_and_its_blanks_may_still_be_filled()
    {
        var open = Evaluate("first", leaving: false);
        (open.Pages, open.Next, open.Summary, open.Review).ShouldSatisfyAllConditions(
            page => page.Pages.ShouldBe(["first"]),
            page => page.Next.ShouldBe("last", "that no day was given is not known before the page is left"),
            page => page.Summary.ShouldBeNull(),
            page => page.Review.ShouldBeNull()
        );
        open.Required.ShouldBe(["name"]);
    }

    [Fact]
    public void To_leave_a_page_makes_its_blanks_final_and_checks_it_alone()
    {
        var left = Evaluate("first", leaving: true);
        left.Next.ShouldBe("blank");
        left.Findings.Select(finding => finding.Place).ShouldBe(["name"]);
        left.Summary.ShouldBe("One answer needs another look before this can go on.");
    }

    [Fact]
    public void All_answers_are_shown_once_more_when_the_last_page_is_left_in_order()
    {
        (string, Answer)[] said = [("name", new PersonNameAnswer("Robin", "Pell")), ("wanted", new DateAnswer(new(2027, 3, 1)))];
        Evaluate("first", leaving: true, said).Review.ShouldBeNull("there is a page to come");
        var review = Evaluate("last", leaving: true, said).Review!;
        review.Select(page => page.Title).ShouldBe(["First", "Thank you, Robin"]);
        review.SelectMany(page => page.Lines).Select(line => line.Words).ShouldBe(["Robin Pell", "1 March 2027", null]);
    }

    [Fact]
    public void A_full_month_is_said_beside_its_day_rather_than_a_doubt_about_it()
    {
        Evaluate("first", leaving: false, ("wanted", new DateAnswer(new(2026, 12, 24))))
            .Notices["wanted"]
            .ShouldStartWith("December 2026 is fully booked. There is room in January 2027");
        Evaluate("first", leaving: false, ("wanted", new DateAnswer(new(2027, 1, 24)))).Notices.ShouldBeEmpty();
    }

    [Fact]
    public void What_stands_in_a_form_at_the_beginning_is_in_its_wordings()
    {
        var begun = PageEvaluation.Begin(Known(Form), new Dictionary<string, Answer?> { ["name"] = new PersonNameAnswer("Robin", "") });
        (begun.Pages.Single(), begun.Next).ShouldBe(("first", "last"));
        Evaluate("last", leaving: false, ("name", new PersonNameAnswer("Robin", ""))).Wordings["more"].ShouldBe("Anything else, Robin?");
    }

    private static EvaluatedPage Evaluate(string page, bool leaving, params (string Key, Answer Answer)[] said) =>
        PageEvaluation.Evaluate(Known(Form), said.ToDictionary(one => one.Key, one => (Answer?)one.Answer), page, leaving, Full, Taken);
}
