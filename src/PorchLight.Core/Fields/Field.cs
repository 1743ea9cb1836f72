using System.Text.Json.Serialization;

namespace PorchLight.Core.Fields;

/// <summary>Whether a field is about the person or about one piece of work.</summary>
public enum RecordScope
{
    /// <summary>About the person; it follows them to every project.</summary>
    Client,

    /// <summary>About one piece of work.</summary>
    Project,
}

/// <summary>A column of a field that keeps rows.</summary>
/// <param name="Key">Names it within the field for ever.</param>
/// <param name="Label">What a person reads.</param>
/// <param name="Kind">What its cells keep; never rows or files.</param>
public sealed record FieldColumn(string Key, string Label, FieldKind Kind)
{
    /// <summary>The words to choose from where its cells keep one of some words; empty where any may stand there.</summary>
    public IReadOnlyList<string> Options { get; init; } = [];
}

/// <summary>A field of a client or a project.</summary>
/// <param name="Key">Names it for ever: "client.email". It begins with whose field it is.</param>
/// <param name="Label">What a person reads; it may change.</param>
/// <param name="Kind">What it keeps.</param>
public sealed record Field(string Key, string Label, FieldKind Kind)
{
    /// <summary>A line for whoever fills it in, or empty.</summary>
    public string Help { get; init; } = "";

    /// <summary>Whether the client keeps it up to date: what they say by a personal link of theirs replaces what stands there.</summary>
    public bool ClientKeepsIt { get; init; }

    /// <summary>Whether it is shown at a glance.</summary>
    public bool AtAGlance { get; init; }

    /// <summary>Whether it is put away: it is not offered any more, what it holds stays, and what lands in it still lands.</summary>
    public bool Archived { get; init; }

    /// <summary>The words to choose from; empty but for <see cref="FieldKind.OneOf"/> and <see cref="FieldKind.SeveralOf"/>.</summary>
    public IReadOnlyList<string> Options { get; init; } = [];

    /// <summary>The columns, at least one for <see cref="FieldKind.Rows"/>; empty for the others.</summary>
    public IReadOnlyList<FieldColumn> Columns { get; init; } = [];

    /// <summary>Whose field it is.</summary>
    [JsonIgnore]
    public RecordScope Scope => ScopeOf(Key);

    /// <summary>Whether every business has it. It can be renamed, but keeps its kind.</summary>
    [JsonIgnore]
    public bool IsBuiltIn => BuiltInFields.Find(Key) is not null;

    /// <summary>A field with whose it is: "Client: Name".</summary>
    public string Say() => $"{Scope}: {Label}";

    /// <summary>Whose field a key names.</summary>
    /// <param name="key">A field's key; one that is no field's counts as the client's.</param>
    public static RecordScope ScopeOf(string key) =>
        key.StartsWith("project.", StringComparison.Ordinal) ? RecordScope.Project : RecordScope.Client;
}
