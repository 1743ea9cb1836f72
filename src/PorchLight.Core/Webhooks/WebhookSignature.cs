using System.Security.Cryptography;
using System.Text;
using NodaTime;

namespace PorchLight.Core.Webhooks;

/// <summary>
/// Signs what a webhook gets, so that whoever receives it can tell that it comes from this business and has not been altered: an
/// HMAC with SHA-256 (RFC 2104, FIPS 180-4).
/// </summary>
public static class WebhookSignature
{
    /// <summary>The header that carries the signature.</summary>
    public const string Header = "Porch-Light-Signature";

    /// <summary>The header that carries the instant it was signed, in seconds since 1970.</summary>
    public const string TimeHeader = "Porch-Light-Time";

    /// <summary>The header that names the delivery; every try of the same one carries the same name.</summary>
    public const string DeliveryHeader = "Porch-Light-Delivery";

    /// <summary>
    /// The value of the header: "sha256=" and the code of the time, a full stop and the body, in lower-case hexadecimal. The time is
    /// signed too, so that nobody can send an old call again as a new one.
    /// </summary>
    /// <param name="secret">The secret that both sides know; its UTF-8 bytes are the key.</param>
    /// <param name="at">When it is sent; parts of a second are left out.</param>
    /// <param name="body">The body exactly as it is sent, in UTF-8.</param>
    public static string Sign(string secret, Instant at, string body) =>
        "sha256=" + Code(Encoding.UTF8.GetBytes(secret), Encoding.UTF8.GetBytes($"{at.ToUnixTimeSeconds()}.{body}"));

    /// <summary>The message authentication code of any bytes, in lower-case hexadecimal.</summary>
    /// <param name="key">The key; any length, also none.</param>
    /// <param name="message">What is signed.</param>
    public static string Code(ReadOnlySpan<byte> key, ReadOnlySpan<byte> message) =>
        Convert.ToHexStringLower(HMACSHA256.HashData(key, message));
}
