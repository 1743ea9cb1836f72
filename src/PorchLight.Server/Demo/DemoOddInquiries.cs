using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Demo;

/// <summary>Inquiries of the last days that did not come the usual way: one by phone, some spam, and a test.</summary>
internal sealed class DemoOddInquiries(PorchDb db, Intake intake, EventLog events)
{
    /// <summary>Plays them.</summary>
    /// <param name="walls">The form about walls.</param>
    /// <param name="owner">Who writes down what came by phone, and sets the others aside.</param>
    /// <param name="now">The now of the demo.</param>
    public async Task PlayAsync(Form walls, User owner, Instant now)
    {
        var byPhone = new WrittenDown(InquiryChannel.Phone, now - Duration.FromHours(22), true, false, owner.Id, owner.DisplayName);
        await SendAsync(
            new FormTarget(walls, null) { WrittenDown = byPhone },
            now - Duration.FromHours(21),
            new Dictionary<string, Answer?>
            {
                ["name"] = new PersonNameAnswer("Ottilie", "Marsh"),
                ["phone"] = new PhoneAnswer("086 123 4567", "+353861234567"),
                ["what"] = new TextAnswer("A heron on the gable of the boathouse. Saw us on the ladder in Howth."),
                ["decides"] = ChoiceAnswer.Of("together"),
                ["found"] = ChoiceAnswer.Of("saw-one"),
            }
        );
        await SendAsync(
            new FormTarget(walls, null),
            now - Duration.FromHours(30),
            Wall("Rank", "Higher", "first@page.example", "We bring your site to page one. Ask for our prices.")
        );
        await SetAsideAsync("first@page.example", AsideReason.Spam, owner, now - Duration.FromHours(26));
        await SendAsync(
            new FormTarget(walls, null),
            now - Duration.FromHours(50),
            Wall("Maren", "Test", "maren@try.example", "Does the thank-you arrive?")
        );
        await SetAsideAsync("maren@try.example", AsideReason.Test, owner, now - Duration.FromHours(49));
    }

    private static Dictionary<string, Answer?> Wall(string given, string family, string email, string what) =>
        new()
        {
            ["name"] = new PersonNameAnswer(given, family),
            ["email"] = new TextAnswer(email),
            ["place"] = new TextAnswer("Dublin"),
            ["what"] = new TextAnswer(what),
            ["budget"] = ChoiceAnswer.Of("unsure"),
            ["decides"] = ChoiceAnswer.Of("me"),
        };

    private async Task SendAsync(FormTarget target, Instant at, Dictionary<string, Answer?> answers)
    {
        var sending = new SubmissionRequest(target.Form.PublishedVersion, Guid.CreateVersion7(), answers, null);
        if (await intake.SendAsync(target, sending, null, at, CancellationToken.None) is IntakeResult.Refused refused)
            throw new InvalidOperationException($"A demo inquiry was refused: {refused.Sentence} {string.Join(" ", refused.Findings)}");
    }

    private async Task SetAsideAsync(string email, AsideReason why, User by, Instant at)
    {
        await using var write = await db.WriteAsync(CancellationToken.None);
        var client = await db.Clients.SingleAsync(one => one.EmailKey == email);
        var inquiry = await db.Inquiries.SingleAsync(one => one.ClientId == client.Id);
        inquiry.Aside = why;
        await events.AppendAsync(new InquirySetAside(why, by.Id), at, new EventContext(client.Id, inquiry.ProjectId, inquiry.Id));
        await write.SaveAsync(CancellationToken.None);
    }
}
