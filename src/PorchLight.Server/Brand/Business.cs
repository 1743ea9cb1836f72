using System.ComponentModel.DataAnnotations.Schema;
using NodaTime;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.Forms;

namespace PorchLight.Server.Brand;

/// <summary>The business that uses this program; there is one.</summary>
internal sealed class Business
{
    private BusinessCalendar? _calendar;
    private WorkingHours? _hoursOfCalendar;

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

    /// <summary>The address under which people reach this program; empty while that is this machine.</summary>
    public string PublicAddress { get; set; } = "";
    public required WorkingHours Hours { get; set; }
    public required int PromiseHours { get; set; }
    public required PromiseClock PromiseClock { get; set; }

    public required BrandLook Look { get; set; }

    /// <summary>The logo that public pages show; null for none.</summary>
    public string? LogoHash { get; set; }

    /// <summary>A stored picture of the owner, for the cover of forms; null for none.</summary>
    public Guid? OwnerPhoto { get; set; }

    /// <summary>How to reach the owner, line by line, for the cover of forms; may be empty.</summary>
    public string ContactLines { get; set; } = "";

    /// <summary>What stands below its messages; empty for the owner's name and its own.</summary>
    public string Signature { get; set; } = "";

    /// <summary>What it sells and how people find it.</summary>
    public BusinessLists Lists { get; set; } = BusinessLists.Empty;

    /// <summary>How many days a half-finished form is kept for somebody who wants to go on later.</summary>
    public int KeepUnfinishedDays { get; set; } = 30;

    /// <summary>How many months records of clients are kept with whom nothing happens any more; null keeps them.</summary>
    public int? KeepClientsMonths { get; set; }

    /// <summary>How long a first call takes, in minutes; for what a screening saves.</summary>
    public int FirstCallMinutes { get; set; } = 45;

    /// <summary>The last day on which it was asked what follows on days counted from a date; null for never.</summary>
    public LocalDate? DaysLookedAt { get; set; }

    /// <summary>Whether it is made up: only then may its clock be moved.</summary>
    public required bool IsDemo { get; init; }

    /// <summary>Where mail is handed over; null while it stays in the practice mailbox.</summary>
    public SmtpSettings? Smtp { get; set; }

    /// <summary>Where answers are read; null while only the practice mailbox brings some.</summary>
    public ImapSettings? Imap { get; set; }

    /// <summary>How far the business clock runs ahead of real time, in seconds; zero in real use.</summary>
    public long ClockAheadSeconds { get; set; }

    public DateTimeZone DateTimeZone => DateTimeZoneProviders.Tzdb[Zone];

    /// <summary>Made once for the hours and the zone it was asked with last.</summary>
    public BusinessCalendar Calendar
    {
        get
        {
            if (_calendar is null || _calendar.Zone.Id != Zone || !ReferenceEquals(_hoursOfCalendar, Hours))
                (_calendar, _hoursOfCalendar) = (new BusinessCalendar(DateTimeZone, Hours.Weekly, Hours.Closed), Hours);
            return _calendar;
        }
    }

    public ReplyPromise Promise => new(PromiseHours, PromiseClock);
    public SendingWindow Window => Hours.Window;

    [NotMapped]
    public BusinessCard Card
    {
        get => new(Name, OwnerName, MailAddress, Region, Currency, Zone, PublicAddress);
        set => (Name, OwnerName, MailAddress, Region, Currency, Zone, PublicAddress) = value;
    }

    [NotMapped]
    public WelcomeCard Welcome
    {
        get => new(OwnerPhoto, ContactLines);
        set => (OwnerPhoto, ContactLines) = (value.Photo, value.ContactLines.Trim());
    }
}

/// <summary>A picture of the brand, named by the hash of its bytes and never changed.</summary>
internal sealed class BrandPicture
{
    public required string Hash { get; init; }
    public required string ContentType { get; init; }
    public required byte[] Bytes { get; init; }
}
