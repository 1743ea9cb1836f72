using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Whatever happens with a client in whichever order, what stood on the screen once can be read for ever.</summary>
public sealed class ValueHistoryTests
{
    private static readonly string[] Phones = ["01 555 0142", "+353 1 555 0199", "+353 1 555 0177"];
    private static readonly string[] Places = ["Howth", "Bray", "Naas"];

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task Every_value_ever_shown_is_in_the_history(int seed)
    {
        var random = new Random(seed);
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var (owner, id) = (app.Owner(), await app.AskAsync(db => db.Clients.Select(client => client.Id).SingleAsync()));
        var shown = new HashSet<(string Field, string? Project, string Words)>();
        for (var step = 0; step < 20; step++)
        {
            var client = await SeeAsync();
            var open = client
                .GetProperty("differences")
                .EnumerateArray()
                .Where(one => one.GetProperty("settlement").ValueKind == JsonValueKind.Null)
                .ToList();
            var settled = client
                .GetProperty("differences")
                .EnumerateArray()
                .Where(one => one.GetProperty("settlement").ValueKind != JsonValueKind.Null)
                .ToList();
            switch (random.Next(5))
            {
                case 0:
                    await app.SendAsync(
                        new(Answers()) { ["phone"] = new PhoneAnswer(Pick(Phones)), ["place"] = new TextAnswer(Pick(Places)) }
                    );
                    break;
                case 1 when open.Count > 0:
                    var settling = new
                    {
                        difference = Pick(open).Text("id"),
                        how = Pick(["tookTheirs", "keptOurs"]),
                        another = (Answer?)null,
                    };
                    (await owner.PutAsync("/api/differences/settled", Body(new[] { settling }))).EnsureSuccessStatusCode();
                    break;
                case 2 when settled.Count > 0:
                    (
                        await owner.PutAsync($"/api/differences/{Pick(settled).Text("id")}/taken-back", Body(new { anyway = true }))
                    ).EnsureSuccessStatusCode();
                    break;
                default:
                    await WriteAsync(client);
                    break;
            }
        }

        await SeeAsync();
        shown.Count.ShouldBeGreaterThan(8);
        foreach (var field in shown.GroupBy(one => (one.Field, one.Project)))
        {
            var history = await owner
                .GetAsync($"/api/clients/{id}/values/{field.Key.Field}{(field.Key.Project is { } project ? $"?project={project}" : "")}")
                .JsonAsync();
            history
                .EnumerateArray()
                .Select(one => one.Text("words"))
                .ToHashSet()
                .IsSupersetOf(field.Select(one => one.Words))
                .ShouldBeTrue($"{field.Key.Field}, seed {seed}");
        }

        async Task<JsonElement> SeeAsync()
        {
            var client = await owner.GetAsync($"/api/clients/{id}").JsonAsync();
            See(client.GetProperty("fields"), null);
            foreach (var project in client.GetProperty("projects").EnumerateArray())
                See(project.GetProperty("fields"), project.Text("id"));
            return client;
        }

        void See(JsonElement fields, string? project)
        {
            foreach (var one in fields.EnumerateArray().Where(one => one.Text("words").Length > 0))
                shown.Add((one.GetProperty("field").Text("key"), project, one.Text("words")));
        }

        // By hand: another number or place, or nothing any more.
        async Task WriteAsync(JsonElement client)
        {
            var ofProject = random.Next(2) == 0;
            var project = client.GetProperty("projects")[0];
            var key = ofProject ? "project.place" : "client.phone";
            var was = (ofProject ? project : client)
                .GetProperty("fields")
                .EnumerateArray()
                .Single(one => one.GetProperty("field").Text("key") == key)
                .GetProperty("value");
            Answer? now =
                random.Next(4) == 0 ? null
                : ofProject ? new TextAnswer(Pick(Places))
                : new PhoneAnswer(Pick(Phones));
            (
                await owner.PutAsync(
                    $"/api/clients/{id}/values/{key}",
                    Body(
                        new
                        {
                            projectId = ofProject ? project.Text("id") : null,
                            was,
                            now,
                        }
                    )
                )
            ).EnsureSuccessStatusCode();
        }

        T Pick<T>(IReadOnlyList<T> from) => from[random.Next(from.Count)];
    }
}
