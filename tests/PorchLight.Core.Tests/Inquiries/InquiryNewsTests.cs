using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class InquiryNewsTests
{
    private static InquiryNews News(string client, Fit? fit = Fit.ComeIn) =>
        new(client, "A wall to paint", fit, "Bread and gulls", $"https://example.com/{client}");

    [Fact]
    public void One_inquiry_is_told_with_its_fit_in_the_subject() =>
        InquiryNewsWords
            .Write([News("Anna Ames")])
            .ShouldBe(
                ("Come in: Anna Ames", "Anna Ames sent “A wall to paint”: Come in.\n\nBread and gulls\n\nhttps://example.com/Anna Ames")
            );

    [Fact]
    public void A_form_that_sorts_nobody_is_named_instead() =>
        InquiryNewsWords.Write([News("Anna Ames", null)]).Subject.ShouldBe("Anna Ames: A wall to paint");

    [Fact]
    public void Several_come_in_one_mail_that_holds_all_of_them_and_names_the_first_three()
    {
        var (subject, text) = InquiryNewsWords.Write([News("Anna"), News("Berit"), News("Cleo"), News("Dora"), News("Edda")]);
        subject.ShouldBe("5 inquiries: Anna, Berit, Cleo and 2 more");
        foreach (var name in new[] { "Anna", "Berit", "Cleo", "Dora", "Edda" })
            text.ShouldContain($"{name} sent");
    }
}
