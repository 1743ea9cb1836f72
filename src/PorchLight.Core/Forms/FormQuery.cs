using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>What a list of forms is in order of.</summary>
public enum FormOrder
{
    /// <summary>When they were made, the oldest first.</summary>
    Made,

    /// <summary>Their titles.</summary>
    Title,

    /// <summary>How many answered, the most first.</summary>
    Answers,

    /// <summary>When somebody answered last, the latest first; those that nobody answered come last.</summary>
    LastAnswer,

    /// <summary>The services they ask about.</summary>
    Service,
}

/// <summary>Which forms a list shows, and in which order. It is searched in titles and services.</summary>
public sealed record FormQuery : ListQuery
{
    /// <summary>Whether those are shown that were put away, and not the others.</summary>
    public bool Archived { get; init; }

    /// <summary>The services they ask about, by name.</summary>
    public IReadOnlyList<string> Services { get; init; } = [];

    /// <summary>What they are in order of.</summary>
    public FormOrder Order { get; init; } = FormOrder.Made;
}
