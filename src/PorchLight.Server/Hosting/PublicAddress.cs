using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;

namespace PorchLight.Server.Hosting;

/// <summary>
/// The address of this program, for every link it writes: the one its owner set, or else that of this machine. What a
/// request calls us is never believed: anybody can write a Host header.
/// </summary>
internal sealed class PublicAddress(IServer server)
{
    private static readonly string[] Loopback = ["localhost", "127.0.0.1", "[::1]"];
    private volatile string? _set;

    /// <summary>"https://forms.example.com", without a slash at the end.</summary>
    public string Site => _set ?? Local;

    private string Local =>
        server.Features.Get<IServerAddressesFeature>()?.Addresses.FirstOrDefault() is { } bound
        && Uri.TryCreate(
            bound.Replace("//+", "//localhost", StringComparison.Ordinal).Replace("//*", "//localhost", StringComparison.Ordinal),
            UriKind.Absolute,
            out var address
        )
            ? $"{address.Scheme}://{(address.Host is "0.0.0.0" or "[::]" or "127.0.0.1" or "[::1]" ? "localhost" : address.Host)}:{address.Port}"
            : "http://localhost";

    /// <summary>Where a file of the business's own is had, on this site.</summary>
    public static string OfFile(Guid file) => $"/public/files/{file}";

    /// <summary>Takes the address the owner set; empty for none.</summary>
    public void Use(string publicAddress) => _set = publicAddress.Length == 0 ? null : publicAddress.TrimEnd('/');

    /// <summary>
    /// Whether the program answers to a name: to its own, and always to those of this machine. Before an owner has set
    /// one, to any.
    /// </summary>
    public bool AnswersTo(HostString host) =>
        _set is not { } set
        || Loopback.Contains(host.Host, StringComparer.OrdinalIgnoreCase)
        || string.Equals(new Uri(set).Host, host.Host, StringComparison.OrdinalIgnoreCase);
}

internal static class KnownHosts
{
    /// <summary>Refuses requests for a program of another name.</summary>
    public static void UseKnownHosts(this WebApplication app)
    {
        var address = app.Services.GetRequiredService<PublicAddress>();
        app.Use(
            (http, next) =>
                address.AnswersTo(http.Request.Host)
                    ? next(http)
                    : Problems
                        .Say(
                            StatusCodes.Status421MisdirectedRequest,
                            $"Porch Light is at {address.Site}. If its address has changed, its owner can set the new one from the machine it runs on."
                        )
                        .ExecuteAsync(http)
        );
    }
}
