using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Data;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Records;

/// <summary>Whom and what an event is about.</summary>
internal sealed record EventContext(Id<Client> ClientId, Id<Project>? ProjectId = null, Id<Inquiry>? InquiryId = null, Id<Run>? RunId = null);

/// <summary>
/// Where everything that happens is said, once. Whatever follows from it (runs that start or stop, promises that are
/// kept) follows here, in the same transaction.
/// </summary>
internal sealed class EventLog(PorchDb db, RunEngine runs)
{
    public async Task HappenedAsync(DomainEvent what, Instant at, EventContext about)
    {
        var logged = db.Log(what, at, about);
        await Promises.ReactAsync(db, logged);
        await runs.ReactAsync(logged);
    }
}

internal static class EventWriting
{
    /// <summary>Writes an event from which nothing follows.</summary>
    public static LoggedEvent Log(this PorchDb db, DomainEvent what, Instant at, EventContext about) => db.Events.Add(new LoggedEvent
    {
        At = at,
        What = what,
        Rings = what.Rings(),
        ClientId = about.ClientId,
        ProjectId = about.ProjectId,
        InquiryId = about.InquiryId,
        RunId = about.RunId,
    }).Entity;
}
