using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Records;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Keeps the promise clocks, and whose turn it is: a person's word to the client stops the promises and answers what they
/// wrote; an automatic message does neither.
/// </summary>
internal sealed class Promises(PorchDb db) : IEventReaction
{
    public async Task ReactAsync(LoggedEvent logged)
    {
        if (logged.What is ReplyReceived && logged.InquiryId is { } id)
            (await db.Inquiries.FindAsync(id))!.WroteBack = logged.At;
        if (!logged.What.IsPersonalWord() || logged.ClientId is null)
            return;
        foreach (
            var inquiry in await db
                .Inquiries.Where(inquiry =>
                    inquiry.ClientId == logged.ClientId && (inquiry.PromiseStopped == null || inquiry.WroteBack != null)
                )
                .ToListAsync()
        )
        {
            inquiry.PromiseStopped ??= logged.At;
            inquiry.WroteBack = null;
        }
    }

    /// <summary>What a word of a client is about: their newest inquiry, where there is one.</summary>
    public static async Task<EventContext> AboutAsync(PorchDb db, PorchLight.Core.Common.Id<Client> client) =>
        await db.Inquiries.Where(inquiry => inquiry.ClientId == client).OrderByDescending(inquiry => inquiry.Received).FirstOrDefaultAsync()
            is { } inquiry
            ? new EventContext(client, inquiry.ProjectId, inquiry.Id)
            : new EventContext(client);
}
