using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Finds or makes the client and the project of an inquiry, and lands its answers, as part of the caller's transaction.</summary>
internal sealed class InquiryRecords(PorchDb db, RecordWriter writer, FieldCatalogues catalogues)
{
    /// <summary>The client an inquiry is from, found or made.</summary>
    public async Task<(Client Client, bool KnownBefore)> ClientAsync(Contact contact, PersonalLink? link, Instant now)
    {
        var lookup = ClientRecognition.LookFor(contact, link?.ClientId?.Value);
        var known = lookup switch
        {
            { Id: { } id } => await db.ClientOrMergedAsync(new Id<Client>(id)) is { } client ? await db.WhereMergedAsync(client) : null,
            { EmailKey: { } email } => await db.ClientWritingFromAsync(email, contact.Name?.Full),
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
                    SortName = contact.Name is { } name ? ValueOrder.Of(name).Text! : ValueOrder.Fold(contact.ListName),
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
        var lists = (await db.BusinessAsync()).Lists;
        var services = inHand.Count == 0 ? [] : await ServicesAsync(client);
        var joined = ProjectJoining.Joined(
            form.Settings.About,
            form.Id.Value,
            ServiceOf(form, lists),
            inHand.Select(project => new OpenProject(
                project.Id.Value,
                project.FormId?.Value,
                services.GetValueOrDefault(project.Id),
                project.Opened
            ))
        );
        if (joined is not null)
            return (inHand.Single(project => project.Id.Value == joined.Id), true);
        if (knownBefore)
            await db.UnlistLatestProjectAsync(client.Id);
        var project = db
            .Projects.Add(
                new Project
                {
                    Id = new Id<Project>(Guid.CreateVersion7()),
                    ClientId = client.Id,
                    FormId = form.Id,
                    Title = content.Title,
                    Opened = now,
                    Stage = lists.Stages.FirstOpen().Key,
                    IsLatest = true,
                }
            )
            .Entity;
        return (project, false);
    }

    /// <summary>What the form asks about, as clients call it; null for none in particular.</summary>
    private static string? ServiceOf(Form form, BusinessLists lists) =>
        lists.Services.FirstOrDefault(service => service.Key == form.Service)?.Name;

    /// <summary>What the projects of a client are about.</summary>
    private async Task<Dictionary<Id<Project>, string>> ServicesAsync(Client client)
    {
        var field = BuiltInFields.Service.Key;
        return (
            await db.FieldValues.Where(value => value.ClientId == client.Id && value.Field == field && value.IsCurrent).ToListAsync()
        ).ToDictionary(value => value.ProjectId!.Value, value => AnswerWords.Say(value.Value!));
    }

    /// <summary>Writes down where the answers land, and gives what was written and what is left to be settled.</summary>
    /// <param name="joined">Whether the project was there before; a new one is about what its form is about.</param>
    public async Task<LandingPlan> LandAsync(
        AnswerContext known,
        Client client,
        Project project,
        bool joined,
        Inquiry inquiry,
        LandingTrust trust
    )
    {
        var current = inquiry.KnownBefore ? await writer.CurrentAsync(client.Id, project.Id) : [];
        var onFile = current.ToDictionary(value => value.Key, value => value.Value.Value!);
        var plan = Landing.Plan(known, onFile, await catalogues.ReadAsync(db), trust, (await db.BusinessAsync()).Lists);
        client.IsUnindexed = true;
        var (writes, differences) = (new List<FieldWrite>(), plan.Differences.ToList());
        foreach (var write in plan.Writes)
        {
            // Two clients are never recognised by one address: which of them it is, a person decides.
            if (
                inquiry.KnownBefore
                && write is { Field: var field, Value: TextAnswer { Text: var address } }
                && field == BuiltInFields.Email.Key
                && await writer.IsTakenAsync(address, client.Id)
            )
            {
                differences.Add(new Difference(write.Field, write.Question, write.Value, write.Before));
                continue;
            }

            var source = new ValueSource(ValueOrigin.Inquiry, client.Name, inquiry.Received)
            {
                Answer = new AnswerSource(inquiry.Id, inquiry.FormId, inquiry.FormVersion, write.Question),
            };
            writes.Add(write);
            current[write.Field] = writer.Write(client, project, write.Field, write.Value, current.GetValueOrDefault(write.Field), source);
        }

        if (
            !joined
            && !current.ContainsKey(BuiltInFields.Service.Key)
            && await db.Forms.FindAsync(inquiry.FormId) is { } form
            && ServiceOf(form, (await db.BusinessAsync()).Lists) is { } service
        )
            writer.Write(
                client,
                project,
                BuiltInFields.Service.Key,
                new TextAnswer(service),
                null,
                new ValueSource(ValueOrigin.Inquiry, client.Name, inquiry.Received)
                {
                    Answer = new AnswerSource(inquiry.Id, inquiry.FormId, inquiry.FormVersion, null),
                }
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
            differences.Select(difference => new RecordDifference
            {
                Id = new Id<RecordDifference>(Guid.CreateVersion7()),
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
        return new LandingPlan(writes, plan.Notes, differences);
    }
}
