using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;

namespace PorchLight.Server.FollowThrough;

/// <summary>A run with all that its steps may speak of.</summary>
/// <param name="Person">The client; null where they are none yet.</param>
/// <param name="Left">The form they left half-finished; null for everybody else, and once it is not kept any more.</param>
internal sealed record RunContext(
    Run Run,
    FollowThroughContent Content,
    Business Business,
    Client? Person,
    UnfinishedFormFacts? Left,
    Inquiry? Inquiry,
    RunFacts Facts
)
{
    /// <summary>What messages can say beside what is known of everybody, by name.</summary>
    public IReadOnlyDictionary<string, string> More { get; init; } = new Dictionary<string, string>();

    public RunPlanner Planner { get; } = new(Content, Business.Calendar, Business.Window, Facts);

    public EventContext About { get; } = new(Run.ClientId, Run.ProjectId, Run.InquiryId, Run.Id);

    /// <summary>What the person has permitted.</summary>
    public Permissions Permissions { get; } = Permissions.Of(Facts.OnFile);

    /// <summary>What messages may say of the person, by name.</summary>
    /// <param name="at">When it is said.</param>
    /// <param name="signature">What stands below it; empty for nothing.</param>
    public Dictionary<string, string> KnownValues(Instant at, string signature = "") =>
        ValuesOf(
                Business,
                Facts.OnFile.GetValueOrDefault(BuiltInFields.Name.Key) as PersonNameAnswer,
                Inquiry?.PromisedBy is { } deadline && deadline > at ? DeadlineWords.ToLead(deadline, at, Business.Calendar) : "",
                signature
            )
            .Concat(More)
            .Prepend(
                KeyValuePair.Create("meeting", Facts.Meeting is { } start ? MeetingTimeWords.Say(Business.Calendar.ToLocal(start)) : "")
            )
            .DistinctBy(value => value.Key)
            .ToDictionary();

    /// <summary>The same of somebody with a name.</summary>
    /// <param name="business">The business.</param>
    /// <param name="name">What they are called; null where nobody knows.</param>
    /// <param name="promise">By when they have an answer, in words; empty for no promise.</param>
    /// <param name="signature">What stands below it; empty for nothing.</param>
    public static Dictionary<string, string> ValuesOf(Business business, PersonNameAnswer? name, string promise, string signature) =>
        new()
        {
            ["firstName"] = name?.Given ?? "",
            ["name"] = name?.Full ?? "",
            ["business"] = business.Name,
            ["owner"] = business.OwnerName,
            ["promise"] = promise,
            ["meeting"] = "",
            [MessageTemplate.Signature] = signature,
        };
}
