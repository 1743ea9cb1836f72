using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;

namespace PorchLight.Server.Meetings;

/// <summary>A calendar that somebody of the business keeps elsewhere, and in which their busy times stand.</summary>
internal sealed class OutsideCalendar
{
    public required Id<OutsideCalendar> Id { get; init; }
    public required Guid UserId { get; init; }
    public required string Name { get; init; }

    /// <summary>Where it is read, sealed, for many such addresses are secret; null for a file that was given once.</summary>
    public required string? AddressSealed { get; init; }

    /// <summary>What was read last and was good.</summary>
    public required string Text { get; set; }

    /// <summary>When that was read.</summary>
    public required Instant Read { get; set; }

    /// <summary>Why it could not be read at the last try, as a sentence; null where it could. What was read before stays.</summary>
    public string? Fault { get; set; }

    /// <summary>What in it could not be read; the rest counts.</summary>
    public required CalendarFaults Faults { get; set; }

    /// <summary>When its repetitions were last followed as far as times are offered.</summary>
    public required Instant Expanded { get; set; }

    /// <summary>When it is due again.</summary>
    public required Instant Next { get; set; }
}

/// <param name="Sentences">What could not be read, a sentence each.</param>
internal sealed record CalendarFaults(IReadOnlyList<string> Sentences);

/// <summary>A time at which somebody is busy by a calendar they keep elsewhere.</summary>
internal sealed class OutsideEntry
{
    public long Id { get; init; }
    public required Id<OutsideCalendar> CalendarId { get; init; }
    public required Instant From { get; init; }
    public required Instant To { get; init; }

    /// <summary>What it is called there; only who keeps the calendar sees it.</summary>
    public required string Title { get; init; }

    public Span When => new(From, To);
}

/// <summary>The secret address at which other programs read the meetings of somebody of the business.</summary>
internal sealed class CalendarFeed
{
    public required Guid UserId { get; init; }
    public required string LinkHash { get; set; }
    public required string LinkSealed { get; set; }

    /// <summary>Whether it says with whom the meetings are.</summary>
    public required bool HasNames { get; set; }
}
