using System.Text.Json.Serialization;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// Starts on an inquiry that begins a piece of work of its own; one that joins a project that is open starts nothing. Whom the form said
/// no to starts only what is written for those who are not to come now.
/// </summary>
/// <param name="Form">The identifier of the form, or null for any.</param>
/// <param name="Fits">The fits it starts with; empty for any, also for inquiries of a form that sorts nothing.</param>
[Kind("inquiry")]
public sealed record InquiryStart(Guid? Form, IReadOnlyList<Fit> Fits) : StartOn
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override Guid? FormAsked => Form;

    /// <summary>The key of the service the inquiry has to be about; null for any.</summary>
    public string? Service { get; init; }

    /// <summary>What has to be true for certain of its answers; null for nothing.</summary>
    public Condition? Condition { get; init; }

    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) =>
        happened is InquiryReceived received
        && Takes(received, facts.Service)
        && (Condition is null || facts.Judge(Condition) == Truth.True);

    /// <summary>Whether an inquiry is one it is meant for, whatever was answered: <see cref="Condition"/> is left aside.</summary>
    /// <param name="received">The inquiry.</param>
    /// <param name="service">The key of the service it is about; null for none.</param>
    public bool Takes(InquiryReceived received, string? service) =>
        received is { Joined: false, StartsNothing: false }
        && (!received.TurnedAway || Fits.Contains(Fit.NotNow))
        && (Form is null || Form == received.Form)
        && (Fits.Count == 0 || (received.Fit is { } sorted && Fits.Contains(sorted)))
        && (Service is null || Service == service);

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Precision =>
        (Form is null ? 0 : 8) + (Condition is null ? 0 : 4) + (Service is null ? 0 : 2) + (Fits.Count == 0 ? 0 : 1);

    /// <inheritdoc/>
    public override Condition? Asks() => Condition;

    /// <inheritdoc/>
    public override bool IsTheirDoing() => true;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) =>
        (Form is { } form ? $"“{names.Form(form)}” comes in" : "an inquiry comes in")
        + (Fits.Count == 0 ? "" : $" as {WordLists.Either(Fits.OrderDescending().Select(fit => fit.Say()))}")
        + (Service is null ? "" : $" for {names.Service(Service)}")
        + (Condition is null ? "" : $", if {names.Condition(Condition)}");

    /// <inheritdoc/>
    public override string? Check(FollowThroughSurroundings around) =>
        Form is { } form && !around.Forms.Contains(form) ? "The form that starts it is gone. Choose another one."
        : Service is not null && !around.Services.Contains(Service) ? "The service that starts it is gone. Choose another one."
        : Form is null && Condition is not null && Condition.QuestionsUsed().Any()
            ? "What it asks for is a question of one form. Say which form starts it."
        : null;
}
