using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.Extensions.Caching.Memory;
using PorchLight.Core.Common;
using PorchLight.Core.Screening;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>
/// Versions never change: those that were asked for last are held, so that sending and evaluating need not read them
/// again.
/// </summary>
internal sealed class PublishedVersions : IDisposable
{
    private readonly MemoryCache _held = new(new MemoryCacheOptions { SizeLimit = 200 });

    public async Task<T?> GetAsync<T>(PorchDb db, object key, Func<Task<T?>> read)
        where T : class
    {
        if (_held.TryGetValue((typeof(T), key), out T? held))
            return held;
        var version = await read();
        // What a write has put there may yet not happen.
        if (version is not null && db.CurrentWrite is null)
            _held.Set((typeof(T), key), version, new MemoryCacheEntryOptions { Size = 1 });
        return version;
    }

    public void Dispose() => _held.Dispose();
}

internal static class VersionReading
{
    /// <summary>The version of a form under a number; null when there is none.</summary>
    public static Task<FormVersion?> FormVersionAsync(this PorchDb db, Id<Form> form, int number) =>
        db.GetService<PublishedVersions>().GetAsync(db, (form, number), () => CompiledQueries.FormVersion(db, form, number));

    /// <summary>The rules of screening of a form under a number.</summary>
    public static async Task<ScreeningRules> ScreeningRulesAsync(this PorchDb db, Id<Form> form, int number) =>
        (
            await db.GetService<PublishedVersions>()
                .GetAsync(db, (form, number), async () => (ScreeningVersion?)await CompiledQueries.Screening(db, form, number))
        )!.Rules;
}
