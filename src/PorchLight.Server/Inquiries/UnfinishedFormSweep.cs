using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Lets go of filling-ins that nobody came back to, on the day their link said.</summary>
internal sealed class UnfinishedFormSweep(PorchDb db, UnfinishedForms unfinishedForms, TimeProvider time) : IDueWork
{
    private static readonly Duration LongestBetween = Duration.FromHours(1);

    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await unfinishedForms.SweepAsync(cancellationToken);
        var later = time.Now() + LongestBetween;
        var ends = await db
            .UnfinishedForms.Where(unfinished => unfinished.Ended == null)
            .MinAsync(unfinished => (Instant?)unfinished.GoodUntil, cancellationToken);
        return ends is { } next ? Instant.Min(next, later) : later;
    }
}
