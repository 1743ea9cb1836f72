using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>A step cannot be done as things are.</summary>
/// <param name="sentence">Why, as a sentence for the owner.</param>
internal sealed class StepFailedException(string sentence) : Exception(sentence);

/// <summary>A step of a run that is to be done now, with all that it may speak of.</summary>
/// <param name="FollowThrough">What the follow-through is called.</param>
/// <param name="Step">The step.</param>
/// <param name="EffectKey">Names what it does once and for all: whatever is queued under it is queued once.</param>
/// <param name="Business">Whose step it is.</param>
/// <param name="About">What the run is about.</param>
/// <param name="OnFile">What stands in the fields of the client and the project, by field key.</param>
/// <param name="Values">What messages may say of the person, by name.</param>
/// <param name="By">The user who nodded to it or had it done; null when it comes by itself.</param>
/// <param name="Now">The instant it takes effect.</param>
internal sealed record StepToDo(
    string FollowThrough,
    Step Step,
    string EffectKey,
    Business Business,
    EventContext About,
    IReadOnlyDictionary<string, Answer> OnFile,
    IReadOnlyDictionary<string, string> Values,
    Guid? By,
    Instant Now
)
{
    /// <summary>The client; null where they are none yet.</summary>
    public required Client? Person { get; init; }

    /// <summary>What they filled in of a form they left half-finished; null for everybody else, and once it is not kept any more.</summary>
    public required UnfinishedForm? Left { get; init; }

    /// <summary>The message as it goes out, its gaps filled; null for a step that sends none.</summary>
    public required MessageDraft? Draft { get; init; }

    /// <summary>The client.</summary>
    /// <exception cref="StepFailedException">They are none yet.</exception>
    public Client Client =>
        Person ?? throw new StepFailedException("This needs a client, and who left a form half-finished is none yet. Change the step.");

    /// <summary>The project.</summary>
    /// <exception cref="StepFailedException">They have none.</exception>
    public Id<Project> Project =>
        About.ProjectId
        ?? throw new StepFailedException("They have no project, and this step is about one. Begin a project for them, or skip the step.");

    /// <summary>Words with what is known of the person set in.</summary>
    /// <param name="words">May hold known values.</param>
    public string Fill(string words) => KnownValues.Fill(words, Values);
}

/// <summary>What a kind of step does outside its run, in the area that owns what it does it to.</summary>
internal interface IStepEffect
{
    /// <summary>Whether it says itself what happened; else it is noted that the step was done.</summary>
    bool SaysItself => false;

    /// <summary>Does it, as part of the caller's write.</summary>
    /// <exception cref="StepFailedException">It cannot be done as things are.</exception>
    Task DoAsync(StepToDo todo);
}

/// <summary>The same for one kind.</summary>
/// <typeparam name="T">The kind; <see cref="StepEffects"/> finds the effect by it.</typeparam>
internal abstract class StepEffect<T> : IStepEffect
    where T : OutsideAction
{
    public virtual bool SaysItself => false;

    public Task DoAsync(StepToDo todo) => DoAsync((T)todo.Step.Action, todo);

    /// <summary>Does it, as part of the caller's write.</summary>
    protected abstract Task DoAsync(T action, StepToDo todo);
}

/// <summary>The effects of all kinds of steps.</summary>
internal static class StepEffects
{
    private static readonly Lazy<IReadOnlyDictionary<Type, Type>> Found = new(() =>
        typeof(IStepEffect)
            .Assembly.GetTypes()
            .Where(type => type.IsAssignableTo(typeof(IStepEffect)) && !type.IsAbstract)
            .ToDictionary(type => type.BaseType!.GetGenericArguments().Single())
    );

    /// <summary>The types of all effects by the kind of step that has them.</summary>
    public static IReadOnlyDictionary<Type, Type> All => Found.Value;

    /// <summary>The user a step names, who has to work here still.</summary>
    /// <exception cref="StepFailedException">They do not.</exception>
    public static async Task<Guid> WorksHereAsync(this PorchDb db, Guid user) =>
        await db.Users.AnyAsync(one => one.Id == user)
            ? user
            : throw new StepFailedException("The person meant no longer works here. Choose someone else in the step.");

    /// <summary>What a step does.</summary>
    /// <param name="services">The services of the request or the work that does it.</param>
    /// <param name="action">The step.</param>
    public static IStepEffect EffectOf(this IServiceProvider services, OutsideAction action) =>
        (IStepEffect)ActivatorUtilities.CreateInstance(services, All[action.GetType()]);
}
