using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class RowsTests
{
    private static readonly Question Signs = new(
        "signs",
        "Which signs?",
        new ListKind(
            [
                new Question("w", "Width", new NumberKind(1, 1000, "cm")) { Required = true },
                new Question("h", "Height", new NumberKind(1, 1000, "cm")) { Required = true },
                new Question("count", "How many alike", new NumberKind(1, 20, Whole: true)),
                new Question("gilded", "Gilded?", new YesNoKind()),
                new Question("leaf", "Which leaf?", new ChoiceKind([new Option("gold", "Gold"), new Option("silver", "Silver")]))
                {
                    AskedOnlyWhen = new IsCondition(new AnswerTo("gilded"), "yes"),
                    Required = true,
                },
            ],
            "sign",
            Least: 1,
            Most: 3
        )
    )
    {
        Required = true,
    };

    private static readonly Question Area = new(
        "area",
        "Area",
        new WorkedOutKind(new AreaOfRows("signs", "w", "h", LengthUnit.Centimetres, "count"), Unit: "m²")
    );

    private static readonly Question Gilded = new(
        "gilded-count",
        "Gilded",
        new WorkedOutKind(new CountRows("signs", new IsCondition(new AnswerTo("gilded"), "yes")))
    );

    private static readonly FormContent SignForm = OnePage(Signs, Area, Gilded);

    [Fact]
    public void The_area_is_summed_over_the_rows_and_alike_ones_count_as_often_as_they_are()
    {
        var route = Trace(Row(("w", 300), ("h", 60)), Row(("w", 50), ("h", 50), ("count", 4)));
        route.Answers["area"].Answer.ShouldBe(new NumberAnswer(2.8m), "3 x 0.6 and four times 0.5 x 0.5");
        AnswerWords.Say(route.Answers["area"].Answer!, Area).ShouldBe("2.8 m²");
    }

    [Fact]
    public void On_an_open_page_a_sum_is_unknown_while_a_side_may_still_come_and_known_once_the_page_is_left()
    {
        var given = Given(("signs", new RowsAnswer([Row(("w", 300), ("h", 60)), Row(("w", 100))])));
        Routes.Trace(Known(SignForm), given, "one").Answers["area"].Status.ShouldBe(AnswerStatus.NotAskedYet);
        Routes.Trace(Known(SignForm), given).Answers["area"].Answer.ShouldBe(new NumberAnswer(1.8m));
    }

    [Fact]
    public void What_a_row_does_not_ask_is_neither_checked_nor_part_of_what_is_sent()
    {
        var plain = Row([
            ("w", new NumberAnswer(1)),
            ("h", new NumberAnswer(1)),
            ("gilded", new YesNoAnswer(false)),
            ("leaf", ChoiceAnswer.Of("invented")),
        ]);
        var gilded = Row([("w", new NumberAnswer(1)), ("h", new NumberAnswer(1)), ("gilded", new YesNoAnswer(true))]);
        var route = Trace(plain, gilded);
        route.Answers["signs"].Answer.ShouldBeOfType<RowsAnswer>().Rows[0].Answers.Keys.ShouldBe(["w", "h", "gilded"], ignoreOrder: true);
        AnswerChecks.Check(Known(SignForm), route).ShouldBe([new Finding("signs/1/leaf", "Please choose one.")]);
        route.Answers["gilded-count"].Answer.ShouldBe(new NumberAnswer(1));
    }

    [Fact]
    public void Each_cell_is_checked_at_its_own_place_and_the_number_of_rows_at_the_lists()
    {
        Places().ShouldBe(["signs"]);
        Places(Row(("w", 5000))).ShouldBe(["signs/0/w", "signs/0/h"]);
        Places(Row(("w", 1), ("h", 1), ("count", 1.5m))).ShouldBe(["signs/0/count"]);
        Places([.. Enumerable.Repeat(Row(("w", 1), ("h", 1)), 4)]).ShouldBe(["signs"]);
    }

    [Fact]
    public void Rows_that_are_all_empty_are_a_blank_and_one_empty_row_among_others_is_pointed_at()
    {
        var empty = new AnswerRow(new Dictionary<string, Answer?> { ["w"] = null });
        var blank = Trace(empty);
        blank.Answers["signs"].Status.ShouldBe(AnswerStatus.Blank);
        blank.Shown.ShouldContain("signs/0/w", "it is still there to be filled in");
        AnswerChecks.Check(Known(SignForm), blank).ShouldBe([new Finding("signs", "Please add at least one sign.")]);
        AnswerChecks
            .Check(Known(SignForm), Trace(empty, Row(("w", 2), ("h", 2))))
            .ShouldBe([new Finding("signs/0", "This sign is empty. Please fill it in, or take it away.")]);
    }

    [Fact]
    public void People_are_asked_their_birth_dates_and_their_ages_on_the_event_can_be_counted()
    {
        var people = new Question(
            "painters",
            "Who paints?",
            new PeopleKind(
                "painter-name",
                "painter-born",
                [new Question("painter-age", "Age at the workshop", new WorkedOutKind(new AgeOn("painter-born", "day")))],
                "painter"
            )
        );
        var form = OnePage(
            new Question("day", "When?", new DateKind()),
            people,
            new Question(
                "children",
                "Under ten",
                new WorkedOutKind(new CountRows("painters", new NumberCondition(new AnswerTo("painter-age"), NumberRelation.Under, 10)))
            ),
            new Question("youngest", "Youngest", new WorkedOutKind(new OverRows("painters", "painter-age", Total.Smallest))),
            new Question("tables", "Tables", new WorkedOutKind(new DivideAndRoundUp(new CountRows("painters"), 2)))
        );
        FormStructure.Check(form, FieldCatalogue.BuiltIn).ShouldBeEmpty();
        var route = Routes.Trace(
            Known(form),
            Given(
                ("day", new DateAnswer(new LocalDate(2027, 6, 5))),
                ("painters", new RowsAnswer([Person("Aoife", 2017, 6, 5), Person("Ciarán", 2017, 6, 6), Person("Bríd", 1980, 1, 1)]))
            )
        );
        route.Answers["children"].Answer.ShouldBe(new NumberAnswer(1), "Ciarán is nine on the day, Aoife ten");
        route.Answers["youngest"].Answer.ShouldBe(new NumberAnswer(9));
        route.Answers["tables"].Answer.ShouldBe(new NumberAnswer(2));
        AnswerWords
            .Say(route.Answers["painters"].Answer!, people)
            .ShouldStartWith("1. Aoife; Birth date: 5 June 2017; Age at the workshop: 10\n2. Ciarán");

        static AnswerRow Person(string name, int year, int month, int day) =>
            Row([("painter-name", new PersonNameAnswer(name, "")), ("painter-born", new DateAnswer(new LocalDate(year, month, day)))]);
    }

    private static List<string> Places(params AnswerRow[] rows) =>
        [.. AnswerChecks.Check(Known(SignForm), Trace(rows)).Select(finding => finding.Place)];

    private static Route Trace(params AnswerRow[] rows) =>
        Routes.Trace(Known(SignForm), Given(("signs", rows.Length == 0 ? null : new RowsAnswer(rows))));

    private static AnswerRow Row(params (string Key, decimal Value)[] cells) =>
        Row([.. cells.Select(cell => (cell.Key, (Answer)new NumberAnswer(cell.Value)))]);

    private static AnswerRow Row((string Key, Answer Answer)[] cells) =>
        new(cells.ToDictionary(cell => cell.Key, cell => (Answer?)cell.Answer));
}
