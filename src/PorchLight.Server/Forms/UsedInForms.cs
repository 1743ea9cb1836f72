using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>
/// Where files, lists and forms are named in forms. They are named by identifiers, which nothing else in a form looks like, so that
/// a member that is added to forms needs nothing here.
/// </summary>
internal static class UsedInForms
{
    /// <summary>The titles of the forms that name something, in a working copy or any version, by identifier.</summary>
    public static async Task<ILookup<Guid, string>> TitlesAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var forms = await db.Forms.AsNoTracking().Select(form => new { form.Id, form.Draft }).ToListAsync(cancellationToken);
        var versions = await db
            .FormVersions.AsNoTracking()
            .Select(version => new { Id = version.FormId, Draft = version.Content })
            .ToListAsync(cancellationToken);
        var titles = forms.ToDictionary(form => form.Id, form => form.Draft.Title);
        return forms
            .Concat(versions)
            .SelectMany(form => Named(form.Draft).Select(id => (Id: id, Title: titles[form.Id])))
            .Distinct()
            .ToLookup(one => one.Id, one => one.Title);
    }

    /// <summary>The form with another identifier in the place of one; the same form when it does not name it.</summary>
    public static FormContent Replaced(FormContent form, Guid old, Guid by)
    {
        if (!Named(form).Contains(old))
            return form;
        return Put(Node(form)).Deserialize<FormContent>(Json.Options)!;

        JsonNode? Put(JsonNode? node)
        {
            switch (node)
            {
                case JsonObject inner:
                    foreach (var (name, value) in inner.ToList())
                        inner[name] = Put(value)?.DeepClone();
                    return inner;
                case JsonArray list:
                    for (var index = 0; index < list.Count; index++)
                        list[index] = Put(list[index])?.DeepClone();
                    return list;
                default:
                    return Read(node) == old ? JsonValue.Create(by) : node;
            }
        }
    }

    private static HashSet<Guid> Named(FormContent form)
    {
        return [.. Each(Node(form))];

        static IEnumerable<Guid> Each(JsonNode? node) =>
            node switch
            {
                JsonObject inner => inner.SelectMany(one => Each(one.Value)),
                JsonArray list => list.SelectMany(Each),
                _ => Read(node) is { } id ? [id] : [],
            };
    }

    private static Guid? Read(JsonNode? node) =>
        node is JsonValue value && value.TryGetValue<string>(out var text) && Guid.TryParseExact(text, "D", out var id) ? id : null;

    private static JsonNode? Node(FormContent form) => JsonSerializer.SerializeToNode(form, Json.Options);
}
