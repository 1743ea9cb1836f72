using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using Microsoft.EntityFrameworkCore;
using PorchLight.Bench;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Server.Storage;
using PorchLight.Testing;

// Measures the program against bare addresses of the same process and database; see docs/PERFORMANCE.md.
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["runs"])
{
    await using var house = new BenchApp();
    await RunsBench.MeasureAsync(house);
    return 0;
}

if (args is ["exports"])
{
    await using var house = new BenchApp();
    await ExportsBench.MeasureAsync(house);
    return 0;
}

if (args is ["lists"])
{
    await using var house = new BenchApp();
    // The others are made like the first one.
    await house.ChangeFormAsync(settings => settings with { Guard = new SpamGuard(LeastSeconds: 0) });
    (await house.SendAsync(Requests.Answers())).EnsureSuccessStatusCode();
    await ClientsBench.MeasureAsync(house);
    await InquiriesBench.MeasureAsync(house);
    await OtherListsBench.MeasureAsync(house);
    return 0;
}

if (args is ["addresses"])
{
    await using var house = new BenchApp();
    await AddressesBench.MeasureAsync(house);
    return 0;
}

var onlySends = args is ["send", ..];
var slower = args is ["send", var longer] ? double.Parse(longer, CultureInfo.InvariantCulture) : 0;
var seconds = args is [var given] && !onlySends ? int.Parse(given, CultureInfo.InvariantCulture) : 30;
if (!onlySends)
    await StartAndRestAsync();

await using var app = new BenchApp { CommitTakesLonger = TimeSpan.FromMilliseconds(slower) };
using var http = new HttpClient { BaseAddress = app.Address };

// What is measured sends at once, as no person does.
await app.ChangeFormAsync(settings => settings with { Guard = new SpamGuard(LeastSeconds: 0) });
var form = $"/public/forms/{await app.LinkAsync()}";
var people = 0;

for (var n = 0; n < 100; n++)
{
    await BareInsertAsync(http);
    await BareRowsAsync(http);
    await SendAsync(http);
    await EvaluateAsync(http);
    await BareAsync(http);
}

var (inserts, sends) = await SideBySideAsync(400, AtRestAsync, BareInsertAsync, SendAsync);
Console.WriteLine(
    $"send, median: {Ms(inserts, 0.5)} bare insert, {Ms(sends, 0.5)} full send, {At(sends, 0.5) / At(inserts, 0.5):0.00} times"
);
var (rows, sendsBeside) = await SideBySideAsync(400, AtRestAsync, BareRowsAsync, SendAsync);
Console.WriteLine(
    $"send beside its rows alone, median: {Ms(rows, 0.5)} bare rows, {Ms(sendsBeside, 0.5)} full send, {At(sendsBeside, 0.5) / At(rows, 0.5):0.00} times"
);
if (onlySends)
    return 0;
var (bares, evaluations) = await SideBySideAsync(2000, () => Task.CompletedTask, BareAsync, EvaluateAsync);
Console.WriteLine(
    $"evaluate, 99th percentile: {Ms(bares, 0.99)} bare address, {Ms(evaluations, 0.99)} evaluate (medians {Ms(bares, 0.5)} and {Ms(evaluations, 0.5)})"
);

var openings = PhoneBench.Open(new Uri(app.Address, form.Replace("/public/forms/", "/f/", StringComparison.Ordinal)).ToString(), 5);
Console.WriteLine($"public form on a slow phone, first control usable: {openings[2] / 1000:0.00} s (median of {openings.Count})");

await app.MakeFormAsync(WorkbenchBench.Content);
var hundred = (await app.AskAsync(db => db.Forms.ToListAsync())).Single(one => one.Draft.Title == WorkbenchBench.Content.Title).Id;
var (opened, keys) = WorkbenchBench.Measure(app.Address.ToString().TrimEnd('/'), hundred.ToString());
Console.WriteLine(
    $"workbench of a hundred questions: {opened[opened.Count / 2] / 1000:0.00} s to open (median of {opened.Count}); from key to paint {At([.. keys], 0.5):0} ms at the median, {At([.. keys], 0.95):0} ms at the 95th percentile of {keys.Count}"
);

var large = $"/public/forms/{await app.MakeFormAsync(LargeForm.Content)}";
for (var n = 0; n < 100; n++)
    await EvaluateLargeAsync(http);
var (besides, larges) = await SideBySideAsync(2000, () => Task.CompletedTask, BareAsync, EvaluateLargeAsync);
Console.WriteLine(
    $"evaluate of {LargeForm.Content.Questions.Count()} questions with 20 rows, 99th percentile: {Ms(besides, 0.99)} bare address, {Ms(larges, 0.99)} evaluate (medians {Ms(besides, 0.5)} and {Ms(larges, 0.5)})"
);

var (alone, beside) = (await MedianAsync(200, SendAsync), 0.0);
using (var over = new CancellationTokenSource())
{
    var attack = Enumerable.Range(0, 4).Select(_ => AttackAsync(over.Token)).ToList();
    beside = await MedianAsync(200, SendAsync);
    await over.CancelAsync();
    var refused = (await Task.WhenAll(attack)).Sum();
    Console.WriteLine(
        $"send, median of 200: {alone:0.00} ms alone, {beside:0.00} ms beside four who post as many empty rows as fit into a request, all the time ({refused} refused meanwhile)"
    );
}

var bareRate = await TogetherAsync(8, BareInsertAsync);
var sendRate = await TogetherAsync(8, SendAsync);
Console.WriteLine(
    $"8 clients for {seconds} s each: {bareRate:0} bare inserts a second, {sendRate:0} full sends a second, no error in either; a full send costs {bareRate / sendRate:0.00} bare inserts"
);
var stored = await app.AskAsync(db => db.Submissions.CountAsync());
SortingBench.Measure();
await ClientsBench.MeasureAsync(app);
await InquiriesBench.MeasureAsync(app);
await RunsBench.MeasureAsync(app);

Console.WriteLine($"every send is stored: {stored} of {people}");
return stored == people ? 0 : 1;

async Task BareAsync(HttpClient client) => (await client.PostAsync("/bare/nothing", null)).EnsureSuccessStatusCode();

async Task BareRowsAsync(HttpClient client) => (await client.PostAsync("/bare/rows", null)).EnsureSuccessStatusCode();

async Task BareInsertAsync(HttpClient client) => (await client.PostAsync("/bare/insert", null)).EnsureSuccessStatusCode();

async Task SendAsync(HttpClient client) =>
    (
        await client.PostAsJsonAsync(
            form + "/send",
            new
            {
                version = 1,
                sendKey = Guid.NewGuid(),
                answers = Answers(Interlocked.Increment(ref people)),
                cameFrom = (string?)null,
            },
            Json.Options
        )
    ).EnsureSuccessStatusCode();

async Task EvaluateAsync(HttpClient client) =>
    (
        await client.PostAsJsonAsync(
            form + "/evaluate",
            new
            {
                version = 1,
                page = "wall",
                leaving = true,
                sendKey = Guid.NewGuid(),
                answers = Answers(0),
            },
            Json.Options
        )
    ).EnsureSuccessStatusCode();

async Task EvaluateLargeAsync(HttpClient client) =>
    (
        await client.PostAsJsonAsync(
            large + "/evaluate",
            new
            {
                version = 1,
                page = LargeForm.LastPage,
                leaving = true,
                sendKey = Guid.NewGuid(),
                answers = LargeForm.Answers,
            },
            Json.Options
        )
    ).EnsureSuccessStatusCode();

async Task<double> MedianAsync(int times, Func<HttpClient, Task> act)
{
    var took = new double[times];
    for (var n = 0; n < times; n++)
    {
        var began = Stopwatch.GetTimestamp();
        await act(http);
        took[n] = Stopwatch.GetElapsedTime(began).TotalMilliseconds;
    }

    return At(took, 0.5);
}

// Whatever the program says to it, it goes on.
async Task<int> AttackAsync(CancellationToken over)
{
    using var client = new HttpClient { BaseAddress = app.Address };
    var rows = string.Join(',', Enumerable.Repeat("{\"answers\":{}}", 250_000));
    var refused = 0;
    for (var n = 0; !over.IsCancellationRequested; n++)
    {
        var body =
            $$"""{"version":1,"page":"wall","leaving":true,"sendKey":"{{Guid.NewGuid()}}","cameFrom":null,"answers":{"what":{"kind":"rows","rows":[{{rows}}]} } }""";
        try
        {
            using var answer = await client.PostAsync(
                form + (n % 2 == 0 ? "/evaluate" : "/send"),
                new StringContent(body, System.Text.Encoding.UTF8, "application/json"),
                CancellationToken.None
            );
            if (answer.IsSuccessStatusCode)
                throw new InvalidOperationException("A hostile body was taken.");
        }
        catch (HttpRequestException)
        {
            // The line was closed before all of it was sent.
        }

        refused++;
    }

    return refused;
}

static Dictionary<string, Answer> Answers(int n) =>
    new()
    {
        // Nobody is like anybody else: who is compared with whom is measured by the lists of clients.
        ["name"] = new PersonNameAnswer($"Tilda {Letters(n)}", $"Brackenridge {Letters(n * 7919L)}"),
        ["email"] = new TextAnswer($"lead-{n}@bakes.example"),
        ["phone"] = new PhoneAnswer($"01 5{n:000000}"),
        ["place"] = new TextAnswer("Howth"),
        ["what"] = new TextAnswer(
            "The side wall towards the harbour. Something with bread and gulls; people should smell it from across the street."
        ),
        ["budget"] = ChoiceAnswer.Of("4000-9000"),
        ["decides"] = ChoiceAnswer.Of("me"),
        ["found"] = ChoiceAnswer.Of("search"),
    };

static string Letters(long n) => new([.. Enumerable.Range(0, 6).Select(at => (char)('a' + (n >> (4 * at)) % 16))]);

// In turns, so that whatever else this machine does falls on both.
async Task<(double[] First, double[] Second)> SideBySideAsync(
    int times,
    Func<Task> rest,
    Func<HttpClient, Task> first,
    Func<HttpClient, Task> second
)
{
    var (a, b) = (new double[times], new double[times]);
    for (var n = 0; n < times; n++)
        (a[n], b[n]) = (await TimeAsync(first), await TimeAsync(second));
    return (a, b);

    async Task<double> TimeAsync(Func<HttpClient, Task> act)
    {
        await rest();
        var began = Stopwatch.GetTimestamp();
        await act(http);
        return Stopwatch.GetElapsedTime(began).TotalMilliseconds;
    }
}

// What the last one left to the worker shall not fall on the next: the program computes nothing any more.
static async Task AtRestAsync()
{
    var process = Process.GetCurrentProcess();
    TimeSpan before;
    do
    {
        before = process.TotalProcessorTime;
        await Task.Delay(40);
        process.Refresh();
    } while (process.TotalProcessorTime - before > TimeSpan.FromMilliseconds(2));
}

// How many a second when so many clients go on all the time; an error ends the measurement.
async Task<double> TogetherAsync(int clients, Func<HttpClient, Task> act)
{
    var (done, watch) = (0, Stopwatch.StartNew());
    await Task.WhenAll(
        Enumerable
            .Range(0, clients)
            .Select(async _ =>
            {
                using var client = new HttpClient { BaseAddress = app.Address };
                while (watch.Elapsed.TotalSeconds < seconds)
                {
                    await act(client);
                    Interlocked.Increment(ref done);
                }
            })
    );
    return done / watch.Elapsed.TotalSeconds;
}

// The program as it is started for real, with a business of some weeks in it.
static async Task StartAndRestAsync()
{
    var data = Directory.CreateTempSubdirectory("porch-light-bench-start-").FullName;
    // As ./start runs it; the one beside this program when it is measured alone.
    var program =
        Environment.GetEnvironmentVariable("PORCH_LIGHT_PROGRAM") ?? Path.Combine(AppContext.BaseDirectory, "PorchLight.Server.dll");
    var starts = new double[3];
    for (var n = 0; n <= starts.Length; n++)
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        var address = $"http://127.0.0.1:{((IPEndPoint)probe.LocalEndpoint).Port}";
        probe.Stop();
        var began = Stopwatch.GetTimestamp();
        using var process = Process.Start(
            new ProcessStartInfo("dotnet", [program])
            {
                WorkingDirectory = Repository.Find("src/PorchLight.Server"),
                RedirectStandardOutput = true,
                Environment =
                {
                    ["ASPNETCORE_URLS"] = address,
                    ["PorchLight__Data"] = data,
                    ["PorchLight__Demo"] = "true",
                    ["PorchLight__DemoHistory"] = "false",
                    ["Logging__LogLevel__Default"] = "Error",
                },
            }
        )!;
        using var http = new HttpClient();
        while (!await AnswersAsync(http, address))
            await Task.Delay(20);
        // The first time it makes the demo; the others are what a restart costs.
        if (n > 0)
            starts[n - 1] = Stopwatch.GetElapsedTime(began).TotalMilliseconds;
        if (n == starts.Length)
        {
            await Task.Delay(TimeSpan.FromSeconds(10));
            process.Refresh();
            Console.WriteLine(
                $"start to first answer: {At(starts, 0.5) / 1000:0.0} s (median of {starts.Length}); memory at rest, ten seconds later: {process.WorkingSet64 / 1024 / 1024} MB"
            );
        }

        process.Kill();
        await process.WaitForExitAsync();
    }

    Directory.Delete(data, recursive: true);
}

static async Task<bool> AnswersAsync(HttpClient http, string address)
{
    try
    {
        return (await http.GetAsync(address + "/health")).IsSuccessStatusCode;
    }
    catch (HttpRequestException)
    {
        return false;
    }
}

static double At(double[] times, double share) => times.Order().ElementAt((int)(share * (times.Length - 1)));

static string Ms(double[] times, double share) => $"{At(times, share):0.00} ms";
