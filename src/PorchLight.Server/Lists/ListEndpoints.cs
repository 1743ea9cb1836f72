using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Lists;

/// <summary>The addresses every list has: its pages, all it finds, what it can be made of, its views, and a file.</summary>
internal static class ListEndpoints
{
    public const int MostAtOnce = 200;
    private const int LongestName = 60;

    /// <param name="address">Its address; that of its file is the same with ".csv".</param>
    /// <param name="access">Who may see it.</param>
    public static void MapList<TList, T, TId, TQuery, TRow>(this IEndpointRouteBuilder api, string address, string tag, Access access)
        where TList : ListOf<T, TId, TQuery, TRow>
        where TId : notnull
        where TQuery : ListQuery, new()
    {
        var file = $"{address}.csv";
        var group = api.MapGroup(address).For(access).WithTags(tag);
        // What is written once for every list is bound when the program starts; compilers and analysers bind what they see the types of.
        Delegate page = Of<TList, T, TId, TQuery, TRow>.PageAsync;
        Delegate ids = Of<TList, T, TId, TQuery, TRow>.IdsAsync;
        Delegate choices = Of<TList, T, TId, TQuery, TRow>.ChoicesAsync;
        Delegate keep = Of<TList, T, TId, TQuery, TRow>.KeepViewAsync;
        Delegate remove = Of<TList, T, TId, TQuery, TRow>.RemoveViewAsync;
        Delegate save = Of<TList, T, TId, TQuery, TRow>.SaveAsync;
#pragma warning disable RDG002
        group.MapPost("/found", page);
        group.MapPost("/all-found", ids);
        group.MapGet("/choices", choices);
        group.MapPut("/views", keep);
        group.MapDelete("/views/{id}", remove);
        api.MapGet(file, save).For(access).WithTags(tag).ExcludeFromDescription();
#pragma warning restore RDG002
    }

    public const string Unreadable = "This address is not complete. Go back to the list and save it from there.";

    /// <summary>What a list shows, as an address has it; null where it cannot be read, the whole list where nothing is said.</summary>
    public static TQuery? Read<TQuery>(string? query)
        where TQuery : ListQuery, new()
    {
        try
        {
            return query is null ? new TQuery() : JsonSerializer.Deserialize<TQuery>(query, Json.Options);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static class Of<TList, T, TId, TQuery, TRow>
        where TList : ListOf<T, TId, TQuery, TRow>
        where TId : notnull
        where TQuery : ListQuery, new()
    {
        public static async Task<Results<Ok<ListPage<TRow>>, ProblemHttpResult>> PageAsync(
            ListAsked<TQuery> asked,
            TList list,
            CancellationToken cancellationToken
        )
        {
            var (page, findings) = await list.PageAsync(asked, cancellationToken);
            return page is null ? Problems.Invalid(findings) : TypedResults.Ok(page);
        }

        public static async Task<Results<Ok<IReadOnlyList<TId>>, ProblemHttpResult>> IdsAsync(
            TQuery query,
            TList list,
            CancellationToken cancellationToken
        )
        {
            var (ids, findings) = await list.IdsAsync(query, cancellationToken);
            return ids is null ? Problems.Invalid(findings) : TypedResults.Ok(ids);
        }

        public static async Task<Ok<ListChoices<TQuery>>> ChoicesAsync(TList list, PorchDb db, CancellationToken cancellationToken) =>
            TypedResults.Ok(await list.ChoicesAsync(db, cancellationToken));

        // One that has the name already takes the new query.
        public static async Task<Results<Ok<ListViewEntry<TQuery>>, ProblemHttpResult>> KeepViewAsync(
            NewListView<TQuery> wanted,
            TList list,
            PorchDb db,
            CancellationToken cancellationToken
        )
        {
            var name = wanted.Name.Trim();
            if (name.Length is 0 or > LongestName)
                return Problems.Invalid(new Finding("name", $"A view needs a name of at most {LongestName} characters."));
            if (await list.CheckAsync(wanted.Query) is { Count: > 0 } findings)
                return Problems.Invalid(findings);
            await using var write = await db.WriteAsync(cancellationToken);
            var view = await db.ListViews.FirstOrDefaultAsync(one => one.List == list.Name && one.Name == name, cancellationToken);
            var query = StoredJson.Write(wanted.Query);
            if (view is null)
                view = db
                    .ListViews.Add(
                        new ListView
                        {
                            Id = new Id<ListView>(Guid.CreateVersion7()),
                            List = list.Name,
                            Name = name,
                            Query = query,
                        }
                    )
                    .Entity;
            view.Query = query;
            await write.SaveAsync(cancellationToken);
            return TypedResults.Ok(new ListViewEntry<TQuery>(view.Id, view.Name, wanted.Query));
        }

        public static async Task<NoContent> RemoveViewAsync(Id<ListView> id, TList list, PorchDb db, CancellationToken cancellationToken)
        {
            await using var write = await db.WriteAsync(cancellationToken);
            if (await db.ListViews.FindAsync([id], cancellationToken) is { } view && view.List == list.Name)
                db.ListViews.Remove(view);
            await write.SaveAsync(cancellationToken);
            return TypedResults.NoContent();
        }

        public static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> SaveAsync(
            string? query,
            TList list,
            CancellationToken cancellationToken
        )
        {
            if (Read<TQuery>(query) is not { } asked)
                return Problems.Unprocessable(Unreadable);
            var (ids, findings) = await list.IdsAsync(asked, cancellationToken);
            return ids is null
                ? Problems.Invalid(findings)
                : TypedResults.Stream(
                    stream => list.WriteAsync(stream, ids, asked, cancellationToken),
                    "text/csv; charset=utf-8",
                    $"{list.Name}.csv"
                );
        }
    }
}
