using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>How meeting types and meetings are kept. A meeting goes with its client; a type stays as long as it has any.</summary>
internal static class MeetingTables
{
    public static ModelConfigurationBuilder HaveMeetings(this ModelConfigurationBuilder builder) =>
        builder
            .HaveId<StoredMeetingType>()
            .HaveId<BookingLink>()
            .HaveId<Meeting>()
            .HaveId<OutsideCalendar>()
            .HaveJson<CalendarFaults>()
            .HaveSharedJson<MeetingType>()
            .HaveJson<PersonHours>()
            .HaveJson<MeetingAnswers>();

    public static void MapMeetings(this ModelBuilder builder)
    {
        builder.Entity<StoredMeetingType>().ToTable("MeetingTypes").HasIndex(type => type.LinkHash).IsUnique();
        builder.Entity<StoredMeetingType>().Ignore(type => type.IsOpen);

        builder.Entity<BookingLink>().ToTable("BookingLinks").HasIndex(link => link.LinkHash).IsUnique();
        builder.Entity<BookingLink>().HasIndex(link => new { link.ClientId, link.TypeId });
        builder
            .Entity<BookingLink>()
            .HasOne<StoredMeetingType>()
            .WithMany()
            .HasForeignKey(link => link.TypeId)
            .OnDelete(DeleteBehavior.Cascade);
        builder.Entity<BookingLink>().HasOne<Client>().WithMany().HasForeignKey(link => link.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<BookingLink>().HasOne<Inquiry>().WithMany().HasForeignKey(link => link.InquiryId).OnDelete(DeleteBehavior.SetNull);

        builder.Entity<UserHours>().ToTable("UserHours").HasKey(hours => hours.UserId);
        builder.Entity<UserHours>().HasOne<User>().WithMany().HasForeignKey(hours => hours.UserId).OnDelete(DeleteBehavior.Cascade);

        builder.Entity<Meeting>().Ignore(meeting => meeting.When);
        builder.Entity<Meeting>().HasIndex(meeting => meeting.Start);
        builder.Entity<Meeting>().HasIndex(meeting => meeting.ClientId);
        builder.Entity<Meeting>().HasIndex(meeting => meeting.LinkHash).IsUnique();
        builder.Entity<Meeting>().HasOne<StoredMeetingType>().WithMany().HasForeignKey(one => one.TypeId).OnDelete(DeleteBehavior.NoAction);
        builder.Entity<Meeting>().HasOne<Client>().WithMany().HasForeignKey(meeting => meeting.ClientId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<Meeting>().HasOne<Project>().WithMany().HasForeignKey(meeting => meeting.ProjectId).OnDelete(DeleteBehavior.SetNull);
        builder.Entity<Meeting>().HasOne<Inquiry>().WithMany().HasForeignKey(meeting => meeting.InquiryId).OnDelete(DeleteBehavior.SetNull);

        builder.Entity<Meeting>().HasIndex(meeting => meeting.SubmissionId);
        builder.Entity<Meeting>().HasOne<Submission>().WithMany().HasForeignKey(one => one.SubmissionId).OnDelete(DeleteBehavior.SetNull);

        // Who has left holds it no more; the meeting says that nobody does.
        builder.Entity<MeetingHost>().ToTable("MeetingHosts").HasKey(host => new { host.MeetingId, host.UserId });
        builder.Entity<MeetingHost>().HasOne<Meeting>().WithMany().HasForeignKey(host => host.MeetingId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<MeetingHost>().HasOne<User>().WithMany().HasForeignKey(host => host.UserId).OnDelete(DeleteBehavior.Cascade);

        builder.Entity<OutsideCalendar>().ToTable("OutsideCalendars").HasIndex(calendar => calendar.Next);
        builder.Entity<OutsideCalendar>().HasOne<User>().WithMany().HasForeignKey(one => one.UserId).OnDelete(DeleteBehavior.Cascade);

        builder.Entity<OutsideEntry>().ToTable("OutsideEntries").Ignore(entry => entry.When);
        builder.Entity<OutsideEntry>().HasIndex(entry => new { entry.CalendarId, entry.From });
        builder
            .Entity<OutsideEntry>()
            .HasOne<OutsideCalendar>()
            .WithMany()
            .HasForeignKey(entry => entry.CalendarId)
            .OnDelete(DeleteBehavior.Cascade);

        builder.Entity<CalendarFeed>().ToTable("CalendarFeeds").HasKey(feed => feed.UserId);
        builder.Entity<CalendarFeed>().HasIndex(feed => feed.LinkHash).IsUnique();
        builder.Entity<CalendarFeed>().HasOne<User>().WithMany().HasForeignKey(feed => feed.UserId).OnDelete(DeleteBehavior.Cascade);
    }
}
