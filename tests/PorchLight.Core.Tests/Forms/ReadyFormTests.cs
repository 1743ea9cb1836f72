using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Ready;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Tests.Forms;

public sealed class ReadyFormTests
{
    private static readonly ReadyForm Ready = ReadyForms.Inquiry("A new project", 1500.50m, "EUR");

    [Fact]
    public void A_ready_form_can_be_published_as_it_is() => FormStructure.Check(Ready.Content, FieldCatalogue.BuiltIn).ShouldBeEmpty();

    [Fact]
    public void Its_budget_bands_meet_without_gap_or_overlap_around_the_starting_price()
    {
        var bands = Ready.Content.FindQuestion("budget")!.Options.Where(option => !option.Unsure).Select(option => option.Band!).ToList();
        foreach (var (lower, upper) in bands.Zip(bands.Skip(1)))
        {
            lower.High!.Value.ShouldBe(upper.Low!.Value);
            lower.High.Open.ShouldNotBe(upper.Low.Open, "exactly one of two neighbours holds the amount between them");
        }

        bands.Select(band => band.Low!.Value).ShouldContain(1500.50m);
        bands[^1].High.ShouldBeNull();
        Ready.Content.FindQuestion("budget")!.Options[0].Label.ShouldBe("Under 750.25");
    }

    [Fact]
    public void Every_ready_form_can_be_published_asks_for_a_budget_around_the_price_and_sorts_into_all_three()
    {
        ReadyForms.All.Count.ShouldBeGreaterThanOrEqualTo(9, "eight services, and any");
        ReadyForms.All.Select(offer => offer.Key).ShouldBeUnique();
        foreach (var offer in ReadyForms.All)
        {
            var ready = offer.Make(new ReadyFormRequest(offer.Title, 800, "EUR"));
            FormStructure.Check(ready.Content, FieldCatalogue.BuiltIn).ShouldBeEmpty(offer.Key);
            ready.Screening.Check().ShouldBeEmpty(offer.Key);
            var options = ready.Content.FindQuestion("budget")!.Options;
            options.Select(option => option.Band?.Low?.Value).ShouldContain(800, offer.Key);
            ready.Content.SendOffs.Count.ShouldBeGreaterThanOrEqualTo(2, offer.Key);
            ready.FollowThroughs(Guid.Empty).Count.ShouldBe(2, offer.Key);
            var used = ready.Screening.Signals.SelectMany(signal => signal.When.QuestionsUsed());
            used.ShouldBeSubsetOf(ready.Content.Questions.Select(question => question.Key), offer.Key);
            var nothing = Sample.Known(ready.Content);
            var range = FitRanges.Of(ready.Screening, nothing);
            (range.WorstFit, range.BestFit).ShouldBe((Fit.NotNow, Fit.ComeIn), offer.Key);
            if (offer.Key != "any")
                ready
                    .Content.Pages.Any(page => page.ShownOnlyWhen is not null || page.Items.Any(item => item.OnlyWhen is not null))
                    .ShouldBeTrue($"{offer.Key} has conditions");
        }
    }

    [Theory]
    [InlineData("fits", "me", Fit.ComeIn)]
    [InlineData("unsure", "together", Fit.TalkFirst)]
    [InlineData("tight", "someone-else", Fit.TalkFirst)]
    [InlineData("small", "together", Fit.NotNow)]
    public void It_sorts_by_budget_and_who_decides(string budget, string decides, Fit fit)
    {
        var known = Sample.Known(
            Ready.Content,
            ("budget", AnswerState.Of(ChoiceAnswer.Of(budget))),
            ("decides", AnswerState.Of(ChoiceAnswer.Of(decides)))
        );
        Screener.Judge(Ready.Screening, known).Fit.ShouldBe(fit);
    }

    [Fact]
    public void After_every_fit_something_follows()
    {
        var form = Guid.NewGuid();
        foreach (var fit in Enum.GetValues<Fit>())
            Ready
                .FollowThroughs(form)
                .Count(follow => follow.Starts.IsStartedBy(new InquiryReceived(form, 1, fit, false, false), NoFacts.Instance))
                .ShouldBe(1);
    }

    [Theory]
    [InlineData(1, 0.01, "")]
    [InlineData(120, 100_000_000, "")]
    [InlineData(0, 2500, "title")]
    [InlineData(121, -1, "title startingPrice")]
    [InlineData(5, 0, "startingPrice")]
    [InlineData(5, 100_000_001, "startingPrice")]
    public void A_form_is_made_with_a_title_and_a_price(int letters, double price, string places) =>
        string.Join(' ', ReadyForms.Check(new string('t', letters), (decimal)price).Select(finding => finding.Place)).ShouldBe(places);
}
