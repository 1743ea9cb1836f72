using NodaTime;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Webhooks;

/// <summary>Delivers calls whose time to be tried has come, to some hosts at a time; to each its calls one after the other.</summary>
internal sealed class WebhookWork(WebhookQueue webhooks, DueItems items) : IDueWork
{
    private const int HostsTogether = 4;

    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        var allWell = true;
        await Parallel.ForEachAsync(
            (await webhooks.DueAsync(cancellationToken)).GroupBy(call => call.Webhook, call => call.Id),
            new ParallelOptions { MaxDegreeOfParallelism = HostsTogether, CancellationToken = cancellationToken },
            async (calls, token) =>
            {
                // A host that does not answer is waited for once: its other calls come with a later pass.
                var answers = true;
                foreach (var call in calls.TakeWhile(_ => answers))
                {
                    if (
                        !await items.TryAsync(
                            "webhook",
                            call,
                            async services => answers = await services.GetRequiredService<WebhookQueue>().DeliverAsync(call, token)
                        )
                    )
                        allWell = false;
                }
            }
        );
        return allWell ? await webhooks.NextTryAsync(cancellationToken) : null;
    }
}
