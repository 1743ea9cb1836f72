using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Inquiries;

/// <summary>Takes in the words to search by: as much as one pass may, so that what comes after it does not wait behind a long list.</summary>
internal sealed class SearchWork(ClientSearch search, TimeProvider time) : IDueWork
{
    private const int Batches = 40;

    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        var mayBeMore = true;
        for (var batch = 0; mayBeMore && batch < Batches; batch++)
            mayBeMore = await search.CatchUpAsync(cancellationToken);
        return mayBeMore ? time.Now() : null;
    }
}
