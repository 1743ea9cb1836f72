namespace PorchLight.Core.Meetings;

/// <summary>Who can book.</summary>
public static class BookingAccess
{
    /// <summary>Why nothing can be booked, as a sentence; null where something can.</summary>
    /// <param name="isOpen">Whether meetings of the type can be booked at the moment.</param>
    /// <param name="who">Who may book them.</param>
    /// <param name="isKnown">Whether somebody came by a link of their own: one they were sent, or that of a send-off.</param>
    public static string? Refuse(bool isOpen, WhoMayBook who, bool isKnown) =>
        !isOpen ? "Nothing can be booked here at the moment. Please write to us; we will find a time."
        : who != WhoMayBook.Anybody && !isKnown ? "These times are only for people we have been in touch with. Please write to us first."
        : null;
}

/// <summary>Says how long meetings can be moved and cancelled.</summary>
public static class MeetingChangeWords
{
    /// <summary>"You can move or cancel it by a link until four hours before."</summary>
    /// <param name="hours">How many hours before it that ends; whole days are said as days.</param>
    public static string Until(int hours) =>
        hours switch
        {
            0 => "You can move or cancel it by a link until it begins.",
            1 => "You can move or cancel it by a link until one hour before.",
            24 => "You can move or cancel it by a link until one day before.",
            _ when hours % 24 == 0 => $"You can move or cancel it by a link until {Common.NumberWords.Say(hours / 24)} days before.",
            _ => $"You can move or cancel it by a link until {Common.NumberWords.Say(hours)} hours before.",
        };
}
