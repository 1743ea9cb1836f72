using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>What a list of files is in order of.</summary>
public enum FileOrder
{
    /// <summary>When they were uploaded, the newest first.</summary>
    Uploaded,

    /// <summary>Their names.</summary>
    Name,

    /// <summary>Their size, the largest first.</summary>
    Size,
}

/// <summary>Which of the business's own files a list shows, and in which order. It is searched in their names.</summary>
public sealed record FileQuery : ListQuery
{
    /// <summary>What they are.</summary>
    public IReadOnlyList<FileGroup> Groups { get; init; } = [];

    /// <summary>Whether only those are shown that nothing uses.</summary>
    public bool Unused { get; init; }

    /// <summary>What they are in order of.</summary>
    public FileOrder Order { get; init; } = FileOrder.Uploaded;
}
