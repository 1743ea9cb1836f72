using NodaTime;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.Inquiries;

/// <summary>Whose turn it is in an inquiry: whether the first reply is still owed, and whether they wrote and wait for an answer.</summary>
/// <param name="PromiseStopped">When the reply promise was kept or fell away; null while a reply is owed.</param>
/// <param name="WroteBack">When they last wrote or got in touch; null when a person has answered since, or they have not.</param>
/// <param name="Closed">When a person closed it; null while it is open.</param>
public sealed record InquiryTurn(Instant? PromiseStopped, Instant? WroteBack, Instant? Closed)
{
    /// <summary>How it begins: a reply is owed, unless the page said a no or they stand on a waiting list.</summary>
    /// <param name="received">When it came in.</param>
    /// <param name="owesReply">Whether a reply is owed.</param>
    public static InquiryTurn At(Instant received, bool owesReply) => new(owesReply ? null : received, null, null);

    /// <summary>
    /// How it stands after something happened. A word of theirs waits for an answer. A personal word of the business, or a
    /// meeting, keeps the promise and answers them; an automatic message does neither. To close it ends both; to open it again
    /// brings a promise back that only the closing ended.
    /// </summary>
    /// <param name="what">What happened.</param>
    /// <param name="at">When.</param>
    public InquiryTurn After(DomainEvent what, Instant at) =>
        what switch
        {
            ReplyReceived => this with { WroteBack = at },
            InquiryClosed when Closed is null => new InquiryTurn(PromiseStopped ?? at, null, at),
            InquiryReopened => this with { Closed = null, PromiseStopped = PromiseStopped == Closed ? null : PromiseStopped },
            // A word that went while it was closed has kept the promise, so that to open it again does not bring it back.
            _ when what.IsPersonalWord() => this with
            {
                PromiseStopped = PromiseStopped is null || PromiseStopped == Closed ? at : PromiseStopped,
                WroteBack = null,
            },
            _ => this,
        };
}
