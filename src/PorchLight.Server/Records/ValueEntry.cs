using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <param name="ProjectId">The project, for fields of projects; else null.</param>
/// <param name="Was">What stood there when it was read; null when nothing did.</param>
/// <param name="Now">What shall stand there; null empties it.</param>
internal sealed record ValueEdit(Id<Project>? ProjectId, Answer? Was, Answer? Now);

/// <summary>Writes values as a person of the business typed them, as part of the caller's write.</summary>
internal sealed class ValueEntry(PorchDb db, RecordWriter writer, FieldCatalogues catalogues, BusinessClock clock)
{
    /// <summary>Writes a value. What others wrote meanwhile in another way is refused with both.</summary>
    /// <returns>What stands there from then on; or why it cannot be written.</returns>
    public async Task<(Answer? Value, ProblemHttpResult? Refusal)> WriteAsync(Id<Client> id, string field, ValueEdit edit, string by)
    {
        if (await db.Clients.FindAsync(id) is not { } client)
            return (null, Problems.NotFound(ClientEdits.Gone));
        if ((await catalogues.ReadAsync(db)).Find(field) is not { } wanted)
            return (
                null,
                Problems.NotFound("This field is not here any more. What you typed is still in front of you; keep it in the notes.")
            );
        var project =
            wanted.Scope == RecordScope.Project
                ? await db.Projects.SingleOrDefaultAsync(one => one.Id == edit.ProjectId && one.ClientId == id)
                : null;
        if (wanted.Scope == RecordScope.Project && project is null)
            return (null, Problems.NotFound(ProjectEndpoints.Gone));
        var now = clock.GetCurrentInstant();
        var (value, refusal) = await writer.EnteredAsync(client, wanted, edit.Now, now);
        if (refusal is not null)
            return (null, refusal);
        var current = (await writer.CurrentAsync(id, edit.ProjectId)).GetValueOrDefault(field);
        // What is written by hand may differ only in its spelling, and is meant to.
        if (Equals(current?.Value, value))
            return (value, null);
        if (!Equals(current?.Value, edit.Was))
            return (null, Edits.Clashing(field, current?.Value, value));
        writer.Write(client, project, field, value, current, new ValueSource(ValueOrigin.Hand, by, now));
        return (value, null);
    }
}
