using PorchLight.Core.Common;

namespace PorchLight.Core.Messages;

/// <summary>What a list of messages of the library is in order of.</summary>
public enum LibraryMessageOrder
{
    /// <summary>Their folders, and within one their names.</summary>
    Folder,

    /// <summary>Their names.</summary>
    Name,

    /// <summary>When they were changed, the latest first.</summary>
    Changed,
}

/// <summary>Which messages of the library a list shows, and in which order. It is searched in names, folders, subjects and texts.</summary>
public sealed record LibraryMessageQuery : ListQuery
{
    /// <summary>The folders they lie in, by name; the empty name for those that lie in none.</summary>
    public IReadOnlyList<string> Folders { get; init; } = [];

    /// <summary>Whether only those are shown that no follow-through uses.</summary>
    public bool Unused { get; init; }

    /// <summary>What they are in order of.</summary>
    public LibraryMessageOrder Order { get; init; } = LibraryMessageOrder.Folder;
}
