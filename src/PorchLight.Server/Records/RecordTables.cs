using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>
/// How clients, projects, what is known of them and what happened are kept. A client's records go with the client; what
/// happened stays, and forgets whom it was about.
/// </summary>
internal static class RecordTables
{
    public static ModelConfigurationBuilder HaveRecords(this ModelConfigurationBuilder builder) =>
        builder
            .HaveId<Client>()
            .HaveId<Project>()
            .HaveId<FieldValue>()
            .HaveId<Note>()
            .HaveId<RecordDifference>()
            .HaveId<NoteRevision>()
            .HaveId<ClientPair>()
            .HaveId<ClientMerge>()
            .HaveJson<MergeMemory>()
            .HaveId<ClientImport>()
            .HaveId<ClientTask>()
            .HaveJson<ImportPlan>()
            .HaveJson<Answer>()
            .HaveJson<DomainEvent>();

    public static void MapRecords(this ModelBuilder builder)
    {
        // Whoever went into another record is found by what reads on purpose, and by nothing else.
        builder.Entity<Client>().HasQueryFilter(client => client.MergedIntoId == null);
        builder.Entity<Client>().HasIndex(client => client.EmailKey);
        // Nearly everybody is nobody's other record; of an index of them all the database thinks that it leads to few.
        builder.Entity<Client>().HasIndex(client => client.MergedIntoId).HasFilter("\"MergedIntoId\" IS NOT NULL");
        builder.Entity<Client>().HasOne<Client>().WithMany().HasForeignKey(client => client.MergedIntoId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ClientKey>().HasKey(key => new { key.ClientId, key.Key });
        builder.Entity<ClientKey>().HasIndex(key => key.Key);
        builder.Entity<ClientKey>().HasOne<Client>().WithMany().HasForeignKey(key => key.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ClientPair>().HasIndex(pair => new { pair.OneId, pair.OtherId }).IsUnique();
        builder.Entity<ClientPair>().HasIndex(pair => pair.OtherId);
        builder.Entity<ClientPair>().HasOne<Client>().WithMany().HasForeignKey(pair => pair.OneId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ClientPair>().HasOne<Client>().WithMany().HasForeignKey(pair => pair.OtherId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ClientMerge>().HasIndex(merge => merge.KeptId);
        builder.Entity<ClientMerge>().HasOne<Client>().WithMany().HasForeignKey(merge => merge.KeptId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ClientMerge>().HasOne<Client>().WithMany().HasForeignKey(merge => merge.OtherId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<Client>().HasIndex(client => client.SortName);
        builder.Entity<Client>().HasIndex(client => client.Since);
        builder.Entity<Client>().HasIndex(client => client.IsUnindexed).HasFilter("\"IsUnindexed\"");
        builder.Entity<Client>().HasIndex(client => client.EraseOn).HasFilter("\"EraseOn\" IS NOT NULL");
        builder.Entity<ClientImportFile>().HasKey(file => file.ImportId);
        builder
            .Entity<ClientImportFile>()
            .HasOne<ClientImport>()
            .WithMany()
            .HasForeignKey(file => file.ImportId)
            .OnDelete(DeleteBehavior.Cascade);
        builder.MapImported<Client>();
        builder.MapImported<ClientTag>();
        builder.MapImported<FieldValue>();
        builder.MapImported<Note>();
        builder.Entity<ClientTag>().HasKey(tag => new { tag.ClientId, tag.Tag });
        builder.Entity<ClientTag>().HasIndex(tag => tag.Tag);
        builder.Entity<ClientTag>().HasOne<Client>().WithMany().HasForeignKey(tag => tag.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ClientSearchRow>().HasKey(row => row.Row);
        builder.Entity<ClientSearchRow>().HasIndex(row => row.ClientId).IsUnique();
        builder.Entity<ClientSearchRow>().HasOne<Client>().WithMany().HasForeignKey(row => row.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<PersonalLink>().HasOne<Client>().WithMany().HasForeignKey(link => link.ClientId).OnDelete(DeleteBehavior.SetNull);

        builder.Entity<Project>().HasIndex(project => project.ClientId);
        builder.Entity<Project>().HasIndex(project => project.ClientId, "IX_Projects_Latest").IsUnique().HasFilter("\"IsLatest\"");
        builder.Entity<Project>().HasOne<Client>().WithMany().HasForeignKey(project => project.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<Project>().HasOne<Form>().WithMany().HasForeignKey(project => project.FormId).OnDelete(DeleteBehavior.NoAction);

        builder.Entity<Project>().HasIndex(project => project.ParkedUntil).HasFilter("\"ParkedUntil\" IS NOT NULL");
        builder.Entity<Project>().HasOne<User>().WithMany().HasForeignKey(project => project.LooksAfterId).OnDelete(DeleteBehavior.SetNull);

        builder.Entity<ProjectWatcher>().HasKey(watcher => new { watcher.ProjectId, watcher.UserId });
        builder.Entity<ProjectWatcher>().HasOne<Project>().WithMany().HasForeignKey(one => one.ProjectId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ProjectWatcher>().HasOne<User>().WithMany().HasForeignKey(one => one.UserId).OnDelete(DeleteBehavior.Cascade);

        builder.Entity<ClientTask>().HasIndex(task => task.ClientId);
        builder.Entity<ClientTask>().HasIndex(task => task.On).HasFilter("\"Done\" IS NULL");
        builder.Entity<ClientTask>().HasOne<Client>().WithMany().HasForeignKey(task => task.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ClientTask>().HasOne<Project>().WithMany().HasForeignKey(task => task.ProjectId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ClientTask>().HasOne<User>().WithMany().HasForeignKey(task => task.ForId).OnDelete(DeleteBehavior.SetNull);

        builder.Entity<FieldValue>().HasIndex(value => value.ClientId);
        // A value has words or a number to be found by, never both, and only what lists show is looked for; whose it is stands there, too.
        builder
            .Entity<FieldValue>()
            .HasIndex(value => new
            {
                value.Field,
                value.OrderText,
                value.ClientId,
            })
            .HasFilter("\"IsListed\" AND \"OrderText\" IS NOT NULL");
        builder
            .Entity<FieldValue>()
            .HasIndex(value => new
            {
                value.Field,
                value.OrderNumber,
                value.ClientId,
            })
            .HasFilter("\"IsListed\" AND \"OrderNumber\" IS NOT NULL");
        builder.Entity<FieldValue>().HasOne<Client>().WithMany().HasForeignKey(value => value.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<FieldValue>().HasOne<Project>().WithMany().HasForeignKey(value => value.ProjectId).OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<FieldValue>()
            .HasOne<FormVersion>()
            .WithMany()
            .HasForeignKey(value => new { value.FormId, value.FormVersion })
            .OnDelete(DeleteBehavior.NoAction);

        builder.Entity<Note>().HasIndex(note => note.ClientId);
        builder.Entity<Note>().HasOne<Client>().WithMany().HasForeignKey(note => note.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<Note>().HasOne<Project>().WithMany().HasForeignKey(note => note.ProjectId).OnDelete(DeleteBehavior.Cascade);

        builder.Entity<NoteRevision>().HasIndex(revision => revision.NoteId);
        builder
            .Entity<NoteRevision>()
            .HasOne<Note>()
            .WithMany()
            .HasForeignKey(revision => revision.NoteId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<RecordDifference>().ToTable("Differences").HasIndex(difference => difference.ClientId);
        builder.Entity<RecordDifference>().HasIndex(difference => difference.InquiryId);
        builder.Entity<RecordDifference>().HasOne<Client>().WithMany().HasForeignKey(one => one.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<RecordDifference>()
            .HasOne<Project>()
            .WithMany()
            .HasForeignKey(one => one.ProjectId)
            .OnDelete(DeleteBehavior.Cascade);

        builder
            .Entity<RecordDifference>()
            .HasOne<FieldValue>()
            .WithMany()
            .HasForeignKey(one => one.WrittenValueId)
            .OnDelete(DeleteBehavior.SetNull);
        builder
            .Entity<RecordDifference>()
            .HasOne<Note>()
            .WithMany()
            .HasForeignKey(one => one.WrittenNoteId)
            .OnDelete(DeleteBehavior.SetNull);

        builder.Entity<LoggedEvent>().HasKey(logged => logged.Seq);
        builder.Entity<LoggedEvent>().Property(logged => logged.Seq).ValueGeneratedNever();
        builder.Entity<LoggedEvent>().HasIndex(logged => logged.ClientId);
        builder.Entity<LoggedEvent>().HasIndex(logged => new { logged.Kind, logged.Seq });
        builder.Entity<LoggedEvent>().HasIndex(logged => new { logged.Rings, logged.Seq });
        builder.Entity<LoggedEvent>().HasOne<Client>().WithMany().HasForeignKey(logged => logged.ClientId).OnDelete(DeleteBehavior.SetNull);
        builder
            .Entity<LoggedEvent>()
            .HasOne<Project>()
            .WithMany()
            .HasForeignKey(logged => logged.ProjectId)
            .OnDelete(DeleteBehavior.SetNull);
    }

    /// <summary>What an import may have brought is found by it, so that it can be taken back.</summary>
    private static void MapImported<T>(this ModelBuilder builder)
        where T : class
    {
        const string importId = nameof(Client.ImportId);
        builder.Entity<T>().HasIndex(importId).HasFilter($"\"{importId}\" IS NOT NULL");
        builder.Entity<T>().HasOne(typeof(ClientImport)).WithMany().HasForeignKey(importId).OnDelete(DeleteBehavior.SetNull);
    }
}
