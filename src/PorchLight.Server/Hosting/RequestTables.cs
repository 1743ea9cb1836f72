using Microsoft.EntityFrameworkCore;

namespace PorchLight.Server.Hosting;

/// <summary>How completed requests are kept.</summary>
internal static class RequestTables
{
    public static void MapRequests(this ModelBuilder builder)
    {
        builder.Entity<CompletedRequest>().HasKey(act => act.Key);
        builder.Entity<CompletedRequest>().Property(act => act.Key).ValueGeneratedNever();
    }
}
