using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Storage;

namespace PorchLight.Server.StandIns;

/// <summary>Something somebody wrote into their practice calendar.</summary>
internal sealed class PracticeCalendarEntry
{
    public required Id<PracticeCalendarEntry> Id { get; init; }

    /// <summary>Whose calendar it is: the mail address, in small letters.</summary>
    public required string Email { get; init; }
    public required string Title { get; init; }
    public required Instant Start { get; init; }
    public required int Minutes { get; init; }
    public required bool IsWeekly { get; init; }
}

/// <summary>How practice calendars are kept.</summary>
internal static class PracticeCalendarTables
{
    public static ModelConfigurationBuilder HavePracticeCalendars(this ModelConfigurationBuilder builder) =>
        builder.HaveId<PracticeCalendarEntry>();

    public static void MapPracticeCalendars(this ModelBuilder builder) =>
        builder.Entity<PracticeCalendarEntry>().ToTable("PracticeCalendarEntries").HasIndex(entry => entry.Email);
}
