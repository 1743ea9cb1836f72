using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json;
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
            await PageAsync(owner, path, query, null);
            if (time < 0)
                continue;
            bare.Add(Stopwatch.GetElapsedTime(started, between).TotalMilliseconds);
            whole.Add(Stopwatch.GetElapsedTime(between).TotalMilliseconds);
        }

        Console.WriteLine(
            $"{name}, 95th percentile (middle): {At(bare):0.0} ({At(bare, 0.5):0.0}) ms bare question, "
                + $"{At(whole):0.0} ({At(whole, 0.5):0.0}) ms with its page of 100"
        );
    }

    /// <summary>The same of the last page of a list, which stands behind all others.</summary>
    public static async Task MeasureEndAsync(HttpClient owner, string name, string path)
    {
        var (after, pages) = ((string?)null, 0);
        while (await PageAsync(owner, path, new { }, after) is { } next)
            (after, pages) = (next, pages + 1);
        var took = new List<double>();
        for (var time = -5; time < Times; time++)
        {
            var began = Stopwatch.GetTimestamp();
            await PageAsync(owner, path, new { }, after);
            if (time >= 0)
                took.Add(Stopwatch.GetElapsedTime(began).TotalMilliseconds);
        }

        Console.WriteLine($"{name}, 95th percentile: {At(took):0.0} ms the page behind {pages} others");
    }

    /// <summary>The 95th percentile, or another share: on a busy machine the middle says more than the end.</summary>
    public static double At(List<double> times, double share = 0.95) => times.Order().ElementAt((int)(times.Count * share));

    private static async Task<string?> PageAsync(HttpClient owner, string path, object query, string? after)
    {
        var found = await owner.PostAsync(path, Asked(query, after, 100));
        found.EnsureSuccessStatusCode();
        return (await found.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("next").GetString();
    }
}
