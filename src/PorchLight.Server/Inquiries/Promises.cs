using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Records;
using PorchLight.Server.Data;
using PorchLight.Server.Records;

namespace PorchLight.Server.Inquiries;

/// <summary>Keeps the promise clocks: a personal reply or a booking stops those of the client; an automatic message does not.</summary>
internal static class Promises
{
    public static async Task ReactAsync(PorchDb db, LoggedEvent logged)
    {
        if (logged.What is not (MeetingBooked or MessageSent { By: not null }))
            return;
        var open = await db.Inquiries.Where(inquiry => inquiry.ClientId == logged.ClientId && inquiry.PromiseStopped == null).ToListAsync();
        foreach (var inquiry in open)
            inquiry.PromiseStopped = logged.At;
    }
}
