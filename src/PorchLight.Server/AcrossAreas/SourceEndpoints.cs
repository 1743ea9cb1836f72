using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>How people find the business: its own list beside what they wrote and what links said.</summary>
internal static class SourceEndpoints
{
    private const int LongestWords = 100;

    /// <param name="Key">The key of the way in the list; null for words that count to none.</param>
    /// <param name="Name">What it is called, or what was written.</param>
    /// <param name="AlsoWritten">What else counts to it.</param>
    /// <param name="Inquiries">How many inquiries count to it.</param>
    internal sealed record SourceRow(string? Key, string Name, bool IsReferral, IReadOnlyList<string> AlsoWritten, int Inquiries);

    /// <param name="Written">What people wrote, or the name of a way of the list.</param>
    /// <param name="Into">The key of the way it counts to from now on; null makes it a way of its own.</param>
    internal sealed record SourceMerge(string Written, string? Into);

    public static void MapSources(this IEndpointRouteBuilder api)
    {
        api.MapGet("/settings/sources", ListAsync).For(Access.Member).WithTags("Settings");
        api.MapPut("/settings/sources", MergeAsync).For(Access.Owner).WithTags("Settings");
    }

    private static async Task<Ok<List<SourceRow>>> ListAsync(PorchDb db, CancellationToken cancellationToken) =>
        TypedResults.Ok(await RowsAsync(db, cancellationToken));

    /// <summary>
    /// Counts what people wrote to a way of the list, in past inquiries and in those to come. The records keep what was written.
    /// </summary>
    private static async Task<Results<Ok<List<SourceRow>>, ProblemHttpResult>> MergeAsync(
        SourceMerge merge,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        if (merge.Written.Trim().Length is 0 or > LongestWords)
            return Problems.Unprocessable($"What is merged has up to {LongestWords} characters.");
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        if (merge.Into is { } key && business.Lists.Sources.All(source => source.Key != key))
            return Problems.Conflict("That way is not in the list any more. Please choose another one.");
        var lists = business.Lists.WithSource(merge.Written, merge.Into);
        if (lists.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        business.Lists = lists;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await RowsAsync(db, cancellationToken));
    }

    private static async Task<List<SourceRow>> RowsAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var counts = await db
            .CountingInquiries.Where(inquiry => inquiry.Source != null)
            .GroupBy(inquiry => inquiry.Source!)
            .Select(same => new { Name = same.Key, Count = same.Count() })
            .ToListAsync(cancellationToken);
        var lists = (await db.BusinessAsync()).Lists;
        return
        [
            .. lists.Sources.Select(source => new SourceRow(
                source.Key,
                source.Name,
                source.IsReferral,
                source.AlsoWritten,
                counts.Where(one => source.IsCalled(one.Name)).Sum(one => one.Count)
            )),
            .. counts
                .Where(one => lists.SourceCalled(one.Name) is null)
                .OrderByDescending(one => one.Count)
                .ThenBy(one => one.Name, StringComparer.OrdinalIgnoreCase)
                .Select(one => new SourceRow(null, one.Name, false, [], one.Count)),
        ];
    }
}
