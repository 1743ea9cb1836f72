using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using PorchLight.Testing;
using static PorchLight.Testing.Requests;

namespace PorchLight.Bench;

/// <summary>
/// What is written out of 20,000 inquiries, and what somebody waits for who sends or searches while the words of all of them are
/// still to be indexed.
/// </summary>
internal static class ExportsBench
{
    private const int Sends = 60;

    public static async Task MeasureAsync(BenchApp app)
    {
        await app.ChangeFormAsync(settings => settings with { Guard = new(LeastSeconds: 0) });
        for (var n = 0; n < 20; n++)
            (await app.SendAsync(Requests.Answers($"warm{n}@lodge.example"))).EnsureSuccessStatusCode();
        var quiet = await SendingAsync(app, "quiet");
        await app.AskAsync(ClientsBench.FillAsync);
        await app.AskAsync(InquiriesBench.FillAsync);
        using var owner = await ListBench.SignInAsync(app);
        var meanwhile = await SendingAsync(app, "meanwhile");
        Console.WriteLine(
            $"a send while 20,000 are being indexed: {At(meanwhile, 0.5):0.0} ms at the median, {meanwhile.Max():0} ms at most; before, {At(quiet, 0.5):0.0} and {quiet.Max():0}"
        );
        var question = Body(
            new
            {
                query = new { words = "given17 howth" },
                skip = 0,
                take = 100,
            }
        );
        Console.WriteLine(
            $"a search meanwhile: {await TimeAsync(async () => await owner.PostAsync("/api/inquiries/found", question)):0} ms"
        );

        var form = (await app.AskAsync(db => db.Submissions.AsNoTracking().FirstAsync())).FormId;
        var bare = await TimeAsync(async () =>
        {
            await app.AskAsync(db =>
                db.Database.SqlQueryRaw<string>("SELECT s.Answers AS Value FROM Inquiries i JOIN Submissions s ON s.Id = i.SubmissionId")
                    .ToListAsync()
            );
            return null;
        });
        Console.WriteLine($"the bare question for what all of them sent: {bare:0} ms");
        foreach (var path in new[] { "/api/today", "/api/inquiries.csv", $"/api/forms/{form}/answers.csv" })
        {
            var started = Stopwatch.GetTimestamp();
            using var answer = await owner.GetAsync(path, HttpCompletionOption.ResponseHeadersRead);
            answer.EnsureSuccessStatusCode();
            var first = Stopwatch.GetElapsedTime(started).TotalMilliseconds;
            var bytes = (await answer.Content.ReadAsByteArrayAsync()).Length;
            var whole = Stopwatch.GetElapsedTime(started).TotalMilliseconds;
            Console.WriteLine(
                $"{path}: {first:0} ms to the first byte, {whole:0} ms for {bytes / 1e6:0.00} MB, {whole / bare:0.0} bare questions"
            );
        }
    }

    private static async Task<List<double>> SendingAsync(BenchApp app, string name)
    {
        var times = new List<double>();
        for (var n = 0; n < Sends; n++)
        {
            var started = Stopwatch.GetTimestamp();
            (await app.SendAsync(Requests.Answers($"{name}{n}@lodge.example"))).EnsureSuccessStatusCode();
            times.Add(Stopwatch.GetElapsedTime(started).TotalMilliseconds);
        }

        return times;
    }

    private static async Task<double> TimeAsync(Func<Task<HttpResponseMessage?>> ask)
    {
        var started = Stopwatch.GetTimestamp();
        using var answer = await ask();
        answer?.EnsureSuccessStatusCode();
        return Stopwatch.GetElapsedTime(started).TotalMilliseconds;
    }

    private static double At(List<double> times, double share) => times.Order().ElementAt((int)(times.Count * share));
}
