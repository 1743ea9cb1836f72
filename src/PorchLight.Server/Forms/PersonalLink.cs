using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Server.Records;

namespace PorchLight.Server.Forms;

/// <summary>A link to a form for one person, good for one sending.</summary>
internal sealed class PersonalLink
{
    public required Id<PersonalLink> Id { get; init; }
    public required Id<Form> FormId { get; init; }
    public required string LinkHash { get; init; }
    public required string LinkSealed { get; init; }
    public required string Email { get; init; }
    public required string GivenName { get; init; }
    public required string FamilyName { get; init; }

    /// <summary>The client it was made for; null for somebody who is not known yet.</summary>
    public required Id<Client>? ClientId { get; init; }
    public required string MadeBy { get; init; }
    public required Instant Made { get; init; }
    public required Instant GoodUntil { get; init; }
    public Instant? Opened { get; set; }

    /// <summary>What was sent with it; null before.</summary>
    public Id<Submission>? SubmissionId { get; set; }
    public Instant? Used { get; set; }

    /// <summary>The code that was sent last, hashed; null when none waits to be typed.</summary>
    public string? CodeHash { get; set; }

    /// <summary>In real time.</summary>
    public Instant? CodeSent { get; set; }
    public int CodeTries { get; set; }

    /// <summary>What a browser shows once the code was typed there, hashed.</summary>
    public string? PassHash { get; set; }

    public PersonNameAnswer? Name => GivenName.Length + FamilyName.Length == 0 ? null : new PersonNameAnswer(GivenName, FamilyName);
}

/// <summary>Somebody asked to be told when a form's light is on again. It goes when they have been told.</summary>
internal sealed class ReopenSubscription
{
    public required Id<ReopenSubscription> Id { get; init; }
    public required Id<Form> FormId { get; init; }
    public required string Email { get; init; }
    public required string EmailKey { get; init; }

    public required Instant At { get; init; }
}
