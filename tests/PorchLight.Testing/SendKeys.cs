using PorchLight.Server.Hosting;

namespace PorchLight.Testing;

/// <summary>Gives every request a send key of its own, as pressing a button does, unless it has one.</summary>
internal sealed class SendKeys : DelegatingHandler
{
    protected override Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken)
    {
        if (!request.Headers.Contains(SendOnce.Header))
            request.Headers.Add(SendOnce.Header, Guid.NewGuid().ToString());
        return base.SendAsync(request, cancellationToken);
    }
}
