using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>
/// How forms, their versions, files and links are kept, and what was sent. Parts of a form go with it; what somebody
/// sent holds the version they saw.
/// </summary>
internal static class FormTables
{
    public static ModelConfigurationBuilder HaveForms(this ModelConfigurationBuilder builder) =>
        builder
            .HaveId<Form>()
            .HaveId<Submission>()
            .HaveId<StoredFile>()
            .HaveId<LookUpList>()
            .HaveId<PersonalLink>()
            .HaveId<ReopenSubscription>()
            .HaveId<UnfinishedForm>()
            .HaveSharedJson<FormContent>()
            .HaveSharedJson<ScreeningRules>()
            .HaveSharedJson<FormSettings>()
            .HaveJson<SentAnswers>()
            .HaveJson<GivenAnswers>()
            .HaveJson<Cells>();

    public static void MapForms(this ModelBuilder builder)
    {
        builder.Entity<Form>().HasIndex(form => form.LinkHash).IsUnique();
        builder.Entity<FormVersion>().HasKey(version => new { version.FormId, version.Number });
        builder.Entity<FormVersion>().HasOne<Form>().WithMany().HasForeignKey(version => version.FormId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ScreeningVersion>().HasKey(version => new { version.FormId, version.Number });
        builder
            .Entity<ScreeningVersion>()
            .HasOne<Form>()
            .WithMany()
            .HasForeignKey(version => version.FormId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<LookUpLine>().HasKey(line => new { line.ListId, line.Key });
        builder.Entity<LookUpLine>().HasOne<LookUpList>().WithMany().HasForeignKey(line => line.ListId).OnDelete(DeleteBehavior.Cascade);

        builder.Entity<Submission>().HasIndex(submission => new { submission.FormId, submission.SendKey }).IsUnique();
        builder.Entity<Submission>().HasIndex(submission => submission.ReceiptHash).IsUnique();
        builder.Entity<Submission>().HasIndex(submission => submission.ProofHash).IsUnique();
        builder
            .Entity<Submission>()
            .HasOne<FormVersion>()
            .WithMany()
            .HasForeignKey(submission => new { submission.FormId, submission.FormVersion })
            .OnDelete(DeleteBehavior.NoAction);
        builder
            .Entity<Submission>()
            .HasOne<PersonalLink>()
            .WithMany()
            .HasForeignKey(submission => submission.PersonalLinkId)
            .OnDelete(DeleteBehavior.SetNull);

        builder.Entity<StoredFile>().Ignore(file => file.Ref);
        builder.Entity<StoredFile>().HasIndex(file => file.SendKey);
        builder.Entity<StoredFile>().HasIndex(file => file.SubmissionId);
        builder.Entity<StoredFile>().HasOne<Form>().WithMany().HasForeignKey(file => file.FormId).OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<StoredFile>()
            .HasOne<Submission>()
            .WithMany()
            .HasForeignKey(file => file.SubmissionId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<PersonalLink>().Ignore(link => link.Name);
        builder.Entity<PersonalLink>().HasIndex(link => link.LinkHash).IsUnique();
        builder.Entity<PersonalLink>().HasOne<Form>().WithMany().HasForeignKey(link => link.FormId).OnDelete(DeleteBehavior.Cascade);
        // A link is good for one sending, so it does not outlive what was sent with it.
        builder
            .Entity<PersonalLink>()
            .HasOne<Submission>()
            .WithMany()
            .HasForeignKey(link => link.SubmissionId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<ReopenSubscription>().HasIndex(wish => new { wish.FormId, wish.EmailKey }).IsUnique();
        builder.Entity<ReopenSubscription>().HasOne<Form>().WithMany().HasForeignKey(wish => wish.FormId).OnDelete(DeleteBehavior.Cascade);

        builder.Entity<UnfinishedForm>().HasIndex(unfinished => unfinished.LinkHash).IsUnique();
        builder.Entity<UnfinishedForm>().HasIndex(unfinished => new { unfinished.FormId, unfinished.SendKey }).IsUnique();
        builder.Entity<UnfinishedForm>().HasIndex(unfinished => unfinished.GoodUntil);
        builder
            .Entity<UnfinishedForm>()
            .HasOne<FormVersion>()
            .WithMany()
            .HasForeignKey(unfinished => new { unfinished.FormId, unfinished.FormVersion })
            .OnDelete(DeleteBehavior.Cascade);
    }
}
