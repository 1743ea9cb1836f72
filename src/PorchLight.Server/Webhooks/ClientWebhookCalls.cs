using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Webhooks;

/// <summary>What other programs were told of a client.</summary>
internal sealed class ClientWebhookCalls(PorchDb db) : IClientPart
{
    public IEnumerable<ClientRows> RowsOf(WholePerson person)
    {
        var records = person.Records;
        yield return new ClientRows<WebhookCall>(db.WebhookCalls.Where(one => one.ClientId != null && records.Contains(one.ClientId.Value)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One call of a webhook that told of them", "{0} calls of webhooks that told of them"),
            Saved = one => new { At = one.Written, one.Body },
        };
    }
}
