using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;

namespace PorchLight.Server.Storage;

/// <summary>Brings what was stored in one format into the next.</summary>
/// <param name="value">The value as it was stored, to be changed in place or replaced.</param>
internal delegate JsonNode Upcaster(JsonNode value);

/// <summary>
/// What is kept as JSON in the database, each with the number of its format: <c>{"format":1,"value":…}</c>. Rows are never rewritten:
/// whoever reads an older format brings it up step by step, so that what any release has written can be read for ever.
/// </summary>
internal static class StoredJson
{
    private const string Start = "{\"format\":";
    private const string Middle = ",\"value\":";

    /// <summary>
    /// The steps of each type from format 1 on; a type that is not named has always been in format 1. Whoever changes how a type is
    /// written adds a step here and golden files of the new format to the tests; a step that is there is never changed.
    /// </summary>
    private static readonly Dictionary<Type, IReadOnlyList<Upcaster>> Steps = new()
    {
        [typeof(ClientQuery)] = [OrderedAsOtherLists],
        [typeof(InquiryQuery)] = [NobodyAmongThoseWhoLookAfter],
        [typeof(FollowThroughContent)] = [FieldsAreFilled],
        [typeof(StepAction)] = [FieldsAreFilled],
        [typeof(FormSettings)] = [WhoIsNotifiedAndTheLimitOfAMonth],
    };

    public static string Write<T>(T value)
        where T : class => Write(value, StepsOf<T>());

    public static T Read<T>(string text)
        where T : class => Read<T>(text, StepsOf<T>());

    internal static string Write<T>(T value, IReadOnlyList<Upcaster> steps) =>
        string.Create(CultureInfo.InvariantCulture, $"{Start}{steps.Count + 1}{Middle}{JsonSerializer.Serialize(value, Json.Options)}}}");

    /// <exception cref="JsonException">The text is no stored JSON, or was written by a newer program.</exception>
    internal static T Read<T>(string text, IReadOnlyList<Upcaster> steps)
        where T : class
    {
        var middle = text.IndexOf(Middle, StringComparison.Ordinal);
        if (
            !text.StartsWith(Start, StringComparison.Ordinal)
            || middle < 0
            || text[^1] != '}'
            || !int.TryParse(
                text.AsSpan(Start.Length, middle - Start.Length),
                NumberStyles.None,
                CultureInfo.InvariantCulture,
                out var format
            )
            || format < 1
            || format > steps.Count + 1
        )
            throw new JsonException($"This is no {typeof(T).Name} of a format up to {steps.Count + 1}.");
        var value = text.AsSpan((middle + Middle.Length)..^1);
        if (format == steps.Count + 1)
            return JsonSerializer.Deserialize<T>(value, Json.Options)!;
        var node = JsonNode.Parse(value.ToString())!;
        return steps.Skip(format - 1).Aggregate(node, (old, step) => step(old)).Deserialize<T>(Json.Options)!;
    }

    // Every list says its order in the same words: which one, and whether it runs backwards.
    private static JsonObject OrderedAsOtherLists(JsonNode query)
    {
        var order = (string?)query["sort"] ?? ClientQuery.BySince;
        var descending = (bool?)query["descending"] ?? true;
        var renamed = query.AsObject();
        renamed.Remove("sort");
        renamed.Remove("descending");
        renamed["order"] = order;
        renamed["backwards"] = descending != (order == ClientQuery.BySince);
        return renamed;
    }

    // What nobody looks after is one of the choices, and no question of its own.
    private static JsonObject NobodyAmongThoseWhoLookAfter(JsonNode query)
    {
        var renamed = query.AsObject();
        if ((bool?)renamed["unassigned"] ?? false)
            renamed["lookedAfterBy"] = new JsonArray((JsonNode?)null);
        renamed.Remove("unassigned");
        return renamed;
    }

    // The step is called what its record and the screens call it.
    private static JsonNode FieldsAreFilled(JsonNode within)
    {
        if (within is JsonObject named)
        {
            if (named["kind"] is JsonValue kind && kind.TryGetValue<string>(out var name) && name == "setField")
                named["kind"] = "fillField";
            foreach (var part in named.Select(part => part.Value).OfType<JsonNode>().ToList())
                FieldsAreFilled(part);
        }
        else if (within is JsonArray parts)
        {
            foreach (var part in parts.OfType<JsonNode>())
                FieldsAreFilled(part);
        }

        return within;
    }

    // People are notified, and a month has a limit: "told" and "places" were said of other things, too.
    private static JsonObject WhoIsNotifiedAndTheLimitOfAMonth(JsonNode settings)
    {
        var renamed = settings.AsObject();
        Rename(renamed, "told", "notified");
        if (renamed["capacity"]?["months"] is JsonArray months)
            foreach (var month in months.OfType<JsonObject>())
                Rename(month, "places", "most");
        return renamed;
    }

    private static void Rename(JsonObject within, string was, string now)
    {
        if (within.Remove(was, out var value))
            within[now] = value;
    }

    private static IReadOnlyList<Upcaster> StepsOf<T>() => Steps.GetValueOrDefault(typeof(T), []);
}
