using PorchLight.Core.Inquiries;
using PorchLight.Core.Projects;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class InquiryOutcomeTests
{
    [Theory]
    [InlineData("new", false, false, Outcome.Open)]
    [InlineData("new", false, true, Outcome.NotBooked)]
    [InlineData("new", true, false, Outcome.Declined)]
    [InlineData("parked", false, false, Outcome.Open)]
    [InlineData("booked", true, false, Outcome.Booked)]
    [InlineData("finished", false, true, Outcome.Booked)]
    [InlineData("lost", false, true, Outcome.NotBooked)]
    [InlineData("lost", true, true, Outcome.Declined)]
    [InlineData("declined", false, true, Outcome.Declined)]
    public void What_became_of_it_follows_from_the_stage_and_from_who_said_no(
        string stage,
        bool turnedAway,
        bool closed,
        Outcome outcome
    ) => Stage.Usual.Single(one => one.Key == stage).OutcomeOf(turnedAway, closed).ShouldBe(outcome);

    [Fact]
    public void Of_a_stage_that_is_kept_no_more_nothing_is_known() => ((Stage?)null).OutcomeOf(false, false).ShouldBe(Outcome.Open);
}
