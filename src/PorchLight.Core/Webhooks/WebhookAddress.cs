using System.Net;
using System.Net.Sockets;

namespace PorchLight.Core.Webhooks;

/// <summary>Where a webhook may call: the open internet, and nothing behind the machine this program runs on.</summary>
public static class WebhookAddress
{
    private const int Longest = 500;

    /// <summary>Whether an address leads only to this machine, or to what stands in the same network: nobody outside can open it.</summary>
    /// <param name="site">An address of the web: "https://forms.example.com". What is none leads nowhere, and counts as such.</param>
    public static bool IsOnlyNear(string site) =>
        !Uri.TryCreate(site, UriKind.Absolute, out var address)
        || (
            IPAddress.TryParse(address.Host.Trim('[', ']'), out var number)
                ? !IsPublic(number)
                : !address.Host.Contains('.', StringComparison.Ordinal)
                    || address.Host.EndsWith(".localhost", StringComparison.OrdinalIgnoreCase)
                    || address.Host.EndsWith(".local", StringComparison.OrdinalIgnoreCase)
        );

    /// <summary>
    /// The networks that are not the open internet: blocks of the IANA registries of special-purpose addresses for IPv4 and IPv6 (RFC 6890
    /// and what was added to the registries since), the former site-local addresses (RFC 3879) and multicast (RFC 5771, RFC 4291).
    /// </summary>
    private static readonly IPNetwork[] Special =
    [
        .. new[]
        {
            "0.0.0.0/8",
            "10.0.0.0/8",
            "100.64.0.0/10",
            "127.0.0.0/8",
            "169.254.0.0/16",
            "172.16.0.0/12",
            "192.0.0.0/24",
            "192.0.2.0/24",
            "192.88.99.0/24",
            "192.168.0.0/16",
            "198.18.0.0/15",
            "198.51.100.0/24",
            "203.0.113.0/24",
            "224.0.0.0/4",
            "240.0.0.0/4",
            "::/128",
            "::1/128",
            "64:ff9b:1::/48",
            "100::/64",
            "2001::/23",
            "2001:db8::/32",
            "2002::/16",
            "3fff::/20",
            "5f00::/16",
            "fc00::/7",
            "fe80::/10",
            "fec0::/10",
            "ff00::/8",
        }.Select(network => IPNetwork.Parse(network)),
    ];

    /// <summary>What is wrong with an address, as a sentence; null for nothing.</summary>
    /// <param name="address">The address as it was typed.</param>
    public static string? Check(string address) =>
        address.Length <= Longest
        && Uri.TryCreate(address.Trim(), UriKind.Absolute, out var uri)
        && uri is { Scheme: "https" or "http", UserInfo: "" }
        && uri.Host.Length > 0
            ? null
            : "Give the whole address, like https://hooks.example.com/porch.";

    /// <summary>
    /// Whether an address of the network belongs to the open internet. One of IPv6 that stands for one of IPv4 (RFC 4291, 2.5.5.2; RFC
    /// 6052, 2.1) is judged by that one.
    /// </summary>
    /// <param name="address">The address that a name led to.</param>
    public static bool IsPublic(IPAddress address)
    {
        if (address.IsIPv4MappedToIPv6)
            return IsPublic(address.MapToIPv4());
        var bytes = address.GetAddressBytes();
        if (address.AddressFamily == AddressFamily.InterNetworkV6 && Translated.Contains(address))
            return IsPublic(new IPAddress(bytes[^4..]));
        return !Special.Any(network => network.BaseAddress.AddressFamily == address.AddressFamily && network.Contains(address));
    }

    private static readonly IPNetwork Translated = IPNetwork.Parse("64:ff9b::/96");
}
