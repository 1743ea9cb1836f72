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
    /// lists of equal length entry by entry; everything else is one value. A property that one side took away stays away.
    /// Where both sides changed a place to different values it is a clash, and the result keeps what is stored.
    /// </summary>
    /// <param name="was">What the edit started from.</param>
    /// <param name="now">What the edit wants.</param>
    /// <param name="stored">What is stored at this moment.</param>
    public static (JsonNode? Merged, IReadOnlyList<Clash> Clashes) ThreeWay(JsonNode? was, JsonNode? now, JsonNode? stored)
    {
        var clashes = new List<Clash>();
        return (At("", Place.Of(was), Place.Of(now), Place.Of(stored)).Value, clashes);

        Place At(string place, Place before, Place edited, Place theirs)
        {
            if (edited.Same(before) || edited.Same(theirs))
                return theirs.Copy();
            if (theirs.Same(before))
                return edited.Copy();
            switch (before.Value, edited.Value, theirs.Value)
            {
                case (JsonObject b, JsonObject e, JsonObject t):
                    return Place.Of(new JsonObject(b.Select(one => one.Key).Union(e.Select(one => one.Key)).Union(t.Select(one => one.Key))
                        .Select(key => (Key: key, Merged: At(Under(place, key), Place.In(b, key), Place.In(e, key), Place.In(t, key))))
                        .Where(one => one.Merged.IsThere).Select(one => KeyValuePair.Create(one.Key, one.Merged.Value))));
                case (JsonArray b, JsonArray e, JsonArray t) when b.Count == e.Count && b.Count == t.Count:
                    return Place.Of(new JsonArray([.. b.Select((one, index) => At(Under(place, $"{index}"), Place.Of(one), Place.Of(e[index]), Place.Of(t[index])).Value)]));
                default:
                    clashes.Add(new Clash(place, theirs.Copy().Value, edited.Copy().Value));
                    return theirs.Copy();
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

    /// <summary>What stands at a place: a value, a null, or nothing at all, which is not the same.</summary>
    private readonly record struct Place(bool IsThere, JsonNode? Value)
    {
        public static Place Of(JsonNode? value) => new(true, value);

        public static Place In(JsonObject parent, string key) => new(parent.TryGetPropertyValue(key, out var value), value);

        public bool Same(Place other) => IsThere == other.IsThere && JsonNode.DeepEquals(Value, other.Value);

        public Place Copy() => this with { Value = Value?.DeepClone() };
    }

    private static string Under(string place, string key) => place.Length == 0 ? key : $"{place}.{key}";
}
