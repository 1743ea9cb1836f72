using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using PorchLight.Core.Forms;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Forms;

/// <summary>
/// The published JSON Schema of forms. It is what the contract says of a form, so that whoever reads the one and whoever generates
/// types from the other have the same.
/// </summary>
internal static class FormSchema
{
    private const string Components = "#/components/schemas/";
    private const string Definitions = "#/definitions/";
    private static readonly Lazy<string> Made = new(Make);

    public static void Map(IEndpointRouteBuilder app) =>
        app.MapGet("/schemas/form.json", () => Results.Text(Text, "application/schema+json"))
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .ExcludeFromDescription();

    /// <summary>The schema, JSON Schema 2020-12.</summary>
    public static string Text => Made.Value;

    private static string Make()
    {
        var all = JsonNode.Parse(Contract.Text)!["components"]!["schemas"]!.AsObject();
        var definitions = new SortedDictionary<string, JsonNode?>(StringComparer.Ordinal);
        Collect(nameof(FormContent));
        var schema = all[nameof(FormContent)]!.DeepClone().AsObject();
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", "Porch Light form");
        // Readers of older drafts look for definitions under this name; a pointer leads there in every draft.
        schema["definitions"] = new JsonObject(definitions);
        return schema
            .ToJsonString(new JsonSerializerOptions { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping })
            .Replace(Components, Definitions, StringComparison.Ordinal);

        void Collect(string name)
        {
            if (definitions.ContainsKey(name))
                return;
            var definition = all[name]!.DeepClone();
            definitions[name] = definition;
            foreach (var used in References(definition).ToList())
                Collect(used);
            // Which kind is meant is said by the kinds themselves; the word for it is the contract's alone.
            definition.AsObject().Remove("discriminator");
        }
    }

    private static IEnumerable<string> References(JsonNode? node) =>
        node switch
        {
            JsonObject inner => inner.SelectMany(one =>
                one is { Key: "$ref", Value: JsonValue name } ? [name.GetValue<string>()[Components.Length..]] : References(one.Value)
            ),
            JsonArray list => list.SelectMany(References),
            _ => [],
        };
}
