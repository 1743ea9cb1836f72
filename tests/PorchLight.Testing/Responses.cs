using System.Net.Http.Json;
using System.Text.Json;

namespace PorchLight.Testing;

internal static class Responses
{
    public static async Task<JsonElement> JsonAsync(this HttpResponseMessage response) =>
        await response.Content.ReadFromJsonAsync<JsonElement>();

    public static async Task<JsonElement> JsonAsync(this Task<HttpResponseMessage> response) => await (await response).JsonAsync();

    public static string Text(this JsonElement element, string property) => element.GetProperty(property).GetString()!;

    /// <summary>The sentence of a refusal.</summary>
    public static async Task<string> SentenceAsync(this HttpResponseMessage response) => (await response.JsonAsync()).Text("detail");

    /// <summary>The places of a refusal's findings.</summary>
    public static async Task<string?[]> PlacesAsync(this HttpResponseMessage response) =>
        [.. (await response.JsonAsync()).GetProperty("findings").EnumerateArray().Select(finding => finding.Text("place"))];
}
