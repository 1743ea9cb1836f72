using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Meetings;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>How follow-throughs and runs are kept. A run goes with its client and holds the version it follows.</summary>
internal static class FollowThroughTables
{
    public static ModelConfigurationBuilder HaveFollowThrough(this ModelConfigurationBuilder builder) =>
        builder
            .HaveId<StoredFollowThrough>()
            .HaveId<Run>()
            .HaveSharedJson<FollowThroughContent>()
            .HaveJson<RunState>()
            .HaveJson<RunDrafts>();

    public static void MapFollowThrough(this ModelBuilder builder)
    {
        builder.Entity<StoredFollowThrough>().ToTable("StoredFollowThroughs");
        builder.Entity<FollowThroughVersion>().HasKey(version => new { version.FollowThroughId, version.Number });
        builder
            .Entity<FollowThroughVersion>()
            .HasOne<StoredFollowThrough>()
            .WithMany()
            .HasForeignKey(version => version.FollowThroughId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<Run>().HasIndex(run => run.ClientId);
        builder.Entity<Run>().HasIndex(run => run.NextMoment);
        builder.Entity<Run>().HasIndex(run => run.FollowThroughId).HasFilter("\"Active\"");
        builder.Entity<Run>().HasOne<Client>().WithMany().HasForeignKey(run => run.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<Run>().HasOne<Project>().WithMany().HasForeignKey(run => run.ProjectId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<Run>().HasIndex(run => run.NodStatus).HasFilter("\"NodStatus\" IS NOT NULL");
        builder.Entity<Run>().HasIndex(run => run.UnfinishedFormId).HasFilter("\"UnfinishedFormId\" IS NOT NULL");
        builder
            .Entity<Run>()
            .HasOne<UnfinishedForm>()
            .WithMany()
            .HasForeignKey(run => run.UnfinishedFormId)
            .OnDelete(DeleteBehavior.Cascade);
        builder.Entity<Run>().HasOne<Meeting>().WithMany().HasForeignKey(run => run.MeetingId).OnDelete(DeleteBehavior.SetNull);
        builder.Entity<Run>().HasOne<Inquiry>().WithMany().HasForeignKey(run => run.InquiryId).OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<Run>()
            .HasOne<FollowThroughVersion>()
            .WithMany()
            .HasForeignKey(run => new { run.FollowThroughId, run.FollowThroughNumber })
            .OnDelete(DeleteBehavior.NoAction);
        builder.Entity<LoggedEvent>().HasOne<Run>().WithMany().HasForeignKey(logged => logged.RunId).OnDelete(DeleteBehavior.SetNull);
    }
}
