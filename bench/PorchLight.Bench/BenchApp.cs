using System.Data.Common;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Server.Brand;
using PorchLight.Server.Storage;
using PorchLight.Testing;

namespace PorchLight.Bench;

/// <summary>The real program on a real port, each commit on disk, with two bare addresses beside it to measure against.</summary>
internal sealed class BenchApp : AppFactory
{
    private static readonly DateTimeOffset RunBegan = TimeProvider.System.GetUtcNow();

    public BenchApp()
    {
        (Durable, FromScratch) = (true, true);
        // Passwords cost what they cost in real use; tests make them cheap.
        Change = services =>
            services.PostConfigure<PasswordHasherOptions>(hashing => hashing.IterationCount = new PasswordHasherOptions().IterationCount);
        Listen();
        Address = new Uri($"http://127.0.0.1:{ClientOptions.BaseAddress.Port}");
    }

    public Uri Address { get; }

    /// <summary>How much longer every commit takes than on the disk of this machine.</summary>
    public TimeSpan CommitTakesLonger { get; init; }

    protected override TimeProvider Clock => TimeProvider.System;

    protected override DateTimeOffset MadeAt => RunBegan;

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        base.ConfigureWebHost(builder);
        // All who are played here come from one address.
        foreach (var purse in new[] { "MegabytesByAddress", "MegabytesByForm", "MegabytesInAll" })
            builder.UseSetting($"PorchLight:{purse}", "1000000");
        builder.UseContentRoot(Repository.Find("src/PorchLight.Server"));
        builder.ConfigureServices(services =>
            services
                .AddSingleton<IStartupFilter, BareAddresses>()
                .ConfigureDbContext<PorchDb>(options => options.AddInterceptors(new SlowerDisk(this)))
        );
    }

    private sealed class SlowerDisk(BenchApp app) : DbTransactionInterceptor
    {
        public override Task TransactionCommittedAsync(
            DbTransaction transaction,
            TransactionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            // As a disk does it: whoever commits waits, and a timer of the pool would be less exact.
            Thread.Sleep(app.CommitTakesLonger);
            return Task.CompletedTask;
        }
    }

    /// <summary>
    /// /bare/nothing answers at once; /bare/insert commits one row first, /bare/rows as many as a send stores, both in the way every
    /// row is written here.
    /// </summary>
    private sealed class BareAddresses : IStartupFilter
    {
        private const int RowsOfASend = 21;
        private static readonly byte[] Row = new byte[100];

        public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) =>
            app =>
            {
                app.Map("/bare/insert", bare => bare.Run(http => InsertAsync(http, 1)));
                app.Map("/bare/rows", bare => bare.Run(http => InsertAsync(http, RowsOfASend)));
                app.Map("/bare/nothing", bare => bare.Run(http => http.Response.WriteAsync("ok")));
                next(app);
            };

        private static async Task InsertAsync(HttpContext http, int rows)
        {
            var db = http.RequestServices.GetRequiredService<PorchDb>();
            await using var write = await db.WriteAsync(http.RequestAborted);
            for (var row = 0; row < rows; row++)
                db.BrandPictures.Add(
                    new BrandPicture
                    {
                        Hash = Guid.NewGuid().ToString(),
                        ContentType = "image/png",
                        Bytes = Row,
                    }
                );
            await write.SaveAsync(http.RequestAborted);
            await http.Response.WriteAsync("ok");
        }
    }
}
