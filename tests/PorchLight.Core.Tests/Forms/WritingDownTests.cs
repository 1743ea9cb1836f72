using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class WritingDownTests
{
    [Fact]
    public void Of_any_form_nothing_must_be_answered_and_everything_else_stays() =>
        RandomForms.FormWithRows.Sample(form =>
        {
            var relaxed = WritingDown.Relax(form);
            var nothing = Known(relaxed);
            AnswerChecks.Check(nothing, Routes.Trace(nothing, new Dictionary<string, Answer?>())).ShouldBeEmpty();
            relaxed.Questions.Select(question => question.Key).ShouldBe(form.Questions.Select(question => question.Key));
            relaxed
                .Questions.Select(question => (question.Wording, question.AskedOnlyWhen, question.LandsIn))
                .ShouldBe(form.Questions.Select(question => (question.Wording, question.AskedOnlyWhen, question.LandsIn)));
        });

    [Fact]
    public void An_answer_that_cannot_be_is_still_refused()
    {
        var form = WritingDown.Relax(OnePage(Width with { Required = true }));
        var known = Known(form);
        var route = Routes.Trace(known, Given(("width", new NumberAnswer(500))));
        AnswerChecks.Check(known, route).ShouldHaveSingleItem().Place.ShouldBe("width");
    }

    [Fact]
    public void In_lists_no_cell_must_be_filled_and_no_number_of_rows_reached()
    {
        var signs = new Question("signs", "Which signs?", new ListKind([Width with { Required = true }, Words], "sign", Least: 2))
        {
            Required = true,
        };
        var known = Known(WritingDown.Relax(OnePage(signs)));
        var row = new AnswerRow(new Dictionary<string, Answer?> { ["words"] = new TextAnswer("Bread") });
        AnswerChecks.Check(known, Routes.Trace(known, Given(("signs", new RowsAnswer([row]))))).ShouldBeEmpty();
    }
}
