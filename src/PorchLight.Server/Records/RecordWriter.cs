using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>Where a value comes from.</summary>
/// <param name="Origin">How it came.</param>
/// <param name="By">Who gave it.</param>
/// <param name="At">When.</param>
internal sealed record ValueSource(ValueOrigin Origin, string By, Instant At)
{
    /// <summary>The inquiry it came by; null for what the business wrote itself.</summary>
    public AnswerSource? Answer { get; init; }

    /// <summary>The import it came by; null for everything else.</summary>
    public Id<ClientImport>? Import { get; init; }
}

/// <summary>The inquiry a value came from.</summary>
/// <param name="Question">The key of the question; null for what the form itself is about.</param>
internal sealed record AnswerSource(Id<Inquiry> Inquiry, Id<Form> Form, int FormVersion, string? Question);

/// <summary>The one way values get into fields, whoever writes them, as part of the caller's write.</summary>
internal sealed class RecordWriter(PorchDb db)
{
    /// <summary>What stands in the fields of a client, and of one project, by the field's key.</summary>
    public async Task<Dictionary<string, FieldValue>> CurrentAsync(Id<Client> client, Id<Project>? project) =>
        await db
            .FieldValues.Where(value => value.ClientId == client && value.IsCurrent)
            .Where(value => value.ProjectId == null || value.ProjectId == project)
            .ToDictionaryAsync(value => value.Field);

    /// <summary>Writes a value; the one that stood there stays in the history.</summary>
    /// <param name="client">The client.</param>
    /// <param name="project">The project, for fields of projects.</param>
    /// <param name="field">The field's key.</param>
    /// <param name="value">The value in the field's own kind; null empties it.</param>
    /// <param name="current">What stands there now; null when nothing does.</param>
    /// <param name="source">Where it comes from.</param>
    public FieldValue Write(Client client, Project? project, string field, Answer? value, FieldValue? current, ValueSource source)
    {
        var isOfProject = Field.ScopeOf(field) == RecordScope.Project;
        var order = value is null ? null : ValueOrder.Of(value);
        if (current is not null)
            (current.IsCurrent, current.IsListed) = (false, false);
        client.IsUnindexed = true;
        if (field == BuiltInFields.Name.Key && value is PersonNameAnswer name)
            (client.Name, client.SortName) = (name.Full, ValueOrder.Of(name).Text!);
        if (field == BuiltInFields.Email.Key)
        {
            client.Email = (value as TextAnswer)?.Text;
            client.EmailKey = client.Email is { } address ? EmailAddress.Key(address) : null;
        }

        return db
            .FieldValues.Add(
                new FieldValue
                {
                    Id = new Id<FieldValue>(Guid.CreateVersion7()),
                    ClientId = client.Id,
                    ProjectId = isOfProject ? project!.Id : null,
                    Field = field,
                    Value = value,
                    Before = current?.Value,
                    IsCurrent = value is not null,
                    IsListed = value is not null && (!isOfProject || project!.IsLatest),
                    OrderText = order?.Text,
                    OrderNumber = order?.Number,
                    Origin = source.Origin,
                    InquiryId = source.Answer?.Inquiry,
                    FormId = source.Answer?.Form,
                    FormVersion = source.Answer?.FormVersion,
                    Question = source.Answer?.Question,
                    ImportId = source.Import,
                    By = source.By,
                    At = source.At,
                }
            )
            .Entity;
    }

    /// <summary>A value as a person of the business entered it, in the field's own shape; or why it cannot be kept.</summary>
    /// <param name="client">The client it is about.</param>
    /// <param name="field">The field.</param>
    /// <param name="typed">What was entered; null empties the field.</param>
    /// <param name="now">The business's now.</param>
    public async Task<(Answer? Value, ProblemHttpResult? Refusal)> EnteredAsync(Client client, Field field, Answer? typed, Instant now)
    {
        var business = await db.BusinessAsync();
        var context = new NormaliseContext(business.Region, 0, now, business.Calendar.Today(now))
        {
            Files = await FilesAsync(client, typed),
        };
        var entered = typed is null ? new EnteredValue(null, null) : FieldEntry.Of(typed, field, context, business.Currency);
        if (entered.Fault is { } fault)
            return (null, Problems.Invalid(new Finding(field.Key, fault)));
        if (entered.Value is null && field.Key == BuiltInFields.Name.Key)
            return (null, Problems.Invalid(new Finding(field.Key, "A client needs a name, so that you find them again.")));
        if (field.Key == BuiltInFields.Email.Key && entered.Value is TextAnswer { Text: var email } && await IsTakenAsync(email, client.Id))
            return (
                null,
                Problems.Invalid(new Finding(field.Key, "Another client has this e-mail address already. Look for them in the list."))
            );
        return (entered.Value, null);
    }

    /// <summary>
    /// Of the files named in a value those that may stand in the records of a client: the business's own, and what ever stood there, so
    /// that taking one away can be taken back.
    /// </summary>
    private async Task<Dictionary<Guid, FileRef>> FilesAsync(Client client, Answer? typed)
    {
        if (typed is not FilesAnswer { Files: var named })
            return [];
        var ids = named.Select(file => new Id<StoredFile>(file.Id)).ToList();
        var stood = (await db.FieldValues.AsNoTracking().Where(value => value.ClientId == client.Id).ToListAsync())
            .Select(value => value.Value)
            .OfType<FilesAnswer>()
            .SelectMany(value => value.Files)
            .Select(file => file.Id)
            .ToHashSet();
        return (await db.StoredFiles.Where(file => ids.Contains(file.Id)).ToListAsync())
            .Where(file => file.FormId is null || stood.Contains(file.Id.Value))
            .ToDictionary(file => file.Id.Value, file => file.Ref);
    }

    /// <summary>Whether another client is recognised by an address already.</summary>
    public Task<bool> IsTakenAsync(string email, Id<Client> but)
    {
        var key = EmailAddress.Key(email);
        return db.Clients.AnyAsync(other => other.EmailKey == key && other.Id != but);
    }
}
