using System.Buffers.Binary;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Tells people from programs: when a form was opened, by a sealed ticket; and a proof of work, in the format of the ALTCHA
/// widget (version 3, PBKDF2/SHA-256), whose challenge is sealed rather than remembered.
/// </summary>
internal sealed class SpamCheck(PorchDb db, IDataProtectionProvider protection, Quotas quotas, TimeProvider time)
{
    private const string Algorithm = "PBKDF2/SHA-256";
    private const int Rounds = 2_000;
    private const string Prefix = "00";
    private const int KeyBytes = 32;
    private const string Ticketed = "ticket";
    private const int SendsATicket = 5;
    private static readonly Duration ProofLifetime = Duration.FromMinutes(30);

    private readonly IDataProtector _tickets = protection.CreateProtector("PorchLight.OpenedAt");
    private readonly IDataProtector _challenges = protection.CreateProtector("PorchLight.Challenges");

    internal sealed record ChallengeParameters(
        string Algorithm,
        string Nonce,
        string Salt,
        int Cost,
        int KeyLength,
        string KeyPrefix,
        long ExpiresAt
    );

    /// <param name="Parameters">What has to be worked at.</param>
    /// <param name="Signature">The same, sealed, so that nobody makes an easier one.</param>
    internal sealed record Challenge(ChallengeParameters Parameters, string Signature);

    private sealed record Solution(uint Counter);

    private sealed record Payload(Challenge Challenge, Solution Solution);

    /// <summary>Says, for nobody to change, that a form was opened now.</summary>
    public string Ticket(Id<Form> form) => _tickets.Protect($"{form} {time.Now().ToUnixTimeMilliseconds()}");

    /// <summary>A ticket was sent with: one page is sent a few times at most, not thousands of times.</summary>
    public void Used(string? ticket)
    {
        if (ticket is { Length: > 0 and < 1000 })
            quotas.Use(Ticketed, ticket, SendsATicket, Duration.FromDays(30));
    }

    /// <summary>Something to work at for a second or so.</summary>
    public Challenge NewChallenge()
    {
        var parameters = new ChallengeParameters(
            Algorithm,
            Hex(RandomNumberGenerator.GetBytes(16)),
            Hex(RandomNumberGenerator.GetBytes(16)),
            Rounds,
            KeyBytes,
            Prefix,
            (time.Now() + ProofLifetime).ToUnixTimeSeconds()
        );
        return new Challenge(parameters, _challenges.Protect(JsonSerializer.Serialize(parameters, Json.Options)));
    }

    /// <summary>What can be told of how a form was filled in, with the name of the proof that holds, or null.</summary>
    /// <param name="form">The form.</param>
    /// <param name="ticket">What <see cref="Ticket"/> gave, or null.</param>
    /// <param name="trap">What stands in the field that people do not see.</param>
    /// <param name="proof">What the widget made, or null.</param>
    public async Task<(SpamContext Signs, string? ProofHash)> ReadAsync(
        Form form,
        string? ticket,
        string? trap,
        string? proof,
        CancellationToken cancellationToken
    )
    {
        var held = form.Settings.Guard.Proof && proof is not null ? Check(proof) : null;
        if (held is not null && await db.Submissions.AnyAsync(sent => sent.ProofHash == held, cancellationToken))
            held = null;
        return (new SpamContext(!string.IsNullOrEmpty(trap), Took(form.Id, ticket), held is not null), held);
    }

    // A clock that was set back since says nothing of the person; the ticket is ours all the same.
    private Duration? Took(Id<Form> form, string? ticket) =>
        Opened(form, ticket) is not { } opened || !quotas.IsLeft(Ticketed, ticket!, SendsATicket) ? null
        : time.Now() < opened ? Duration.MaxValue
        : time.Now() - opened;

    private Instant? Opened(Id<Form> form, string? ticket)
    {
        try
        {
            return ticket is not null && _tickets.Unprotect(ticket).Split(' ') is [var of, var at] && of == form.ToString()
                ? Instant.FromUnixTimeMilliseconds(long.Parse(at, System.Globalization.CultureInfo.InvariantCulture))
                : null;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }

    /// <summary>The name of a proof that holds; null for one that does not.</summary>
    private string? Check(string proof)
    {
        try
        {
            var payload = JsonSerializer.Deserialize<Payload>(Convert.FromBase64String(proof), Json.Options);
            if (payload is null)
                return null;
            // Only what was sealed counts, whatever stands beside it.
            var asked = JsonSerializer.Deserialize<ChallengeParameters>(_challenges.Unprotect(payload.Challenge.Signature), Json.Options)!;
            if (asked.ExpiresAt < time.Now().ToUnixTimeSeconds())
                return null;
            var password = new byte[16 + sizeof(uint)];
            Convert.FromHexString(asked.Nonce).CopyTo(password, 0);
            BinaryPrimitives.WriteUInt32BigEndian(password.AsSpan(16), payload.Solution.Counter);
            var key = Rfc2898DeriveBytes.Pbkdf2(
                password,
                Convert.FromHexString(asked.Salt),
                asked.Cost,
                HashAlgorithmName.SHA256,
                asked.KeyLength
            );
            return Hex(key).StartsWith(asked.KeyPrefix, StringComparison.Ordinal)
                ? Hex(SHA256.HashData(Encoding.UTF8.GetBytes(asked.Nonce)))
                : null;
        }
        catch (Exception failure) when (failure is FormatException or JsonException or CryptographicException or ArgumentException)
        {
            return null;
        }
    }

    private static string Hex(byte[] bytes) => Convert.ToHexStringLower(bytes);
}
