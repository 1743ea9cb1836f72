namespace PorchLight.Core.Meetings;

/// <summary>Says where people meet.</summary>
public static class MeetingPlaceWords
{
    /// <summary>A kind of place as a choice: "phone", "video", "our place", "your place".</summary>
    /// <param name="kind">The kind of place.</param>
    public static string Say(this MeetingPlaceKind kind) =>
        kind switch
        {
            MeetingPlaceKind.Phone => "phone",
            MeetingPlaceKind.Video => "video",
            MeetingPlaceKind.Ours => "our place",
            MeetingPlaceKind.Theirs => "your place",
            _ => throw new ArgumentOutOfRangeException(nameof(kind)),
        };

    /// <summary>Where a meeting is, for whoever booked it: "By phone: we ring +353 1 555 0142".</summary>
    /// <param name="kind">The kind of place.</param>
    /// <param name="words">The number or address; may be empty.</param>
    public static string ForThem(MeetingPlaceKind kind, string words) =>
        kind switch
        {
            MeetingPlaceKind.Phone => $"By phone: we ring {words}",
            MeetingPlaceKind.Video => words.Length == 0 ? "By video: we send you the link" : $"By video: {words}",
            MeetingPlaceKind.Ours => $"At our place: {words}",
            MeetingPlaceKind.Theirs => $"At your place: {words}",
            _ => throw new ArgumentOutOfRangeException(nameof(kind)),
        };

    /// <summary>The same for the business: "by phone +353 1 555 0142".</summary>
    /// <param name="kind">The kind of place.</param>
    /// <param name="words">The number or address; may be empty.</param>
    public static string ForUs(MeetingPlaceKind kind, string words) =>
        kind switch
        {
            MeetingPlaceKind.Phone => $"by phone {words}",
            MeetingPlaceKind.Video => words.Length == 0 ? "by video, link still to be sent" : $"by video, {words}",
            MeetingPlaceKind.Ours => $"at our place, {words}",
            MeetingPlaceKind.Theirs => $"at their place, {words}",
            _ => throw new ArgumentOutOfRangeException(nameof(kind)),
        };
}
