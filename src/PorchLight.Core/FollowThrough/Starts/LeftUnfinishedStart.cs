using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// Starts when somebody has left a form half-finished and has not come back for some hours. Nobody is a client by that: only what needs
/// none can follow, and they were told of one mail at most.
/// </summary>
/// <param name="Form">The identifier of the form, or null for any.</param>
/// <param name="Hours">After how many hours; from 1 to <see cref="MostHours"/>.</param>
[Kind("leftUnfinished")]
public sealed record LeftUnfinishedStart(Guid? Form, int Hours) : StartOn
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override Guid? FormAsked => Form;

    /// <summary>Nobody is waited for longer: the answers are kept for some weeks only.</summary>
    public const int MostHours = 24 * 14;

    /// <summary>
    /// Whether it is time. Who is away for a day longer is left alone: they were when it was not in force yet, or the program did not run.
    /// </summary>
    /// <param name="form">The identifier of the form that was left.</param>
    /// <param name="away">How long nothing was added to it.</param>
    public bool IsStartedBy(Guid form, Duration away) =>
        (Form is null || Form == form) && away >= Duration.FromHours(Hours) && away < Duration.FromHours(Hours + 24);

    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => false;

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Precision => Form is null ? 0 : 1;

    /// <inheritdoc/>
    public override bool IsTheirDoing() => false;

    /// <inheritdoc/>
    public override string EndsBeforeClient() => "they go on with the form or send it";

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) =>
        (Form is { } left ? $"someone leaves “{names.Form(left)}” half-finished" : "someone leaves a form half-finished")
        + $" and is away for {FollowThroughWords.Span(Hours, TimeUnit.Hours)}";

    /// <inheritdoc/>
    public override string? Check(FollowThroughSurroundings around) =>
        Form is { } form && !around.Forms.Contains(form) ? "The form that starts it is gone. Choose another one."
        : Hours is < 1 or > MostHours ? $"Choose from one to {MostHours} hours."
        : null;
}
