using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Messages;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>How mail is kept. It outlives the client it went to.</summary>
internal static class MailTables
{
    public static ModelConfigurationBuilder HaveMail(this ModelConfigurationBuilder builder) =>
        builder
            .HaveId<OutgoingMail>()
            .HaveId<PracticeMessage>()
            .HaveId<IncomingMessage>()
            .HaveId<TeamChatPost>()
            .HaveJson<MessageDraft>()
            .HaveJson<Enclosed>()
            .HaveJson<HeldMail>()
            .HaveId<LibraryMessage>()
            .HaveId<ShortMessage>()
            .HaveId<BuiltInText>()
            .HaveJson<MessageTemplate>();

    public static void MapMail(this ModelBuilder builder)
    {
        // Each step of a run takes effect once; this key is what holds it.
        builder.Entity<OutgoingMail>().HasIndex(mail => mail.EffectKey).IsUnique();
        builder.Entity<OutgoingMail>().HasIndex(mail => new { mail.State, mail.NextTry });
        // When an address last got something automatic is asked before every such message.
        builder.Entity<OutgoingMail>().HasIndex(mail => new { mail.To, mail.Written }).HasFilter("\"Automatic\"");
        builder.Entity<OutgoingMail>().HasOne<Client>().WithMany().HasForeignKey(mail => mail.ClientId).OnDelete(DeleteBehavior.SetNull);
        builder
            .Entity<LoggedEvent>()
            .HasOne<OutgoingMail>()
            .WithMany()
            .HasForeignKey(logged => logged.MailId)
            .OnDelete(DeleteBehavior.SetNull);

        builder.Entity<IncomingMessage>().ToTable("IncomingMail");
        builder.Entity<IncomingMessage>().HasIndex(message => message.MessageId).IsUnique();
        builder.Entity<IncomingMessage>().HasIndex(message => message.ClientId);
        builder.Entity<IncomingMessage>().HasOne<Client>().WithMany().HasForeignKey(one => one.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<IncomingMessage>()
            .HasOne<OutgoingMail>()
            .WithMany()
            .HasForeignKey(message => message.AnswersId)
            .OnDelete(DeleteBehavior.SetNull);
        builder.Entity<MailboxPosition>().ToTable("MailboxPositions");
        builder.Entity<MailboxPosition>().HasKey(position => position.Mailbox);

        builder.Entity<LibraryMessage>().ToTable("LibraryMessages");
        builder.Entity<BuiltInText>().ToTable("BuiltInTexts");
        builder.Entity<BuiltInText>().HasIndex(text => new { text.FormId, text.Kind }).IsUnique();
        builder.Entity<BuiltInText>().HasOne<Form>().WithMany().HasForeignKey(text => text.FormId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<UnsubscribeLink>().ToTable("UnsubscribeLinks");
        builder.Entity<UnsubscribeLink>().HasKey(link => link.ClientId);
        builder.Entity<UnsubscribeLink>().HasIndex(link => link.Hash).IsUnique();
        builder.Entity<UnsubscribeLink>().HasOne<Client>().WithMany().HasForeignKey(link => link.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<ShortMessage>().ToTable("ShortMessages");
        builder.Entity<ShortMessage>().HasIndex(message => message.EffectKey).IsUnique();
        builder.Entity<ShortMessage>().HasIndex(message => message.ClientId);
        builder
            .Entity<ShortMessage>()
            .HasOne<Client>()
            .WithMany()
            .HasForeignKey(message => message.ClientId)
            .OnDelete(DeleteBehavior.Cascade);
        builder.Entity<TeamChatPost>().ToTable("TeamChat");
        builder.Entity<TeamChatPost>().HasIndex(post => post.ClientId);
        builder.Entity<TeamChatPost>().HasIndex(post => post.UnfinishedFormId);
        builder.Entity<TeamChatPost>().HasOne<Client>().WithMany().HasForeignKey(post => post.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder
            .Entity<TeamChatPost>()
            .HasOne<UnfinishedForm>()
            .WithMany()
            .HasForeignKey(post => post.UnfinishedFormId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<PracticeMessage>().HasIndex(message => message.MessageId).IsUnique();
        builder.Entity<PracticeMessage>().HasIndex(message => new { message.At, message.Id });
        builder
            .Entity<PracticeMessage>()
            .HasOne<Client>()
            .WithMany()
            .HasForeignKey(message => message.ClientId)
            .OnDelete(DeleteBehavior.SetNull);
    }
}
