using CsCheck;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

public sealed class TypedQuestionTests
{
    private static readonly ProposalContext Ours = new("EUR");

    /// <summary>Some of them have the words of keys that are taken.</summary>
    private static readonly string[] Typed = ["Your name", "Budget", "one", "end", "width", "When?", "Show us"];

    [Fact]
    public void Each_line_is_a_question_and_no_two_land_in_one_place()
    {
        var questions = TypedQuestions.Read("Your name\n\nYour e-mail address\nYour name\nI agree to the terms", Form(), Ours);
        questions.Select(question => question.Key).ShouldBe(["your-name", "your-e-mail-address", "your-name-2", "i-agree-to-the-terms"]);
        questions.Select(question => (question.LandsIn as SetField)?.Field).ShouldBe(["client.name", "client.email", null, null]);
        questions[3].Kind.ShouldBe(new ConsentKind("I agree to the terms"));
    }

    [Fact]
    public void Whatever_is_pasted_its_questions_can_be_added_to_the_form() =>
        Gen.OneOf(Gen.String, Gen.Int[0, Typed.Length - 1].Select(index => Typed[index]))
            .Array[0, 8]
            .Sample(lines =>
            {
                var questions = TypedQuestions.Read(string.Join("\r\n", lines), Everything, Ours);
                var form = Everything with { Pages = [Everything.Pages[0] with { Items = [.. Everything.Pages[0].Items, .. questions] }] };
                FormStructure
                    .Check(form, FieldCatalogue.BuiltIn)
                    .ShouldNotContain(finding => finding.Sentence.Contains("twice") || finding.Sentence.Contains("key"));
                questions.ShouldAllBe(question =>
                    question.LandsIn == null || question.RefusesToLand(question.LandsIn, FieldCatalogue.BuiltIn) == null
                );
            });
}
