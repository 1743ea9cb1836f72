using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text;

namespace PorchLight.Server.Tests.Crash;

/// <summary>The program as a process of its own, that can be killed.</summary>
internal sealed class AppProcess(string folder) : IAsyncDisposable
{
    private readonly HttpClient _asking = new();
    private readonly StringBuilder _said = new();
    private TaskCompletionSource _up = new(TaskCreationOptions.RunContinuationsAsynchronously);
    private Process? _process;

    public Uri Address { get; } = new($"http://127.0.0.1:{FreePort()}");

    /// <summary>Ends when the program next answers; at once while it does.</summary>
    public Task Up => Volatile.Read(ref _up).Task;

    /// <summary>Starts it, and kills it after so many milliseconds, wherever it has got to by then.</summary>
    public async Task DieWhileStartingAsync(int milliseconds)
    {
        Launch();
        await Task.Delay(milliseconds);
        await KillAsync();
    }

    public async Task StartAsync()
    {
        Launch();
        while (!await AnswersAsync())
        {
            if (_process!.HasExited)
                throw new InvalidOperationException("The program did not come up: " + Said());
            await Task.Delay(20);
        }

        _up.SetResult();
    }

    private void Launch()
    {
        var start = new ProcessStartInfo("dotnet", ["PorchLight.Server.dll"])
        {
            WorkingDirectory = AppContext.BaseDirectory,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            Environment =
            {
                ["ASPNETCORE_URLS"] = Address.ToString(),
                ["PorchLight__Data"] = folder,
                ["PorchLight__Demo"] = "true",
                ["PorchLight__DemoPeople"] = "false",
                ["PorchLight__RateLimits"] = "false",
                // A nod that is answered has taken effect.
                ["PorchLight__SecondsToTakeBack"] = "0",
                ["Logging__LogLevel__Default"] = "Error",
                ["Logging__LogLevel__Microsoft.AspNetCore"] = "Error",
            },
        };
        _process = Process.Start(start)!;
        _process.OutputDataReceived += Hear;
        _process.ErrorDataReceived += Hear;
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
    }

    /// <summary>SIGKILL: no warning, no cleaning up.</summary>
    public async Task KillAsync()
    {
        Volatile.Write(ref _up, new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously));
        _process!.Kill();
        await _process.WaitForExitAsync();
        _process.Dispose();
    }

    /// <summary>What it has logged, all lives together.</summary>
    public string Said()
    {
        lock (_said)
            return _said.ToString();
    }

    public async Task<string> MailHealthAsync() => (await (await _asking.GetAsync(new Uri(Address, "/health"))).JsonAsync()).Text("mail");

    public async ValueTask DisposeAsync()
    {
        if (_process is { } process)
        {
            try
            {
                process.Kill();
                await process.WaitForExitAsync();
            }
            catch (InvalidOperationException)
            {
                // It is gone already.
            }

            process.Dispose();
        }

        _asking.Dispose();
    }

    private async Task<bool> AnswersAsync()
    {
        try
        {
            return (await _asking.GetAsync(new Uri(Address, "/health"))).IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }

    private void Hear(object sender, DataReceivedEventArgs line)
    {
        lock (_said)
            _said.AppendLine(line.Data);
    }

    /// <summary>A port outside the range from which the system gives ports away, so that nobody takes it between two lives.</summary>
    private static int FreePort()
    {
        while (true)
        {
            var port = Random.Shared.Next(20_000, 30_000);
            try
            {
                using var probe = new TcpListener(IPAddress.Loopback, port);
                probe.Start();
                return port;
            }
            catch (SocketException)
            {
                // Somebody has it; another one will do.
            }
        }
    }
}
