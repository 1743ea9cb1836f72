using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Meetings;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>The kinds of meetings that can be booked: what they are, when they can be, who holds them.</summary>
internal static class MeetingTypeEndpoints
{
    internal const string Gone = "This meeting type is not here any more.";

    /// <summary>A meeting type as a person edits it.</summary>
    /// <param name="Type">The type; hours in its rules are not read.</param>
    /// <param name="Hours">Its own weekly hours, as they are written; null where it has none of its own.</param>
    internal sealed record MeetingTypeEdit(MeetingType Type, WeekWords? Hours)
    {
        public static MeetingTypeEdit Of(MeetingType type) =>
            new(type with { Rules = type.Rules with { Hours = null } }, type.Rules.Hours is { } own ? WeekWords.Of(own) : null);

        public (MeetingType Type, IReadOnlyList<Finding> Findings) Read()
        {
            var (hours, found) = Hours is null ? (null, []) : Hours.Read();
            return (
                Type with
                {
                    Name = Type.Name.Trim(),
                    Purpose = Type.Purpose.Trim(),
                    Title = Type.Title.Trim(),
                    Rules = Type.Rules with { Hours = hours },
                },
                found
            );
        }
    }

    /// <param name="Summary">How long it is, where and with whom, in words.</param>
    /// <param name="Link">The address at which it is booked.</param>
    /// <param name="Upcoming">How many are still to come.</param>
    /// <param name="Note">What somebody should know of it, as a sentence; null for nothing.</param>
    internal sealed record MeetingTypeRow(
        Id<StoredMeetingType> Id,
        string Name,
        string Summary,
        string Link,
        bool IsPaused,
        bool IsArchived,
        int Upcoming,
        string? Note
    );

    /// <param name="Notice">What its notice means today, as a sentence.</param>
    /// <param name="People">Everybody who can hold it.</param>
    /// <param name="Dates">The dates of projects that can be set to its day.</param>
    internal sealed record MeetingTypeView(
        Id<StoredMeetingType> Id,
        MeetingTypeEdit Value,
        string Link,
        bool IsArchived,
        string? Note,
        string Notice,
        IReadOnlyList<Host> People,
        IReadOnlyList<DateOfProjects> Dates
    );

    internal sealed record Host(Guid Id, string Name);

    internal sealed record DateOfProjects(string Key, string Label);

    internal sealed record NewMeetingType(string Name);

    internal sealed record Made(Id<StoredMeetingType> Id);

    internal sealed record Archiving(bool Archived);

    internal sealed record NoticeExample(string Sentence);

    public static void MapMeetingTypes(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/meeting-types").WithTags("Calendar");
        group.MapGet("", ListAsync).For(Access.Member);
        group.MapPost("", CreateAsync).For(Access.Owner).Once();
        group.MapGet("/notice", ShowNoticeAsync).For(Access.Member);
        group.MapGet("/{id}", ShowAsync).For(Access.Member);
        group.MapPut("/{id}", ChangeAsync).For(Access.Owner);
        group.MapPost("/{id}/archiving", ArchiveAsync).For(Access.Owner);
    }

    private static async Task<IReadOnlyList<MeetingTypeRow>> ListAsync(
        PorchDb db,
        Tokens tokens,
        PublicAddress address,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var now = clock.GetCurrentInstant();
        var types = await db.MeetingTypes.ToListAsync(cancellationToken);
        var upcoming = await db
            .Meetings.Where(meeting => meeting.State == MeetingState.Booked && meeting.Start > now)
            .GroupBy(meeting => meeting.TypeId)
            .Select(some => new { Type = some.Key, Count = some.Count() })
            .ToDictionaryAsync(some => some.Type, some => some.Count, cancellationToken);
        var people = await PeopleAsync(db, cancellationToken);
        return
        [
            .. types
                .OrderBy(type => type.Archived is not null)
                .ThenBy(type => type.Content.Name, StringComparer.CurrentCultureIgnoreCase)
                .Select(type => new MeetingTypeRow(
                    type.Id,
                    type.Content.Name,
                    MeetingTypeWords.Summary(type.Content, NamesOf(type.Content, people)),
                    LinkOf(type, address, tokens),
                    type.Content.IsPaused,
                    type.Archived is not null,
                    upcoming.GetValueOrDefault(type.Id),
                    MeetingTypeWords.Note(type.Content, NamesOf(type.Content, people))
                )),
        ];
    }

    private static async Task<Results<Ok<MeetingTypeView>, ProblemHttpResult>> ShowAsync(
        Id<StoredMeetingType> id,
        PorchDb db,
        FieldCatalogues catalogues,
        Tokens tokens,
        PublicAddress address,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) =>
        await db.MeetingTypes.FindAsync([id], cancellationToken) is { } type
            ? TypedResults.Ok(await ViewAsync(type, db, catalogues, tokens, address, clock, cancellationToken))
            : Problems.NotFound(Gone);

    /// <summary>What a notice means today.</summary>
    /// <param name="count">How many hours or days.</param>
    /// <param name="inDays">Whether whole days are counted.</param>
    private static async Task<Ok<NoticeExample>> ShowNoticeAsync(int count, bool inDays, PorchDb db, BusinessClock clock)
    {
        var notice = new SlotNotice(Math.Clamp(count, 0, inDays ? SlotRules.FarthestHorizon : 24 * SlotRules.FarthestHorizon), inDays);
        return TypedResults.Ok(new NoticeExample(notice.Example(clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone)));
    }

    private static async Task<Results<Created<Made>, ProblemHttpResult>> CreateAsync(
        NewMeetingType wanted,
        PorchDb db,
        Tokens tokens,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var name = wanted.Name.Trim();
        if (name.Length is 0 or > MeetingType.LongestName)
            return Problems.Invalid(new Finding("name", $"Give it a name of at most {MeetingType.LongestName} characters."));
        await using var write = await db.WriteAsync(cancellationToken);
        var type = db.AddMeetingType(tokens, MeetingType.Usual(who.UserId()) with { Name = name });
        await write.SaveAsync(cancellationToken);
        return TypedResults.Created($"/api/meeting-types/{type.Id}", new Made(type.Id));
    }

    private static async Task<Results<Ok<MeetingTypeEdit>, ProblemHttpResult>> ChangeAsync(
        Id<StoredMeetingType> id,
        Edit<MeetingTypeEdit> edit,
        PorchDb db,
        FieldCatalogues catalogues,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.MeetingTypes.FindAsync([id], cancellationToken) is not { } type)
            return Problems.NotFound(Gone);
        var (merged, refusal) = edit.Onto(MeetingTypeEdit.Of(type.Content));
        if (refusal is not null)
            return refusal;
        var (content, unread) = merged.Read();
        var users = await db.Users.Select(user => user.Id).ToListAsync(cancellationToken);
        var dates = DatesOf(await catalogues.ReadAsync(db)).Select(date => date.Key).ToHashSet();
        var findings = unread.Concat(content.Check(users, dates.Contains)).ToList();
        if (findings.Count > 0)
            return Problems.Invalid(findings);
        type.Content = content;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(MeetingTypeEdit.Of(content));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ArchiveAsync(
        Id<StoredMeetingType> id,
        Archiving wish,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.MeetingTypes.FindAsync([id], cancellationToken) is not { } type)
            return Problems.NotFound(Gone);
        type.Archived = wish.Archived ? type.Archived ?? clock.GetCurrentInstant() : null;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>A new type, as part of the caller's write.</summary>
    /// <param name="id">Its identifier, where it is known before; null for a new one.</param>
    internal static StoredMeetingType AddMeetingType(this PorchDb db, Tokens tokens, MeetingType content, Id<StoredMeetingType>? id = null)
    {
        var link = tokens.Create();
        return db
            .MeetingTypes.Add(
                new StoredMeetingType
                {
                    Id = id ?? new Id<StoredMeetingType>(Guid.CreateVersion7()),
                    Content = content,
                    LinkHash = link.Hash,
                    LinkSealed = link.Sealed,
                }
            )
            .Entity;
    }

    private static async Task<MeetingTypeView> ViewAsync(
        StoredMeetingType type,
        PorchDb db,
        FieldCatalogues catalogues,
        Tokens tokens,
        PublicAddress address,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var people = await PeopleAsync(db, cancellationToken);
        return new MeetingTypeView(
            type.Id,
            MeetingTypeEdit.Of(type.Content),
            LinkOf(type, address, tokens),
            type.Archived is not null,
            MeetingTypeWords.Note(type.Content, NamesOf(type.Content, people)),
            type.Content.Rules.Notice.Example(clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone),
            people,
            DatesOf(await catalogues.ReadAsync(db))
        );
    }

    private static string LinkOf(StoredMeetingType type, PublicAddress address, Tokens tokens) =>
        $"{address.Site}{MeetingPage.Path}{tokens.Open(type.LinkSealed)}";

    private static List<DateOfProjects> DatesOf(FieldCatalogue catalogue) =>
        [
            .. catalogue
                .Offered.Where(field => field is { Kind: FieldKind.Date, Scope: RecordScope.Project })
                .Select(field => new DateOfProjects(field.Key, field.Label)),
        ];

    private static Task<List<Host>> PeopleAsync(PorchDb db, CancellationToken cancellationToken) =>
        db
            .Users.OrderBy(user => user.DisplayName)
            .ThenBy(user => user.Id)
            .Select(user => new Host(user.Id, user.DisplayName))
            .ToListAsync(cancellationToken);

    private static List<string?> NamesOf(MeetingType type, List<Host> people) =>
        [.. type.Hosts.Select(host => people.Find(one => one.Id == host)?.Name)];
}
