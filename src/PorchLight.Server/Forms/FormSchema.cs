using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using PorchLight.Core.Forms;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Forms;

/// <summary>
/// The published JSON Schema of forms. It is what the contract says of a form, so that whoever reads the one and whoever generates
/// types from the other have the same.
/// </summary>
internal sealed class FormSchema([FromKeyedServices("v1")] IOpenApiDocumentProvider contract)
{
    private const string Components = "#/components/schemas/";
    private const string Definitions = "#/definitions/";
    private string? _text;

    public static void Map(IEndpointRouteBuilder app) =>
        app.MapGet(
                "/schemas/form.json",
                async (FormSchema schema, CancellationToken cancellationToken) =>
                    Results.Text(await schema.TextAsync(cancellationToken), "application/schema+json")
            )
            .For(Access.Public)
            .ExcludeFromDescription();

    /// <summary>The schema, JSON Schema 2020-12.</summary>
    public async Task<string> TextAsync(CancellationToken cancellationToken)
    {
        if (_text is not null)
            return _text;
        var document = await contract.GetOpenApiDocumentAsync(cancellationToken);
        var written = await document.SerializeAsJsonAsync(OpenApiSpecVersion.OpenApi3_1, cancellationToken);
        var all = JsonNode.Parse(written)!["components"]!["schemas"]!.AsObject();
        var definitions = new SortedDictionary<string, JsonNode?>(StringComparer.Ordinal);
        Collect(nameof(FormContent));
        var schema = all[nameof(FormContent)]!.DeepClone().AsObject();
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", "Porch Light form");
        // Readers of older drafts look for definitions under this name; a pointer leads there in every draft.
        schema["definitions"] = new JsonObject(definitions);
        return _text = schema
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
