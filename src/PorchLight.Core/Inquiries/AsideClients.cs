namespace PorchLight.Core.Inquiries;

/// <summary>An inquiry of a client, as far as it decides whether the client is one.</summary>
/// <param name="IsAside">Whether it is kept apart, as spam or as a test.</param>
/// <param name="KnownBefore">Whether the client was known when it came.</param>
public sealed record ClientInquiry(bool IsAside, bool KnownBefore);

/// <summary>Tells which records of clients only stand there because of inquiries that never count.</summary>
public static class AsideClients
{
    /// <summary>
    /// Whether a client is kept apart: an inquiry made the record, and each of their inquiries is kept apart. Who was known before their
    /// first one, or has none, never is.
    /// </summary>
    /// <param name="inquiries">All inquiries of the client, in any order.</param>
    public static bool IsAside(IReadOnlyCollection<ClientInquiry> inquiries) =>
        inquiries.Any(one => !one.KnownBefore) && inquiries.All(one => one.IsAside);
}
