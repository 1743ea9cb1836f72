using System.Net;
using System.Net.Sockets;
using System.Security.Authentication;
using PorchLight.Core.Webhooks;

namespace PorchLight.Server.Hosting;

/// <summary>
/// Calls to addresses that people type in. A name is judged by the address it leads to at the moment of the call, so that no name can be led
/// into the network this program stands in afterwards; redirects are not followed for the same reason.
/// </summary>
internal static class OutsideHttp
{
    /// <summary>The end of names that lead nowhere (RFC 2606): what is said to them stays in the program.</summary>
    private const string PracticeDomain = ".example";

    /// <summary>Whether calls to an address stay in the program.</summary>
    public static bool IsPractice(string address) => new Uri(address).Host.EndsWith(PracticeDomain, StringComparison.OrdinalIgnoreCase);

    /// <param name="privateToo">Whether addresses of the own network may be called, too.</param>
    public static SocketsHttpHandler Handler(bool privateToo) =>
        new()
        {
            AllowAutoRedirect = false,
            UseCookies = false,
            UseProxy = false,
            PooledConnectionLifetime = TimeSpan.FromMinutes(5),
            ConnectCallback = (context, cancellationToken) => ConnectAsync(context.DnsEndPoint, privateToo, cancellationToken),
        };

    /// <summary>Why a call did not arrive, as a sentence.</summary>
    public static string Say(HttpRequestException failure) =>
        failure.InnerException switch
        {
            PrivateAddressException => "This address leads into your own network, where Porch Light does not call.",
            AuthenticationException => "The other side cannot be trusted: its certificate does not fit.",
            _ when failure.HttpRequestError == HttpRequestError.NameResolutionError => "Nobody knows an address of this name.",
            _ => "The other side cannot be reached.",
        };

    private static async ValueTask<Stream> ConnectAsync(DnsEndPoint to, bool privateToo, CancellationToken cancellationToken)
    {
        var found = await Dns.GetHostAddressesAsync(to.Host, cancellationToken);
        var allowed = privateToo ? found : [.. found.Where(WebhookAddress.IsPublic)];
        if (allowed.Length == 0)
            throw new PrivateAddressException();
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(allowed, to.Port, cancellationToken);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    private sealed class PrivateAddressException : Exception;
}
