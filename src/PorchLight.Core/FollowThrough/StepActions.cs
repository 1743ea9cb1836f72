using System.Text.Json.Serialization;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Messages;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// What a step does. What is done outside a run (<see cref="OutsideAction"/>) the rest of the program carries out; how a run goes on
/// (<see cref="FlowAction"/>) the planner decides alone.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(SendMessage), "sendMessage")]
[JsonDerivedType(typeof(MakeTask), "makeTask")]
[JsonDerivedType(typeof(MoveStage), "moveStage")]
[JsonDerivedType(typeof(FillField), "setField")]
[JsonDerivedType(typeof(HandOverProject), "handOver")]
[JsonDerivedType(typeof(TellTeam), "tellTeam")]
[JsonDerivedType(typeof(PostToChat), "postToChat")]
[JsonDerivedType(typeof(CallWebhook), "callWebhook")]
[JsonDerivedType(typeof(StartAnother), "startAnother")]
[JsonDerivedType(typeof(Unwritten), "unwritten")]
[JsonDerivedType(typeof(WaitFor), "waitFor")]
[JsonDerivedType(typeof(Branch), "branch")]
[JsonDerivedType(typeof(EndRun), "end")]
public abstract record StepAction;

/// <summary>Something that is done outside the run.</summary>
public abstract record OutsideAction : StepAction;

/// <summary>Sends the person a message.</summary>
/// <param name="Message">
/// The message; a step that needs no nod has none with gaps. By text or on their page its subject is not shown.
/// </param>
public sealed record SendMessage(MessageTemplate Message) : OutsideAction
{
    /// <summary>How it reaches them.</summary>
    public Channel Channel { get; init; }

    /// <summary>Whether it advertises: then it goes only to those who permitted that, and says how to stop it.</summary>
    public bool IsAdvertising { get; init; }
}

/// <summary>Makes a task of the project.</summary>
/// <param name="Title">What is to do; may hold known values.</param>
/// <param name="DueAfterWorkingDays">By when it is to be done, in working days from then; 0 for the same day.</param>
/// <param name="For">The user who does it; null for whoever looks after the project.</param>
public sealed record MakeTask(string Title, int DueAfterWorkingDays, Guid? For) : OutsideAction;

/// <summary>Moves the project to a stage.</summary>
/// <param name="Stage">The stage's key.</param>
/// <param name="ParkedDays">Of a stage where nothing happens: after how many days it comes back; null for not by itself.</param>
public sealed record MoveStage(string Stage, int? ParkedDays = null) : OutsideAction;

/// <summary>Writes a value into a field of the client or the project.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Value">The value; null for the day on which it is written.</param>
public sealed record FillField(string Field, Answer? Value) : OutsideAction
{
    /// <summary>Whether a step can write into fields of a kind: words, yes or no, or the day on which it is done.</summary>
    /// <param name="kind">The kind of the field.</param>
    public static bool CanFill(FieldKind kind) => kind is FieldKind.Text or FieldKind.LongText or FieldKind.Date or FieldKind.YesNo;
}

/// <summary>Gives the project to somebody who takes it over.</summary>
/// <param name="To">The user.</param>
/// <param name="KeepWatching">Whether whoever looked after it until then goes on being told what comes in.</param>
public sealed record HandOverProject(Guid To, bool KeepWatching = false) : OutsideAction;

/// <summary>Tells people of the business, or a helper outside who has no account, by mail.</summary>
/// <param name="Users">The users; empty for none of them.</param>
/// <param name="Outside">An address outside; null for none.</param>
/// <param name="Subject">May hold known values.</param>
/// <param name="Text">May hold known values.</param>
public sealed record TellTeam(IReadOnlyList<Guid> Users, string? Outside, string Subject, string Text) : OutsideAction;

/// <summary>Posts a line to the team chat.</summary>
/// <param name="Text">May hold known values.</param>
public sealed record PostToChat(string Text) : OutsideAction;

/// <summary>Calls a webhook of the business with what is on file about the client and the project.</summary>
/// <param name="Webhook">Its identifier.</param>
public sealed record CallWebhook(Guid Webhook) : OutsideAction;

/// <summary>Starts another follow-through for the same project, which ends this one unless both may run side by side.</summary>
/// <param name="FollowThrough">Its identifier.</param>
public sealed record StartAnother(Guid FollowThrough) : OutsideAction;

/// <summary>Stands where something is still to be written; nothing with such a step can be put into force.</summary>
/// <param name="What">What the client is to see there, in the owner's words.</param>
public sealed record Unwritten(string What) : OutsideAction;

/// <summary>How a run goes on.</summary>
public abstract record FlowAction : StepAction;

/// <summary>
/// Waits until something happens, at most as long as the step's schedule has it; what follows counts from then.
/// </summary>
/// <param name="On">What it waits for.</param>
/// <param name="Otherwise">The key of the later step it goes on at when the time is over; null for the next one.</param>
public sealed record WaitFor(Occasion On, string? Otherwise = null) : FlowAction;

/// <summary>Goes on at one step or at another.</summary>
/// <param name="If">What is judged when the step falls due.</param>
/// <param name="Then">The key of the later step it goes on at where that is true for certain; null for the next one.</param>
/// <param name="Otherwise">The same where it is not; null for the next one.</param>
public sealed record Branch(Condition If, string? Then, string? Otherwise) : FlowAction;

/// <summary>Ends the run; what stands behind it is reached from a branch only.</summary>
public sealed record EndRun : FlowAction;
