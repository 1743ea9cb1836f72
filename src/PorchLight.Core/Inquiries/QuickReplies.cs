using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Calendar;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;

namespace PorchLight.Core.Inquiries;

/// <summary>An answer that is ready to be read over, changed and sent.</summary>
public enum QuickReplyKind
{
    /// <summary>They are welcome: times for a first talk are offered.</summary>
    ComeIn,

    /// <summary>A question back.</summary>
    AskBack,

    /// <summary>A kind no, because of the price.</summary>
    NoForPrice,

    /// <summary>A kind no, because there is no room.</summary>
    NoRoom,

    /// <summary>A kind no, because it is no match.</summary>
    NoMatch,

    /// <summary>Not now, but on a day.</summary>
    ComeBack,

    /// <summary>The door is open after all, after a no.</summary>
    DoorReopened,
}

/// <summary>All that a quick reply may speak of.</summary>
/// <param name="FirstName">What to call them; empty when it is not known.</param>
/// <param name="Owner">Who signs.</param>
/// <param name="Business">The business's name.</param>
/// <param name="Service">What it is about; null for nothing in particular.</param>
/// <param name="StartsAt">Where that starts in price, in words; null when it is not said.</param>
/// <param name="WantedBy">The day they want it by, by their own answer; null when they gave none.</param>
/// <param name="LeadWeeks">How many weeks it takes to begin; null when that is not said.</param>
/// <param name="WaysForward">What else may help them, as the form names it.</param>
/// <param name="NamedNoBudget">
/// Whether they were asked for a budget and did not know it, so that nothing lies above what they have set aside.
/// </param>
public sealed record QuickReplyContext(
    string FirstName,
    string Owner,
    string Business,
    string? Service,
    string? StartsAt,
    LocalDate? WantedBy,
    int? LeadWeeks,
    IReadOnlyList<WayForward> WaysForward,
    bool NamedNoBudget = false
);

/// <summary>A quick reply to one person.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Letter">The key that opens it.</param>
/// <param name="Label">What its button says.</param>
/// <param name="Draft">The message, with its gaps; every word of it can be changed.</param>
/// <param name="Stage">The key of the stage the project comes to; null where it stays.</param>
/// <param name="Until">The day it comes back, of a stage where nothing happens; else null.</param>
public sealed record QuickReply(QuickReplyKind Kind, char Letter, string Label, MessageDraft Draft, string? Stage, LocalDate? Until);

/// <summary>Makes the replies that are one key away.</summary>
public static class QuickReplies
{
    private const int OfferedTimes = 3;
    private const int DaysLookedAt = 30;
    private static readonly Duration Talk = Duration.FromMinutes(30);
    private const int WeeksToComeBack = 12;

    private static readonly LocalDatePattern OfferedDay = LocalDatePattern.CreateWithInvariantCulture("dddd d MMMM");

    /// <summary>The replies to an inquiry, in the order they are offered.</summary>
    /// <param name="context">What they may speak of.</param>
    /// <param name="stages">The stages of the business.</param>
    /// <param name="stage">The key of the stage the project stands in.</param>
    /// <param name="wasTurnedAway">Whether a no was said before, so that a door can be opened again.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="calendar">Its hours and zone: times are offered within them.</param>
    public static IReadOnlyList<QuickReply> For(
        QuickReplyContext context,
        IReadOnlyList<Stage> stages,
        string stage,
        bool wasTurnedAway,
        Instant now,
        BusinessCalendar calendar
    )
    {
        var today = calendar.Today(now);
        var talking = stages.Where(one => one.Kind == StageKind.Open).Skip(1).FirstOrDefault()?.Key;
        var no = (
            stages.FirstOrDefault(one => one is { Kind: StageKind.Lost, IsOurNo: true })
            ?? stages.FirstOrDefault(one => one.Kind == StageKind.Lost)
        )?.Key;
        var back = ComeBackOn(context, today);
        var service = context.Service is { } named ? FormattedText.Escape(named) : null;
        var times = Times(now, calendar);
        return
        [
            .. wasTurnedAway
                ?
                [
                    Reply(
                        QuickReplyKind.DoorReopened,
                        'O',
                        "The door is open after all",
                        "We have looked again",
                        talking,
                        null,
                        Text("opening", $"{Greeting(context)}We have looked at your answers again, and we were too quick with our no."),
                        new GapPart("why", "what changed our mind, in a line"),
                        Text("times", times),
                        Signed(context)
                    ),
                ]
                : Array.Empty<QuickReply>(),
            Reply(
                QuickReplyKind.ComeIn,
                'C',
                "Come in, offer a talk",
                context.Service is { } about ? $"Let us talk: {about}" : "Let us talk",
                talking,
                null,
                Text("opening", $"{Greeting(context)}Thank you for telling us so much. We would like to do this with you."),
                Text("times", times),
                Signed(context)
            ),
            Reply(
                QuickReplyKind.AskBack,
                'Q',
                "Ask back",
                "A question before we answer",
                talking,
                null,
                Text(
                    "opening",
                    $"{Greeting(context)}Thank you for writing to us. Before we can answer properly, we would like to know one thing:"
                ),
                new GapPart("question", "your question"),
                Text("closing", "A short answer is enough."),
                Signed(context)
            ),
            .. context.NamedNoBudget ? [] : new[] { NoForPrice() },
            Reply(
                QuickReplyKind.NoRoom,
                'F',
                "Kind no: we are full",
                "Thank you for asking us",
                no,
                null,
                Text(
                    "opening",
                    $"{Greeting(context)}Thank you for asking us. We are fully booked for the time you need it, and we would rather say so today than keep you waiting."
                ),
                Text("help", Help(context)),
                Text("closing", "If it can wait, write to us again; we have kept your answers."),
                Signed(context)
            ),
            Reply(
                QuickReplyKind.NoMatch,
                'M',
                "Kind no: no match",
                "Thank you for asking us",
                no,
                null,
                Text(
                    "opening",
                    $"{Greeting(context)}Thank you for asking us. This is not what we are good at, and you deserve someone who is."
                ),
                Text("help", Help(context)),
                Text("closing", "We wish you all the best with it."),
                Signed(context)
            ),
            Reply(
                QuickReplyKind.ComeBack,
                'D',
                "Come back on a date",
                "Shall we talk again later?",
                stages.FirstOrDefault(one => one.Kind == StageKind.Parked)?.Key,
                back,
                Text(
                    "opening",
                    $"{Greeting(context)}Thank you for writing to us. It is early for your plans; we will write to you again in the week of {DateWords.Say(back)}."
                ),
                Text("closing", "If anything changes before that, an answer to this mail is enough."),
                Signed(context)
            ),
        ];

        QuickReply NoForPrice() =>
            Reply(
                QuickReplyKind.NoForPrice,
                'P',
                "Kind no: the price",
                "Thank you for asking us",
                no,
                null,
                Text("opening", $"{Greeting(context)}Thank you for asking us."),
                context.StartsAt is { } price
                    ? Text(
                        "price",
                        $"{service ?? "What we do"} starts at {FormattedText.Escape(price)} with us. That is more than you have set aside, and we would rather say so today than keep you waiting."
                    )
                    : new GapPart("price", "where this starts in price with you"),
                Text("help", Help(context)),
                Text("closing", "Should your plans grow, write to us; we have kept your answers."),
                Signed(context)
            );

        QuickReply Reply(
            QuickReplyKind kind,
            char letter,
            string label,
            string subject,
            string? to,
            LocalDate? until,
            params MessagePart[] parts
        ) =>
            new(
                kind,
                letter,
                label,
                new MessageDraft(subject, [.. parts.Where(part => part is not TextPart { Text: "" })]),
                to == stage ? null : to,
                until
            );
    }

    /// <summary>
    /// When to come back: early enough before the day they want it by, by their own answer, that the work can begin in time; else in
    /// twelve weeks. Always a day to come.
    /// </summary>
    /// <param name="context">What they said.</param>
    /// <param name="today">The business's today.</param>
    public static LocalDate ComeBackOn(QuickReplyContext context, LocalDate today)
    {
        // A month to talk before the work has to begin.
        var early = context.WantedBy?.PlusWeeks(-(context.LeadWeeks ?? 0) - 4);
        return early > today ? early.Value : today.PlusWeeks(WeeksToComeBack);
    }

    /// <summary>Three times on the next working days, an hour after opening, as a sentence; without working days a question.</summary>
    private static string Times(Instant now, BusinessCalendar calendar)
    {
        var offered = new List<string>();
        var day = calendar.Today(now);
        for (var looked = 0; offered.Count < OfferedTimes; looked++)
        {
            if (looked == DaysLookedAt || calendar.WorkingDaysAfter(day, 1) is not { } next)
                return "Which times suit you for half an hour?";
            day = next;
            // A mail may be read days later: no day is called by where it lies from today.
            if (calendar.TimeToTalk(day, Talk) is { } time)
                offered.Add($"{OfferedDay.Format(day)} at {TimeWords.Clock(time)}");
        }

        return $"Would one of these suit you for half an hour: {offered[0]}, {offered[1]}, or {offered[2]}? If not, tell us two times that do.";
    }

    private static string Help(QuickReplyContext context) =>
        context.WaysForward.Count == 0
            ? ""
            : "Perhaps one of these is right for you:\n\n"
                + string.Join(
                    "\n\n",
                    context.WaysForward.Select(way =>
                        $"{FormattedText.Escape($"{way.Title}: {way.Text}")}{(way.Address is { } address ? $" {address}" : "")}"
                    )
                );

    private static TextPart Text(string key, string text) => new(key, text);

    private static TextPart Signed(QuickReplyContext context) =>
        new("signed", $"Warmly\n{FormattedText.Escape(context.Owner)}\n{FormattedText.Escape(context.Business)}");

    private static string Greeting(QuickReplyContext context) =>
        context.FirstName.Length > 0 ? $"Dear {FormattedText.Escape(context.FirstName)},\n\n" : "Hello,\n\n";
}
