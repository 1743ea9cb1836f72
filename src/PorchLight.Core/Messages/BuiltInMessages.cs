namespace PorchLight.Core.Messages;

/// <summary>A message that the program writes outside of follow-throughs.</summary>
public enum BuiltInMessage
{
    /// <summary>The link that brings somebody's answers back, which they asked for.</summary>
    FinishLater,

    /// <summary>The one word to somebody who left a form half-finished and did not come back.</summary>
    StillUnfinished,

    /// <summary>That a form is open again, which somebody asked to be told.</summary>
    OpenAgain,

    /// <summary>A personal link to a form. A person sends it, and can change every word before.</summary>
    PersonalLink,

    /// <summary>The code that opens a form for who has a personal link.</summary>
    AccessCode,

    /// <summary>That a meeting is booked, with its entry for calendars.</summary>
    MeetingBooked,

    /// <summary>That a meeting was moved, with its entry for calendars.</summary>
    MeetingMoved,

    /// <summary>That a meeting was cancelled, which takes its entry out of calendars.</summary>
    MeetingCancelled,
}

/// <summary>Whose words a message of the program has.</summary>
public enum Wording
{
    /// <summary>Those that hold for it anyhow: of one form the business's, and of the business those it came with.</summary>
    Standard,

    /// <summary>Its own.</summary>
    Own,

    /// <summary>It is not sent.</summary>
    Off,
}

/// <summary>Something known that can be set into a message.</summary>
/// <param name="Name">Its name between braces.</param>
/// <param name="Words">What it is, for who writes the message.</param>
/// <param name="Example">What it may come to.</param>
/// <param name="IsNeeded">Whether the message is no good without it.</param>
public sealed record SetIn(string Name, string Words, string Example, bool IsNeeded = false);

/// <summary>The messages that the program writes outside of follow-throughs: what each says unless somebody rewrites it.</summary>
/// <param name="Kind">Which one it is.</param>
/// <param name="Name">What it is called.</param>
/// <param name="When">When it is sent, as a sentence.</param>
/// <param name="WithoutIt">What happens instead where it is switched off, as a sentence; null where it cannot be.</param>
/// <param name="StaysOn">Why it cannot be switched off, as a sentence; null where it can be.</param>
/// <param name="IsOfForms">Whether a form can have words of its own.</param>
/// <param name="Values">What can be set into it beside the names of the business and its owner, and the signature.</param>
/// <param name="Standard">What it says as it comes.</param>
public sealed record BuiltInMessages(
    BuiltInMessage Kind,
    string Name,
    string When,
    string? WithoutIt,
    string? StaysOn,
    bool IsOfForms,
    IReadOnlyList<SetIn> Values,
    MessageTemplate Standard
)
{
    private static readonly SetIn Form = new("form", "The title of the form", "A sign for your front");
    private static readonly SetIn Link = new("link", "The link", "https://example.com/f/their-own-link", IsNeeded: true);
    private static readonly IReadOnlyList<SetIn> OfMeeting =
    [
        new("meeting", "What the meeting is called", "A first talk"),
        new("firstName", "Their first name", "Pilar"),
        new("when", "When it is", "Thursday 3 December, 15:00 to 15:30", IsNeeded: true),
        new("where", "Where it is", "By phone: we ring +353 1 555 0142"),
        new("link", "The link to move or cancel it", "https://example.com/m/their-own-link"),
        new("until", "Until when it can be moved", "Thursday 11:00"),
        new("reason", "Why it was moved or cancelled", "The scaffold comes that day."),
    ];
    private const string ForCalendars = "Whoever booked needs it for their calendar, so it is always sent.";

    private static readonly SetIn Until = new("until", "How long the answers are kept", "24 December 2026");

    /// <summary>All of them, in the order in which people meet them.</summary>
    public static IReadOnlyList<BuiltInMessages> All { get; } =
    [
        new(
            BuiltInMessage.PersonalLink,
            "An invitation to answer",
            "When you send someone a personal link to a form. You can change every word before it goes.",
            null,
            "It goes only when you send it, so there is nothing to switch off.",
            IsOfForms: true,
            [Form, Link],
            Of(
                "A few questions from {business}",
                "Hello,\n\nThank you for getting in touch. So that we can tell you soon whether and how we can help, please answer a few questions here:\n\n{link}\n\nIt is our form “{form}”; the link is only for you and good for one answer.\n\n{owner}\n{business}"
            )
        ),
        new(
            BuiltInMessage.AccessCode,
            "The code for a personal link",
            "When someone opens a form that asks for a code, and wants one.",
            null,
            "Without a code nobody could open such a form. Its settings say who may open it.",
            IsOfForms: false,
            [Form, new("code", "The code", "204 815", IsNeeded: true)],
            Of(
                "Your code for “{form}”",
                "Your code is {code}\n\nIt is good for a quarter of an hour. If you did not ask for it, someone else has your link; they cannot get in without this code.\n\n{business}"
            )
        ),
        new(
            BuiltInMessage.FinishLater,
            "The link to finish later",
            "When someone presses “Finish later” on a form and asks for the link by mail.",
            "The page shows them the link to copy, and offers no mail. You cannot write to those who do not come back, for no address is left.",
            null,
            IsOfForms: true,
            [
                Form,
                Link,
                Until,
                new(
                    "address",
                    "What you do with their address",
                    "We will write to you once more if you do not come back, and use this address for nothing else.",
                    IsNeeded: true
                ),
            ],
            Of(
                "Your answers to “{form}”",
                "You left “{form}” to be finished later. This link brings your answers back, in any browser, until {until}:\n\n{link}\n\nAfter that they are deleted. {address}\n\n{owner}\n{business}"
            )
        ),
        new(
            BuiltInMessage.StillUnfinished,
            "A word to who left a form half-finished",
            "When you press “Send one reminder” beside a half-finished form; once, and never again.",
            null,
            "The settings of each form say whether it may be sent: under “Who does not finish”.",
            IsOfForms: true,
            [Form, Link, Until],
            Of(
                "Your answers to “{form}” are still here",
                "You left “{form}” half-finished. If you would still like to send it, this link brings your answers back until {until}:\n\n{link}\n\nIf not, there is nothing to do: we do not write again, and the answers are deleted after that day.\n\n{owner}\n{business}"
            )
        ),
        new(
            BuiltInMessage.OpenAgain,
            "Open again",
            "When the light of a form is on again, to those who asked to be told.",
            "While a form is closed, nobody is asked for an address to be told. Who asked before is still told.",
            null,
            IsOfForms: true,
            [Form, Link],
            Of(
                "{business} is open again",
                "You asked us to tell you when “{form}” is open again. It is:\n\n{link}\n\nThis is the only mail you get about it; your address is not kept.\n\n{owner}\n{business}"
            )
        ),
        new(
            BuiltInMessage.MeetingBooked,
            "A meeting is booked",
            "At once when someone books a meeting, or you book one for them.",
            null,
            ForCalendars,
            IsOfForms: false,
            OfMeeting,
            Of(
                "{meeting}: {when}",
                "Hello {firstName},\n\nIt’s booked: {meeting}, {when}.\n\n{where}\n\nYou can move or cancel it until {until}:\n{link}\n\n{owner}\n{business}"
            )
        ),
        new(
            BuiltInMessage.MeetingMoved,
            "A meeting was moved",
            "At once when either of you moves a meeting.",
            null,
            ForCalendars,
            IsOfForms: false,
            OfMeeting,
            Of(
                "New time for {meeting}: {when}",
                "Hello {firstName},\n\n{meeting} has a new time: {when}.",
                "{reason}",
                "{where}\n\nYou can move or cancel it until {until}:\n{link}\n\n{owner}\n{business}"
            )
        ),
        new(
            BuiltInMessage.MeetingCancelled,
            "A meeting was cancelled",
            "At once when either of you cancels a meeting.",
            null,
            ForCalendars,
            IsOfForms: false,
            OfMeeting,
            Of("Cancelled: {meeting}, {when}", "Hello {firstName},\n\n{meeting} is cancelled: {when}.", "{reason}", "{owner}\n{business}")
        ),
    ];

    /// <summary>One of them.</summary>
    /// <param name="kind">Which.</param>
    public static BuiltInMessages Find(BuiltInMessage kind) => All.Single(one => one.Kind == kind);

    /// <summary>Whether it can be switched off.</summary>
    public bool CanBeOff => WithoutIt is not null;

    /// <summary>What keeps a text from being used for it, as a sentence; null for nothing.</summary>
    /// <param name="message">The text.</param>
    public string? Check(MessageTemplate message)
    {
        if (message.Parts.Any(part => part is GapPart))
            return "Nobody is there to fill a gap when this message goes. Take the gap out.";
        if (!message.Enclosed.IsNothing)
            return "This message goes alone: without files, copies, or another sender.";
        if (MessageCheck.Check(message) is { } sentence)
            return sentence;
        var said = message.Draft(Values.ToDictionary(value => value.Name, value => $"\u0001{value.Name}\u0001")).FinishedText!;
        return
            Values.FirstOrDefault(value => value.IsNeeded && !said.Contains($"\u0001{value.Name}\u0001", StringComparison.Ordinal))
                is { } missing
            ? $"Set “{missing.Words}” into the text; the message does not work without it."
            : null;
    }

    /// <summary>Which words hold, where the business and one form may each have their own.</summary>
    /// <param name="business">What the business chose, with its words.</param>
    /// <param name="form">What the form chose, with its words; standard for what belongs to no form.</param>
    /// <returns>The words; null where it is not sent.</returns>
    public MessageTemplate? InForce((Wording Wording, MessageTemplate Message) business, (Wording Wording, MessageTemplate Message) form) =>
        (form.Wording, business.Wording) switch
        {
            (Wording.Off, _) => null,
            (Wording.Own, _) => form.Message,
            (_, Wording.Off) => null,
            (_, Wording.Own) => business.Message,
            _ => Standard,
        };

    private static MessageTemplate Of(string subject, string text) => new(subject, [new TextPart("text", text)]);

    /// <summary>A message whose second part may come to nothing, and then leaves no gap between the others.</summary>
    private static MessageTemplate Of(string subject, string text, string perhaps, string end) =>
        new(subject, [new TextPart("text", text), new TextPart("perhaps", perhaps), new TextPart("end", end)]);
}
