using System.Text.Json.Nodes;
using PorchLight.Core.Common;

namespace PorchLight.Core.Workbench;

/// <summary>
/// Brings two edits of one form together, question by question. What stands on a page is merged by its own key and not as a part of
/// its page, so that one person may move a question to another page while somebody else rewrites it.
/// </summary>
public static class FormMerge
{
    private const string Items = "items";
    private const string Page = "page";
    private const string Pages = "pages";

    /// <summary>
    /// The merge of two edits that started from the same form (<see cref="Merge.ThreeWay"/>). Items are one list, each with its page
    /// as a value of its own, so that places read "items.budget.wording", "items.budget.page" and "items.~order". An item whose page
    /// one side took away while the other left or put it there stands behind what it stood behind.
    /// </summary>
    /// <param name="was">What the edit started from, a form as JSON.</param>
    /// <param name="now">What the edit wants.</param>
    /// <param name="stored">What is stored at this moment.</param>
    /// <returns>A new tree that shares no node with the given ones, and the clashes, outer places before inner ones.</returns>
    public static (JsonNode? Merged, IReadOnlyList<Clash> Clashes) ThreeWay(JsonNode? was, JsonNode? now, JsonNode? stored)
    {
        var (merged, clashes) = Merge.ThreeWay(Flat(was), Flat(now), Flat(stored));
        return (Whole(merged), clashes);
    }

    /// <summary>The form with its items in one list in form order, each naming its page. What is no form stays as it is.</summary>
    /// <param name="form">A form as JSON; it is left as it is.</param>
    public static JsonNode? Flat(JsonNode? form)
    {
        var flat = form?.DeepClone();
        if (flat is not JsonObject content || content[Pages] is not JsonArray pages || !pages.All(page => page is JsonObject))
            return flat;
        var items = new JsonArray();
        foreach (var page in pages.OfType<JsonObject>())
        {
            if (page[Items] is not JsonArray here)
                continue;
            page.Remove(Items);
            foreach (var item in here.OfType<JsonObject>().ToList())
            {
                here.Remove(item);
                item[Page] = page["key"]?.DeepClone();
                items.Add(item);
            }
        }

        content[Items] = items;
        return flat;
    }

    /// <summary>The form with its items on their pages again; the other way round of <see cref="Flat"/>.</summary>
    /// <param name="flat">A form with its items in one list; it is left as it is.</param>
    public static JsonNode? Whole(JsonNode? flat)
    {
        var form = flat?.DeepClone();
        if (form is not JsonObject content || content[Items] is not JsonArray items || content[Pages] is not JsonArray pages)
            return form;
        content.Remove(Items);
        // Without any page there is nowhere for an item to stand; a page is made, so that it is not lost.
        if (pages.Count == 0 && items.Count > 0)
            pages.Add(new JsonObject { ["key"] = items[0]![Page]?.DeepClone(), ["title"] = "" });
        var placed = new Dictionary<string, JsonArray>();
        foreach (var page in pages.OfType<JsonObject>())
        {
            page[Items] = new JsonArray();
            placed.TryAdd(page["key"]?.ToString() ?? "", page[Items]!.AsArray());
        }

        var behind = placed.Values.FirstOrDefault();
        foreach (var item in items.OfType<JsonObject>().ToList())
        {
            items.Remove(item);
            behind = placed.GetValueOrDefault(item[Page]?.ToString() ?? "", behind!);
            item.Remove(Page);
            behind.Add((JsonNode)item);
        }

        return form;
    }
}
