using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Demo;

/// <summary>Plays the demo's history through the code that serves real use, each scene at its own instant.</summary>
internal sealed class DemoHistoryPlayer(
    PorchDb db,
    Intake intake,
    RecordWriter writer,
    ProjectStages stages,
    DifferenceSettler settler,
    EventLog events
)
{
    private static readonly Duration StillToSettle = Duration.FromDays(120);

    /// <summary>Adds the studio's own fields, and its view of murals, as part of the caller's write.</summary>
    public static async Task AddFieldsAsync(PorchDb db)
    {
        var last = await db.Fields.MaxAsync(field => (int?)field.Position) ?? 0;
        db.Fields.AddRange(
            DemoHistory.Fields.Select(
                (field, index) =>
                    new StoredField
                    {
                        Key = field.Key,
                        Position = last + 1 + index,
                        Field = field,
                    }
            )
        );
        db.Arrangements.Add(
            new StoredArrangement
            {
                Scope = RecordScope.Project,
                Service = "mural",
                Arrangement = DemoHistory.OfMurals,
            }
        );
    }

    /// <param name="scene">What happens.</param>
    /// <param name="forms">The forms leads send.</param>
    /// <param name="now">The real now of the demo; what differs is settled but for the last months.</param>
    public async Task PlayAsync(DemoScene scene, IReadOnlyDictionary<DemoFormKind, Id<Form>> forms, Instant now)
    {
        if (scene is DemoScene.Asks asks)
        {
            await SendAsync(asks, forms[asks.Form]);
            if (scene.At < now - StillToSettle)
                await SettleAsync(scene);
            return;
        }

        await using var write = await db.WriteAsync(CancellationToken.None);
        var client = await db.Clients.FirstAsync(one => one.EmailKey == scene.Email);
        var project = await db.Projects.SingleAsync(one => one.ClientId == client.Id && one.IsLatest);
        var inquiry = await db.Inquiries.Where(one => one.ProjectId == project.Id).OrderByDescending(one => one.Received).FirstAsync();
        var about = new EventContext(client.Id, project.Id, inquiry.Id);
        var maren = await UserAsync(DemoBusiness.OwnerMail);
        switch (scene)
        {
            case DemoScene.IsAnswered:
                await events.AppendAsync(new AnsweredElsewhere(maren.Id), scene.At, about);
                break;
            case DemoScene.WritesBack wrote:
                await events.AppendAsync(new ReplyReceived(null, wrote.Words, maren.Id), scene.At, about);
                break;
            case DemoScene.Moves moves:
                var list = (await db.BusinessAsync()).Lists.Stages;
                await stages.MoveAsync(project, list.Single(stage => stage.Key == moves.Stage), maren.Id, scene.At);
                break;
            case DemoScene.IsGiven given:
                project.LooksAfterId = (given.ToSunil ? await UserAsync(DemoBusiness.MemberMail) : maren).Id;
                await events.AppendAsync(
                    new ProjectGiven(project.LooksAfterId, maren.Id),
                    scene.At,
                    new EventContext(client.Id, project.Id)
                );
                break;
            case DemoScene.IsWritten written:
                var current = await writer.CurrentAsync(client.Id, project.Id);
                foreach (var (field, value) in written.Values)
                    writer.Write(
                        client,
                        project,
                        field,
                        value,
                        current.GetValueOrDefault(field),
                        new ValueSource(ValueOrigin.Hand, maren.DisplayName, scene.At)
                    );
                break;
            case DemoScene.IsNoted noted:
                db.Notes.Add(
                    new Note
                    {
                        Id = new Id<Note>(Guid.CreateVersion7()),
                        ClientId = client.Id,
                        ProjectId = project.Id,
                        Heading = "",
                        Text = noted.Text,
                        By = maren.DisplayName,
                        At = scene.At,
                    }
                );
                await events.AppendAsync(new NoteWritten(maren.Id), scene.At, new EventContext(client.Id, project.Id));
                client.IsUnindexed = true;
                break;
            case DemoScene.IsClosed when inquiry.Closed is null:
                await events.AppendAsync(new InquiryClosed(maren.Id), scene.At, about);
                break;
            // Who asked for something else meanwhile stays where they are.
            case DemoScene.Stands stands when project.Closed is not null:
                await stages.SetStandingAsync(client, stands.Standing, maren.Id, scene.At);
                break;
            case DemoScene.HasToDo toDo:
                db.ClientTasks.Add(
                    new ClientTask
                    {
                        Id = new Id<ClientTask>(Guid.CreateVersion7()),
                        ClientId = client.Id,
                        ProjectId = project.Id,
                        Title = toDo.Title,
                        IsDate = toDo.IsDate,
                        On = toDo.On,
                        By = maren.DisplayName,
                        At = scene.At,
                    }
                );
                break;
        }

        await write.SaveAsync(CancellationToken.None);
    }

    private async Task SendAsync(DemoScene.Asks asks, Id<Form> form)
    {
        var result = await intake.SendAsync(
            new FormTarget((await db.Forms.FindAsync(form))!, null),
            new SubmissionRequest(1, Guid.CreateVersion7(), asks.Answers, null),
            null,
            asks.At,
            CancellationToken.None
        );
        if (result is IntakeResult.Refused refused)
            throw new InvalidOperationException(
                $"The demo inquiry of {asks.Email} was refused: {refused.Sentence} {string.Join(" ", refused.Findings)}"
            );
    }

    /// <summary>Takes what somebody said anew, as Maren did the next time she looked.</summary>
    private async Task SettleAsync(DemoScene scene)
    {
        await using var write = await db.WriteAsync(CancellationToken.None);
        var open = await db
            .Differences.Where(one =>
                one.SettledAt == null && db.Clients.Any(client => client.Id == one.ClientId && client.EmailKey == scene.Email)
            )
            .Select(one => one.Id)
            .ToListAsync();
        if (open.Count == 0)
            return;
        var maren = await UserAsync(DemoBusiness.OwnerMail);
        await settler.SettleAsync(
            [.. open.Select(one => new Settling(one, Settlement.TookTheirs, null))],
            maren.DisplayName,
            maren.Id,
            scene.At + Duration.FromMinutes(40),
            CancellationToken.None
        );
        await write.SaveAsync(CancellationToken.None);
    }

    private Task<User> UserAsync(string mail) => db.Users.SingleAsync(user => user.Email == mail);
}
