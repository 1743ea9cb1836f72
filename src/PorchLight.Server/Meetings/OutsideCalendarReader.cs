using System.Net;
using System.Text;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Meetings;

/// <summary>What was found at the address of a calendar.</summary>
/// <param name="Text">What stands there; null where nothing could be read.</param>
/// <param name="Fault">Why not, as a sentence.</param>
internal sealed record FetchedCalendar(string? Text, string? Fault)
{
    public static FetchedCalendar Failed(string sentence) => new(null, sentence);
}

/// <summary>The calendars behind addresses that lead nowhere, which stay in the program.</summary>
internal interface IPracticeCalendars
{
    /// <summary>The calendar at an address; null where there is none.</summary>
    Task<string?> ReadAsync(Uri address, CancellationToken cancellationToken);
}

/// <summary>Fetches calendars from the addresses that people gave, within limits of size and time.</summary>
internal sealed class OutsideCalendarReader : IDisposable
{
    /// <summary>The largest calendar, in bytes.</summary>
    public const int Largest = 4 << 20;

    internal const string NoCalendar =
        "There is no calendar at this address. It has to be the one that other calendars read, which usually ends in .ics.";

    private readonly HttpClient _http;

    public OutsideCalendarReader(IConfiguration configuration) =>
        _http = new HttpClient(OutsideHttp.Handler(configuration.GetValue("PorchLight:CalendarsMayBeReadFromPrivateAddresses", false)))
        {
            Timeout = TimeSpan.FromSeconds(configuration.GetValue("PorchLight:CalendarTimeoutSeconds", 15.0)),
            MaxResponseContentBufferSize = Largest,
        };

    /// <summary>What is wrong with an address, as a sentence; null for nothing.</summary>
    public static string? Check(string address) =>
        WebhookAddress.Check(OfWeb(address)) is null ? null : "Give the whole address, like https://calendar.example.com/mine.ics.";

    public async Task<FetchedCalendar> FetchAsync(string address, IPracticeCalendars practice, CancellationToken cancellationToken)
    {
        var uri = new Uri(OfWeb(address));
        if (OutsideHttp.IsPractice(uri.AbsoluteUri))
            return await practice.ReadAsync(uri, cancellationToken) is { } kept
                ? new FetchedCalendar(kept, null)
                : FetchedCalendar.Failed(NoCalendar);
        try
        {
            using var answer = await _http.GetAsync(uri, cancellationToken);
            return answer.StatusCode switch
            {
                HttpStatusCode.OK => new FetchedCalendar(
                    Encoding.UTF8.GetString(await answer.Content.ReadAsByteArrayAsync(cancellationToken)),
                    null
                ),
                >= HttpStatusCode.MultipleChoices and < HttpStatusCode.BadRequest => FetchedCalendar.Failed(
                    "This address leads on to another one. Open it in a browser, and give the address you arrive at."
                ),
                HttpStatusCode.NotFound or HttpStatusCode.Gone => FetchedCalendar.Failed(NoCalendar),
                HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden => FetchedCalendar.Failed(
                    "The other side wants a password. Give the secret address of the calendar, which works without one."
                ),
                var status => FetchedCalendar.Failed($"The other side answers with the error {(int)status}."),
            };
        }
        catch (OperationCanceledException) when (!cancellationToken.IsCancellationRequested)
        {
            return FetchedCalendar.Failed("The other side does not answer in time.");
        }
        catch (HttpRequestException failure)
        {
            return FetchedCalendar.Failed(
                failure.HttpRequestError == HttpRequestError.ConfigurationLimitExceeded
                    ? $"This calendar is larger than {Largest >> 20} MB, which is more than is read."
                    : OutsideHttp.Say(failure)
            );
        }
    }

    public void Dispose() => _http.Dispose();

    /// <summary>Calendars are often given as webcal://, which is https.</summary>
    private static string OfWeb(string address)
    {
        var typed = address.Trim();
        return typed.StartsWith("webcal://", StringComparison.OrdinalIgnoreCase) ? $"https://{typed["webcal://".Length..]}" : typed;
    }
}
