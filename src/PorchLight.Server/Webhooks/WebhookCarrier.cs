using System.Text;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Webhooks;

/// <summary>Delivers calls by HTTP.</summary>
internal sealed class WebhookCarrier : IDisposable
{
    private readonly HttpClient _http;
    private readonly TimeProvider _time;

    public WebhookCarrier(IConfiguration configuration, TimeProvider time)
    {
        var privateToo = configuration.GetValue("PorchLight:WebhooksMayCallPrivateAddresses", false);
        _time = time;
        _http = new HttpClient(OutsideHttp.Handler(privateToo))
        {
            Timeout = TimeSpan.FromSeconds(configuration.GetValue("PorchLight:WebhookTimeoutSeconds", 15.0)),
        };
    }

    public async Task<WebhookTry> CarryAsync(string address, string secret, Guid delivery, string body, CancellationToken cancellationToken)
    {
        var now = _time.Now();
        if (OutsideHttp.IsPractice(address))
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
            return new WebhookTry(now, null, OutsideHttp.Say(failure));
        }
    }

    public void Dispose() => _http.Dispose();
}
