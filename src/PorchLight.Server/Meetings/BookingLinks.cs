using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>The links by which one client books meetings of a type, made with the first use, as part of the caller's write.</summary>
internal sealed class BookingLinks(PorchDb db, Tokens tokens, PublicAddress address)
{
    /// <summary>The address; the same again for the same type, client and inquiry.</summary>
    public async Task<string> AddressAsync(
        StoredMeetingType type,
        Id<Client> client,
        Id<Inquiry>? inquiry,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.BookingLinks.FirstOrDefaultAsync(
                link => link.TypeId == type.Id && link.ClientId == client && link.InquiryId == inquiry,
                cancellationToken
            ) is
            { } there
        )
            return AddressOf(tokens.Open(there.LinkSealed));
        var made = tokens.Create();
        db.BookingLinks.Add(
            new BookingLink
            {
                Id = new Id<BookingLink>(Guid.CreateVersion7()),
                TypeId = type.Id,
                ClientId = client,
                InquiryId = inquiry,
                LinkHash = made.Hash,
                LinkSealed = made.Sealed,
                Made = now,
            }
        );
        return AddressOf(made.Token);
    }

    private string AddressOf(string token) => $"{address.Site}{MeetingPage.Path}{token}";
}
