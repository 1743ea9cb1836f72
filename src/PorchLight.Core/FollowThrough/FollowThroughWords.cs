using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;

namespace PorchLight.Core.FollowThrough;

/// <summary>What those are called whom a follow-through names by keys and identifiers; what is gone says so itself.</summary>
/// <param name="Form">The title of a form.</param>
/// <param name="Service">The name of a service.</param>
/// <param name="Stage">The name of a stage.</param>
/// <param name="Field">The label of a field.</param>
/// <param name="User">The name of a user.</param>
/// <param name="FollowThrough">The name of a follow-through.</param>
/// <param name="Webhook">The name of a webhook.</param>
/// <param name="Condition">A condition as a part of a sentence.</param>
public sealed record FollowThroughNames(
    Func<Guid, string> Form,
    Func<string, string> Service,
    Func<string, string> Stage,
    Func<string, string> Field,
    Func<Guid, string> User,
    Func<Guid, string> FollowThrough,
    Func<Guid, string> Webhook,
    Func<Condition, string> Condition
);

/// <summary>Says follow-throughs as sentences.</summary>
public static class FollowThroughWords
{
    /// <summary>What starts it: "“A wall to paint” comes in as Come in or Talk first".</summary>
    /// <param name="start">What starts it.</param>
    /// <param name="names">What those are called whom it names.</param>
    public static string Say(this StartOn start, FollowThroughNames names) =>
        start switch
        {
            InquiryStart e => (e.Form is { } form ? $"“{names.Form(form)}” comes in" : "an inquiry comes in")
                + (e.Fits.Count == 0 ? "" : $" as {Either(e.Fits.OrderDescending().Select(fit => fit.Say()))}")
                + (e.Service is { } service ? $" for {names.Service(service)}" : "")
                + (e.Condition is { } condition ? $", if {names.Condition(condition)}" : ""),
            BookedStart => "they book a meeting",
            RepliedStart => "they reply",
            StageStart e => $"a project reaches {Either(e.Stages.Select(names.Stage))}",
            LeftUnfinishedStart e => (
                e.Form is { } left ? $"someone leaves “{names.Form(left)}” half-finished" : "someone leaves a form half-finished"
            ) + $" and is away for {Span(e.Hours, TimeUnit.Hours)}",
            ProjectDateStart e => Day(e, $"the day of “{names.Field(e.Field)}”"),
            YearlyDateStart e => $"{Day(e, $"the day of “{names.Field(e.Field)}”")}, each year",
            ByHandStart => "someone starts it by hand",
            _ => throw new ArgumentOutOfRangeException(nameof(start)),
        };

    private static string Day(DatedStart start, string day) =>
        start.Days switch
        {
            0 => $"{day} comes",
            < 0 => $"{Span(-start.Days, TimeUnit.Days)} {(start.Days == -1 ? "is" : "are")} left to {day}",
            _ => $"{Span(start.Days, TimeUnit.Days)} {(start.Days == 1 ? "has" : "have")} passed since {day}",
        };

    /// <summary>Something that happens: "they reply".</summary>
    /// <param name="occasion">What happens.</param>
    /// <param name="names">What those are called whom it names.</param>
    public static string Say(this Occasion occasion, FollowThroughNames names) =>
        occasion switch
        {
            RepliedOccasion => "they reply",
            BookedOccasion => "they book",
            StageOccasion { Stages.Count: 0 } => "the stage moves on",
            StageOccasion e => $"the project reaches {Either(e.Stages.Select(names.Stage))}",
            _ => throw new ArgumentOutOfRangeException(nameof(occasion)),
        };

    /// <summary>What ends it, beside a person: "they reply, they book or the stage moves on".</summary>
    /// <param name="content">The follow-through.</param>
    /// <param name="names">What those are called whom it names.</param>
    /// <returns>Empty where only a person ends it.</returns>
    public static string SayStops(this FollowThroughContent content, FollowThroughNames names) =>
        content.Starts is LeftUnfinishedStart
            ? "they go on with the form or send it"
            : Either(content.Stops.Select(stop => stop.On.Say(names)));

    /// <summary>When a step comes: "3 days after the one before", "a week before Start".</summary>
    /// <param name="schedule">Its schedule.</param>
    /// <param name="isFirst">Whether no step stands before it, so that the one before is the start.</param>
    /// <param name="names">What those are called whom it names.</param>
    public static string Say(this Schedule schedule, bool isFirst, FollowThroughNames names)
    {
        var span = Span(Math.Abs(schedule.Amount), schedule.Unit);
        var from = schedule.Anchor switch
        {
            RunStartAnchor => "the start",
            PreviousSettledAnchor => isFirst ? "the start" : "the one before",
            ProjectDateAnchor date => $"the day of “{names.Field(date.Field)}”",
            _ => throw new ArgumentOutOfRangeException(nameof(schedule)),
        };
        var when = (schedule.Amount, schedule.Anchor) switch
        {
            (0, ProjectDateAnchor) => $"on {from}",
            (0, RunStartAnchor) => schedule.AtOnce ? "at once" : "at the start",
            (0, _) => isFirst
                ? schedule.AtOnce
                    ? "at once"
                    : "at the start"
                : "right after the one before",
            (< 0, _) => $"{span} before {from}",
            _ => $"{span} after {from}",
        };
        return schedule.AtOnce && when != "at once" ? $"{when}, at any hour" : when;
    }

    /// <summary>What a step does: "a message: “About your plans”"; known values that are set in as dots.</summary>
    /// <param name="step">The step.</param>
    /// <param name="names">What those are called whom it names.</param>
    public static string SayAction(this Step step, FollowThroughNames names) => KnownValues.Dotted(Action(step, names));

    private static string Action(Step step, FollowThroughNames names) =>
        step.Action switch
        {
            SendMessage e => $"{Message(e.Channel)}: “{e.Message.Subject}”{(e.IsAdvertising ? ", to those who permitted news" : "")}",
            MakeTask e =>
                $"a task: “{e.Title}”, to be done {DueIn(e.DueAfterWorkingDays)}{(e.For is { } user ? $" by {names.User(user)}" : "")}",
            MoveStage { ParkedDays: { } days } e => $"the stage moves to {names.Stage(e.Stage)} for {Span(days, TimeUnit.Days)}",
            MoveStage e => $"the stage moves to {names.Stage(e.Stage)}",
            FillField { Value: null } e => $"“{names.Field(e.Field)}” is set to that day",
            FillField e => $"“{names.Field(e.Field)}” is set to “{AnswerWords.Say(e.Value)}”",
            HandOverProject { KeepWatching: true } e => $"{names.User(e.To)} takes it over; the person before keeps watching",
            HandOverProject e => $"{names.User(e.To)} takes it over",
            TellTeam { Users.Count: 0, Outside: null } => "someone is told",
            TellTeam e => Told(e, names),
            PostToChat e => $"a line in the team chat: “{e.Text}”",
            CallWebhook e => $"the webhook “{names.Webhook(e.Webhook)}” is called",
            StartAnother e => $"“{names.FollowThrough(e.FollowThrough)}” starts",
            Unwritten e => $"still to be written: {e.What}",
            WaitFor e => $"waits until {e.On.Say(names)}, at most {Span(step.Schedule.Amount, step.Schedule.Unit)}",
            Branch { If: AllCondition { Parts.Count: 0 } } => "one way or another",
            Branch e => $"if {names.Condition(e.If)}, one way; else another",
            EndRun => "it ends here",
            _ => throw new ArgumentOutOfRangeException(nameof(step)),
        };

    /// <summary>A span of time: "3 days", "one working day".</summary>
    /// <param name="amount">How many; not negative.</param>
    /// <param name="unit">Of what.</param>
    public static string Span(int amount, TimeUnit unit)
    {
        var thing = unit switch
        {
            TimeUnit.WorkingDays => "working day",
            _ => unit.ToString().ToLowerInvariant().TrimEnd('s'),
        };
        return amount == 1 ? $"one {thing}" : $"{NumberWords.Say(amount)} {thing}s";
    }

    private static string Message(Channel channel) =>
        channel switch
        {
            Channel.Text => "a text message",
            Channel.PageNote => "a note on their page",
            _ => "a message",
        };

    private static string Told(TellTeam tell, FollowThroughNames names)
    {
        var who = tell.Users.Select(names.User).Concat(tell.Outside is { } outside ? [outside] : []).ToList();
        return $"{All(who)} {(who.Count == 1 ? "is" : "are")} told: “{tell.Subject}”";
    }

    private static string DueIn(int workingDays) => workingDays == 0 ? "that day" : $"within {Span(workingDays, TimeUnit.WorkingDays)}";

    private static string Either(IEnumerable<string> parts) => Joined([.. parts], "or");

    private static string All(IEnumerable<string> parts) => Joined([.. parts], "and");

    private static string Joined(IReadOnlyList<string> parts, string last) =>
        parts.Count < 2 ? string.Concat(parts) : $"{string.Join(", ", parts.SkipLast(1))} {last} {parts[^1]}";
}
