using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;

namespace PorchLight.Core.FollowThrough;

/// <summary>What the business has that a follow-through may name.</summary>
/// <param name="Forms">The identifiers of its forms.</param>
/// <param name="Services">The keys of its services.</param>
/// <param name="Stages">Its stages.</param>
/// <param name="Fields">Its fields by key.</param>
/// <param name="Users">The identifiers of those who work here.</param>
/// <param name="FollowThroughs">The identifiers of its other follow-throughs that are in force.</param>
/// <param name="Webhooks">The identifiers of its webhooks.</param>
public sealed record FollowThroughSurroundings(
    IReadOnlySet<Guid> Forms,
    IReadOnlySet<string> Services,
    IReadOnlyList<Stage> Stages,
    IReadOnlyDictionary<string, Field> Fields,
    IReadOnlySet<Guid> Users,
    IReadOnlySet<Guid> FollowThroughs,
    IReadOnlySet<Guid> Webhooks
)
{
    /// <summary>The identifier of the follow-through that is looked at.</summary>
    public Guid Itself { get; init; }

    /// <summary>Its other follow-throughs in force, with what they do.</summary>
    public IReadOnlyList<OtherFollowThrough> Others { get; init; } = [];

    /// <summary>Whether a stage is there.</summary>
    /// <param name="key">The stage's key.</param>
    public bool HasStage(string key) => Stages.Any(stage => stage.Key == key);

    /// <summary>Whether a field is there that holds a date.</summary>
    /// <param name="key">The field's key.</param>
    /// <param name="scope">Of which record.</param>
    public bool HasDate(string key, RecordScope scope) =>
        Fields.GetValueOrDefault(key) is { Kind: FieldKind.Date } found && found.Scope == scope;
}

/// <summary>What has to be put right in a follow-through before it can be put into force.</summary>
public static class FollowThroughCheck
{
    /// <summary>The place of what is about the whole and not about a step.</summary>
    public const string Whole = "";

    /// <summary>The place of what starts it.</summary>
    public const string Starts = "starts";

    /// <summary>The place of what ends it.</summary>
    public const string Stops = "stops";

    /// <summary>No follow-through has more steps.</summary>
    public const int MostSteps = 60;

    /// <summary>No nod waits longer, in days.</summary>
    public const int LongestLapse = 365;

    private const int LongestName = 120;

    /// <summary>
    /// All that stands in the way, the whole first, then step by step. The place of a finding is the key of its step, or one of the
    /// places named here.
    /// </summary>
    /// <param name="content">The follow-through as it is worked on; any value is allowed.</param>
    /// <param name="around">What it may name.</param>
    public static IReadOnlyList<Finding> Check(FollowThroughContent content, FollowThroughSurroundings around) =>
        [
            .. OfTheWhole(content),
            .. OfStart(content.Starts, around),
            .. OfStops(content, around),
            .. OfSteps(content, around),
            .. OfRounds(content, around),
            .. content.Starts.EndsBeforeClient() is null ? [] : OfWhoLeft(content),
        ];

    private static IEnumerable<Finding> OfTheWhole(FollowThroughContent content)
    {
        if (content.Name.Trim().Length is 0 or > LongestName)
            yield return new Finding(Whole, $"Give it a name of at most {LongestName} characters.");
        if (content.Steps.Count == 0)
            yield return new Finding(Whole, "Add a first step.");
        if (content.Steps.Count > MostSteps)
            yield return new Finding(Whole, $"A follow-through has at most {MostSteps} steps. Let another one start where this one ends.");
        if (content.LapseAfterDays is < 1 or > LongestLapse)
            yield return new Finding(Whole, $"A nod can wait from one to {LongestLapse} days.");
        if (content.AllSteps.GroupBy(step => step.Key).FirstOrDefault(same => same.Count() > 1) is { } twice)
            yield return new Finding(Whole, $"Two steps have the same key “{twice.Key}”. Take one of them out and add it again.");
    }

    private static IEnumerable<Finding> OfStart(StartOn start, FollowThroughSurroundings around) =>
        start.Check(around) is { } sentence ? [new Finding(Starts, sentence)] : [];

    private static IEnumerable<Finding> OfStops(FollowThroughContent content, FollowThroughSurroundings around)
    {
        foreach (var stop in content.Stops)
        {
            if (stop.On.Gone(around) is { } gone)
                yield return new Finding(Stops, $"It ends at {gone}. Choose another one.");
            if (stop.Last is not { } last)
                continue;
            if (last.Action is FlowAction)
                yield return new Finding(Stops, "The last step of an end does something; it does not wait or branch.");
            foreach (var finding in OfStep(last, [], content, around))
                yield return finding with
                {
                    Place = Stops,
                };
        }
    }

    private static IEnumerable<Finding> OfRounds(FollowThroughContent content, FollowThroughSurroundings around)
    {
        if (FollowThroughsTogether.Round(content, around.Itself, around.Others) is not { } round)
            yield break;
        yield return new Finding(
            Whole,
            round.Count == 0
                ? "It starts itself again and again. Take out the step that does, or let it move to another stage."
                : $"It starts “{round[0].Content.Name}”, which {(round.Count == 1 ? "starts it" : "leads back to it")} again and again. Take out one of the steps that do."
        );
    }

    private static IEnumerable<Finding> OfSteps(FollowThroughContent content, FollowThroughSurroundings around) =>
        content.Steps.SelectMany(
            (step, index) => OfStep(step, [.. content.Steps.Skip(index + 1).Select(later => later.Key)], content, around)
        );

    private static IEnumerable<Finding> OfStep(
        Step step,
        IReadOnlyList<string> later,
        FollowThroughContent content,
        FollowThroughSurroundings around
    ) =>
        new[]
        {
            step.Name.Trim().Length is 0 or > LongestName ? $"Say what the step is called, in at most {LongestName} characters." : null,
            OfSchedule(step, around),
            step.Action.Check(step, later, around),
            step.Action.WaitsFor() is { } occasion && content.Stops.Any(stop => stop.On == occasion)
                ? "It waits for what already ends the whole. Take that out of the ends, or wait for something else."
                : null,
            Asks(step).Any(condition => condition.QuestionsUsed().Any()) && content.Starts.FormAsked is null
                ? "What it asks for is a question of one form. Say which form starts the follow-through."
                : null,
        }
            .OfType<string>()
            .Select(sentence => new Finding(step.Key, sentence));

    /// <summary>Who left a form half-finished is no client, and was told of one mail at most.</summary>
    private static IEnumerable<Finding> OfWhoLeft(FollowThroughContent content)
    {
        var wrote = false;
        foreach (var step in content.Steps)
        {
            var sentence = step switch
            {
                { Action: SendMessage { Channel: not Channel.Mail } or SendMessage { IsAdvertising: true } } =>
                    "Who left a form half-finished can only be sent one mail about it.",
                { Action: SendMessage } when wrote =>
                    "They were told of one mail at most, and a step before sends it. Take one of the two out.",
                { Action: SendMessage { Message.Parts: var parts } }
                    when !parts.OfType<TextPart>().Any(part => part.Text.Contains("{link", StringComparison.Ordinal)) =>
                    "Set the link that brings their answers back into the text; without it they cannot go on.",
                { Action: var action } when action.NeedsClient() =>
                    "This needs a client, and who left a form half-finished is none yet. Tell your team instead, or take the step out.",
                _ => step.Schedule.Anchor.CheckBeforeClient(),
            };
            wrote |= step.Action is SendMessage;
            if (sentence is not null)
                yield return new Finding(step.Key, sentence);
        }
    }

    private static IEnumerable<Condition> Asks(Step step) => new[] { step.Condition, step.Action.Asks() }.OfType<Condition>();

    private static string? OfSchedule(Step step, FollowThroughSurroundings around) =>
        step.Schedule.Anchor.Check(around)
        ?? step.Schedule switch
        {
            { Amount: < 0, Anchor: var anchor } when !anchor.CanMove() =>
                "Only a day of the project or a meeting can be counted back from.",
            { Amount: <= 0 } when step.Action.WaitsFor() is not null => "Say how long it waits at most.",
            var schedule when schedule.Counted(NodaConstants.UnixEpoch, EveryDay) is null => "Nothing waits longer than ten years.",
            _ => null,
        };

    private static readonly BusinessCalendar EveryDay = new(
        DateTimeZone.Utc,
        Enum.GetValues<IsoDayOfWeek>()
            .Where(day => day != IsoDayOfWeek.None)
            .Select(day => new DayHours(day, [new OpenSpan(LocalTime.Midnight, OpenSpan.EndOfDay)])),
        []
    );
}
