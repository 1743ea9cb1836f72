namespace PorchLight.Core.Common;

/// <summary>Tells the mail of a house of one's own from that of providers open to everybody.</summary>
public static class MailDomains
{
    /// <summary>The domains at which anybody can have a mailbox, from <c>OpenMailDomains.txt</c>, where their origin is said.</summary>
    public static IReadOnlySet<string> OpenToEverybody { get; } = Read();

    /// <summary>The domain of an address, in small letters, or null when anybody can have an address there.</summary>
    /// <param name="address">An e-mail address, or null.</param>
    public static string? OwnDomain(string? address) =>
        address is not null
        && address.LastIndexOf('@') is >= 0 and var at
        && address[(at + 1)..].ToLowerInvariant() is { Length: > 0 } domain
            ? OpenToEverybody.Contains(domain)
                ? null
                : domain
            : null;

    private static HashSet<string> Read()
    {
        using var stream = typeof(MailDomains).Assembly.GetManifestResourceStream("OpenMailDomains.txt")!;
        using var reader = new StreamReader(stream);
        return [.. reader.ReadToEnd().Split('\n', StringSplitOptions.TrimEntries).Where(line => line.Length > 0 && line[0] != '#')];
    }
}
