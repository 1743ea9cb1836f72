using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Records;
using PorchLight.Server.Data;

namespace PorchLight.Server.Records;

/// <param name="At">When, in words.</param>
/// <param name="Exactly">When, with date and zone.</param>
/// <param name="Sentence">What happened.</param>
/// <param name="Words">What somebody wrote, in their own words; else null.</param>
internal sealed record TimelineEntry(string At, string Exactly, string Sentence, string? Words);

internal static class Timeline
{
    private const int Longest = 200;

    /// <summary>The newest events, newest first, as sentences.</summary>
    public static async Task<IReadOnlyList<TimelineEntry>> OfAsync(
        PorchDb db, IQueryable<LoggedEvent> events, string who, Instant now, DateTimeZone zone, CancellationToken cancellationToken)
    {
        var logged = await events.AsNoTracking().OrderByDescending(happened => happened.At).ThenByDescending(happened => happened.Seq).Take(Longest).ToListAsync(cancellationToken);
        return [.. logged.Select(happened => new TimelineEntry(
            TimeWords.At(happened.At, now, zone), TimeWords.Exactly(happened.At, zone), happened.What.Say(who), happened.What.Words()))];
    }
}
