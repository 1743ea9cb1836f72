using Microsoft.OpenApi;
using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Server.Data;

/// <summary>How the contract describes what JSON alone does not show.</summary>
internal static class Contract
{
    public static void AddContract(this IServiceCollection services) => services.AddOpenApi(options =>
    {
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info = new OpenApiInfo { Title = "Porch Light", Version = "1" };
            document.Servers?.Clear();
            return Task.CompletedTask;
        });
        options.AddSchemaTransformer((schema, context, _) =>
        {
            var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
            if (type.IsGenericType && type.GetGenericTypeDefinition() == typeof(Id<>))
                Say(schema, "uuid");
            else if (type == typeof(LocalDate))
                Say(schema, "date");
            else if (type == typeof(YearMonth))
                (schema.Type, schema.Pattern) = (JsonSchemaType.String, "^[0-9]{4}-[0-9]{2}$");
            else if (type == typeof(Instant))
                Say(schema, "date-time");

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
        });
    });

    private static void Say(OpenApiSchema schema, string format)
    {
        schema.Type = JsonSchemaType.String | (schema.Type.GetValueOrDefault() & JsonSchemaType.Null);
        schema.Format = format;
        schema.Pattern = null;
        schema.Properties?.Clear();
        schema.Required?.Clear();
    }
}
