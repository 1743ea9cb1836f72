using System.Collections.Concurrent;
using PorchLight.Server.Calendar;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Hosting;

/// <summary>
/// How much strangers may leave on the disk: each address, each form and all together in an hour, and nothing at all once the
/// disk runs low. Counted in memory: after a restart everybody begins anew, and the disk's own margin still holds.
/// </summary>
internal sealed class StorageQuota(DataFolder folder, TimeProvider time, IConfiguration configuration)
{
    private const long Megabyte = 1024 * 1024;
    private readonly long _byAddress = configuration.GetValue("PorchLight:MegabytesByAddress", 300L) * Megabyte;
    private readonly long _byForm = configuration.GetValue("PorchLight:MegabytesByForm", 2_000L) * Megabyte;
    private readonly long _inAll = configuration.GetValue("PorchLight:MegabytesInAll", 5_000L) * Megabyte;
    private readonly long _keptFree = configuration.GetValue("PorchLight:MegabytesKeptFree", 500L) * Megabyte;
    private readonly ConcurrentDictionary<string, (long Hour, long Bytes)> _taken = new();

    /// <summary>Whether so little is free on the disk that nothing large is taken any more.</summary>
    public bool DiskIsLow => new DriveInfo(Path.GetFullPath(folder.Path)).AvailableFreeSpace < _keptFree;

    /// <summary>Takes room for what somebody wants to leave; a sentence for them when there is none.</summary>
    /// <param name="http">Who asks.</param>
    /// <param name="form">The form they are at.</param>
    /// <param name="bytes">How much it is.</param>
    public string? Take(HttpContext http, Guid form, long bytes)
    {
        if (DiskIsLow)
            return "We cannot take this just now: our disk is nearly full. Please send your answers without it, or try again tomorrow.";
        var hour = time.Now().ToUnixTimeSeconds() / 3600;
        foreach (var (old, _) in _taken.Where(one => one.Value.Hour != hour))
            _taken.TryRemove(old, out _);
        (string Name, long Most)[] purses =
        [
            ($"address {RateLimits.ClientNetwork(http.Connection.RemoteIpAddress)}", _byAddress),
            ($"form {form}", _byForm),
            ("all", _inAll),
        ];
        if (purses.Any(purse => _taken.GetValueOrDefault(purse.Name).Bytes + bytes > purse.Most))
            return "That is more than we can take within an hour. Please try again a little later; what you typed is still here.";
        foreach (var (name, _) in purses)
            _taken.AddOrUpdate(name, (hour, bytes), (_, taken) => (hour, taken.Bytes + bytes));
        return null;
    }
}
