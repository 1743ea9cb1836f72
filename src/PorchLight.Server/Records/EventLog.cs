using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Meetings;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>Whom and what an event is about. It need not be about a client: a code goes to whoever a link was made for.</summary>
internal sealed record EventContext(
    Id<Client>? ClientId,
    Id<Project>? ProjectId = null,
    Id<Inquiry>? InquiryId = null,
    Id<Run>? RunId = null,
    Id<OutgoingMail>? MailId = null
)
{
    /// <summary>The meeting it is about; null for none. It stands in what happened.</summary>
    public Id<Meeting>? MeetingId { get; init; }
}

/// <summary>Something that follows from events, in the transaction in which they happened.</summary>
internal interface IEventReaction
{
    Task ReactAsync(LoggedEvent logged);
}

/// <summary>
/// The one place where things happen: whatever happens is appended here, as part of the caller's write, and whatever follows from
/// it follows at once. The reactions are registered; an event knows none of them.
/// </summary>
internal sealed class EventLog(PorchDb db, EventNumbers numbers, IServiceProvider services)
{
    private const int Deepest = 8;
    private IReadOnlyList<IEventReaction>? _reactions;
    private int _depth;

    /// <exception cref="InvalidOperationException">Events follow from each other without end.</exception>
    public async Task AppendAsync(DomainEvent what, Instant at, EventContext about)
    {
        if (_depth == Deepest)
            throw new InvalidOperationException(
                $"Events follow from each other {Deepest} deep, the last of them {what.Kind()}: two reactions call each other."
            );
        var logged = db
            .Events.Add(
                new LoggedEvent
                {
                    Seq = await numbers.NextAsync(db),
                    At = at,
                    Kind = what.Kind(),
                    What = what,
                    Rings = what.Rings() && about.ClientId is not null,
                    ClientId = about.ClientId,
                    ProjectId = about.ProjectId,
                    InquiryId = about.InquiryId,
                    RunId = about.RunId,
                    MailId = about.MailId,
                }
            )
            .Entity;
        _depth++;
        try
        {
            // Asked for late: what reacts to events appends some itself.
            foreach (var reaction in _reactions ??= [.. services.GetServices<IEventReaction>()])
                await reaction.ReactAsync(logged);
        }
        finally
        {
            _depth--;
        }
    }
}

/// <summary>
/// Numbers events in the order they happen, whatever order the database is handed the rows in. A number is taken within a write,
/// which keeps others out; that of an event that was not saved in the end is not used again.
/// </summary>
internal sealed class EventNumbers
{
    private long? _last;

    public async Task<long> NextAsync(PorchDb db)
    {
        if (db.CurrentWrite is null)
            throw new InvalidOperationException("Events happen within a write only.");
        _last = (_last ?? await CompiledQueries.LastEvent(db) ?? 0) + 1;
        return _last.Value;
    }
}
