using System.Collections.Concurrent;
using System.Text.Json;
using Microsoft.OpenApi;
using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Server.Hosting;

/// <summary>How the contract describes what JSON alone does not show.</summary>
internal static class Contract
{
    public static void AddContract(this IServiceCollection services) =>
        services.AddOpenApi(options =>
        {
            var kinds = new ConcurrentDictionary<string, (Type Type, string Property, string Name)>();
            options.AddDocumentTransformer(
                (document, _, _) =>
                {
                    document.Info = new OpenApiInfo { Title = "Porch Light", Version = "1" };
                    document.Servers?.Clear();
                    AddMissingKinds(document, kinds);
                    SayOnlyAtMembersWhatMayBeNull(document);
                    Document(document);
                    return Task.CompletedTask;
                }
            );
            options.AddSchemaTransformer(
                (schema, context, _) =>
                {
                    var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                    var mayBeNull = type != context.JsonTypeInfo.Type;
                    if (type.IsGenericType && type.GetGenericTypeDefinition() == typeof(Id<>))
                        Say(schema, "uuid", mayBeNull);
                    else if (type == typeof(LocalDate))
                        Say(schema, "date", mayBeNull);
                    else if (type == typeof(LocalTime))
                        Say(schema, "time", mayBeNull);
                    else if (type == typeof(LocalDateTime))
                        Say(schema, "local-date-time", mayBeNull);
                    else if (type == typeof(YearMonth))
                        (schema.Type, schema.Pattern) = (JsonSchemaType.String, "^[0-9]{4}-[0-9]{2}$");
                    else if (type == typeof(Instant))
                        Say(schema, "date-time", mayBeNull);

                    foreach (var kind in context.JsonTypeInfo.PolymorphismOptions?.DerivedTypes ?? [])
                        kinds[context.JsonTypeInfo.Type.Name + kind.DerivedType.Name] = (
                            kind.DerivedType,
                            context.JsonTypeInfo.PolymorphismOptions!.TypeDiscriminatorPropertyName,
                            (string)kind.TypeDiscriminator!
                        );

                    // A body without its discriminator is refused, so the contract asks for it.
                    if (context.JsonTypeInfo.PolymorphismOptions is { } polymorphism && schema.Discriminator is not null)
                    {
                        schema.Required ??= new HashSet<string>();
                        schema.Required.Add(polymorphism.TypeDiscriminatorPropertyName);
                    }

                    if (schema.Properties?.ContainsKey("kind") == true)
                    {
                        schema.Required ??= new HashSet<string>();
                        schema.Required.Add("kind");
                    }

                    return Task.CompletedTask;
                }
            );
        });

    /// <summary>The contract as it was built: making it anew would cost hundreds of opened forms.</summary>
    public static string Text { get; } = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "openapi.json"));

    public static void MapContract(this IEndpointRouteBuilder app) =>
        app.MapGet("/openapi/v1.json", () => Results.Text(Text, "application/json"))
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .ExcludeFromDescription();

    /// <summary>
    /// A type that is first met where it may be null is described as one that may always be; whether it may is said at each member.
    /// </summary>
    private static void SayOnlyAtMembersWhatMayBeNull(OpenApiDocument document)
    {
        foreach (var schema in (document.Components?.Schemas ?? new Dictionary<string, IOpenApiSchema>()).Values.OfType<OpenApiSchema>())
        {
            schema.Type &= ~JsonSchemaType.Null;
            if (schema.Enum is { } values)
                schema.Enum = [.. values.Where(value => value is not null && !JsonNullSentinel.IsJsonNullSentinel(value))];
        }
    }

    /// <summary>Kinds that occur only within kinds of something else are named by the generator, but not described.</summary>
    private static void AddMissingKinds(
        OpenApiDocument document,
        ConcurrentDictionary<string, (Type Type, string Property, string Name)> kinds
    )
    {
        var schemas = document.Components?.Schemas ?? new Dictionary<string, IOpenApiSchema>();
        foreach (var schema in schemas.Values.OfType<OpenApiSchema>().Where(schema => schema.Discriminator?.Mapping is not null).ToList())
        {
            var parts = schema.Discriminator!.Mapping!.Values.ToList();
            foreach (var id in parts.Select(part => part.Reference.Id!).Where(id => !schemas.ContainsKey(id)))
            {
                var kind = kinds[id];
                var texts = kind.Type.GetConstructors().MaxBy(made => made.GetParameters().Length)!.GetParameters();
                if (texts.FirstOrDefault(text => text.ParameterType != typeof(string)) is { } other)
                    throw new NotSupportedException($"{kind.Type.Name}.{other.Name} has to be described by hand.");
                var missing = new OpenApiSchema
                {
                    Type = JsonSchemaType.Object,
                    Required = texts.Select(text => JsonNamingPolicy.CamelCase.ConvertName(text.Name!)).ToHashSet(),
                    Properties = texts.ToDictionary(
                        text => JsonNamingPolicy.CamelCase.ConvertName(text.Name!),
                        IOpenApiSchema (_) => new OpenApiSchema { Type = JsonSchemaType.String }
                    ),
                };
                missing.Properties[kind.Property] = new OpenApiSchema { Type = JsonSchemaType.String, Enum = [kind.Name] };
                document.AddComponent(id, missing);
            }

            if (schema.AnyOf is null or { Count: 0 })
                schema.AnyOf = [.. parts];
        }

        foreach (var (id, kind) in kinds)
        {
            if (!schemas.TryGetValue(id, out var found) || found is not OpenApiSchema { Properties: { } properties } schema)
                continue;
            // A kind that is not named is refused, so the contract asks for it.
            (schema.Required ??= new HashSet<string>()).Add(kind.Property);
            // A list that another kind of the family has, too, the generator describes only once.
            foreach (var name in properties.Where(one => SaysNothing(one.Value)).Select(one => one.Key).ToList())
                properties[name] = ListSchema(kind.Type.GetProperty(Capital(name))!.PropertyType, document);
        }
    }

    private static OpenApiSchema ListSchema(Type list, OpenApiDocument document)
    {
        var element = list.GetGenericArguments().Single();
        return new OpenApiSchema
        {
            Type = JsonSchemaType.Array,
            Items =
                element == typeof(string)
                    ? new OpenApiSchema { Type = JsonSchemaType.String }
                    : new OpenApiSchemaReference(element.Name, document),
        };
    }

    private static bool SaysNothing(IOpenApiSchema schema) =>
        schema is OpenApiSchema { Type: null, AnyOf: null or { Count: 0 }, OneOf: null or { Count: 0 }, Enum: null or { Count: 0 } };

    /// <summary>Gives every operation a name made of its method and path, and says how it refuses.</summary>
    private static void Document(OpenApiDocument document)
    {
        document.AddComponent(Refusal, RefusalSchema(document));
        foreach (var (path, item) in document.Paths)
        {
            foreach (var (method, operation) in item.Operations ?? [])
            {
                operation.OperationId = OperationId(method.Method, path);
                operation.Responses ??= [];
                operation.Responses["default"] = new OpenApiResponse
                {
                    Description = "Refused, with a sentence that says what to do",
                    Content = new Dictionary<string, OpenApiMediaType>
                    {
                        ["application/problem+json"] = new OpenApiMediaType { Schema = new OpenApiSchemaReference(Refusal, document) },
                    },
                };
            }
        }
    }

    private const string Refusal = "Refusal";

    /// <summary>Problem details (RFC 9457) as this server writes them.</summary>
    private static OpenApiSchema RefusalSchema(OpenApiDocument document)
    {
        var (text, anything) = (new OpenApiSchema { Type = JsonSchemaType.String }, new OpenApiSchema());
        return new OpenApiSchema
        {
            Type = JsonSchemaType.Object,
            Required = new HashSet<string> { "status", "detail" },
            Properties = new Dictionary<string, IOpenApiSchema>
            {
                ["type"] = text,
                ["title"] = text,
                ["status"] = new OpenApiSchema { Type = JsonSchemaType.Integer, Format = "int32" },
                ["detail"] = new OpenApiSchema
                {
                    Type = JsonSchemaType.String,
                    Description = "What is wrong and what to do, in a sentence for the person.",
                },
                ["traceId"] = new OpenApiSchema { Type = JsonSchemaType.String, Description = "The request, as the log names it." },
                ["retryAfter"] = new OpenApiSchema
                {
                    Type = JsonSchemaType.Integer,
                    Format = "int32",
                    Description = "In how many seconds the same would be taken, where waiting helps.",
                },
                ["findings"] = new OpenApiSchema
                {
                    Type = JsonSchemaType.Array,
                    Description = "The places that have to be put right.",
                    Items = new OpenApiSchemaReference("Finding", document),
                },
                ["nearest"] = new OpenApiSchema
                {
                    Type = JsonSchemaType.Array,
                    Description = "The free times nearest to one that is taken.",
                    Items = new OpenApiSchemaReference("BookingTime", document),
                },
                ["clashes"] = new OpenApiSchema
                {
                    Type = JsonSchemaType.Array,
                    Description = "The places that were changed meanwhile, with both values.",
                    Items = new OpenApiSchema
                    {
                        Type = JsonSchemaType.Object,
                        Required = new HashSet<string> { "place", "theirs", "yours" },
                        Properties = new Dictionary<string, IOpenApiSchema>
                        {
                            ["place"] = text,
                            ["theirs"] = anything,
                            ["yours"] = anything,
                        },
                    },
                },
            },
        };
    }

    /// <summary>"get /api/forms/{id}/content" is "getFormsByIdContent".</summary>
    private static string OperationId(string method, string path) =>
        method.ToLowerInvariant()
        + string.Concat(
            path.Split('/', '-', '.')
                .Where(part => part is not ("" or "api"))
                .Select(part => part[0] == '{' ? "By" + Capital(part[1..^1].Split(':')[0]) : Capital(part))
        );

    private static string Capital(string word) => char.ToUpperInvariant(word[0]) + word[1..];

    private static void Say(OpenApiSchema schema, string format, bool mayBeNull)
    {
        schema.Type = JsonSchemaType.String | (mayBeNull ? JsonSchemaType.Null : schema.Type.GetValueOrDefault() & JsonSchemaType.Null);
        schema.Format = format;
        schema.Pattern = null;
        schema.Properties?.Clear();
        schema.Required?.Clear();
    }
}
