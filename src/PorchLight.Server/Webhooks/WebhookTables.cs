using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Webhooks;

/// <summary>How webhooks and the log of what was delivered are kept. What tells of a client goes with them.</summary>
internal static class WebhookTables
{
    public static ModelConfigurationBuilder HaveWebhooks(this ModelConfigurationBuilder builder) =>
        builder.HaveId<Webhook>().HaveId<WebhookCall>().HaveJson<IReadOnlyList<WebhookTry>>();

    public static void MapWebhooks(this ModelBuilder builder)
    {
        builder.Entity<Webhook>().ToTable("Webhooks");
        // Each step of a run takes effect once; this key is what holds it.
        builder.Entity<WebhookCall>().HasIndex(call => call.EffectKey).IsUnique();
        builder.Entity<WebhookCall>().HasIndex(call => call.NextTry).HasFilter("\"NextTry\" IS NOT NULL");
        builder.Entity<WebhookCall>().HasIndex(call => new { call.WebhookId, call.Written });
        builder.Entity<WebhookCall>().HasIndex(call => call.ClientId);
        builder.Entity<WebhookCall>().HasIndex(call => new { call.Written, call.Id });
        builder.Entity<WebhookCall>().HasOne<Webhook>().WithMany().HasForeignKey(call => call.WebhookId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<WebhookCall>().HasOne<Client>().WithMany().HasForeignKey(call => call.ClientId).OnDelete(DeleteBehavior.Cascade);
    }
}
