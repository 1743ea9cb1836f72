using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class FormTidyingTests
{
    [Fact]
    public void Blanks_at_the_ends_and_lines_that_say_nothing_are_gone_and_all_else_stays()
    {
        var form = Form(
            new Page(
                "one",
                " One ",
                [
                    new Question("q", "Which? ", new ChoiceKind([new Option("a", "A ") { Explanation = " " }]))
                    {
                        Help = "  ",
                        Required = true,
                    },
                    new Question("rows", "Rows", new ListKind([new Question("in", " In ", new ShortTextKind())], "one ")),
                ]
            )
        ) with
        {
            Title = " A form ",
        };
        var tidy = form.Tidy();
        tidy.Title.ShouldBe("A form");
        tidy.Pages[0].Title.ShouldBe("One");
        var (which, rows) = (tidy.FindQuestion("q")!, tidy.FindQuestion("rows")!);
        (which.Wording, which.Help, which.Required).ShouldBe(("Which?", null, true));
        which.Options.ShouldBe([new Option("a", "A")]);
        ((ListKind)rows.Kind).Called.ShouldBe("one");
        rows.RowQuestions.Single().Wording.ShouldBe("In");
        (form with { DefaultSendOff = form.DefaultSendOff with { NextSteps = ["One. ", "", " "] } })
            .Tidy()
            .DefaultSendOff.NextSteps.ShouldBe(["One."]);
    }

    [Fact]
    public void A_form_that_is_tidy_stays_as_it_is() =>
        RandomForms.FormWithRows.Sample(form => StructuralEquality.Same(form.Tidy(), form).ShouldBeTrue());
}
