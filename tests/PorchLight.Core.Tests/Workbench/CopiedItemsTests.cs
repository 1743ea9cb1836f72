using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Ready;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

public sealed class CopiedItemsTests
{
    private static readonly FormContent Target = Form(
        new Page("one", "One", [Budget, Width with { LandsIn = new SetField("project.what") }])
    );

    [Fact]
    public void A_copy_has_a_key_of_its_own_and_looks_at_the_copy_of_what_was_copied_with_it()
    {
        var asked = new Question("why", "Why {answer:width|so} wide?", new ShortTextKind())
        {
            AskedOnlyWhen = new NumberCondition(new AnswerTo("width"), NumberRelation.Over, 3),
            RequiredWhen = new IsAnsweredCondition(new AnswerTo("budget")),
        };
        var copies = CopiedItems.For([Width with { LandsIn = new SetField("project.what") }, asked], Target);
        var (width, why) = ((Question)copies.Items[0], (Question)copies.Items[1]);
        (width.Key, why.Key, width.LandsIn).ShouldBe(("width-2", "why", null));
        why.Wording.ShouldBe("Why {answer:width-2|so} wide?");
        why.AskedOnlyWhen.ShouldBe(new NumberCondition(new AnswerTo("width-2"), NumberRelation.Over, 3));
        why.RequiredWhen.ShouldBe(asked.RequiredWhen, "the budget was not copied, and is in the form");
        copies.Lost.ShouldHaveSingleItem().ShouldContain("lands nowhere");
    }

    [Fact]
    public void A_condition_on_a_question_the_other_form_does_not_have_stays_behind_and_that_is_said()
    {
        var note = new Passage("note", "Mind the step.") { ShownOnlyWhen = new IsCondition(new AnswerTo("decides"), "yes") };
        var copies = CopiedItems.For([note], Target);
        ((Passage)copies.Items[0]).ShouldBe(note with { ShownOnlyWhen = null });
        copies.Lost.ShouldBe(["A condition of “Mind the step.” looks at a question that is not in this form, and is left out."]);
    }

    [Fact]
    public void What_a_copy_names_and_the_other_form_does_not_have_is_left_out_and_said()
    {
        var signs = new Question("signs", "For {answer:name|you}, {answer:gone}: how many, {answer:width}?", new NumberKind());
        var sum = new Question("sum", "Twice", new WorkedOutKind(new DivideAndRoundUp(new CopiedAnswer("gone"), 2)));
        var agreed = new Question("agreed", "Terms", new ConsentKind("I agree to {answer:signs|some} signs in {answer:gone|your town}."));
        var copies = CopiedItems.For([signs, sum, agreed], Target);
        ((Question)copies.Items[0]).Wording.ShouldBe("For you: how many, {answer:width}?");
        ((Question)copies.Items[1]).Kind.ShouldBe(new WorkedOutKind(WorkedOutKind.Open));
        ((Question)copies.Items[2]).Statement.ShouldBe("I agree to {answer:signs|some} signs in your town.");
        copies.Lost.ShouldBe([
            "The words of “For you: how many?” name an answer to a question that is not in this form. It is left out.",
            "“Twice” is worked out from a question that is not in this form. Choose again how it is worked out.",
            "The words of “Terms” name an answer to a question that is not in this form. It is left out.",
        ]);
    }

    [Fact]
    public void Whatever_is_copied_wherever_nothing_looks_at_a_question_that_is_not_there() =>
        Gen.Select(Gen.OneOf(OddForms.Forms, RandomForms.FormWithRows), RandomForms.Form, Gen.Bool.Array[20])
            .Sample(
                (from, to, chosen) =>
                {
                    to = to with { Pages = [to.Pages[0]] };
                    var items = from.Pages.SelectMany(page => page.Items).Where((_, index) => chosen[index % 20]).ToList();
                    var copies = CopiedItems.For(items, to).Items;
                    var keys = to.Questions.Concat(Asked(copies)).Select(question => question.Key).ToHashSet();
                    keys.Count.ShouldBe(to.Questions.Count() + Asked(copies).Count(), "no key comes twice");
                    foreach (var copy in Asked(copies))
                    {
                        new[] { copy.AskedOnlyWhen, copy.RequiredWhen }
                            .OfType<Condition>()
                            .SelectMany(condition => condition.QuestionsUsed())
                            .Concat((copy.Kind as WorkedOutKind)?.Value.QuestionsUsed() ?? [])
                            .Concat(Wordings.QuestionsUsed(copy.Wording))
                            .ShouldBeSubsetOf(keys);
                    }
                }
            );

    private static IEnumerable<Question> Asked(IEnumerable<Item> items) =>
        items.OfType<Question>().SelectMany(question => question.RowQuestions.Prepend(question));

    [Fact]
    public void Every_question_of_a_ready_form_can_be_copied_within_it_and_the_form_can_still_be_published()
    {
        var form = ReadyForms.Inquiry("A wall", 1500, "EUR").Content;
        FormStructure.Check(form, FieldCatalogue.BuiltIn).ShouldBeEmpty();
        var all = form.Pages.SelectMany(page => page.Items).ToList();
        var last = form.Pages[^1];
        var twice = form with
        {
            Pages = [.. form.Pages.SkipLast(1), last with { Items = [.. last.Items, .. CopiedItems.For(all, form).Items] }],
        };
        FormStructure.Check(twice, FieldCatalogue.BuiltIn).ShouldBeEmpty();
    }

    [Fact]
    public void The_catalogue_holds_every_kind_and_none_is_offered_in_rows_that_cannot_stand_there()
    {
        var catalogue = KindCatalogue.For("EUR");
        catalogue.Select(one => one.Kind.GetType()).Distinct().ShouldBe(QuestionKinds.All.Values, ignoreOrder: true);
        catalogue.Select(one => one.Words).ShouldBeUnique();
        foreach (var offered in catalogue)
            offered.InRows.ShouldBe(offered.Kind.Uses().HasFlag(KindUses.InRows));
    }

    [Fact]
    public void What_is_worked_out_is_said_by_place_also_in_rows_and_where_the_lead_does_not_see_it()
    {
        var rows = new Question(
            "rows",
            "Signs",
            new ListKind(
                [
                    new Question("wide", "Wide?", new NumberKind()),
                    new Question("double", "Double", new WorkedOutKind(new DivideAndRoundUp(new CopiedAnswer("wide"), 2), Unit: "m")),
                ],
                "sign"
            )
        );
        var count = new Question("count", "Count", new WorkedOutKind(new CountRows("rows"), Shown: false));
        var form = Form(new Page("one", "One", [rows, count]));
        AnswerRow Row(decimal wide) => new(new Dictionary<string, Answer?> { ["wide"] = new NumberAnswer(wide) });
        WorkedOutValues
            .Say(
                new AnswerContext(form, new Dictionary<string, AnswerState>(), Today),
                new Dictionary<string, Answer?> { ["rows"] = new RowsAnswer([Row(3), Row(8)]) }
            )
            .ShouldBe(
                new Dictionary<string, string>
                {
                    ["rows/0/double"] = "2 m",
                    ["rows/1/double"] = "4 m",
                    ["count"] = "2",
                },
                ignoreOrder: true
            );
    }
}
