using System.Text.Json.Nodes;

namespace PorchLight.Core.Common;

/// <summary>A place that two people changed at the same time, each in their own way.</summary>
/// <param name="Place">The path of the value: "title", "wordings.budget", "parts.1.filled".</param>
/// <param name="Theirs">What is stored now; null for nothing.</param>
/// <param name="Yours">What the later edit wanted; null for nothing.</param>
public sealed record Clash(string Place, JsonNode? Theirs, JsonNode? Yours);

/// <summary>
/// Brings an edit together with what was stored meanwhile. An edit names what it started from, so that only what was
/// really changed counts, and places changed by one side alone need nobody's decision.
/// </summary>
public static class Merge
{
    /// <summary>
    /// The three-way merge of two JSON values that started from the same one. Objects are merged property by property,
    /// lists of equal length entry by entry; everything else is one value. Where both sides changed a place to different
    /// values it is a clash, and the result keeps what is stored.
    /// </summary>
    /// <param name="was">What the edit started from.</param>
    /// <param name="now">What the edit wants.</param>
    /// <param name="stored">What is stored at this moment.</param>
    public static (JsonNode? Merged, IReadOnlyList<Clash> Clashes) ThreeWay(JsonNode? was, JsonNode? now, JsonNode? stored)
    {
        var clashes = new List<Clash>();
        return (At("", was, now, stored), clashes);

        JsonNode? At(string place, JsonNode? before, JsonNode? edited, JsonNode? theirs)
        {
            if (JsonNode.DeepEquals(edited, before) || JsonNode.DeepEquals(edited, theirs))
                return theirs?.DeepClone();
            if (JsonNode.DeepEquals(theirs, before))
                return edited?.DeepClone();
            switch (before, edited, theirs)
            {
                case (JsonObject b, JsonObject e, JsonObject t):
                    return new JsonObject(b.Select(one => one.Key).Union(e.Select(one => one.Key)).Union(t.Select(one => one.Key))
                        .Select(key => KeyValuePair.Create(key, At(Under(place, key), b[key], e[key], t[key]))));
                case (JsonArray b, JsonArray e, JsonArray t) when b.Count == e.Count && b.Count == t.Count:
                    return new JsonArray([.. b.Select((one, index) => At(Under(place, $"{index}"), one, e[index], t[index]))]);
                default:
                    clashes.Add(new Clash(place, theirs?.DeepClone(), edited?.DeepClone()));
                    return theirs?.DeepClone();
            }
        }
    }

    /// <summary>Every place at which what a person sees is not what is stored, as if both had changed it.</summary>
    /// <param name="seen">What the person sees.</param>
    /// <param name="stored">What is stored at this moment.</param>
    public static IReadOnlyList<Clash> Differences(JsonNode? seen, JsonNode? stored)
    {
        return [.. At("", seen, stored)];

        IEnumerable<Clash> At(string place, JsonNode? yours, JsonNode? theirs) => (yours, theirs) switch
        {
            _ when JsonNode.DeepEquals(yours, theirs) => [],
            (JsonObject y, JsonObject t) => y.Select(one => one.Key).Union(t.Select(one => one.Key)).SelectMany(key => At(Under(place, key), y[key], t[key])),
            (JsonArray y, JsonArray t) when y.Count == t.Count => y.SelectMany((one, index) => At(Under(place, $"{index}"), one, t[index])),
            _ => [new Clash(place, theirs?.DeepClone(), yours?.DeepClone())],
        };
    }

    private static string Under(string place, string key) => place.Length == 0 ? key : $"{place}.{key}";
}
