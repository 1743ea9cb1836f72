using System.Text.Json.Serialization;
using PorchLight.Core.Common;

namespace PorchLight.Core.Messages;

/// <summary>A message before it is about anybody: words with known values in them, and gaps.</summary>
/// <param name="Subject">May hold known values.</param>
/// <param name="Parts">In reading order.</param>
public sealed record MessageTemplate(string Subject, IReadOnlyList<MessagePart> Parts)
{
    /// <summary>What goes with it.</summary>
    public Enclosed Enclosed { get; init; } = Enclosed.Nothing;

    /// <summary>The message of the library whose words these were; null where nobody took them from one.</summary>
    public Guid? TakenFrom { get; init; }

    /// <summary>Whether a signature stands in it.</summary>
    [JsonIgnore]
    public bool IsSigned => Parts.OfType<TextPart>().Any(text => text.Text.Contains($"{{{Signature}", StringComparison.Ordinal));

    /// <summary>The files it needs: those that go with it, and the pictures in its words.</summary>
    [JsonIgnore]
    public IEnumerable<Guid> FilesNeeded =>
        Enclosed.Files.Concat(Parts.OfType<TextPart>().SelectMany(part => FormattedText.Read(part.Text).Pictures)).Distinct();

    /// <summary>Whether it says the same, in the same order, with the same things beside it.</summary>
    /// <param name="other">Another message.</param>
    public bool SaysTheSameAs(MessageTemplate other) =>
        Subject == other.Subject
        && Parts.Select(Words).SequenceEqual(other.Parts.Select(Words))
        && Enclosed.Cc.SequenceEqual(other.Enclosed.Cc)
        && Enclosed.Files.SequenceEqual(other.Enclosed.Files)
        && Enclosed.Sender == other.Enclosed.Sender;

    private static (bool IsGap, string Words) Words(MessagePart part) =>
        part is GapPart gap ? (true, gap.Prompt) : (false, ((TextPart)part).Text);

    /// <summary>A draft for one person: known values set in, the subject in one line, the gaps open.</summary>
    /// <param name="values">
    /// Known values by name; one that is missing leaves its fallback or nothing (<see cref="KnownValues.Fill"/>).
    /// </param>
    public MessageDraft Draft(IReadOnlyDictionary<string, string> values) =>
        new(
            KnownValues.OneLine(KnownValues.Fill(Subject, values)),
            [.. Parts.Select(part => part is TextPart text ? text with { Text = KnownValues.Fill(text.Text, Escaped(values)) } : part)]
        )
        {
            Enclosed = Enclosed,
        };

    /// <summary>What others wrote about themselves formats no message of the business.</summary>
    private static Dictionary<string, string> Escaped(IReadOnlyDictionary<string, string> values) =>
        values.ToDictionary(value => value.Key, value => value.Key == Signature ? value.Value : FormattedText.Escape(value.Value));

    /// <summary>The known value that the business wrote itself as a formatted text.</summary>
    public const string Signature = "signature";
}

/// <summary>What goes with a message, and in whose name it comes.</summary>
/// <param name="Cc">Addresses that get a copy.</param>
/// <param name="Files">The identifiers of files of the business, in order.</param>
/// <param name="Sender">The user in whose name it comes; null for the business's.</param>
public sealed record Enclosed(IReadOnlyList<string> Cc, IReadOnlyList<Guid> Files, Guid? Sender)
{
    /// <summary>No message has more copies.</summary>
    public const int MostCopies = 10;

    /// <summary>No message has more files.</summary>
    public const int MostFiles = 10;

    /// <summary>Nothing but the message, in the name of the business.</summary>
    public static Enclosed Nothing { get; } = new([], [], null);

    /// <summary>Whether nothing goes with it.</summary>
    [JsonIgnore]
    public bool IsNothing => Cc.Count == 0 && Files.Count == 0 && Sender is null;

    /// <summary>What has to be put right before it can be sent; null for nothing.</summary>
    public string? Check() =>
        Cc.FirstOrDefault(copy => EmailAddress.Check(copy) is not null) is { } wrong ? $"“{wrong}” is not an e-mail address for a copy."
        : Cc.Count > MostCopies ? $"A message has at most {MostCopies} copies."
        : Files.Count > MostFiles ? $"A message carries at most {MostFiles} files."
        : null;
}

/// <summary>A part of a message.</summary>
/// <param name="Key">Names it within the message, also across versions; none twice.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(TextPart), "text")]
[JsonDerivedType(typeof(GapPart), "gap")]
public abstract record MessagePart(string Key);

/// <summary>Words; in a template they may hold known values.</summary>
/// <param name="Key">Names it within the message.</param>
/// <param name="Text">Paragraphs parted by empty lines.</param>
public sealed record TextPart(string Key, string Text) : MessagePart(Key);

/// <summary>A place that a person must fill before the message can be sent. It stands as a paragraph of its own.</summary>
/// <param name="Key">Names it within the message.</param>
/// <param name="Prompt">What belongs there: "one line about their place".</param>
/// <param name="Filled">What the person wrote; null or blank while it is open.</param>
public sealed record GapPart(string Key, string Prompt, string? Filled = null) : MessagePart(Key)
{
    /// <summary>Whether it still has to be filled.</summary>
    [JsonIgnore]
    public bool IsOpen => string.IsNullOrWhiteSpace(Filled);
}

/// <summary>A message to one person, as it would go out, with its gaps.</summary>
/// <param name="Subject">One line.</param>
/// <param name="Parts">In reading order; no known values are left in them.</param>
public sealed record MessageDraft(string Subject, IReadOnlyList<MessagePart> Parts)
{
    /// <summary>What goes with it.</summary>
    public Enclosed Enclosed { get; init; } = Enclosed.Nothing;

    /// <summary>A message that a person writes from nothing.</summary>
    /// <param name="subject">Its subject; may still be empty.</param>
    public static MessageDraft Blank(string subject) => new(subject, [new TextPart("text", "")]);

    /// <summary>The gaps that still have to be filled.</summary>
    [JsonIgnore]
    public IEnumerable<GapPart> OpenGaps => Parts.OfType<GapPart>().Where(gap => gap.IsOpen);

    /// <summary>The whole text, or null while a gap is open: such a message cannot be sent.</summary>
    [JsonIgnore]
    public string? FinishedText =>
        OpenGaps.Any()
            ? null
            : string.Join(
                "\n\n",
                Parts
                    .Select(part => part is GapPart gap ? gap.Filled!.Trim() : ((TextPart)part).Text.Trim())
                    .Where(paragraph => paragraph.Length > 0)
            );

    /// <summary>
    /// The draft with a person's edits: words may be rewritten, joined and parted, gaps filled, but none of them edited away, added
    /// or moved past another. Null when the gaps are not the same, or two parts have the same key.
    /// </summary>
    /// <param name="edited">The draft as it came back. What a gap asks for and what goes with the message stay as they are here.</param>
    public MessageDraft? Revise(MessageDraft edited)
    {
        var ours = Parts.OfType<GapPart>().ToList();
        var keys = edited.Parts.Select(part => part.Key).ToList();
        if (
            !ours.Select(gap => gap.Key).SequenceEqual(edited.Parts.OfType<GapPart>().Select(gap => gap.Key))
            || keys.Distinct().Count() < keys.Count
        )
            return null;
        return new MessageDraft(
            KnownValues.OneLine(edited.Subject),
            [
                .. edited.Parts.Select(part =>
                    part is GapPart filled ? ours.Single(gap => gap.Key == filled.Key) with { Filled = filled.Filled } : part
                ),
            ]
        )
        {
            Enclosed = Enclosed,
        };
    }
}
