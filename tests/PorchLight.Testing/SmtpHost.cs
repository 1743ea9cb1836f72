using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using System.Text;
using System.Text.RegularExpressions;

namespace PorchLight.Testing;

/// <summary>How the mail server treats one connection.</summary>
internal enum SmtpBehaviour
{
    Takes,

    /// <summary>451 to the recipient: for now (RFC 5321, 4.2.1: 4yz may be tried again).</summary>
    RefusesForNow,

    /// <summary>550 to the recipient: for good (5yz shall not be repeated).</summary>
    RefusesForGood,

    /// <summary>Says nothing at all.</summary>
    Hangs,

    /// <summary>Closes the line in the middle of the message.</summary>
    DropsInMidMessage,

    /// <summary>Reads the message to its end mark and closes the line without a word.</summary>
    DropsAfterTheEnd,

    /// <summary>Takes the message and never says goodbye.</summary>
    TakesAndHangsAtQuit,

    /// <summary>535 to every sign-in.</summary>
    RefusesSignIn,
}

/// <summary>A small mail server (RFC 5321) that takes mail, or misbehaves in the way a test asks for.</summary>
internal sealed partial class SmtpHost : IAsyncDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly CancellationTokenSource _stop = new();
    private readonly Task _serving;

    public SmtpHost(params IEnumerable<SmtpBehaviour> moods)
    {
        Moods = new ConcurrentQueue<SmtpBehaviour>(moods);
        _listener.Start();
        Port = ((IPEndPoint)_listener.LocalEndpoint).Port;
        _serving = ServeAsync();
    }

    public int Port { get; }

    /// <summary>One for each connection; afterwards it takes everything.</summary>
    public ConcurrentQueue<SmtpBehaviour> Moods { get; }

    /// <summary>The messages it has, as they came.</summary>
    public ConcurrentQueue<string> Taken { get; } = [];

    /// <summary>The Message-ID of every message it saw, taken or not.</summary>
    public ConcurrentQueue<string> Seen { get; } = [];

    public int Connections { get; private set; }

    public async ValueTask DisposeAsync()
    {
        await _stop.CancelAsync();
        _listener.Stop();
        await _serving;
        _stop.Dispose();
    }

    private async Task ServeAsync()
    {
        var talks = new List<Task>();
        try
        {
            while (true)
            {
                var line = await _listener.AcceptTcpClientAsync(_stop.Token);
                Connections++;
                talks.Add(TalkAsync(line, Moods.TryDequeue(out var mood) ? mood : SmtpBehaviour.Takes));
            }
        }
        catch (OperationCanceledException) { }

        await Task.WhenAll(talks);
    }

    private async Task TalkAsync(TcpClient line, SmtpBehaviour mood)
    {
        using var _ = line;
        try
        {
            if (mood == SmtpBehaviour.Hangs)
                await Task.Delay(Timeout.Infinite, _stop.Token);
            await using var stream = line.GetStream();
            using var reader = new StreamReader(stream, Encoding.UTF8);
            await SayAsync("220 mail.example ready");
            while (await reader.ReadLineAsync(_stop.Token) is { } said)
            {
                switch (said.Split(' ', ':')[0].ToUpperInvariant())
                {
                    case "EHLO":
                        await SayAsync("250-mail.example\r\n250-AUTH PLAIN\r\n250 8BITMIME");
                        break;
                    case "AUTH":
                        await SayAsync(mood == SmtpBehaviour.RefusesSignIn ? "535 5.7.8 no" : "235 2.7.0 welcome");
                        break;
                    case "RCPT" when mood == SmtpBehaviour.RefusesForNow:
                        await SayAsync("451 4.7.1 Please come back later");
                        break;
                    case "RCPT" when mood == SmtpBehaviour.RefusesForGood:
                        await SayAsync("550 5.1.1 There is no such mailbox");
                        break;
                    case "DATA":
                        await SayAsync("354 go on");
                        if (!await TakeAsync(line, reader, mood))
                            return;
                        await SayAsync("250 2.0.0 taken");
                        break;
                    case "QUIT" when mood == SmtpBehaviour.TakesAndHangsAtQuit:
                        await Task.Delay(Timeout.Infinite, _stop.Token);
                        break;
                    case "QUIT":
                        await SayAsync("221 bye");
                        return;
                    default:
                        await SayAsync("250 fine");
                        break;
                }
            }

            async Task SayAsync(string words) => await stream.WriteAsync(Encoding.ASCII.GetBytes(words + "\r\n"), _stop.Token);
        }
        catch (Exception failure) when (failure is IOException or OperationCanceledException) { }
    }

    private async Task<bool> TakeAsync(TcpClient line, StreamReader reader, SmtpBehaviour mood)
    {
        var message = new StringBuilder();
        while (await reader.ReadLineAsync(_stop.Token) is { } text && text != ".")
        {
            message.Append(text.StartsWith("..", StringComparison.Ordinal) ? text[1..] : text).Append("\r\n");
            if (mood == SmtpBehaviour.DropsInMidMessage && message.Length > 2000)
            {
                line.LingerState = new LingerOption(true, 0);
                return false;
            }
        }

        Seen.Enqueue(MessageId().Match(message.ToString()).Value);
        if (mood == SmtpBehaviour.DropsAfterTheEnd)
            return false;
        Taken.Enqueue(message.ToString());
        return true;
    }

    [GeneratedRegex("(?<=^Message-I[dD]: )<[^>]+>", RegexOptions.Multiline)]
    private static partial Regex MessageId();
}
