using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>A form as a whole: everything it says and asks.</summary>
internal static class ContentEndpoints
{
    internal const string Gone = "This form is not here any more.";

    /// <param name="Revision">The revision of the working copy this is.</param>
    /// <param name="Content">Everything the form says and asks.</param>
    internal sealed record WholeForm(int Revision, FormContent Content);

    /// <param name="Revision">The revision as it is now.</param>
    /// <param name="Content">The form as it is now, with what others changed.</param>
    /// <param name="Findings">What still keeps it from being published.</param>
    internal sealed record SavedForm(int Revision, FormContent Content, IReadOnlyList<Finding> Findings);

    public static void MapFormContent(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms/{id}/content").For(Access.Member).WithTags("Forms");
        group.MapGet(
            "",
            async Task<Results<Ok<WholeForm>, ProblemHttpResult>> (Id<Form> id, PorchDb db, CancellationToken cancellationToken) =>
                await db.Forms.FindAsync([id], cancellationToken) is { } form
                    ? TypedResults.Ok(new WholeForm(form.DraftRevision, form.Draft))
                    : Problems.NotFound(Gone)
        );
        group.MapPut("", SaveAsync);
    }

    /// <summary>The published schema of forms as JSON.</summary>
    public static void MapFormSchema(this IEndpointRouteBuilder app) =>
        app.MapGet("/schemas/form.json", () => Results.Text(Schema.Value, "application/schema+json"))
            .For(Access.Public)
            .ExcludeFromDescription();

    private static readonly Lazy<string> Schema = new(() =>
    {
        var schema = Json
            .Options.GetJsonSchemaAsNode(
                typeof(FormContent),
                new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true, TransformSchemaNode = Describe }
            )
            .AsObject();
        NameConstants(schema);
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", "Porch Light form");
        return schema.ToJsonString(new JsonSerializerOptions(Json.Options) { WriteIndented = true, MaxDepth = 256 });
    });

    // A list of one says the same as a constant, and readers of older drafts know it, too.
    private static void NameConstants(JsonNode? node)
    {
        if (node is JsonArray list)
        {
            foreach (var one in list)
                NameConstants(one);
        }
        else if (node is JsonObject schema)
        {
            if (schema.Remove("const", out var value))
                schema["enum"] = new JsonArray(value);
            foreach (var (_, inner) in schema.ToList())
                NameConstants(inner);
        }
    }

    // What our own converters write, the exporter cannot know.
    private static JsonNode Describe(JsonSchemaExporterContext context, JsonNode schema)
    {
        var type = Nullable.GetUnderlyingType(context.TypeInfo.Type) ?? context.TypeInfo.Type;
        var format =
            type == typeof(LocalDate) ? "date"
            : type == typeof(Instant) ? "date-time"
            : null;
        if (format is null)
            return schema;
        var nullable = type != context.TypeInfo.Type;
        return new JsonObject { ["type"] = nullable ? new JsonArray("string", "null") : "string", ["format"] = format };
    }

    /// <summary>
    /// Changes the working copy, by the same protocol as every other edit: what others changed meanwhile stays, and what both
    /// changed is for a person to choose. It may be unfinished; leads see it when it is published.
    /// </summary>
    private static async Task<Results<Ok<SavedForm>, ProblemHttpResult>> SaveAsync(
        Id<Form> id,
        Edit<FormContent> edit,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(Gone);
        var (merged, refusal) = edit.Onto(form.Draft);
        if (refusal is not null)
            return refusal;
        form.Draft = merged;
        form.DraftRevision++;
        form.DraftSaved = clock.GetCurrentInstant();
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new SavedForm(form.DraftRevision, form.Draft, FormStructure.Check(form.Draft)));
    }
}
