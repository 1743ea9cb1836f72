using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;
using Refused = Microsoft.AspNetCore.Http.HttpResults.ProblemHttpResult;

namespace PorchLight.Server.Meetings;

/// <summary>Who moves or cancels a meeting.</summary>
/// <param name="User">Somebody of the business; null for whoever booked it, who can only do so for a while.</param>
/// <param name="Zone">The zone in which they look at it.</param>
internal sealed record MeetingChanger(Guid? User, DateTimeZone Zone);

/// <summary>Moves and cancels meetings for whoever may, as part of the caller's write.</summary>
internal sealed class MeetingChanges(PorchDb db, MeetingBooking booking, BusinessClock clock)
{
    internal const string Taken = "This time has just been taken.";

    /// <summary>Moves a meeting.</summary>
    /// <returns>Why not; null where it was moved.</returns>
    public async Task<Refused?> MoveAsync(
        Meeting meeting,
        Instant start,
        string reason,
        MeetingChanger by,
        CancellationToken cancellationToken
    )
    {
        if (await RefuseAsync(meeting, reason, by, cancellationToken) is { } refusal)
            return refusal;
        var moved = await booking.MoveAsync(meeting, start, reason.Trim(), by.User, clock.GetCurrentInstant(), cancellationToken);
        return moved.Meeting is null ? TakenMeanwhile(moved, by.Zone, (await db.BusinessAsync()).DateTimeZone) : null;
    }

    /// <summary>Cancels a meeting.</summary>
    /// <returns>Why not; null where it was cancelled.</returns>
    public async Task<Refused?> CancelAsync(Meeting meeting, string reason, MeetingChanger by, CancellationToken cancellationToken)
    {
        if (await RefuseAsync(meeting, reason, by, cancellationToken) is { } refusal)
            return refusal;
        await booking.CancelAsync(meeting, reason.Trim(), by.User, clock.GetCurrentInstant(), cancellationToken);
        return null;
    }

    /// <summary>That a time is taken, with the nearest that are free.</summary>
    public static Refused TakenMeanwhile(BookingResult result, DateTimeZone viewer, DateTimeZone business) =>
        Problems.Taken(
            result.Nearest.Count > 0 ? $"{Taken} These are the nearest that are free." : $"{Taken} Nothing else is free any more.",
            BookingTable.TimesOf(result.Nearest, viewer, business)
        );

    private async Task<Refused?> RefuseAsync(Meeting meeting, string reason, MeetingChanger by, CancellationToken cancellationToken)
    {
        if (TextLength.TooLong(reason, MeetingChange.LongestReason) is { } tooLong)
            return Problems.Invalid(new Finding("reason", tooLong));
        var now = clock.GetCurrentInstant();
        var type = (await db.MeetingTypes.FindAsync([meeting.TypeId], cancellationToken))!.Content;
        var locked = by.User is null
            ? MeetingChange.RefuseTheirs(meeting.State, meeting.Start, type.ChangeHours, now, by.Zone)
            : MeetingChange.RefuseOurs(meeting.State, meeting.Start, now);
        return locked is null ? null : Problems.Conflict(locked);
    }
}
