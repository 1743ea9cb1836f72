using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;

namespace PorchLight.Core.Tests.Workbench;

/// <summary>What is asked in these words, and how: common practice, no source.</summary>
public sealed class KindProposalTests
{
    private static readonly ProposalContext Ours = new("EUR", 1500);

    [Theory]
    [InlineData("What is your name?", "personName", "client.name")]
    [InlineData("Your name", "personName", "client.name")]
    [InlineData("Name", "personName", "client.name")]
    [InlineData("First and last name", "personName", "client.name")]
    [InlineData("What is the name of your bakery?", "shortText", null)]
    [InlineData("Your e-mail address", "email", "client.email")]
    [InlineData("Email", "email", "client.email")]
    [InlineData("Your phone number", "phone", "client.phone")]
    [InlineData("A mobile number for the day", "phone", "client.phone")]
    [InlineData("Your website", "webAddress", null)]
    [InlineData("A link to your online shop", "webAddress", null)]
    [InlineData("Where should we send the prints? Your postal address", "address", null)]
    [InlineData("Billing address", "address", null)]
    [InlineData("Show us your wall", "files", null)]
    [InlineData("Show us photos of the room", "files", null)]
    [InlineData("Please send us your logo files", "files", null)]
    [InlineData("Upload your sketches", "files", null)]
    [InlineData("When should it be ready?", "date", "project.wanted")]
    [InlineData("When do you need it?", "date", "project.wanted")]
    [InlineData("Is there a deadline?", "date", "project.wanted")]
    [InlineData("When is the wedding?", "date", null)]
    [InlineData("What date is the party?", "date", null)]
    [InlineData("Your date of birth", "date", null)]
    [InlineData("Which dates would suit you?", "dateRange", null)]
    [InlineData("Which weekend are you thinking of?", "dateRange", null)]
    [InlineData("How many people will come?", "number", null)]
    [InlineData("How many pages has your book?", "number", null)]
    [InlineData("How wide is the wall?", "number", null)]
    [InlineData("Number of rooms", "number", null)]
    [InlineData("Your budget", "choice", "project.budget")]
    [InlineData("What have you set aside for it?", "choice", "project.budget")]
    [InlineData("How much would you like to spend?", "choice", "project.budget")]
    [InlineData("How much is the rent of the hall?", "money", null)]
    [InlineData("How did you find us?", "choice", "client.source")]
    [InlineData("Where did you hear about us?", "choice", "client.source")]
    [InlineData("Which service do you need?", "choice", "project.service")]
    [InlineData("Do you decide about it?", "choice", "project.decides")]
    [InlineData("Which of these rooms should we paint?", "choice", null)]
    [InlineData("Tick all that apply", "choice", null)]
    [InlineData("Which style do you like?", "choice", null)]
    [InlineData("Indoors or outdoors?", "choice", null)]
    [InlineData("Do you have a logo already?", "yesNo", null)]
    [InlineData("Is there parking?", "yesNo", null)]
    [InlineData("Have you worked with a designer before?", "yesNo", null)]
    [InlineData("How happy are you with it?", "scale", null)]
    [InlineData("Where is the wall?", "shortText", "project.place")]
    [InlineData("Which town is it in?", "shortText", "project.place")]
    [InlineData("What would you like painted?", "longText", "project.what")]
    [InlineData("Tell us about your project", "longText", "project.what")]
    [InlineData("What should people feel when they pass it?", "longText", null)]
    [InlineData("Anything else we should know?", "longText", null)]
    [InlineData("Why now?", "longText", null)]
    [InlineData("Who will be coming?", "people", null)]
    [InlineData("List all rooms, one per line", "rows", null)]
    [InlineData("I agree to the terms", "consent", null)]
    [InlineData("May we send you news?", "advertising", "client.mayAdvertise")]
    [InlineData("Your signature", "signature", null)]
    [InlineData("Which sign would you like?", "choice", null)]
    [InlineData("Will there be children or pets?", "yesNo", null)]
    [InlineData("Do you have a logo or brand guidelines?", "yesNo", null)]
    [InlineData("Is there parking or a drive?", "yesNo", null)]
    [InlineData("Is this for print or web?", "choice", null)]
    [InlineData("Would you prefer indoors or outdoors?", "choice", null)]
    [InlineData("How soon do you need this?", "date", "project.wanted")]
    [InlineData("Partner's name", "personName", null)]
    [InlineData("Company", "shortText", null)]
    [InlineData("Favourite colour", "shortText", null)]
    [InlineData("", "shortText", null)]
    public void The_words_of_a_question_say_how_it_is_asked(string wording, string kind, string? lands)
    {
        var proposal = KindProposals.For(wording, Ours);
        proposal.Kind.GetType().ShouldBe(QuestionKinds.All[kind]);
        (proposal.LandsIn as SetField)?.Field.ShouldBe(lands);
        (proposal.LandsIn is null).ShouldBe(lands is null);
    }

    [Fact]
    public void Every_place_that_is_proposed_can_keep_such_answers_and_every_kind_that_asks_something_is_proposed()
    {
        string[] asks =
        [
            "Your name",
            "Email",
            "Phone",
            "Website",
            "Postal address",
            "Show us your wall",
            "When is it?",
            "When do you need it?",
            "Which dates?",
            "How many?",
            "Your budget",
            "How much is it?",
            "How did you find us?",
            "Which service?",
            "Do you decide?",
            "Is there parking?",
            "How happy are you?",
            "Why now?",
            "Who will be coming?",
            "One per line",
            "I agree",
            "May we send you news?",
            "Your signature",
            "Colour",
        ];
        var proposals = asks.Select(wording => KindProposals.For(wording, Ours)).ToList();
        foreach (var proposal in proposals.Where(proposal => proposal.LandsIn is not null))
            new Question("q", "Q", proposal.Kind)
                .RefusesToLand(proposal.LandsIn!, FieldCatalogue.BuiltIn)
                .ShouldBeNull(proposal.Kind.Describe());
        // What is worked out, looked up or not seen is asked in nobody's words.
        QuestionKinds
            .All.Values.Except(proposals.Select(proposal => proposal.Kind.GetType()))
            .ShouldBe([typeof(HiddenKind), typeof(LookUpKind), typeof(WorkedOutKind)], ignoreOrder: true);
    }

    [Fact]
    public void A_budget_is_asked_in_bands_around_the_starting_price()
    {
        var bands = KindProposals.For("Your budget", Ours).Kind.ShouldBeOfType<ChoiceKind>().Options;
        bands
            .Select(option => option.Label)
            .ShouldBe(["Under 1,500", "1,500 to 3,000", "3,000 to 6,000", "More than 6,000", "I don't know yet"]);
        // Every amount lies in exactly one of them.
        foreach (var amount in new decimal[] { 0, 1, 1499, 1500, 2999.99m, 3000, 6000, 6000.01m, 1_000_000 })
            bands.Count(option => option.Band is { } band && Holds(band, amount)).ShouldBe(1, $"{amount}");

        static bool Holds(Band band, decimal amount) =>
            (band.Low is not { } low || (low.Open ? amount > low.Value : amount >= low.Value))
            && (band.High is not { } high || (high.Open ? amount < high.Value : amount <= high.Value));
    }

    [Fact]
    public void Whatever_is_typed_something_is_proposed() =>
        Gen.String.Sample(text => KindProposals.For(text, Ours).Kind.ShouldNotBeNull());
}
