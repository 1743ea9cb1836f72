using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Brand;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;

namespace PorchLight.Server.Storage;

/// <summary>Everything that is kept, in one SQLite file.</summary>
internal sealed class PorchDb(DbContextOptions<PorchDb> options) : IdentityDbContext<User, IdentityRole<Guid>, Guid>(options)
{
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
    public DbSet<SavedDraft> SavedDrafts => Set<SavedDraft>();
    public DbSet<Submission> Submissions => Set<Submission>();
    public DbSet<Inquiry> Inquiries => Set<Inquiry>();
    public DbSet<Client> Clients => Set<Client>();
    public DbSet<Project> Projects => Set<Project>();
    public DbSet<FieldValue> FieldValues => Set<FieldValue>();
    public DbSet<Note> Notes => Set<Note>();
    public DbSet<OpenDifference> Differences => Set<OpenDifference>();
    public DbSet<LoggedEvent> Events => Set<LoggedEvent>();
    public DbSet<FollowThroughVersion> FollowThroughs => Set<FollowThroughVersion>();
    public DbSet<Run> Runs => Set<Run>();
    public DbSet<OutgoingMail> OutgoingMail => Set<OutgoingMail>();
    public DbSet<PracticeMessage> PracticeMail => Set<PracticeMessage>();
    public DbSet<CompletedRequest> CompletedRequests => Set<CompletedRequest>();
    public DbSet<EndedSession> EndedSessions => Set<EndedSession>();

    /// <summary>The write that is open; null outside of one.</summary>
    internal Write? CurrentWrite { get; set; }

    /// <summary>The business; asked of the database once in a transaction.</summary>
    public async Task<Business> BusinessAsync() => Businesses.Local.FirstOrDefault() ?? await CompiledQueries.Business(this);

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder
            .HaveTimes()
            .HaveId<Form>()
            .HaveId<Submission>()
            .HaveId<Inquiry>()
            .HaveId<Client>()
            .HaveId<Project>()
            .HaveId<FieldValue>()
            .HaveId<Note>()
            .HaveId<OpenDifference>()
            .HaveId<FollowThroughVersion>()
            .HaveId<Run>()
            .HaveId<OutgoingMail>()
            .HaveId<PracticeMessage>()
            .HaveId<Invite>()
            .HaveId<StoredFile>()
            .HaveId<LookUpList>()
            .HaveId<PersonalLink>()
            .HaveId<ReopenSubscription>()
            .HaveId<SavedDraft>()
            .HaveSharedJson<WorkingHours>()
            .HaveSharedJson<BrandLook>()
            .HaveJson<SmtpSettings>()
            .HaveSharedJson<FormContent>()
            .HaveSharedJson<ScreeningRules>()
            .HaveJson<SentAnswers>()
            .HaveJson<Cells>()
            .HaveSharedJson<FormSettings>()
            .HaveSharedJson<BusinessLists>()
            .HaveJson<GivenAnswers>()
            .HaveJson<Verdict>()
            .HaveJson<Answer>()
            .HaveJson<DomainEvent>()
            .HaveSharedJson<FollowThroughContent>()
            .HaveJson<RunState>()
            .HaveJson<RunDrafts>()
            .HaveJson<MessageDraft>()
            .Properties<Enum>()
            .HaveConversion<string>();

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<BrandPicture>().HasKey(picture => picture.Hash);
        builder.Entity<Invite>().HasIndex(invite => invite.LinkHash).IsUnique();
        builder.Entity<FormVersion>().HasKey(version => new { version.FormId, version.Number });
        builder.Entity<ScreeningVersion>().HasKey(version => new { version.FormId, version.Number });
        builder.Entity<FollowThroughVersion>().HasKey(version => new { version.Id, version.Number });
        builder.Entity<Form>().HasIndex(form => form.LinkHash).IsUnique();
        builder.Entity<StoredFile>().Ignore(file => file.Ref);
        builder.Entity<StoredFile>().HasIndex(file => file.SendKey);
        builder.Entity<StoredFile>().HasIndex(file => file.SubmissionId);
        builder.Entity<LookUpLine>().HasKey(line => new { line.ListId, line.Key });
        builder.Entity<Submission>().HasIndex(submission => new { submission.FormId, submission.SendKey }).IsUnique();
        builder.Entity<Submission>().HasIndex(submission => submission.ReceiptHash).IsUnique();
        builder.Entity<Submission>().HasIndex(submission => submission.ProofHash).IsUnique();
        builder.Entity<PersonalLink>().Ignore(link => link.Name);
        builder.Entity<PersonalLink>().HasIndex(link => link.LinkHash).IsUnique();
        builder.Entity<ReopenSubscription>().HasIndex(wish => new { wish.FormId, wish.EmailKey }).IsUnique();
        builder.Entity<SavedDraft>().HasIndex(draft => draft.LinkHash).IsUnique();
        builder.Entity<SavedDraft>().HasIndex(draft => new { draft.FormId, draft.SendKey }).IsUnique();
        builder.Entity<SavedDraft>().HasIndex(draft => draft.GoodUntil);
        builder.Entity<Inquiry>().HasIndex(inquiry => inquiry.SubmissionId);
        builder.Entity<Inquiry>().HasIndex(inquiry => new { inquiry.FormId, inquiry.WantedMonth });
        builder.Entity<Inquiry>().HasIndex(inquiry => inquiry.ClientId);
        builder.Entity<Client>().HasIndex(client => client.EmailKey).IsUnique();
        builder.Entity<Project>().HasIndex(project => project.ClientId);
        builder.Entity<FieldValue>().HasIndex(value => value.ClientId);
        builder.Entity<Note>().HasIndex(note => note.ClientId);
        builder.Entity<OpenDifference>().HasIndex(difference => difference.InquiryId);
        builder.Entity<LoggedEvent>().HasKey(logged => logged.Seq);
        builder.Entity<LoggedEvent>().HasIndex(logged => logged.ClientId);
        builder.Entity<LoggedEvent>().HasIndex(logged => new { logged.Kind, logged.Seq });
        builder.Entity<LoggedEvent>().HasIndex(logged => new { logged.Rings, logged.Seq });
        builder.Entity<Run>().HasIndex(run => run.ClientId);
        builder.Entity<Run>().HasIndex(run => run.NextMoment);
        // Each step of a run takes effect once; this key is what holds it.
        builder.Entity<OutgoingMail>().HasIndex(mail => mail.EffectKey).IsUnique();
        builder.Entity<OutgoingMail>().HasIndex(mail => new { mail.State, mail.NextTry });
        builder.Entity<EndedSession>().HasKey(ended => ended.Session);
        builder.Entity<CompletedRequest>().HasKey(act => act.Key);
        builder.Entity<CompletedRequest>().Property(act => act.Key).ValueGeneratedNever();
        builder.Entity<PracticeMessage>().HasIndex(message => message.MessageId).IsUnique();

        foreach (
            var property in builder
                .Model.GetEntityTypes()
                .SelectMany(entity => entity.GetProperties())
                .Where(property => property.ClrType.IsGenericType && property.ClrType.Name.StartsWith("Id`", StringComparison.Ordinal))
        )
            property.ValueGenerated = Microsoft.EntityFrameworkCore.Metadata.ValueGenerated.Never;
    }
}
