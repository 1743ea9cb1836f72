using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Text;
using System.Text.RegularExpressions;

namespace PorchLight.Testing;

/// <summary>A small mailbox that is read by IMAP (RFC 3501): one folder, one user, as much as a reader needs.</summary>
internal sealed partial class ImapHost : IAsyncDisposable
{
    public const string User = "maren";
    public const string Password = "the-lamp-is-on";

    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly CancellationTokenSource _stop = new();
    private readonly Task _serving;

    public ImapHost()
    {
        _listener.Start();
        Port = ((IPEndPoint)_listener.LocalEndpoint).Port;
        _serving = ServeAsync();
    }

    public int Port { get; }

    public int Validity { get; set; } = 1;

    /// <summary>The messages by number.</summary>
    public SortedDictionary<int, string> Messages { get; } = [];

    /// <summary>The numbers of the messages that were read as a whole.</summary>
    public ConcurrentQueue<int> ReadWhole { get; } = [];

    /// <summary>Whatever was asked that would change the mailbox.</summary>
    public ConcurrentQueue<string> Changes { get; } = [];

    public void Deliver(string message)
    {
        lock (Messages)
            Messages[Messages.Keys.DefaultIfEmpty(0).Max() + 1] = message.ReplaceLineEndings("\r\n");
    }

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
                talks.Add(TalkAsync(await _listener.AcceptTcpClientAsync(_stop.Token)));
        }
        catch (OperationCanceledException)
        {
            await Task.WhenAll(talks);
        }
    }

    private async Task TalkAsync(TcpClient line)
    {
        using var client = line;
        try
        {
            await using var stream = client.GetStream();
            using var reader = new StreamReader(stream, Encoding.Latin1);
            await SayAsync("* OK [CAPABILITY IMAP4rev1] ready\r\n");
            while (await reader.ReadLineAsync(_stop.Token) is { } command)
            {
                var (tag, rest) = (command.Split(' ')[0], command[(command.IndexOf(' ', StringComparison.Ordinal) + 1)..]);
                await SayAsync(Answer(tag, rest));
                if (rest.StartsWith("LOGOUT", StringComparison.Ordinal))
                    return;
            }

            Task SayAsync(string words) => stream.WriteAsync(Encoding.Latin1.GetBytes(words), _stop.Token).AsTask();
        }
        catch (Exception failure) when (failure is IOException or OperationCanceledException)
        {
            // The reader has gone, or the test is over.
        }
    }

    private string Answer(string tag, string command)
    {
        var done = $"{tag} OK done\r\n";
        var word = command.Split(' ')[0];
        lock (Messages)
        {
            switch (word)
            {
                case "CAPABILITY":
                    return "* CAPABILITY IMAP4rev1\r\n" + done;
                case "LOGIN":
                    return command == $"LOGIN {User} {Password}" ? done : $"{tag} NO [AUTHENTICATIONFAILED] no\r\n";
                case "LIST":
                    return command.Contains("INBOX", StringComparison.Ordinal) ? $"* LIST () \"/\" INBOX\r\n{done}"
                        : command.EndsWith("\"\"", StringComparison.Ordinal) ? $"* LIST (\\Noselect) \"/\" \"\"\r\n{done}"
                        : done;
                case "EXAMINE":
                    return $"* FLAGS (\\Seen)\r\n* {Messages.Count} EXISTS\r\n* 0 RECENT\r\n* OK [UIDVALIDITY {Validity}] .\r\n"
                        + $"* OK [UIDNEXT {Messages.Keys.DefaultIfEmpty(0).Max() + 1}] .\r\n{tag} OK [READ-ONLY] done\r\n";
                case "UID" when Fetch().Match(command) is { Success: true } fetch:
                    return Fetched(int.Parse(fetch.Groups["from"].Value, null), fetch.Groups["to"].Value, command) + done;
                case "LOGOUT":
                    return "* BYE\r\n" + done;
                default:
                    if (word is "SELECT" or "STORE" or "UID" or "EXPUNGE" or "COPY" or "APPEND")
                        Changes.Enqueue(command);
                    return $"{tag} BAD what?\r\n";
            }
        }
    }

    private string Fetched(int from, string to, string command)
    {
        var last = Messages.Keys.DefaultIfEmpty(0).Max();
        // RFC 3501, 6.4.8: the last message is always in a range that ends with a star.
        var chosen = Messages.Where(one => one.Key >= Math.Min(from, to == "" ? from : last) && (to != "" || one.Key == from));
        var said = new StringBuilder();
        foreach (var (number, text) in chosen)
        {
            var isHead = command.Contains("HEADER", StringComparison.Ordinal);
            if (!isHead)
                ReadWhole.Enqueue(number);
            var body = isHead ? text[..(text.IndexOf("\r\n\r\n", StringComparison.Ordinal) + 4)] : text;
            var name = isHead ? "BODY[HEADER]" : "BODY[]";
            var sequence = Messages.Keys.ToList().IndexOf(number) + 1;
            said.Append(
                CultureInfo.InvariantCulture,
                $"* {sequence} FETCH (UID {number} RFC822.SIZE {text.Length} {name} {{{Encoding.Latin1.GetByteCount(body)}}}\r\n{body})\r\n"
            );
        }

        return said.ToString();
    }

    [GeneratedRegex(@"^UID FETCH (?<from>\d+)(:(?<to>\S+))? ")]
    private static partial Regex Fetch();
}
