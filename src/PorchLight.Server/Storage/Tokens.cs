using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.DataProtection;

namespace PorchLight.Server.Storage;

/// <summary>A new public token, and how it is kept: looked up by hash, and encrypted where it must be shown again.</summary>
internal sealed record StoredToken(string Token, string Hash, string Sealed);

/// <summary>Makes and opens public tokens: 128 random bits, in letters that are safe in an address.</summary>
internal sealed class Tokens(IDataProtectionProvider protection)
{
    private readonly IDataProtector _protector = protection.CreateProtector("PorchLight.PublicTokens");

    public StoredToken Create()
    {
        var token = Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(16));
        return new StoredToken(token, Hash(token), _protector.Protect(token));
    }

    public string Seal(string secret) => _protector.Protect(secret);

    public string Open(string kept) => _protector.Unprotect(kept);

    public static string Hash(string token) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(token)));
}
