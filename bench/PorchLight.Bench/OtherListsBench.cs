using System.Diagnostics;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;
using PorchLight.Server.Webhooks;

namespace PorchLight.Bench;

/// <summary>The lists beside those of clients and inquiries, the last pages of all, and Today.</summary>
internal static class OtherListsBench
{
    private const int Many = 20_000;
    private const int Few = 400;

    private static readonly (string Name, string Path, string Sql)[] Lists =
    [
        ($"{Many:N0} practice mails", "practice/mail", "SELECT Id FROM PracticeMail ORDER BY At DESC, Id DESC LIMIT 100"),
        ($"{Many:N0} webhook calls", "webhooks/calls", "SELECT Id FROM WebhookCalls ORDER BY Written DESC, Id DESC LIMIT 100"),
        ($"{Few} messages of the library", "library/messages", "SELECT Id FROM LibraryMessages LIMIT 100"),
        ("the forms", "forms", "SELECT Id FROM Forms LIMIT 100"),
        ("the files", "files", "SELECT Id FROM StoredFiles WHERE SendKey IS NULL LIMIT 100"),
    ];

    /// <summary>To be called when clients and inquiries are there.</summary>
    public static async Task MeasureAsync(BenchApp app)
    {
        await app.AskAsync(FillAsync);
        using var owner = await ListBench.SignInAsync(app);
        foreach (var (name, path, sql) in Lists)
            await ListBench.MeasureAsync(app, owner, name, $"/api/{path}/found", new { }, sql);
        foreach (var list in new[] { "clients", "inquiries", "practice/mail", "webhooks/calls" })
            await ListBench.MeasureEndAsync(owner, $"{Many:N0} {list}", $"/api/{list}/found");
        var took = new List<double>();
        for (var time = -5; time < 40; time++)
        {
            var began = Stopwatch.GetTimestamp();
            (await owner.GetAsync("/api/today")).EnsureSuccessStatusCode();
            if (time >= 0)
                took.Add(Stopwatch.GetElapsedTime(began).TotalMilliseconds);
        }

        Console.WriteLine($"Today with {Many:N0} inquiries, 95th percentile: {ListBench.At(took):0.0} ms");
    }

    private static async Task<int> FillAsync(PorchDb db)
    {
        var now = SystemClock.Instance.GetCurrentInstant();
        await using var write = await db.WriteAsync(CancellationToken.None);
        var webhook = db
            .Webhooks.Add(
                new Webhook
                {
                    Id = new Id<Webhook>(Guid.CreateVersion7()),
                    Name = "Board",
                    Address = "https://board.example",
                    SecretSealed = "",
                }
            )
            .Entity;
        for (var index = 0; index < Many; index++)
        {
            var at = now - Duration.FromMinutes(index);
            db.PracticeMail.Add(
                new PracticeMessage
                {
                    Id = new Id<PracticeMessage>(Guid.CreateVersion7()),
                    MessageId = $"<{index}@bench.example>",
                    Incoming = index % 9 == 0,
                    ClientId = null,
                    From = "hello@ochrewren.example",
                    To = $"given{index}@bench.example",
                    Subject = $"Your wall, {index}",
                    Text = "Thank you.",
                    At = at,
                }
            );
            db.WebhookCalls.Add(
                new WebhookCall
                {
                    Id = new Id<WebhookCall>(Guid.CreateVersion7()),
                    WebhookId = webhook.Id,
                    EffectKey = $"bench {index}",
                    ClientId = null,
                    Body = "{\"test\":true}",
                    Written = at,
                    State = WebhookState.Taken,
                    NextTry = null,
                }
            );
        }

        for (var index = 0; index < Few; index++)
            db.LibraryMessages.Add(
                new LibraryMessage
                {
                    Id = new Id<LibraryMessage>(Guid.CreateVersion7()),
                    Name = $"Message {index}",
                    Folder = $"Folder {index % 12}",
                    Message = new MessageTemplate("About your wall", [new TextPart("text", "Dear {firstName}, thank you.")]),
                    Changed = now,
                }
            );
        await write.SaveAsync(CancellationToken.None);
        return 0;
    }
}
