using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Tests.Forms;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

public sealed class FieldProposalTests
{
    [Fact]
    public void Whatever_is_asked_the_field_made_for_it_can_keep_it_and_can_be_kept_itself()
    {
        foreach (var kind in QuestionKindTests.EachKind)
        {
            var question = new Question("q", "What is it?", kind);
            var fits = Enum.GetValues<FieldKind>().Any(kind.FitsField);
            foreach (var scope in Enum.GetValues<RecordScope>())
            {
                var field = FieldProposals.For(question, scope, FieldCatalogue.BuiltIn);
                (field is not null).ShouldBe(fits, kind.Describe());
                if (field is null)
                    continue;
                question.Fits(field).ShouldBeTrue(kind.Describe());
                FieldCatalogue.BuiltIn.Check(field).ShouldBeEmpty(kind.Describe());
                field.Scope.ShouldBe(scope);
            }
        }
    }

    [Fact]
    public void It_has_the_words_of_the_question_and_keeps_more_of_its_answers_than_words()
    {
        Made(Budget).ShouldBe(("What have you set aside", FieldKind.Money));
        Made(Extras).ShouldBe(("Anything else", FieldKind.SeveralOf));
        Made(Wanted).ShouldBe(("When", FieldKind.Date));
        Made(Words).ShouldBe(("In your words", FieldKind.LongText));
        FieldProposals.For(Extras, RecordScope.Client, FieldCatalogue.BuiltIn)!.Options.ShouldBe(["Gilding", "Lighting", "Nothing"]);

        static (string, FieldKind) Made(Question question) =>
            FieldProposals.For(question, RecordScope.Client, FieldCatalogue.BuiltIn) is { } field
                ? (field.Label, field.Kind)
                : throw new InvalidOperationException();
    }

    [Fact]
    public void A_name_that_is_taken_gets_a_number() =>
        FieldProposals
            .For(new Question("p", "Phone?", new PhoneKind()), RecordScope.Client, FieldCatalogue.BuiltIn)!
            .Label.ShouldBe("Phone 2");
}
