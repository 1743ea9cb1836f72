using NodaTime;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;

namespace PorchLight.Core.Inquiries;

/// <summary>A lead sent a form.</summary>
/// <param name="Form">The identifier of the form.</param>
/// <param name="Version">The version of the form they saw.</param>
/// <param name="Fit">How it was sorted; null for a form that sorts nothing.</param>
/// <param name="KnownBefore">Whether the client was known.</param>
/// <param name="Joined">Whether it joins a project that was open already.</param>
[EventKind("inquiryReceived", EventBy.ClientOrUser, rings: true, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record InquiryReceived(Guid Form, int Version, Fit? Fit, bool KnownBefore, bool Joined) : DomainEvent, IPerhapsByAUser
{
    /// <summary>How it reached the business.</summary>
    public InquiryChannel Channel { get; init; }

    /// <summary>The user who wrote it down; null where the lead sent it.</summary>
    public Guid? By { get; init; }

    /// <summary>Whether the form said no to them.</summary>
    public bool TurnedAway { get; init; }

    /// <summary>Whether no follow-through begins with it: somebody wrote it down and wants none.</summary>
    public bool StartsNothing { get; init; }

    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        this switch
        {
            { By: { } by } => $"{names.User(by)} wrote down “{names.Form}” for {names.Client}, who came {Channel.Say()}{Sorted}.",
            { Joined: true } => $"{names.Client} sent “{names.Form}”{Sorted}. It joins the open project.",
            _ => $"{names.Client} sent “{names.Form}”{Sorted}.",
        };

    private string Sorted => Fit is { } sorted ? $": {sorted.Say()}" : "";
}

/// <summary>A person answered the client in another way than by this program.</summary>
/// <param name="By">The user who says so.</param>
[EventKind("answeredElsewhere", EventBy.User, rings: false, movesRuns: false, isPersonalWord: true, outlivesErasing: false)]
public sealed record AnsweredElsewhere(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} answered {names.Client} elsewhere.";
}

/// <summary>A person closed an inquiry.</summary>
/// <param name="By">The user who did.</param>
[EventKind("inquiryClosed", EventBy.User, rings: false, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record InquiryClosed(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} closed the inquiry.";
}

/// <summary>A person opened a closed inquiry again.</summary>
/// <param name="By">The user who did.</param>
[EventKind("inquiryReopened", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record InquiryReopened(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} opened the inquiry again.";
}

/// <summary>The lead asked for a call at the end of the form.</summary>
[EventKind("callAsked", EventBy.Client, rings: true, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record CallAsked : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.Client} asked for a call.";
}

/// <summary>Somebody on a waiting list got a place.</summary>
/// <param name="Month">The month.</param>
/// <param name="By">The user who gave it.</param>
[EventKind("placeGiven", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record PlaceGiven(YearMonth Month, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} gave {names.Client} a place in {Capacities.Say(Month)}.";
}

/// <summary>A person sorted an inquiry otherwise than the rules did.</summary>
/// <param name="Fit">The fit they chose.</param>
/// <param name="By">The user who did.</param>
[EventKind("fitOverruled", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record FitOverruled(Fit Fit, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} sorted it as {Fit.Say()}.";
}

/// <summary>A person let the fit stand again that the rules had found.</summary>
/// <param name="Fit">The fit the rules had found.</param>
/// <param name="By">The user who did.</param>
[EventKind("overruleTakenBack", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record OverruleTakenBack(Fit Fit, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} let the answers decide again: {Fit.Say()}.";
}

/// <summary>A person had an inquiry judged again by a screening that came after it.</summary>
/// <param name="Fit">The fit by the newer screening.</param>
/// <param name="Screening">The number of the newer screening.</param>
/// <param name="By">The user who asked for it.</param>
[EventKind("judgedAgain", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record JudgedAgain(Fit Fit, int Screening, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} had it judged again by screening {Screening}: {Fit.Say()}.";
}

/// <summary>A person set an inquiry aside: it never counts from then on.</summary>
/// <param name="Why">Why.</param>
/// <param name="By">The user who did.</param>
[EventKind("inquirySetAside", EventBy.User, rings: false, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record InquirySetAside(AsideReason Why, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} set the inquiry aside as {Why.Say()}.";
}

/// <summary>A person put an inquiry back among the others.</summary>
/// <param name="By">The user who did.</param>
[EventKind("inquiryPutBack", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record InquiryPutBack(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} put the inquiry back among the others.";
}
