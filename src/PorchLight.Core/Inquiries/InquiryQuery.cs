using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Inquiries;

/// <summary>What a list of inquiries is in order of.</summary>
public enum InquiryOrder
{
    /// <summary>What they need, the most urgent first.</summary>
    Need,

    /// <summary>When they came, the newest first.</summary>
    Received,

    /// <summary>Their points, the most first.</summary>
    Score,

    /// <summary>The client's name.</summary>
    Name,

    /// <summary>The budget, the largest first; who named none comes last.</summary>
    Budget,
}

/// <summary>Which inquiries a list shows, and how. Every list that is empty stands for all.</summary>
public sealed record InquiryQuery : ListQuery
{
    /// <summary>What they need. What is set aside is only shown where it is asked for.</summary>
    public IReadOnlyList<InquiryNeed> Needs { get; init; } = [];

    /// <summary>How they are sorted.</summary>
    public IReadOnlyList<Fit> Fits { get; init; } = [];

    /// <summary>The forms they came by.</summary>
    public IReadOnlyList<Guid> Forms { get; init; } = [];

    /// <summary>The keys of the stages of their projects.</summary>
    public IReadOnlyList<string> Stages { get; init; } = [];

    /// <summary>The services they are about, by name.</summary>
    public IReadOnlyList<string> Services { get; init; } = [];

    /// <summary>How they found the business, by name.</summary>
    public IReadOnlyList<string> Sources { get; init; } = [];

    /// <summary>The users who look after their projects; null among them for nobody.</summary>
    public IReadOnlyList<Guid?> LookedAfterBy { get; init; } = [];

    /// <summary>Whether only those count of which a flag is up.</summary>
    public bool Flagged { get; init; }

    /// <summary>What they are in order of.</summary>
    public InquiryOrder Order { get; init; } = InquiryOrder.Need;

    private const int MostChosen = 100;

    /// <inheritdoc/>
    public override IReadOnlyList<Finding> Check() =>
        [
            .. base.Check(),
            .. new[] { Needs.Count, Fits.Count, Forms.Count, Stages.Count, Services.Count, Sources.Count, LookedAfterBy.Count }.Any(count =>
                count > MostChosen
            )
                ? [new Finding("filters", $"Please choose at most {MostChosen} of one sort at once.")]
                : Array.Empty<Finding>(),
        ];
}
