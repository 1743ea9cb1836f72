using System.Text.Json.Nodes;

namespace PorchLight.Core.Common;

/// <summary>A place that two people changed at the same time, each in their own way.</summary>
/// <param name="Place">
/// The path of the value: "title", "wordings.budget"; an entry of a keyed list by its key ("parts.opening.text"), the order
/// of a keyed list as <see cref="Merge.Order"/> ("parts.~order"), whose values are the keys in order.
/// </param>
/// <param name="Theirs">What is stored now; null for nothing.</param>
/// <param name="Yours">What the later edit wanted; null for nothing.</param>
public sealed record Clash(string Place, JsonNode? Theirs, JsonNode? Yours);

/// <summary>
/// Brings an edit together with what was stored meanwhile. An edit names what it started from, so that only what was
/// really changed counts, and places changed by one side alone need nobody's decision.
/// </summary>
public static class Merge
{
    /// <summary>How the order of a keyed list is named within a place. No key can be it: keys have no tilde.</summary>
    public const string Order = "~order";

    private static readonly string[] Discriminators = ["kind", "item"];

    /// <summary>
    /// The three-way merge of two JSON values that started from the same one.
    /// <list type="bullet">
    /// <item>Objects are merged property by property; a property that one side took away stays away. Objects of different kinds
    /// (unlike in "kind" or "item") are one value: what one kind says means nothing to another.</item>
    /// <item>Lists of keyed entries (objects with a text "key", none twice) are merged entry by entry, and their order is a value
    /// of its own: it clashes only where both sides moved entries, each in another way. What is added stands behind what it
    /// stood behind where it was added. An entry whose key is empty is new, and like no other.</item>
    /// <item>Everything else, every other list included, is one value.</item>
    /// </list>
    /// Where both sides changed a place to different values it is a clash, and the result keeps what is stored; to take away what
    /// the other side changed is a clash, too.
    /// </summary>
    /// <param name="was">What the edit started from; null is the JSON value null.</param>
    /// <param name="now">What the edit wants.</param>
    /// <param name="stored">What is stored at this moment.</param>
    /// <returns>A new tree that shares no node with the given ones, and the clashes, outer places before inner ones.</returns>
    public static (JsonNode? Merged, IReadOnlyList<Clash> Clashes) ThreeWay(JsonNode? was, JsonNode? now, JsonNode? stored)
    {
        var clashes = new List<Clash>();
        return (At("", Node.Of(was), Node.Of(now), Node.Of(stored)).Value, clashes);

        Node At(string place, Node before, Node edited, Node theirs)
        {
            if (edited.Same(before) || edited.Same(theirs))
                return theirs.Copy();
            if (theirs.Same(before))
                return edited.Copy();
            return (before.Value, edited.Value, theirs.Value) switch
            {
                (JsonObject b, JsonObject e, JsonObject t) when Kind(b) == Kind(e) && Kind(b) == Kind(t) => Properties(place, b, e, t),
                (JsonArray b, JsonArray e, JsonArray t)
                    when KeyedList.Read(b, 'b') is { } was && KeyedList.Read(e, 'e') is { } now && KeyedList.Read(t, 't') is { } stored =>
                    Entries(place, was, now, stored),
                _ => Clashing(place, edited, theirs),
            };
        }

        Node Properties(string place, JsonObject before, JsonObject edited, JsonObject theirs) =>
            Node.Of(
                new JsonObject(
                    before
                        .Select(one => one.Key)
                        .Union(edited.Select(one => one.Key))
                        .Union(theirs.Select(one => one.Key))
                        .Select(key =>
                            (Key: key, Merged: At(Under(place, key), Node.In(before, key), Node.In(edited, key), Node.In(theirs, key)))
                        )
                        .Where(one => one.Merged.IsThere)
                        .Select(one => KeyValuePair.Create(one.Key, one.Merged.Value))
                )
            );

        Node Entries(string place, KeyedList before, KeyedList edited, KeyedList theirs)
        {
            var entries = before
                .Keys.Union(edited.Keys)
                .Union(theirs.Keys)
                .Select(key => (Key: key, Merged: At(Under(place, key), before.Entry(key), edited.Entry(key), theirs.Entry(key))))
                .Where(one => one.Merged.IsThere)
                .ToDictionary(one => one.Key, one => one.Merged.Value);
            return Node.Of(new JsonArray([.. Ordered(place, before, edited, theirs, entries.Keys).Select(key => entries[key])]));
        }

        IReadOnlyList<string> Ordered(string place, KeyedList before, KeyedList edited, KeyedList theirs, IReadOnlyCollection<string> kept)
        {
            var (theyMoved, youMoved) = (before.IsMovedIn(theirs), before.IsMovedIn(edited));
            if (youMoved && !theyMoved)
                return edited.OrderOf(kept, theirs);
            if (youMoved && theyMoved && theirs.IsMovedIn(edited))
                clashes.Add(new Clash(Under(place, Order), KeysOf(theirs), KeysOf(edited)));
            return theirs.OrderOf(kept, edited);
        }

        Node Clashing(string place, Node edited, Node theirs)
        {
            clashes.Add(new Clash(place, theirs.Copy().Value, edited.Copy().Value));
            return theirs.Copy();
        }
    }

    /// <summary>
    /// Every place at which what a person sees is not what is stored, as if both had changed it; lists as in
    /// <see cref="ThreeWay"/>.
    /// </summary>
    /// <param name="seen">What the person sees.</param>
    /// <param name="stored">What is stored at this moment.</param>
    public static IReadOnlyList<Clash> Differences(JsonNode? seen, JsonNode? stored)
    {
        return [.. At("", Node.Of(seen), Node.Of(stored))];

        IEnumerable<Clash> At(string place, Node yours, Node theirs) =>
            (yours.Value, theirs.Value) switch
            {
                _ when yours.Same(theirs) => [],
                (JsonObject y, JsonObject t) when Kind(y) == Kind(t) => y.Select(one => one.Key)
                    .Union(t.Select(one => one.Key))
                    .SelectMany(key => At(Under(place, key), Node.In(y, key), Node.In(t, key))),
                (JsonArray y, JsonArray t) when KeyedList.Read(y, 'y') is { } seen && KeyedList.Read(t, 't') is { } stored =>
                [
                    .. seen.Keys.Union(stored.Keys).SelectMany(key => At(Under(place, key), seen.Entry(key), stored.Entry(key))),
                    .. seen.IsMovedIn(stored) ? [new Clash(Under(place, Order), KeysOf(stored), KeysOf(seen))] : Array.Empty<Clash>(),
                ],
                _ => [new Clash(place, theirs.Copy().Value, yours.Copy().Value)],
            };
    }

    private static string Under(string place, string key) => place.Length == 0 ? key : $"{place}.{key}";

    private static string? Kind(JsonObject value) =>
        Discriminators.Select(name => Text(value[name])).FirstOrDefault(kind => kind is not null);

    private static string? Text(JsonNode? value) => value is JsonValue plain && plain.TryGetValue(out string? text) ? text : null;

    private static JsonArray KeysOf(KeyedList list) => new([.. list.Keys.Select(key => (JsonNode)key)]);

    /// <summary>What stands at a place: a value, a null, or nothing at all, which is not the same.</summary>
    private readonly record struct Node(bool IsThere, JsonNode? Value)
    {
        public static Node Of(JsonNode? value) => new(true, value);

        public static Node In(JsonObject parent, string key) => new(parent.TryGetPropertyValue(key, out var value), value);

        public bool Same(Node other) => IsThere == other.IsThere && JsonNode.DeepEquals(Value, other.Value);

        public Node Copy() => this with { Value = Value?.DeepClone() };
    }

    /// <summary>A list whose entries are known by their keys, in order.</summary>
    private sealed record KeyedList(IReadOnlyList<string> Keys, IReadOnlyDictionary<string, JsonNode> ByKey)
    {
        /// <summary>The list by its keys; null when an entry has none, or two have the same.</summary>
        /// <param name="list">The list.</param>
        /// <param name="side">Tells its new entries, which have no key yet, from those of other sides.</param>
        public static KeyedList? Read(JsonArray list, char side)
        {
            var (keys, byKey) = (new List<string>(), new Dictionary<string, JsonNode>(StringComparer.Ordinal));
            foreach (var entry in list)
            {
                if (entry is not JsonObject keyed || Text(keyed["key"]) is not { } key)
                    return null;
                var name = key.Length > 0 ? key : $"~{side}{keys.Count}";
                if (!byKey.TryAdd(name, keyed))
                    return null;
                keys.Add(name);
            }

            return new KeyedList(keys, byKey);
        }

        public Node Entry(string key) => new(ByKey.TryGetValue(key, out var entry), entry);

        /// <summary>Whether the entries that both have stand in another order there.</summary>
        public bool IsMovedIn(KeyedList other) => !Keys.Where(other.ByKey.ContainsKey).SequenceEqual(other.Keys.Where(ByKey.ContainsKey));

        /// <summary>The kept keys in the order of this list; those only the other has behind what they stand behind there.</summary>
        public List<string> OrderOf(IReadOnlyCollection<string> kept, KeyedList other)
        {
            var order = Keys.Where(kept.Contains).ToList();
            var behind = -1;
            foreach (var key in other.Keys.Where(kept.Contains))
            {
                if (!order.Contains(key))
                    order.Insert(behind + 1, key);
                behind = order.IndexOf(key);
            }

            return order;
        }
    }
}
