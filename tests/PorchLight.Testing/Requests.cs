using System.Net.Http.Json;
using System.Text.Json;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Testing;

/// <summary>What goes to the program, as its own pages would send it.</summary>
internal static class Requests
{
    public const string AntiforgeryHeader = UserAccess.AntiforgeryHeader;

    /// <summary>A message written by hand, as the screens send it.</summary>
    public static object Written(string subject, string text) =>
        new
        {
            draft = new
            {
                subject,
                parts = new[]
                {
                    new
                    {
                        kind = "text",
                        key = "text",
                        text,
                    },
                },
            },
        };

    /// <summary>The first page of a list, with nothing filtered away.</summary>
    public static Task<JsonElement> WholeListAsync(this HttpClient who, string address) => who.FoundAsync(address, new { });

    /// <summary>The first page of what a list finds.</summary>
    public static async Task<JsonElement> FoundAsync(this HttpClient who, string address, object query) =>
        await who.PostAsync($"{address}/found", Asked(query)).JsonAsync();

    /// <summary>What a page of a list is asked for with.</summary>
    public static JsonContent Asked(object query, string? after = null, int take = 200) =>
        Body(
            new
            {
                query,
                after,
                take,
            }
        );

    public static JsonContent Body(object value) => JsonContent.Create(value, options: Json.Options);

    /// <summary>Answers to the mural form with which somebody is asked in.</summary>
    public static Dictionary<string, Answer?> Answers(string email = "tilda@bakes.example", string budget = "4000-9000") =>
        new()
        {
            ["name"] = new PersonNameAnswer("Tilda", "Brackenridge"),
            ["email"] = new TextAnswer(email),
            ["phone"] = new PhoneAnswer("01 555 0142"),
            ["place"] = new TextAnswer("Howth"),
            ["what"] = new TextAnswer("Bread and gulls"),
            ["budget"] = ChoiceAnswer.Of(budget),
            ["decides"] = ChoiceAnswer.Of("me"),
        };

    /// <summary>The form with other words in the place of a question's wording.</summary>
    public static FormContent Reworded(this FormContent form, string question, string wording) =>
        form with
        {
            Pages =
            [
                .. form.Pages.Select(page =>
                    page with
                    {
                        Items =
                        [
                            .. page.Items.Select(item =>
                                item is Question asked && item.Key == question ? asked with { Wording = wording } : item
                            ),
                        ],
                    }
                ),
            ],
        };

    /// <summary>Fetches the antiforgery token for who this client is now; the one before is refused after signing in or out.</summary>
    public static async Task RefreshTokenAsync(HttpClient client)
    {
        var session = await client.GetFromJsonAsync<JsonElement>("/api/session");
        client.DefaultRequestHeaders.Remove(AntiforgeryHeader);
        client.DefaultRequestHeaders.Add(AntiforgeryHeader, session.GetProperty("antiforgery").GetString());
    }
}
