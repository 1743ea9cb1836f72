using System.Net;
using System.Net.Sockets;
using System.Security.Authentication;
using System.Text;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Calendar;

namespace PorchLight.Server.Webhooks;

/// <summary>
/// Delivers calls by HTTP. A name is judged by the address it leads to at the moment of the call, so that no name can be led into the
/// network this program stands in afterwards; redirects are not followed for the same reason.
/// </summary>
internal sealed class WebhookCarrier : IDisposable
{
    /// <summary>The end of names that lead nowhere (RFC 2606): calls there stay with the simulated receiver, which takes them.</summary>
    private const string PracticeDomain = ".example";

    private readonly HttpClient _http;
    private readonly TimeProvider _time;

    public WebhookCarrier(IConfiguration configuration, TimeProvider time)
    {
        var privateToo = configuration.GetValue("PorchLight:WebhooksMayCallPrivateAddresses", false);
        _time = time;
        _http = new HttpClient(
            new SocketsHttpHandler
            {
                AllowAutoRedirect = false,
                UseCookies = false,
                UseProxy = false,
                PooledConnectionLifetime = TimeSpan.FromMinutes(5),
                ConnectCallback = (context, cancellationToken) => ConnectAsync(context.DnsEndPoint, privateToo, cancellationToken),
            }
        )
        {
            Timeout = TimeSpan.FromSeconds(configuration.GetValue("PorchLight:WebhookTimeoutSeconds", 15.0)),
        };
    }

    /// <summary>Whether calls to an address stay in the program.</summary>
    public static bool IsPractice(string address) => new Uri(address).Host.EndsWith(PracticeDomain, StringComparison.OrdinalIgnoreCase);

    public async Task<WebhookTry> CarryAsync(string address, string secret, Guid delivery, string body, CancellationToken cancellationToken)
    {
        var now = _time.Now();
        if (IsPractice(address))
            return WebhookDelivery.Answered(StatusCodes.Status200OK, now);
        using var request = new HttpRequestMessage(HttpMethod.Post, address);
        request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        request.Headers.Add(WebhookSignature.DeliveryHeader, delivery.ToString());
        request.Headers.Add(
            WebhookSignature.TimeHeader,
            now.ToUnixTimeSeconds().ToString(System.Globalization.CultureInfo.InvariantCulture)
        );
        request.Headers.Add(WebhookSignature.Header, WebhookSignature.Sign(secret, now, body));
        try
        {
            // What the other side writes back is of no use; its status is enough.
            using var answer = await _http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancellationToken);
            return WebhookDelivery.Answered((int)answer.StatusCode, now);
        }
        catch (OperationCanceledException) when (!cancellationToken.IsCancellationRequested)
        {
            return new WebhookTry(now, null, "The other side does not answer in time.");
        }
        catch (HttpRequestException failure)
        {
            return new WebhookTry(now, null, Say(failure));
        }
    }

    public void Dispose() => _http.Dispose();

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

    private static string Say(HttpRequestException failure) =>
        failure.InnerException switch
        {
            PrivateAddressException => "This address leads into your own network, where webhooks do not call.",
            AuthenticationException => "The other side cannot be trusted: its certificate does not fit.",
            _ when failure.HttpRequestError == HttpRequestError.NameResolutionError => "Nobody knows an address of this name.",
            _ => "The other side cannot be reached.",
        };

    private sealed class PrivateAddressException : Exception;
}
