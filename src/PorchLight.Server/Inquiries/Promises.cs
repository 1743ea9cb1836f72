using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Keeps the promise clocks, and whose turn it is, as <see cref="InquiryTurn"/> has it: a personal word is to the client, not to
/// one inquiry.
/// </summary>
internal sealed class Promises(PorchDb db) : IEventReaction
{
    public async Task ReactAsync(LoggedEvent logged)
    {
        // In a business of one's own, mail that only comes into the practice mailbox reaches nobody, and keeps no promise.
        if (logged.What is MessageSent && await db.BusinessAsync() is { Smtp: null, IsDemo: false })
            return;
        var touched =
            logged.ClientId is not null && logged.What.IsPersonalWord()
                ? await db
                    .Inquiries.Where(inquiry =>
                        inquiry.ClientId == logged.ClientId
                        && (inquiry.PromiseStopped == null || inquiry.PromiseStopped == inquiry.Closed || inquiry.WroteBack != null)
                    )
                    .ToListAsync()
            : logged.InquiryId is { } id && await db.Inquiries.FindAsync(id) is { } one ? [one]
            : [];
        foreach (var inquiry in touched)
            inquiry.Turn = inquiry.Turn.After(logged.What, logged.At);
    }

    /// <summary>What a word of a client is about: their newest inquiry, where there is one.</summary>
    public static async Task<EventContext> AboutAsync(PorchDb db, Id<Client> client) =>
        await db.Inquiries.Where(inquiry => inquiry.ClientId == client).OrderByDescending(inquiry => inquiry.Received).FirstOrDefaultAsync()
            is { } inquiry
            ? new EventContext(client, inquiry.ProjectId, inquiry.Id)
            : new EventContext(client);
}
