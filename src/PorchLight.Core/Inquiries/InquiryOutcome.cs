using PorchLight.Core.Projects;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Inquiries;

/// <summary>Says what became of inquiries.</summary>
public static class InquiryOutcome
{
    /// <summary>
    /// What became of an inquiry whose project stands in this stage: booked when the work was agreed or is finished; declined when the
    /// business said no, on the page or later; not booked when it was lost otherwise, or closed while nothing was agreed.
    /// </summary>
    /// <param name="stage">The stage of its project; null for one the business keeps no more, of which nothing is known.</param>
    /// <param name="turnedAway">Whether the form itself said no at its end.</param>
    /// <param name="isClosed">Whether a person closed the inquiry.</param>
    public static Outcome OutcomeOf(this Stage? stage, bool turnedAway, bool isClosed) =>
        stage switch
        {
            { Kind: StageKind.Won or StageKind.Done } => Outcome.Booked,
            { Kind: StageKind.Lost, IsOurNo: true } => Outcome.Declined,
            _ when turnedAway => Outcome.Declined,
            { Kind: StageKind.Lost } => Outcome.NotBooked,
            { Kind: StageKind.Open } when isClosed => Outcome.NotBooked,
            _ => Outcome.Open,
        };
}
