using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Demo;
using static PorchLight.Testing.Requests;

namespace PorchLight.Bench;

/// <summary>What a person waits for who looks at a list, beside the bare question to the database that it comes down to.</summary>
internal static class ListBench
{
    private const int Times = 40;

    public static async Task<HttpClient> SignInAsync(BenchApp app)
    {
        var owner = new HttpClient { BaseAddress = app.Address };
        await RefreshTokenAsync(owner);
        (
            await owner.PostAsync("/api/sign-in", Body(new { email = DemoBusiness.OwnerMail, password = DemoBusiness.Password }))
        ).EnsureSuccessStatusCode();
        await RefreshTokenAsync(owner);
        return owner;
    }

    public static async Task MeasureAsync(BenchApp app, HttpClient owner, string name, string path, object query, string sql)
    {
        var (bare, whole) = (new List<double>(), new List<double>());
        for (var time = -5; time < Times; time++)
        {
            var started = Stopwatch.GetTimestamp();
            await app.AskAsync(async db => await db.Database.SqlQueryRaw<string>(sql).ToListAsync());
            var between = Stopwatch.GetTimestamp();
            var found = await owner.PostAsync(
                path,
                Body(
                    new
                    {
                        query,
                        skip = 0,
                        take = 100,
                    }
                )
            );
            found.EnsureSuccessStatusCode();
            await found.Content.ReadAsByteArrayAsync();
            if (time < 0)
                continue;
            bare.Add(Stopwatch.GetElapsedTime(started, between).TotalMilliseconds);
            whole.Add(Stopwatch.GetElapsedTime(between).TotalMilliseconds);
        }

        Console.WriteLine($"{name}, 95th percentile: {At(bare):0.0} ms bare question, {At(whole):0.0} ms with its page of 100");

        static double At(List<double> times) => times.Order().ElementAt((int)(times.Count * 0.95));
    }
}
