using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Server.Brand;

/// <summary>The business that uses this house; there is one.</summary>
internal sealed class Business
{
    public int Id { get; init; } = 1;
    public required string Name { get; set; }
    public required string OwnerName { get; set; }
    public required string MailAddress { get; set; }

    /// <summary>ISO 3166 region, for phone numbers without a country code.</summary>
    public required string Region { get; set; }

    /// <summary>ISO 4217 code.</summary>
    public required string Currency { get; set; }

    /// <summary>IANA zone.</summary>
    public required string Zone { get; set; }
    public required WorkingHours Hours { get; set; }
    public required int PromiseHours { get; set; }
    public required PromiseClock PromiseClock { get; set; }

    /// <summary>The brand's colour as #rrggbb, dark enough for white text.</summary>
    public required string Accent { get; set; }

    /// <summary>How far the business clock runs ahead of real time, in seconds; zero in real use.</summary>
    public long ClockAheadSeconds { get; set; }

    public DateTimeZone DateTimeZone => DateTimeZoneProviders.Tzdb[Zone];
    public BusinessCalendar Calendar => new(DateTimeZone, Hours.Weekly, Hours.Closed);
    public ReplyPromise Promise => new(PromiseHours, PromiseClock);
    public SendingWindow Window => Hours.Window;
}

/// <summary>When the business works and sends.</summary>
internal sealed record WorkingHours(IReadOnlyList<DayHours> Weekly, IReadOnlyList<LocalDate> Closed, SendingWindow Window);
