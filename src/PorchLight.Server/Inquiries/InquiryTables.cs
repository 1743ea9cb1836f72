using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Screening;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>How inquiries are kept. They go with their client; what they brought into the records is not left without them.</summary>
internal static class InquiryTables
{
    public static ModelConfigurationBuilder HaveInquiries(this ModelConfigurationBuilder builder) =>
        builder.HaveId<Inquiry>().HaveJson<Verdict>();

    public static void MapInquiries(this ModelBuilder builder)
    {
        builder.Entity<Inquiry>().HasIndex(inquiry => inquiry.SubmissionId);
        builder.Entity<Inquiry>().HasIndex(inquiry => new { inquiry.FormId, inquiry.WantedMonth });
        builder.Entity<Inquiry>().HasIndex(inquiry => inquiry.ClientId);
        builder
            .Entity<Inquiry>()
            .HasIndex(inquiry => new
            {
                inquiry.Need,
                inquiry.Urgency,
                inquiry.Id,
            });
        // What a list is filtered by most, each in the order of the list.
        foreach (
            var filter in new[]
            {
                nameof(Inquiry.Fit),
                nameof(Inquiry.Stage),
                nameof(Inquiry.LooksAfterId),
                nameof(Inquiry.Service),
                nameof(Inquiry.Source),
            }
        )
            builder.Entity<Inquiry>().HasIndex(filter, nameof(Inquiry.Need), nameof(Inquiry.Urgency), nameof(Inquiry.Id));
        builder.Entity<Inquiry>().HasIndex(inquiry => new { inquiry.Received, inquiry.Id });
        builder.Entity<Inquiry>().HasIndex(inquiry => new { inquiry.Score, inquiry.Id });
        builder.Entity<Inquiry>().HasIndex(inquiry => new { inquiry.SortName, inquiry.Id });
        builder.Entity<Inquiry>().HasIndex(inquiry => new { inquiry.BudgetAmount, inquiry.Id });
        // Needs are in the order a list shows them.
        builder.Entity<Inquiry>().Property(inquiry => inquiry.Need).HasConversion<int>();
        builder.Entity<Inquiry>().HasOne<User>().WithMany().HasForeignKey(inquiry => inquiry.LooksAfterId).OnDelete(DeleteBehavior.SetNull);
        builder.Entity<Inquiry>().HasOne<Client>().WithMany().HasForeignKey(inquiry => inquiry.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<Inquiry>().HasOne<Project>().WithMany().HasForeignKey(inquiry => inquiry.ProjectId).OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<Inquiry>()
            .HasOne<Submission>()
            .WithMany()
            .HasForeignKey(inquiry => inquiry.SubmissionId)
            .OnDelete(DeleteBehavior.NoAction);
        builder
            .Entity<Inquiry>()
            .HasOne<FormVersion>()
            .WithMany()
            .HasForeignKey(inquiry => new { inquiry.FormId, inquiry.FormVersion })
            .OnDelete(DeleteBehavior.NoAction);
        builder
            .Entity<Inquiry>()
            .HasOne<ScreeningVersion>()
            .WithMany()
            .HasForeignKey(inquiry => new { inquiry.FormId, inquiry.ScreeningVersion })
            .OnDelete(DeleteBehavior.NoAction);

        builder.Entity<DueNotification>().HasKey(notification => new { notification.UserId, notification.InquiryId });
        builder.Entity<DueNotification>().HasIndex(notification => notification.Due);
        builder
            .Entity<DueNotification>()
            .HasOne<User>()
            .WithMany()
            .HasForeignKey(notification => notification.UserId)
            .OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<DueNotification>()
            .HasOne<Inquiry>()
            .WithMany()
            .HasForeignKey(notification => notification.InquiryId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<OverruledFit>().HasKey(overruled => overruled.InquiryId);
        builder
            .Entity<OverruledFit>()
            .HasOne<Inquiry>()
            .WithOne()
            .HasForeignKey<OverruledFit>(overruled => overruled.InquiryId)
            .OnDelete(DeleteBehavior.Cascade);
        builder.Entity<LaterVerdict>().HasKey(verdict => new { verdict.InquiryId, verdict.ScreeningVersion });
        builder
            .Entity<LaterVerdict>()
            .HasOne<Inquiry>()
            .WithMany()
            .HasForeignKey(verdict => verdict.InquiryId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<FieldValue>().HasOne<Inquiry>().WithMany().HasForeignKey(value => value.InquiryId).OnDelete(DeleteBehavior.NoAction);
        builder.Entity<Note>().HasOne<Inquiry>().WithMany().HasForeignKey(note => note.InquiryId).OnDelete(DeleteBehavior.NoAction);
        builder
            .Entity<RecordDifference>()
            .HasOne<Inquiry>()
            .WithMany()
            .HasForeignKey(one => one.InquiryId)
            .OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<LoggedEvent>()
            .HasOne<Inquiry>()
            .WithMany()
            .HasForeignKey(logged => logged.InquiryId)
            .OnDelete(DeleteBehavior.SetNull);
    }
}
