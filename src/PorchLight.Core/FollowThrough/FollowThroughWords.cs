using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

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
    /// <summary>What ends it, beside a person: "they reply, they book or the stage moves on".</summary>
    /// <param name="content">The follow-through.</param>
    /// <param name="names">What those are called whom it names.</param>
    /// <returns>Empty where only a person ends it.</returns>
    public static string SayStops(this FollowThroughContent content, FollowThroughNames names) =>
        content.Starts.EndsBeforeClient() ?? WordLists.Either(content.Stops.Select(stop => stop.On.Say(names)));

    /// <summary>When a step comes: "3 days after the one before", "a week before Start".</summary>
    /// <param name="schedule">Its schedule.</param>
    /// <param name="isFirst">Whether no step stands before it, so that the one before is the start.</param>
    /// <param name="names">What those are called whom it names.</param>
    public static string Say(this Schedule schedule, bool isFirst, FollowThroughNames names)
    {
        var span = Span(Math.Abs(schedule.Amount), schedule.Unit);
        var when = schedule.Amount switch
        {
            0 => schedule.Anchor.SayNoLater(isFirst, schedule.AtOnce, names),
            < 0 => $"{span} before {schedule.Anchor.Say(isFirst, names)}",
            _ => $"{span} after {schedule.Anchor.Say(isFirst, names)}",
        };
        return schedule.AtOnce && when != "at once" ? $"{when}, at any hour" : when;
    }

    /// <summary>What a step does: "a message: “About your plans”"; known values that are set in as dots.</summary>
    /// <param name="step">The step.</param>
    /// <param name="names">What those are called whom it names.</param>
    public static string SayAction(this Step step, FollowThroughNames names) => KnownValues.Dotted(step.Action.Say(step, names));

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
}
