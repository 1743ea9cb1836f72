using System.Collections;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using PorchLight.Core.Common;

namespace PorchLight.Server.Storage;

/// <summary>One way to read and write JSON, on the wire and in the database.</summary>
internal static class Json
{
    // Options that share all of these, down to the instance, share what was found out about each type.
    private static readonly IJsonTypeInfoResolver Types = new DefaultJsonTypeInfoResolver()
        .WithAddedModifier(Kinds.Describe)
        .WithAddedModifier(RefuseNullsInLists);
    private static readonly JsonConverter[] Converters =
    [
        new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false),
        new IdConverterFactory(),
        .. new JsonSerializerOptions().ConfigureForNodaTime(DateTimeZoneProviders.Tzdb).Converters,
    ];

    public static JsonSerializerOptions Options { get; } = Configure(new JsonSerializerOptions(JsonSerializerDefaults.Web));

    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.AllowOutOfOrderMetadataProperties = true;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.MaxDepth = 64;
        options.TypeInfoResolver = Types;
        foreach (var converter in Converters)
            options.Converters.Add(converter);
        return options;
    }

    /// <summary>What one of an enumeration is called on the wire.</summary>
    public static string NameOf<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());

    /// <summary>
    /// A list says by its type whether it may hold nulls, and so do properties; the serialiser looks at the latter only.
    /// </summary>
    private static void RefuseNullsInLists(JsonTypeInfo type)
    {
        // A body that is a list says nothing of its items; of those of our own addresses none may be missing.
        if (
            type is { Kind: JsonTypeInfoKind.Enumerable, ElementType: { IsValueType: false } element }
            && element.Assembly == typeof(Json).Assembly
        )
            type.OnDeserialized = read =>
            {
                if (((IEnumerable)read).Cast<object?>().Contains(null))
                    throw new JsonException("The list holds nothing in place of an item.");
            };
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        var nullability = new NullabilityInfoContext();
        var lists = type
            .Properties.Where(property =>
                property.Get is not null
                && property.AttributeProvider is PropertyInfo declared
                && property.PropertyType != typeof(string)
                && property.PropertyType.IsAssignableTo(typeof(IEnumerable))
                && ElementOf(nullability.Create(declared)) is { ReadState: NullabilityState.NotNull, Type.IsValueType: false }
            )
            .ToList();
        if (lists.Count == 0)
            return;
        var before = type.OnDeserialized;
        type.OnDeserialized = read =>
        {
            before?.Invoke(read);
            foreach (var list in lists)
            {
                if (list.Get!(read) is IEnumerable items and not IDictionary && items.Cast<object?>().Contains(null))
                    throw new JsonException($"A list holds nothing in place of an item: {list.Name}.");
            }
        };
    }

    private static NullabilityInfo? ElementOf(NullabilityInfo list) =>
        list.ElementType ?? (list.GenericTypeArguments is [var one] ? one : null);

    private sealed class IdConverterFactory : JsonConverterFactory
    {
        public override bool CanConvert(Type typeToConvert) =>
            typeToConvert.IsGenericType && typeToConvert.GetGenericTypeDefinition() == typeof(Id<>);

        public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
            (JsonConverter)Activator.CreateInstance(typeof(IdConverter<>).MakeGenericType(typeToConvert.GenericTypeArguments))!;
    }

    private sealed class IdConverter<T> : JsonConverter<Id<T>>
    {
        public override Id<T> Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => new(reader.GetGuid());

        public override void Write(Utf8JsonWriter writer, Id<T> value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.Value);
    }
}
