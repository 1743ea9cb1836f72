using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;
using PorchLight.Server.Webhooks;

namespace PorchLight.Server.Demo;

/// <summary>The messages the demo business keeps, and the program of its own that it tells of new work.</summary>
internal static class DemoLibrary
{
    private static readonly (string Folder, string Name, string Subject, string Text, string? Gap, int Days)[] Kept =
    [
        (
            "Before we begin",
            "How a mural comes about",
            "How we work on a wall",
            "Here is how we work, step by step:\n\n1. We look at the wall together and measure it.\n2. You get **two sketches** within ten working days.\n3. We paint, usually in three to five days.\n\nPictures of walls we did stand [on our page](https://ochrewren.example/walls).",
            null,
            41
        ),
        (
            "Before we begin",
            "What we need from you",
            "What we need before we start",
            "before we start we need:\n\n- a picture of the wall in daylight\n- who owns it, and that they agree\n- where we can leave our things overnight",
            null,
            40
        ),
        (
            "Afterwards",
            "Reminder 2 about kind words",
            "A word about your sign?",
            "A while ago we asked how you like your sign. If a line comes to your mind, we would love to read it.",
            null,
            12
        ),
        (
            "Afterwards",
            "Reminder 10, one year on",
            "A year in the weather",
            "Your sign has been up for a year. We walk past and look after the gold once, for nothing.",
            "what you saw when you last walked past",
            9
        ),
        (
            "",
            "Directions to the studio",
            "How to find us",
            "We are in the yard behind the bakery: **ring twice**, the bell is slow.",
            null,
            3
        ),
    ];

    public static async Task AddAsync(PorchDb db, Tokens tokens, Guid owner, Instant now)
    {
        await using var write = await db.WriteAsync(CancellationToken.None);
        (await db.BusinessAsync()).Signature =
            "Maren Tolliver\n**Ochre Wren**, signs and murals\n[ochrewren.example](https://ochrewren.example)";
        (await db.Users.FindAsync(owner))!.Signature = "Maren\nOchre Wren";
        foreach (var (folder, name, subject, text, gap, days) in Kept)
            db.LibraryMessages.Add(
                new LibraryMessage
                {
                    Id = new Id<LibraryMessage>(Guid.CreateVersion7()),
                    Name = name,
                    Folder = folder,
                    Message = new MessageTemplate(
                        subject,
                        [
                            new TextPart("text", $"Dear {{firstName}},\n\n{text}"),
                            .. gap is null ? Array.Empty<MessagePart>() : [new GapPart("line", gap)],
                            new TextPart("close", "Warmly\n{signature}"),
                        ]
                    ),
                    Changed = now - Duration.FromDays(days),
                }
            );
        db.Webhooks.Add(
            new Webhook
            {
                Id = new Id<Webhook>(Guid.CreateVersion7()),
                Name = "Studio board",
                Address = "https://board.ochrewren.example/hooks/new-work",
                SecretSealed = tokens.Create().Sealed,
            }
        );
        await write.SaveAsync(CancellationToken.None);
    }

    /// <summary>The onboarding, with the team and the studio's board told when work is booked.</summary>
    /// <param name="content">The onboarding as it is ready.</param>
    /// <param name="board">The webhook of the board.</param>
    public static FollowThroughContent Telling(FollowThroughContent content, Guid board)
    {
        var atOnce = new Schedule(Anchor.PreviousSettled, 0, TimeUnit.Minutes, AtOnce: true);
        return content with
        {
            Steps =
            [
                new Step(
                    "chat",
                    "Tell the team",
                    new PostToChat("{name} booked. Look at the dates before you promise any."),
                    atOnce,
                    NeedsNod: false
                ),
                new Step("board", "Put it on the board", new CallWebhook(board), atOnce, NeedsNod: false),
                .. content.Steps,
            ],
        };
    }
}
