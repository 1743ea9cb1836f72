using PorchLight.Core.Common;

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

    /// <summary>What is offered, as the beginning of a sentence: "By phone or video", "At our place or your place".</summary>
    /// <param name="kinds">The kinds of places, in order; at least one.</param>
    public static string Offer(IReadOnlyList<MeetingPlaceKind> kinds)
    {
        var words = new List<string>();
        foreach (var (index, kind) in kinds.Index())
            words.Add(index > 0 && With(kinds[index - 1]) == With(kind) ? kind.Say() : $"{With(kind)} {kind.Say()}");
        var said = WordLists.Either(words);
        return char.ToUpperInvariant(said[0]) + said[1..];

        static string With(MeetingPlaceKind kind) => kind is MeetingPlaceKind.Phone or MeetingPlaceKind.Video ? "by" : "at";
    }

    /// <summary>What whoever books is asked beside the choice of a place; null where nothing is.</summary>
    /// <param name="kind">The kind of place.</param>
    public static string? Ask(MeetingPlaceKind kind) =>
        kind switch
        {
            MeetingPlaceKind.Phone => "Which number shall we ring?",
            MeetingPlaceKind.Theirs => "Where shall we come?",
            _ => null,
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
