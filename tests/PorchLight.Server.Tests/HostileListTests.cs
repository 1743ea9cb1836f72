using System.Text;
using System.Text.Json.Nodes;

namespace PorchLight.Server.Tests;

/// <summary>Every operation of the contract is given bodies that are right in all but one thing: a list holds nothing in place of an item.</summary>
public sealed class HostileListTests
{
    private const int MostNested = 5;

    private static readonly JsonNode Contract = JsonNode.Parse(File.ReadAllText(Repository.Find("src/PorchLight.Server/openapi.json")))!;

    [Fact]
    public async Task Nothing_in_place_of_an_item_is_refused_by_every_operation_and_breaks_none()
    {
        // What breaks says 500, which the program of a test does not pass over.
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        var (owner, tried) = (app.Owner(), 0);
        var form = await app.AskAsync(db => Task.FromResult(db.Forms.First().Id.ToString()));
        foreach (var (path, methods) in Contract["paths"]!.AsObject())
        {
            foreach (var (method, operation) in methods!.AsObject())
            {
                if (operation!["requestBody"]?["content"]?["application/json"]?["schema"] is not { } schema)
                    continue;
                foreach (var body in Bodies(schema))
                {
                    tried++;
                    using var asked = new HttpRequestMessage(new HttpMethod(method), Address(path, operation["parameters"], form))
                    {
                        Content = new StringContent(body, Encoding.UTF8, "application/json"),
                    };
                    var answer = await owner.SendAsync(asked);
                    ((int)answer.StatusCode).ShouldBeLessThan(500, $"{method} {path} {body}");
                }
            }
        }

        tried.ShouldBeGreaterThan(50);
    }

    /// <summary>The body with one list of it holding nothing, for each of its lists.</summary>
    private static IEnumerable<string> Bodies(JsonNode schema)
    {
        for (var list = 0; ; list++)
        {
            var left = list;
            var body = Example(schema, ref left, 0);
            if (left >= 0)
                yield break;
            yield return body?.ToJsonString() ?? "null";
        }
    }

    private static JsonNode? Example(JsonNode schema, ref int left, int depth)
    {
        while (schema["$ref"] is { } reference)
            schema = Contract["components"]!["schemas"]![((string)reference!).Split('/')[^1]]!;
        if (depth > MostNested)
            return null;
        if ((schema["anyOf"] ?? schema["oneOf"]) is JsonArray kinds)
            return Example(kinds.First(kind => (string?)kind!["type"] != "null")!, ref left, depth + 1);
        if (schema["enum"] is JsonArray values)
            return values[0]?.DeepClone();
        switch (TypeOf(schema))
        {
            case "array":
                if (left-- == 0)
                    return new JsonArray((JsonNode?)null);
                return depth == MostNested || schema["items"] is not { } items ? [] : new JsonArray(Example(items, ref left, depth + 1));
            case "object":
                var made = new JsonObject();
                foreach (var (name, property) in schema["properties"]?.AsObject() ?? [])
                {
                    var isRequired = schema["required"]?.AsArray().Any(one => (string?)one == name) ?? false;
                    if (isRequired || TypeOf(property!) == "array")
                        made[name] = Example(property!, ref left, depth + 1);
                }

                return made;
            case "integer" or "number":
                return 1;
            case "boolean":
                return true;
            default:
                return (string?)schema["format"] switch
                {
                    "uuid" => Guid.NewGuid().ToString(),
                    "date" => "2027-05-14",
                    "time" => "09:00:00",
                    "date-time" => "2027-05-14T09:00:00Z",
                    "local-date-time" => "2027-05-14T09:00:00",
                    _ => schema["pattern"] is null ? "words" : "2027-05",
                };
        }
    }

    private static string? TypeOf(JsonNode schema) =>
        schema["type"] is JsonArray several
            ? several.Select(one => (string?)one).First(one => one != "null")
            : (string?)schema["type"] ?? (schema["properties"] is null ? null : "object");

    private static string Address(string path, JsonNode? parameters, string form)
    {
        var query = new List<string>();
        foreach (var parameter in parameters?.AsArray() ?? [])
        {
            var name = (string)parameter!["name"]!;
            var isNumber = TypeOf(parameter["schema"]!) is "integer";
            if ((string?)parameter["in"] == "path")
                path = path.Replace($"{{{name}}}", isNumber ? "1" : form, StringComparison.Ordinal);
            else if ((string?)parameter["in"] == "query" && (bool?)parameter["required"] == true)
                query.Add($"{name}=1");
        }

        return query.Count == 0 ? path : $"{path}?{string.Join('&', query)}";
    }
}
