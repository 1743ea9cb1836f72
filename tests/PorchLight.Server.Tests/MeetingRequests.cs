using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Meetings;
using PorchLight.Server.Hosting;
using PorchLight.Server.Meetings;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Types of meetings, their links and what is done by them.</summary>
internal static class MeetingRequests
{
    public const string Dublin = "Europe/Dublin";
    public const string Tess = "tess@brandnew.example";

    public static TestApp AtWork() => new() { Time = new(TestClock.BeginsAtWork) };

    public static async Task<string> TypeAsync(TestApp app, Func<MeetingType, MeetingType> change)
    {
        var owner = app.Owner();
        var id = (await owner.PostAsync("/api/meeting-types", Body(new { name = "A first talk" })).JsonAsync()).Text("id");
        var value = (await owner.GetAsync($"/api/meeting-types/{id}").JsonAsync())
            .GetProperty("value")
            .Deserialize<MeetingTypeEndpoints.MeetingTypeEdit>(Json.Options)!;
        var next = value with { Type = change(value.Type) };
        (await owner.PutAsync($"/api/meeting-types/{id}", Body(new { was = value, now = next }))).EnsureSuccessStatusCode();
        return id;
    }

    public static async Task<string> LinkAsync(TestApp app, string type) =>
        (await app.Owner().GetAsync($"/api/meeting-types/{type}").JsonAsync()).Text("link").Split('/')[^1];

    public static async Task<string> MakeTypeAsync(TestApp app) => await LinkAsync(app, await TypeAsync(app, type => type));

    public static Task<JsonElement> OpenAsync(TestApp app, string link, string zone = Dublin) =>
        app.CreateClient().GetAsync($"/public/meetings/{link}?zone={zone}").JsonAsync();

    public static async Task<List<Instant>> FreeAsync(TestApp app, string link) =>
        TimesOf(await app.CreateClient().GetAsync($"/public/meetings/{link}/times?zone={Dublin}").JsonAsync());

    public static List<Instant> TimesOf(JsonElement table) =>
        [
            .. table
                .GetProperty("days")
                .EnumerateArray()
                .SelectMany(day => day.GetProperty("parts").EnumerateArray())
                .SelectMany(part => part.EnumerateArray())
                .Select(StartOf),
        ];

    public static Instant StartOf(JsonElement time) => Instant.FromDateTimeOffset(time.GetProperty("start").GetDateTimeOffset());

    public static LocalDate DayOf(Instant start) => start.InZone(DateTimeZoneProviders.Tzdb[Dublin]).Date;

    public static string OwnLink(JsonElement booked) => booked.GetProperty("meeting").Text("address").Split('/')[^1];

    public static object BookingOf(Instant start, string email, string zone = Dublin, string given = "Tess", string family = "Ivory") =>
        new
        {
            start,
            zone,
            details = new BookingDetails(given, family, email, MeetingPlaceKind.Phone, "+353 1 555 0177", new Dictionary<string, string>()),
        };

    public static Task<HttpResponseMessage> BookAsync(
        TestApp app,
        string link,
        Instant start,
        string email,
        string zone = Dublin,
        string given = "Tess",
        string family = "Ivory"
    ) => PostAsync(app, link, "book", BookingOf(start, email, zone, given, family));

    public static Task<HttpResponseMessage> PostAsync(TestApp app, string link, string act, object body)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, $"/public/meetings/{link}/{act}") { Content = Body(body) };
        request.Headers.Add(SendOnce.Header, Guid.NewGuid().ToString());
        return app.CreateClient().SendAsync(request);
    }

    public static async Task<string> InvitationAsync(TestApp app, string to)
    {
        await app.WorkAsync();
        return (await app.AskAsync(db => db.PracticeMail.Where(mail => mail.To == to && mail.Invitation != null).ToListAsync()))
            .MaxBy(mail => SequenceOf(mail.Invitation!))!
            .Invitation!;
    }

    public static int SequenceOf(string invitation) => Read(invitation).GetProperty("entries")[0].GetProperty("sequence").GetInt32();

    public static JsonElement Read(string calendar) =>
        AnotherLibrary.Reads<JsonElement>("readCalendar.mjs", Encoding.UTF8.GetBytes(calendar));
}
