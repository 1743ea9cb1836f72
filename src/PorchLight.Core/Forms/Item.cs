using System.Text.Json.Serialization;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>How much of the line an item takes where there is room; on a narrow screen every item takes all of it.</summary>
public enum ItemWidth
{
    /// <summary>The whole line.</summary>
    Full,

    /// <summary>Half of it.</summary>
    Half,

    /// <summary>A third of it.</summary>
    Third,
}

/// <summary>What stands on a page: a question, or content that asks nothing.</summary>
/// <param name="Key">Names it within the form for ever, also across versions; small letters, digits and hyphens.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "item")]
[JsonDerivedType(typeof(Question), "question")]
[JsonDerivedType(typeof(Heading), "heading")]
[JsonDerivedType(typeof(Passage), "passage")]
[JsonDerivedType(typeof(Picture), "picture")]
[JsonDerivedType(typeof(Video), "video")]
[JsonDerivedType(typeof(Divider), "divider")]
[JsonDerivedType(typeof(Download), "download")]
public abstract record Item(string Key)
{
    /// <summary>How much of the line it takes.</summary>
    public ItemWidth Width { get; init; }

    /// <summary>It stands there only when this is true (not when it is unknown); null means always.</summary>
    [JsonIgnore]
    public abstract Condition? OnlyWhen { get; }
}

/// <summary>Something on a page that asks nothing.</summary>
/// <param name="Key">Names it within the form.</param>
public abstract record Content(string Key) : Item(Key)
{
    /// <summary>It is shown only when this is true; null means always.</summary>
    public Condition? ShownOnlyWhen { get; init; }

    /// <inheritdoc/>
    [JsonIgnore]
    public override Condition? OnlyWhen => ShownOnlyWhen;
}

/// <summary>A heading within a page.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="Text">One line; may hold earlier answers and known values.</param>
public sealed record Heading(string Key, string Text) : Content(Key);

/// <summary>A few lines of plain text.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="Text">Paragraphs parted by an empty line; may hold earlier answers and known values.</param>
public sealed record Passage(string Key, string Text) : Content(Key);

/// <summary>A picture of the business's own.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="File">The identifier of the stored file.</param>
/// <param name="Alt">What it shows, for people who cannot see it; empty when it is only decoration.</param>
public sealed record Picture(string Key, Guid File, string Alt) : Content(Key);

/// <summary>A video file of the business's own; nothing is fetched from other sites.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="File">The identifier of the stored file.</param>
/// <param name="Title">What it shows.</param>
public sealed record Video(string Key, Guid File, string Title) : Content(Key);

/// <summary>A line across the page.</summary>
/// <param name="Key">Names it within the form.</param>
public sealed record Divider(string Key) : Content(Key);

/// <summary>A file to take away.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="File">The identifier of the stored file.</param>
/// <param name="Label">What the link says.</param>
public sealed record Download(string Key, Guid File, string Label) : Content(Key);
