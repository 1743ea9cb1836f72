using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;

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
    private static readonly Dictionary<Type, IReadOnlyList<Upcaster>> Steps = [];

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

    private static IReadOnlyList<Upcaster> StepsOf<T>() => Steps.GetValueOrDefault(typeof(T), []);
}
