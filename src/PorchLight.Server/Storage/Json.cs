using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;

namespace PorchLight.Server.Storage;

/// <summary>One way to read and write JSON, on the wire and in the database.</summary>
internal static class Json
{
    // Options that share all of these, down to the instance, share what was found out about each type.
    private static readonly IJsonTypeInfoResolver Types = new DefaultJsonTypeInfoResolver().WithAddedModifier(QuestionKinds.Describe);
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
