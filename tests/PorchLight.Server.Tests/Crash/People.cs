using System.Collections.Concurrent;
using System.Net;
using System.Text.Json;
using PorchLight.Server.Demo;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests.Crash;

/// <summary>People who go on with what they do, whatever becomes of the house, and remember what it told them.</summary>
internal sealed class People(HouseProcess house, Uri form, Random random)
{
    private const int LeadsEachLife = 5;

    /// <summary>The receipt of every sending that was acknowledged, by its send key.</summary>
    public ConcurrentDictionary<Guid, string> Acknowledged { get; } = [];

    /// <summary>Sendings whose senders gave up before anybody answered: they may be there, or not.</summary>
    public ConcurrentBag<Guid> GivenUp { get; } = [];

    /// <summary>Steps whose sending the house confirmed to the owner.</summary>
    public ConcurrentBag<(string Run, string Step)> Nodded { get; } = [];

    /// <summary>Refusals nobody should have got.</summary>
    public ConcurrentBag<string> Surprises { get; } = [];

    /// <summary>Sends one inquiry after the other. A lost line is tried again with the same key, as a browser does.</summary>
    public async Task LeadsAsync(int who, CancellationToken stop)
    {
        using var http = new HttpClient { BaseAddress = house.Address };
        for (var n = 0; !stop.IsCancellationRequested; n++)
        {
            var life = house.Up;
            await life.WaitAsync(stop);
            if (n % LeadsEachLife == 0 && n > 0)
                await NextLifeAsync(life, stop);
            await FillInAsync(http, $"lead-{who}-{n}@bakes.example", stop);
        }
    }

    /// <summary>Reads, fills and sends what waits for a nod, and lets time pass until something does.</summary>
    public async Task OwnerAsync(CancellationToken stop)
    {
        using var owner = new HttpClient(new SendKeys { InnerHandler = new SocketsHttpHandler { CookieContainer = new CookieContainer() } }) { BaseAddress = house.Address };
        var isIn = false;
        while (!stop.IsCancellationRequested)
        {
            await house.Up.WaitAsync(stop);
            try
            {
                if (!isIn)
                    await SignInAsync(owner, stop);
                isIn = true;
                await WorkAsync(owner, stop);
            }
            catch (Exception lost) when (lost is HttpRequestException or IOException or JsonException)
            {
                // The house went down in the middle of it; whatever was not confirmed is tried again.
            }
        }
    }

    private async Task FillInAsync(HttpClient http, string email, CancellationToken stop)
    {
        var key = Guid.NewGuid();
        try
        {
            while (!await TrySendAsync(http, key, email, stop))
            {
            }
        }
        finally
        {
            // However it ended, also in the middle of waiting for the house.
            if (!Acknowledged.ContainsKey(key))
                GivenUp.Add(key);
        }
    }

    /// <summary>Sends once; whether they leave it at that.</summary>
    private async Task<bool> TrySendAsync(HttpClient http, Guid key, string email, CancellationToken stop)
    {
        await house.Up.WaitAsync(stop);
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(stop);
        // Some lines are lost on the way, though the house stands.
        if (Next(4) == 0)
            patience.CancelAfter(TimeSpan.FromMilliseconds(Next(25)));
        try
        {
            var sent = await http.PostAsync(new Uri(form, "send"), Body(new { version = 1, sendKey = key, answers = Answers(email), cameFrom = (string?)null }), patience.Token);
            if (!sent.IsSuccessStatusCode)
            {
                Surprises.Add($"{sent.StatusCode} to a lead: {await sent.Content.ReadAsStringAsync(stop)}");
                return true;
            }

            var receipt = (await sent.JsonAsync()).Text("receipt");
            if (Acknowledged.GetOrAdd(key, receipt) != receipt)
                Surprises.Add($"Two receipts for the sending {key}");
            // Some answers are lost on the way back: the browser never saw it, and tries again.
            return Next(4) != 0;
        }
        catch (Exception lost) when (lost is HttpRequestException or IOException or OperationCanceledException or JsonException)
        {
            return stop.IsCancellationRequested || Next(8) == 0;
        }
    }

    private static async Task SignInAsync(HttpClient owner, CancellationToken stop)
    {
        await RefreshTokenAsync(owner);
        (await owner.PostAsync("/api/sign-in", Body(new { email = DemoBusiness.OwnerMail, password = DemoBusiness.Password }), stop)).EnsureSuccessStatusCode();
        await RefreshTokenAsync(owner);
    }

    private async Task WorkAsync(HttpClient owner, CancellationToken stop)
    {
        var nods = await WaitingAsync(owner, stop);
        foreach (var nod in nods)
        {
            var (run, step) = (nod.Text("runId"), nod.Text("step"));
            var shown = await owner.GetAsync($"/api/nods/{run}/{step}", stop);
            if (!shown.IsSuccessStatusCode)
                continue;
            var found = (await shown.JsonAsync()).GetProperty("draft");
            var now = JsonSerializer.Deserialize<JsonElement>(found.GetRawText().Replace("\"filled\":null", "\"filled\":\"I know that wall.\"", StringComparison.Ordinal));
            var saved = await owner.PutAsync($"/api/nods/{run}/{step}", Body(new { was = found, now }), stop);
            if (!saved.IsSuccessStatusCode)
                continue;
            var sent = await owner.PostAsync($"/api/nods/{run}/{step}/send", Body(new { seen = (await saved.JsonAsync()).GetProperty("draft"), now = true }), stop);
            if (sent.IsSuccessStatusCode)
                Nodded.Add((run, step));
            else if (sent.StatusCode != HttpStatusCode.Conflict)
                Surprises.Add($"{sent.StatusCode} to a nod: {await sent.Content.ReadAsStringAsync(stop)}");
        }

        if (nods.Count > 0)
            return;
        await owner.PostAsync("/api/practice/clock/skip", Body(new { to = "nextStep" }), stop);
        // The worker has to find what fell due; whoever skips on at once skips over the days in which it can be sent.
        for (var polls = 0; polls < 50 && (await WaitingAsync(owner, stop)).Count == 0; polls++)
            await Task.Delay(20, stop);
    }

    private static async Task<List<JsonElement>> WaitingAsync(HttpClient owner, CancellationToken stop) =>
        [.. (await owner.GetAsync("/api/today", stop).JsonAsync()).GetProperty("nods").EnumerateArray().Where(nod => nod.GetProperty("goes").ValueKind == JsonValueKind.Null).Take(3)];

    private async Task NextLifeAsync(Task life, CancellationToken stop)
    {
        while (ReferenceEquals(house.Up, life))
            await Task.Delay(5, stop);
        await house.Up.WaitAsync(stop);
    }

    private int Next(int below)
    {
        lock (random)
            return random.Next(below);
    }
}
