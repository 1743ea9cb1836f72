using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;

namespace PorchLight.Server.Meetings;

/// <summary>A meeting that was booked.</summary>
internal sealed class Meeting
{
    public required Id<Meeting> Id { get; init; }
    public required Id<StoredMeetingType> TypeId { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project>? ProjectId { get; init; }
    public required Id<Inquiry>? InquiryId { get; init; }

    /// <summary>What was sent at whose send-off it was booked; null where it was booked elsewhere.</summary>
    public required Id<Submission>? SubmissionId { get; init; }
    public required Instant Start { get; set; }
    public required Instant End { get; set; }

    /// <summary>During which its hosts are busy with it, by the buffers it was booked with.</summary>
    public required Instant BusyFrom { get; set; }
    public required Instant BusyTo { get; set; }
    public MeetingState State { get; set; }

    /// <summary>What it is called in calendars.</summary>
    public required string Title { get; set; }
    public required MeetingPlaceKind Place { get; init; }

    /// <summary>The number, the address or the address of the web; may be empty.</summary>
    public required string PlaceWords { get; init; }

    /// <summary>Who booked, as they said.</summary>
    public required string Name { get; init; }
    public required string Email { get; init; }
    public required MeetingAnswers Answers { get; init; }

    /// <summary>The zone in which they look at it, by its IANA name.</summary>
    public required string Zone { get; init; }

    /// <summary>What the business wrote down about it; may be empty.</summary>
    public string Notes { get; set; } = "";

    /// <summary>Why it was moved last or cancelled, in the words of whoever did; may be empty.</summary>
    public string Reason { get; set; } = "";

    /// <summary>Its name in calendars for all time, and how often it was changed since it was booked.</summary>
    public required string Uid { get; init; }
    public int Sequence { get; set; }
    public required Instant Booked { get; init; }
    public required Instant Changed { get; set; }

    /// <summary>The link by which whoever booked looks at it, moves and cancels it.</summary>
    public required string LinkHash { get; init; }
    public required string LinkSealed { get; init; }

    public Span When => new(Start, End);
}

/// <summary>What whoever booked answered.</summary>
/// <param name="ByQuestion">The answers with the questions as they were worded.</param>
internal sealed record MeetingAnswers(IReadOnlyList<MeetingAnswer> ByQuestion);

/// <param name="Question">The question, as it was worded.</param>
internal sealed record MeetingAnswer(string Key, string Question, string Answer);

/// <summary>Somebody of the business who holds a meeting.</summary>
internal sealed class MeetingHost
{
    public required Id<Meeting> MeetingId { get; init; }
    public required Guid UserId { get; init; }
}
