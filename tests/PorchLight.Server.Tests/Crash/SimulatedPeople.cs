using System.Collections.Concurrent;
using System.Net;
using System.Text.Json;
using PorchLight.Server.Demo;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests.Crash;

/// <summary>People who go on with what they do, whatever becomes of the program, and remember what it told them.</summary>
internal sealed class SimulatedPeople(AppProcess app, Uri form, Random random)
{
    private const int LeadsEachLife = 5;

    /// <summary>The receipt of every sending that was acknowledged, by its send key.</summary>
    public ConcurrentDictionary<Guid, string> Acknowledged { get; } = [];

    /// <summary>Sendings whose senders gave up before anybody answered: they may be there, or not.</summary>
    public ConcurrentBag<Guid> GivenUp { get; } = [];

    /// <summary>Steps whose sending the program confirmed to the owner.</summary>
    public ConcurrentBag<(string Run, string Step)> Nodded { get; } = [];

    /// <summary>Refusals nobody should have got.</summary>
    public ConcurrentBag<string> Surprises { get; } = [];

    /// <summary>Sends one inquiry after the other. A lost line is tried again with the same key, as a browser does.</summary>
    public async Task LeadsAsync(int who, CancellationToken cancellationToken)
    {
        using var http = new HttpClient { BaseAddress = app.Address };
        for (var n = 0; !cancellationToken.IsCancellationRequested; n++)
        {
            var life = app.Up;
            await life.WaitAsync(cancellationToken);
            if (n % LeadsEachLife == 0 && n > 0)
                await NextLifeAsync(life, cancellationToken);
            await FillInAsync(http, $"lead-{who}-{n}@bakes.example", cancellationToken);
        }
    }

    /// <summary>Reads, fills and sends what waits for a nod, and lets time pass until something does.</summary>
    public async Task OwnerAsync(CancellationToken cancellationToken)
    {
        using var owner = new HttpClient(new SendKeys { InnerHandler = new SocketsHttpHandler { CookieContainer = new CookieContainer() } })
        {
            BaseAddress = app.Address,
        };
        var isIn = false;
        while (!cancellationToken.IsCancellationRequested)
        {
            await app.Up.WaitAsync(cancellationToken);
            try
            {
                if (!isIn)
                    await SignInAsync(owner, cancellationToken);
                isIn = true;
                await WorkAsync(owner, cancellationToken);
            }
            catch (Exception lost) when (lost is HttpRequestException or IOException or JsonException)
            {
                // The program went down in the middle of it; whatever was not confirmed is tried again.
            }
        }
    }

    private async Task FillInAsync(HttpClient http, string email, CancellationToken cancellationToken)
    {
        var key = Guid.NewGuid();
        try
        {
            while (!await TrySendAsync(http, key, email, cancellationToken)) { }
        }
        finally
        {
            // However it ended, also in the middle of waiting for the program.
            if (!Acknowledged.ContainsKey(key))
                GivenUp.Add(key);
        }
    }

    /// <summary>Sends once; whether they leave it at that.</summary>
    private async Task<bool> TrySendAsync(HttpClient http, Guid key, string email, CancellationToken cancellationToken)
    {
        await app.Up.WaitAsync(cancellationToken);
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancellationToken);
        // Some lines are lost on the way, though the program stands.
        if (Next(4) == 0)
            patience.CancelAfter(TimeSpan.FromMilliseconds(Next(25)));
        try
        {
            var sent = await http.PostAsync(
                new Uri(form, "send"),
                Body(
                    new
                    {
                        version = 1,
                        sendKey = key,
                        answers = Answers(email),
                        cameFrom = (string?)null,
                    }
                ),
                patience.Token
            );
            if (!sent.IsSuccessStatusCode)
            {
                Surprises.Add($"{sent.StatusCode} to a lead: {await sent.Content.ReadAsStringAsync(cancellationToken)}");
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
            return cancellationToken.IsCancellationRequested || Next(8) == 0;
        }
    }

    private static async Task SignInAsync(HttpClient owner, CancellationToken cancellationToken)
    {
        await RefreshTokenAsync(owner);
        (
            await owner.PostAsync(
                "/api/sign-in",
                Body(new { email = DemoBusiness.OwnerMail, password = DemoBusiness.Password }),
                cancellationToken
            )
        ).EnsureSuccessStatusCode();
        await RefreshTokenAsync(owner);
    }

    private async Task WorkAsync(HttpClient owner, CancellationToken cancellationToken)
    {
        var nods = await WaitingAsync(owner, cancellationToken);
        foreach (var nod in nods)
        {
            var (run, step) = (nod.Text("runId"), nod.Text("step"));
            var shown = await owner.GetAsync($"/api/nods/{run}/{step}", cancellationToken);
            if (!shown.IsSuccessStatusCode)
                continue;
            var found = (await shown.JsonAsync()).GetProperty("draft");
            var now = JsonSerializer.Deserialize<JsonElement>(
                found.GetRawText().Replace("\"filled\":null", "\"filled\":\"I know that wall.\"", StringComparison.Ordinal)
            );
            var saved = await owner.PutAsync($"/api/nods/{run}/{step}", Body(new { was = found, now }), cancellationToken);
            if (!saved.IsSuccessStatusCode)
                continue;
            var sent = await owner.PostAsync(
                $"/api/nods/{run}/{step}/send",
                Body(new { seen = (await saved.JsonAsync()).GetProperty("draft"), now = true }),
                cancellationToken
            );
            if (sent.IsSuccessStatusCode)
                Nodded.Add((run, step));
            else if (sent.StatusCode != HttpStatusCode.Conflict)
                Surprises.Add($"{sent.StatusCode} to a nod: {await sent.Content.ReadAsStringAsync(cancellationToken)}");
        }

        if (nods.Count > 0)
            return;
        await owner.PostAsync("/api/practice/clock/skip", Body(new { to = "nextStep" }), cancellationToken);
        // The worker has to find what fell due; whoever skips on at once skips over the days in which it can be sent.
        for (var polls = 0; polls < 50 && (await WaitingAsync(owner, cancellationToken)).Count == 0; polls++)
            await Task.Delay(20, cancellationToken);
    }

    private static async Task<List<JsonElement>> WaitingAsync(HttpClient owner, CancellationToken cancellationToken) =>
        [
            .. (await owner.GetAsync("/api/today", cancellationToken).JsonAsync())
                .GetProperty("nods")
                .EnumerateArray()
                .Where(nod => nod.GetProperty("goes").ValueKind == JsonValueKind.Null)
                .Take(3),
        ];

    private async Task NextLifeAsync(Task life, CancellationToken cancellationToken)
    {
        while (ReferenceEquals(app.Up, life))
            await Task.Delay(5, cancellationToken);
        await app.Up.WaitAsync(cancellationToken);
    }

    private int Next(int below)
    {
        lock (random)
            return random.Next(below);
    }
}
