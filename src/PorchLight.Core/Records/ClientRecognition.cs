using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Records;

/// <summary>Which client to look for.</summary>
/// <param name="Id">The client with this identifier; null to look by the address.</param>
/// <param name="EmailKey">The client with this address (<see cref="EmailAddress.Key"/>); null when nobody can be recognised.</param>
public sealed record ClientLookup(Guid? Id, string? EmailKey);

/// <summary>A client with the address an inquiry came from.</summary>
/// <param name="Id">Their identifier.</param>
/// <param name="Name">The main contact's name; null when nobody said.</param>
/// <param name="Since">When they came.</param>
public sealed record SameAddress(Guid Id, string? Name, Instant Since);

/// <summary>Recognises the client an inquiry is from.</summary>
public static class ClientRecognition
{
    /// <summary>
    /// Whom to look for: the client a personal link was made for, whatever address they give; else the one with the same
    /// e-mail address. Without an address nobody is recognised, and the inquiry makes a new client.
    /// </summary>
    /// <param name="contact">The contact details among the answers.</param>
    /// <param name="linkMadeFor">The client the personal link was made for; null without one.</param>
    public static ClientLookup LookFor(Contact contact, Guid? linkMadeFor) =>
        linkMadeFor is { } own ? new ClientLookup(own, null)
        : contact.Email is { } email ? new ClientLookup(null, EmailAddress.Key(email))
        : new ClientLookup(null, null);

    /// <summary>
    /// Which of the clients with one e-mail address somebody is who writes from it: the one whose name is most like theirs, of equal ones
    /// the one known longest. Null when every name is unlike (<see cref="ClientLikeness.AreUnlike"/>): people share mailboxes, and a new
    /// client is made who is perhaps the same.
    /// </summary>
    /// <param name="name">The name they give, or null when they give none.</param>
    /// <param name="known">The clients with that address.</param>
    public static SameAddress? Among(string? name, IEnumerable<SameAddress> known) =>
        known
            .Where(one => !ClientLikeness.AreUnlike(name, one.Name))
            .OrderByDescending(one => name is null || one.Name is null ? 0 : ClientLikeness.NamesAlike(name, one.Name))
            .ThenBy(one => one.Since)
            .ThenBy(one => one.Id)
            .FirstOrDefault();

    /// <summary>
    /// How far what is said can be believed: who came by a link made for this client is known to be them, and of a client nobody knew
    /// everything is theirs.
    /// </summary>
    /// <param name="knownBefore">Whether the client was known before this inquiry.</param>
    /// <param name="client">The client it was taken for.</param>
    /// <param name="linkMadeFor">The client the personal link was made for; null without one.</param>
    public static LandingTrust Trust(bool knownBefore, Guid client, Guid? linkMadeFor) =>
        linkMadeFor == client ? LandingTrust.OwnLink
        : knownBefore ? LandingTrust.Claims
        : LandingTrust.NewClient;
}
