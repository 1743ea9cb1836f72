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
            .. content.Starts is LeftUnfinishedStart ? OfWhoLeft(content) : [],
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

    private static IEnumerable<Finding> OfStart(StartOn start, FollowThroughSurroundings around)
    {
        switch (start)
        {
            case InquiryStart { Form: { } form } when !around.Forms.Contains(form):
                yield return new Finding(Starts, "The form that starts it is gone. Choose another one.");
                break;
            case InquiryStart { Service: { } service } when !around.Services.Contains(service):
                yield return new Finding(Starts, "The service that starts it is gone. Choose another one.");
                break;
            case InquiryStart { Form: null, Condition: { } condition } when condition.QuestionsUsed().Any():
                yield return new Finding(Starts, "What it asks for is a question of one form. Say which form starts it.");
                break;
            case LeftUnfinishedStart { Form: { } form } when !around.Forms.Contains(form):
                yield return new Finding(Starts, "The form that starts it is gone. Choose another one.");
                break;
            case LeftUnfinishedStart { Hours: < 1 or > LeftUnfinishedStart.MostHours }:
                yield return new Finding(Starts, $"Choose from one to {LeftUnfinishedStart.MostHours} hours.");
                break;
            case ProjectDateStart date when !IsDate(date.Field, RecordScope.Project, around):
                yield return new Finding(Starts, "Choose a field of projects that holds a date.");
                break;
            case YearlyDateStart date when !IsDate(date.Field, RecordScope.Client, around):
                yield return new Finding(Starts, "Choose a field of clients that holds a date.");
                break;
            case DatedStart { Days: < -DatedStart.MostDays or > DatedStart.MostDays }:
                yield return new Finding(Starts, "A day is counted at most a year from the date.");
                break;
            case StageStart stages when stages.Stages.Count == 0 || stages.Stages.Any(key => around.Stages.All(stage => stage.Key != key)):
                yield return new Finding(Starts, "Say which stage starts it.");
                break;
        }
    }

    private static IEnumerable<Finding> OfStops(FollowThroughContent content, FollowThroughSurroundings around)
    {
        foreach (var stop in content.Stops)
        {
            if (stop.On is StageOccasion stages && stages.Stages.Any(key => around.Stages.All(stage => stage.Key != key)))
                yield return new Finding(Stops, "It ends at a stage that is gone. Choose another one.");
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
            OfAction(step, later, around),
            step.Action is WaitFor wait && content.Stops.Any(stop => stop.On == wait.On)
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
                { Action: not (SendMessage or TellTeam or PostToChat or Branch or EndRun or Unwritten) } =>
                    "This needs a client, and who left a form half-finished is none yet. Tell your team instead, or take the step out.",
                { Schedule.Anchor: ProjectDateAnchor } => "There is no project yet to count from.",
                _ => null,
            };
            wrote |= step.Action is SendMessage;
            if (sentence is not null)
                yield return new Finding(step.Key, sentence);
        }
    }

    private static IEnumerable<Condition> Asks(Step step) => new[] { step.Condition, (step.Action as Branch)?.If }.OfType<Condition>();

    private static string? OfSchedule(Step step, FollowThroughSurroundings around) =>
        step.Schedule switch
        {
            { Anchor: ProjectDateAnchor date } when !IsProjectDate(date.Field, around) =>
                "It counts from a day that no project has. Choose a field of projects that holds a date.",
            { Amount: < 0, Anchor: not ProjectDateAnchor } => "Only a day of the project can be counted back from.",
            { Amount: <= 0 } when step.Action is WaitFor => "Say how long it waits at most.",
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

    private static bool IsProjectDate(string field, FollowThroughSurroundings around) => IsDate(field, RecordScope.Project, around);

    private static bool IsDate(string field, RecordScope scope, FollowThroughSurroundings around) =>
        around.Fields.GetValueOrDefault(field) is { Kind: FieldKind.Date } found && found.Scope == scope;

    private static string? OfAction(Step step, IReadOnlyList<string> later, FollowThroughSurroundings around) =>
        step.Action switch
        {
            SendMessage { Channel: not Channel.Mail, Message.Enclosed: { IsNothing: false } } =>
                "Files, copies and a sender go with mail only. Take them away, or send it by mail.",
            SendMessage { Message: var message } when MessageCheck.Check(message) is { } sentence => sentence,
            SendMessage { Message.Parts: var parts } when !step.NeedsNod && parts.Any(part => part is GapPart) =>
                "A message with a gap needs your nod: someone has to fill it.",
            MakeTask { Title: var title } when string.IsNullOrWhiteSpace(title) => "Say what is to do.",
            MakeTask { DueAfterWorkingDays: < 0 or > 250 } => "A task is due within 250 working days.",
            MakeTask { For: { } user } when !around.Users.Contains(user) =>
                "The person it was assigned to no longer works here. Choose someone else.",
            MoveStage move when around.Stages.All(stage => stage.Key != move.Stage) => "Choose the stage it moves to.",
            MoveStage { ParkedDays: <= 0 or > 3653 } => "A project is parked for one day up to ten years.",
            MoveStage { ParkedDays: not null } move when around.Stages.First(stage => stage.Key == move.Stage).Kind != StageKind.Parked =>
                "Only a parked stage ends automatically.",
            FillField fill when !around.Fields.TryGetValue(fill.Field, out var field) || field.Archived => "Choose the field it sets.",
            FillField fill when !FillField.CanFill(around.Fields[fill.Field].Kind) =>
                "A step cannot write into this field. Choose one for words, for a day, or for yes and no.",
            FillField { Value: null } fill when around.Fields[fill.Field].Kind != FieldKind.Date =>
                "Only a field for dates can hold the day. Say what it is set to.",
            HandOverProject hand when !around.Users.Contains(hand.To) => "Choose who takes it over.",
            TellTeam { Users.Count: 0, Outside: null } => "Say who is told.",
            TellTeam { Users: var users } when users.Any(user => !around.Users.Contains(user)) =>
                "Someone who was to be told no longer works here.",
            TellTeam { Outside: { } outside } when EmailAddress.Check(outside) is not null =>
                "The address outside the team is not an e-mail address.",
            TellTeam { Subject: var subject } when string.IsNullOrWhiteSpace(subject) => "The message needs a subject.",
            PostToChat { Text: var text } when string.IsNullOrWhiteSpace(text) => "Say what is posted.",
            CallWebhook call when !around.Webhooks.Contains(call.Webhook) => "Choose the webhook it calls. They are made in Settings.",
            StartAnother another when !around.FollowThroughs.Contains(another.FollowThrough) =>
                "Choose what it starts; it has to be in force.",
            Unwritten => "This is still to be written.",
            WaitFor { Otherwise: { } target } when !later.Contains(target) => NotLater,
            WaitFor { On: StageOccasion stages } when stages.Stages.Any(key => around.Stages.All(stage => stage.Key != key)) =>
                "It waits for a stage that is gone. Choose another one.",
            Branch { If: AllCondition { Parts.Count: 0 } } => "Say what decides which way it goes.",
            Branch branch when new[] { branch.Then, branch.Otherwise }.OfType<string>().Any(target => !later.Contains(target)) => NotLater,
            Branch branch when branch.Then == branch.Otherwise => "Both ways go on at the same step. Say where one of them goes on.",
            _ => null,
        };

    private const string NotLater = "It continues at a step that does not come later. Choose a later one.";
}
