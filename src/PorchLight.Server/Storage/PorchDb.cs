using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Metadata.Conventions;
using PorchLight.Core.Common;
using PorchLight.Server.Brand;
using PorchLight.Server.Fields;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Lists;
using PorchLight.Server.Meetings;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.StandIns;
using PorchLight.Server.Webhooks;

namespace PorchLight.Server.Storage;

/// <summary>Everything that is kept, in one SQLite file.</summary>
internal sealed class PorchDb : IdentityDbContext<User, IdentityRole<Guid>, Guid>
{
    private (Business Read, long Mark)? _business;

    public PorchDb(DbContextOptions<PorchDb> options)
        : base(options)
    {
        // What changed is looked for once, when it is saved, and not with every question to what is held already.
        ChangeTracker.AutoDetectChangesEnabled = false;
        ChangeTracker.QueryTrackingBehavior = QueryTrackingBehavior.NoTracking;
    }

    public DbSet<Business> Businesses => Set<Business>();
    public DbSet<BrandPicture> BrandPictures => Set<BrandPicture>();
    public DbSet<FormerUser> FormerUsers => Set<FormerUser>();
    public DbSet<Invite> Invites => Set<Invite>();
    public DbSet<Form> Forms => Set<Form>();
    public DbSet<FormVersion> FormVersions => Set<FormVersion>();
    public DbSet<ScreeningVersion> ScreeningVersions => Set<ScreeningVersion>();
    public DbSet<StoredFile> StoredFiles => Set<StoredFile>();
    public DbSet<LookUpList> LookUpLists => Set<LookUpList>();
    public DbSet<LookUpLine> LookUpLines => Set<LookUpLine>();
    public DbSet<PersonalLink> PersonalLinks => Set<PersonalLink>();
    public DbSet<ReopenSubscription> ReopenSubscriptions => Set<ReopenSubscription>();
    public DbSet<UnfinishedForm> UnfinishedForms => Set<UnfinishedForm>();
    public DbSet<Submission> Submissions => Set<Submission>();
    public DbSet<Inquiry> Inquiries => Set<Inquiry>();
    public DbSet<OverruledFit> OverruledFits => Set<OverruledFit>();
    public DbSet<DueNotification> DueNotifications => Set<DueNotification>();
    public DbSet<LaterVerdict> LaterVerdicts => Set<LaterVerdict>();
    public DbSet<Client> Clients => Set<Client>();
    public DbSet<Project> Projects => Set<Project>();
    public DbSet<FieldValue> FieldValues => Set<FieldValue>();
    public DbSet<Note> Notes => Set<Note>();
    public DbSet<NoteRevision> NoteRevisions => Set<NoteRevision>();
    public DbSet<RecordDifference> Differences => Set<RecordDifference>();
    public DbSet<ClientTag> ClientTags => Set<ClientTag>();
    public DbSet<ClientKey> ClientKeys => Set<ClientKey>();
    public DbSet<ClientPair> ClientPairs => Set<ClientPair>();
    public DbSet<ClientMerge> ClientMerges => Set<ClientMerge>();
    public DbSet<ClientImport> ClientImports => Set<ClientImport>();
    public DbSet<ClientImportFile> ClientImportFiles => Set<ClientImportFile>();
    public DbSet<ClientSearchRow> ClientSearchRows => Set<ClientSearchRow>();
    public DbSet<StoredField> Fields => Set<StoredField>();
    public DbSet<StoredArrangement> Arrangements => Set<StoredArrangement>();
    public DbSet<ProjectWatcher> ProjectWatchers => Set<ProjectWatcher>();
    public DbSet<ClientTask> ClientTasks => Set<ClientTask>();
    public DbSet<ListView> ListViews => Set<ListView>();
    public DbSet<LoggedEvent> Events => Set<LoggedEvent>();
    public DbSet<StoredFollowThrough> FollowThroughs => Set<StoredFollowThrough>();
    public DbSet<FollowThroughVersion> FollowThroughVersions => Set<FollowThroughVersion>();
    public DbSet<Run> Runs => Set<Run>();
    public DbSet<OutgoingMail> OutgoingMail => Set<OutgoingMail>();
    public DbSet<PracticeMessage> PracticeMail => Set<PracticeMessage>();
    public DbSet<IncomingMessage> IncomingMail => Set<IncomingMessage>();
    public DbSet<MailboxPosition> MailboxPositions => Set<MailboxPosition>();
    public DbSet<BuiltInText> BuiltInTexts => Set<BuiltInText>();
    public DbSet<LibraryMessage> LibraryMessages => Set<LibraryMessage>();
    public DbSet<UnsubscribeLink> UnsubscribeLinks => Set<UnsubscribeLink>();
    public DbSet<ShortMessage> ShortMessages => Set<ShortMessage>();
    public DbSet<TeamChatPost> TeamChat => Set<TeamChatPost>();
    public DbSet<StoredMeetingType> MeetingTypes => Set<StoredMeetingType>();
    public DbSet<BookingLink> BookingLinks => Set<BookingLink>();
    public DbSet<UserHours> UserHours => Set<UserHours>();
    public DbSet<Meeting> Meetings => Set<Meeting>();
    public DbSet<PracticeCalendarEntry> PracticeCalendarEntries => Set<PracticeCalendarEntry>();
    public DbSet<OutsideCalendar> OutsideCalendars => Set<OutsideCalendar>();
    public DbSet<OutsideEntry> OutsideEntries => Set<OutsideEntry>();
    public DbSet<CalendarFeed> CalendarFeeds => Set<CalendarFeed>();
    public DbSet<MeetingHost> MeetingHosts => Set<MeetingHost>();
    public DbSet<Webhook> Webhooks => Set<Webhook>();
    public DbSet<WebhookCall> WebhookCalls => Set<WebhookCall>();
    public DbSet<CompletedRequest> CompletedRequests => Set<CompletedRequest>();
    public DbSet<EndedSession> EndedSessions => Set<EndedSession>();

    /// <summary>The write that is open; null outside of one.</summary>
    internal Write? CurrentWrite { get; private set; }

    /// <summary>What the answer to the request that this context serves is made of; null for work that answers nobody.</summary>
    internal AnswerAreas? Areas { get; set; }

    /// <summary>Notes that an answer is made of what is stored under a type, also where it was read before and is remembered.</summary>
    internal void NoteRead<T>()
        where T : class
    {
        if (WriteGuard.AreaOf(typeof(T)) is { } area)
            Areas?.MadeOf.Add(area);
    }

    /// <summary>The press that the first write that is saved keeps with what it does; null for none, or once it is kept.</summary>
    internal CompletedRequest? SendKey { get; set; }

    /// <summary>Whether what is saved is committed only when whoever asked for that says so: <see cref="Write.CommitAsync"/>.</summary>
    internal bool HoldsCommits { get; set; }

    /// <summary>
    /// The business: in a write asked of the database once, to be changed there; outside of one to be read, and asked again when somebody
    /// has written anything.
    /// </summary>
    public async Task<Business> BusinessAsync()
    {
        NoteRead<Business>();
        if (CurrentWrite is not null)
            return Businesses.Local.FirstOrDefault() ?? await CompiledQueries.Business(this);
        var mark = this.Mark();
        if (_business is not { } known || known.Mark != mark)
            _business = known = (await CompiledQueries.Business(this), mark);
        return known.Read;
    }

    /// <summary>From here on what is read is held, so that it can be changed.</summary>
    internal void Begin(Write write)
    {
        CurrentWrite = write;
        ChangeTracker.QueryTrackingBehavior = QueryTrackingBehavior.TrackAll;
        if (SendKey is not null)
            CompletedRequests.Add(SendKey);
    }

    /// <summary>Lets go of all that is held.</summary>
    internal void End()
    {
        CurrentWrite = null;
        ChangeTracker.Clear();
        ChangeTracker.QueryTrackingBehavior = QueryTrackingBehavior.NoTracking;
    }

    /// <summary>The inquiries that count: all but spam and tests.</summary>
    public IQueryable<Inquiry> CountingInquiries => Inquiries.Where(inquiry => inquiry.Aside == null);

    /// <summary>The answers that count: all but those of spam and tests.</summary>
    public IQueryable<Submission> CountingSubmissions =>
        Submissions.Where(sent => !Inquiries.Any(inquiry => inquiry.SubmissionId == sent.Id && inquiry.Aside != null));

    /// <summary>The clients that count: all but those whom only spam and tests made.</summary>
    public IQueryable<Client> CountingClients => Clients.Where(client => !client.IsAside);

    /// <summary>How many answers to a form count.</summary>
    public Task<int> CountReceivedAsync(Id<Form> form, CancellationToken cancellationToken) =>
        CountingSubmissions.CountAsync(sent => sent.FormId == form, cancellationToken);

    public override int SaveChanges(bool acceptAllChangesOnSuccess)
    {
        ChangeTracker.DetectChanges();
        return base.SaveChanges(acceptAllChangesOnSuccess);
    }

    public override Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        ChangeTracker.DetectChanges();
        return base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
    }

    /// <summary>Every area says itself how it is kept.</summary>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        // An index costs every insert; the areas name those that a query or a delete really needs.
        configurationBuilder.Conventions.Remove<ForeignKeyIndexConvention>();
        configurationBuilder
            .HaveTimes()
            .HaveBusiness()
            .HaveUsers()
            .HaveFields()
            .HaveForms()
            .HaveRecords()
            .HaveListViews()
            .HaveMail()
            .HaveWebhooks()
            .HaveInquiries()
            .HaveMeetings()
            .HavePracticeCalendars()
            .HaveFollowThrough()
            .Properties<Enum>()
            .HaveConversion<string>();
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.MapRequests();
        builder.MapBusiness();
        builder.MapUsers();
        builder.MapFields();
        builder.MapForms();
        builder.MapRecords();
        builder.MapListViews();
        builder.MapMail();
        builder.MapWebhooks();
        builder.MapInquiries();
        builder.MapMeetings();
        builder.MapPracticeCalendars();
        builder.MapFollowThrough();

        foreach (
            var property in builder
                .Model.GetEntityTypes()
                .SelectMany(entity => entity.GetProperties())
                .Where(property => property.ClrType.IsGenericType && property.ClrType.Name.StartsWith("Id`", StringComparison.Ordinal))
        )
            property.ValueGenerated = ValueGenerated.Never;
    }
}
