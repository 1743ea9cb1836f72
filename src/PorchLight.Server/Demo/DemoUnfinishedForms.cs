using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Demo;

/// <summary>Half-finished forms of the demo.</summary>
internal static class DemoUnfinishedForms
{
    /// <summary>Two who began to tell about their wall and left: one may be written to, the other only left an address.</summary>
    public static async Task AddAsync(PorchDb db, Tokens tokens, Form walls, Instant at)
    {
        await using var write = await db.WriteAsync(CancellationToken.None);
        Add(
            "Linus",
            "Overby",
            "linus@overbypress.example",
            Duration.FromHours(5),
            "A wall of letters for our printing shop.",
            isMailed: true
        );
        Add("Petra", "Holm", "petra@holmcafe.example", Duration.FromHours(52), null, isMailed: false);
        await write.SaveAsync(CancellationToken.None);

        void Add(string given, string family, string email, Duration ago, string? what, bool isMailed)
        {
            var link = tokens.Create();
            db.UnfinishedForms.Add(
                new UnfinishedForm
                {
                    Id = new Id<UnfinishedForm>(Guid.CreateVersion7()),
                    FormId = walls.Id,
                    FormVersion = walls.PublishedVersion,
                    SendKey = Guid.CreateVersion7(),
                    LinkHash = link.Hash,
                    LinkSealed = link.Sealed,
                    Page = walls.Draft.Pages[1].Key,
                    Answers = new GivenAnswers(
                        new Dictionary<string, Answer?>
                        {
                            ["name"] = new PersonNameAnswer(given, family),
                            ["email"] = new TextAnswer(email),
                            ["what"] = what is null ? null : new TextAnswer(what),
                        }
                    ),
                    MailedTo = isMailed ? email : null,
                    MayFollowUp = isMailed,
                    Saved = at - ago,
                    GoodUntil = Retention.UnfinishedUntil(at - ago, 30),
                }
            );
        }
    }
}
