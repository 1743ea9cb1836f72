using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Finds or makes the client and the project of an inquiry, and lands its answers, as part of the caller's transaction.</summary>
internal sealed class InquiryRecords(PorchDb db)
{
    /// <summary>The client an inquiry is from, found or made.</summary>
    public async Task<(Client Client, bool KnownBefore)> ClientAsync(Contact contact, PersonalLink? link, Instant now)
    {
        var lookup = ClientRecognition.LookFor(contact, link?.ClientId?.Value);
        var known = lookup switch
        {
            { Id: { } id } => await db.Clients.FindAsync(new Id<Client>(id)),
            { EmailKey: { } email } => await CompiledQueries.ClientByEmail(db, email),
            _ => null,
        };
        if (known is not null)
            return (known, true);
        return (
            db.Clients.Add(
                new Client
                {
                    Id = new Id<Client>(Guid.CreateVersion7()),
                    Name = contact.ListName,
                    Email = contact.Email,
                    EmailKey = lookup.EmailKey,
                    Standing = Standing.Lead,
                    Since = now,
                }
            ).Entity,
            false
        );
    }

    /// <summary>The project an inquiry is about, as the form has it: a new one, or one that is open.</summary>
    public async Task<(Project Project, bool Joined)> ProjectAsync(
        Client client,
        bool knownBefore,
        Form form,
        FormContent content,
        Instant now
    )
    {
        var inHand = !knownBefore
            ? []
            : await db.Projects.Where(project => project.ClientId == client.Id && project.Closed == null).ToListAsync();
        var joined = ProjectJoining.Joined(
            form.Settings.About,
            form.Id.Value,
            inHand.Select(project => new OpenProject(project.Id.Value, project.FormId.Value, project.Opened))
        );
        return joined is not null
            ? (inHand.Single(project => project.Id.Value == joined.Id), true)
            : (
                db.Projects.Add(
                    new Project
                    {
                        Id = new Id<Project>(Guid.CreateVersion7()),
                        ClientId = client.Id,
                        FormId = form.Id,
                        Title = content.Title,
                        Opened = now,
                    }
                ).Entity,
                false
            );
    }

    /// <summary>Writes down where the answers land, and gives what was written and what is left to be settled.</summary>
    public async Task<LandingPlan> LandAsync(AnswerContext known, Client client, Project project, Inquiry inquiry, bool onlyDifferences)
    {
        var values = !inquiry.KnownBefore
            ? []
            : await db
                .FieldValues.Where(value => value.ClientId == client.Id && (value.ProjectId == null || value.ProjectId == project.Id))
                .ToListAsync();
        var onFile = ValuesOnFile.Read(values);
        var plan = Landing.Plan(known, onFile, onlyDifferences);
        db.FieldValues.AddRange(
            plan.Writes.Select(write => new FieldValue
            {
                Id = new Id<FieldValue>(Guid.CreateVersion7()),
                ClientId = client.Id,
                ProjectId = BuiltInFields.Find(write.Field)!.Scope == RecordScope.Project ? project.Id : null,
                Field = write.Field,
                Value = write.Value,
                InquiryId = inquiry.Id,
                FormId = inquiry.FormId,
                FormVersion = inquiry.FormVersion,
                Question = write.Question,
                By = client.Name,
                At = inquiry.Received,
            })
        );
        db.Notes.AddRange(
            plan.Notes.Select(note => new Note
            {
                Id = new Id<Note>(Guid.CreateVersion7()),
                ClientId = client.Id,
                ProjectId = note.Scope == RecordScope.Project ? project.Id : null,
                Heading = note.Heading,
                Text = note.Text,
                InquiryId = inquiry.Id,
                By = client.Name,
                At = inquiry.Received,
            })
        );
        db.Differences.AddRange(
            plan.Differences.Select(difference => new OpenDifference
            {
                Id = new Id<OpenDifference>(Guid.CreateVersion7()),
                ClientId = client.Id,
                ProjectId = project.Id,
                InquiryId = inquiry.Id,
                Field = difference.Field,
                Question = difference.Question,
                Theirs = difference.Theirs,
                Ours = difference.Ours,
                At = inquiry.Received,
            })
        );
        return plan;
    }
}
