using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Lists;

/// <summary>A way to look at a list, under a name.</summary>
internal sealed class ListView
{
    public required Id<ListView> Id { get; init; }

    /// <summary>The list, by its address.</summary>
    public required string List { get; init; }
    public required string Name { get; set; }

    /// <summary>What it shows, as <see cref="StoredJson"/> of the query of its list.</summary>
    public required string Query { get; set; }
}

internal static class ListTables
{
    public static ModelConfigurationBuilder HaveListViews(this ModelConfigurationBuilder builder) => builder.HaveId<ListView>();

    public static void MapListViews(this ModelBuilder builder) =>
        builder.Entity<ListView>().HasIndex(view => new { view.List, view.Name }).IsUnique();
}

/// <summary>Views are nobody's; but what was typed into one may be somebody's name.</summary>
internal sealed class ClientListViews(PorchDb db) : IClientPart
{
    public IEnumerable<ClientRows> RowsOf(WholePerson person) => [];

    public async Task ForgetAsync(WholePerson person, CancellationToken cancellationToken)
    {
        foreach (var view in await db.ListViews.ToListAsync(cancellationToken))
        {
            var stored = JsonNode.Parse(view.Query)!;
            if (Forget(stored["value"]!.AsObject(), person))
                view.Query = stored.ToJsonString(Json.Options);
        }
    }

    private static bool Forget(JsonObject query, WholePerson person)
    {
        var (forgot, filters) = (false, query["filters"] as JsonArray);
        if (IsTheirs(query["words"]))
        {
            query["words"] = "";
            forgot = true;
        }

        foreach (var filter in filters?.Where(filter => IsTheirs(filter?["value"])).ToList() ?? [])
            forgot |= filters!.Remove(filter);
        return forgot;

        bool IsTheirs(JsonNode? typed) => typed is not null && person.IsFoundBy(typed.GetValue<string>());
    }
}
