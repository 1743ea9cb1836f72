using PorchLight.Core.Common;
using PorchLight.Server.Data;
using PorchLight.Server.Messages;

namespace PorchLight.Server.StandIns.Mail;

/// <summary>Carries messages out of the house.</summary>
internal interface IMailCarrier
{
    /// <summary>Takes a message over. Returns why it was refused, or null when it was taken.</summary>
    Task<string?> HandOverAsync(PorchDb db, OutgoingMail mail, CancellationToken stop);
}

/// <summary>
/// The simulated carrier: it lays messages into the practice mailbox, in the transaction that marks them handed over, so
/// the two cannot disagree.
/// </summary>
internal sealed class PracticeCarrier : IMailCarrier
{
    public Task<string?> HandOverAsync(PorchDb db, OutgoingMail mail, CancellationToken stop)
    {
        db.PracticeMail.Add(new PracticeMessage
        {
            Id = new Id<PracticeMessage>(Guid.CreateVersion7()),
            MessageId = mail.MessageId,
            Incoming = false,
            ClientId = mail.ClientId,
            From = mail.From,
            To = mail.To,
            Subject = mail.Subject,
            Text = mail.Text,
            At = mail.Written,
        });
        return Task.FromResult<string?>(null);
    }
}
