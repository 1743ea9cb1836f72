using System.Text.Json.Serialization;
using System.Text.RegularExpressions;

namespace PorchLight.Core.Messages;

/// <summary>A message before it is about anybody: words with known values in them, and gaps.</summary>
/// <param name="Subject">May hold known values.</param>
/// <param name="Parts">In reading order.</param>
public sealed record MessageTemplate(string Subject, IReadOnlyList<MessagePart> Parts);

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
    /// The draft with a person's edits. Its shape stays: words may be rewritten and gaps filled, but a gap cannot be
    /// edited away. Null when the edits are of another shape.
    /// </summary>
    public MessageDraft? Revise(MessageDraft edited)
    {
        var sameShape =
            edited.Parts.Count == Parts.Count
            && Parts.Zip(edited.Parts).All(pair => pair.First.Key == pair.Second.Key && pair.First.GetType() == pair.Second.GetType());
        return sameShape
            ? new MessageDraft(
                KnownValues.OneLine(edited.Subject),
                [
                    .. Parts.Zip(
                        edited.Parts,
                        (ours, theirs) => ours is GapPart gap ? gap with { Filled = ((GapPart)theirs).Filled } : theirs
                    ),
                ]
            )
            : null;
    }
}

/// <summary>Sets known values into words.</summary>
public static partial class KnownValues
{
    /// <summary>
    /// The words with every <c>{name}</c> or <c>{name|fallback}</c> replaced by the known value, or by the fallback while
    /// the value is not known, or by nothing: then the comma or space that led to it goes with it ("Thank you, {name}." is "Thank
    /// you."), and the one behind it stays ("Dear {name}," is "Dear,"). Braces around anything that is no such name stay as
    /// they are. Values are set in once: braces inside a value stay words.
    /// </summary>
    public static string Fill(string words, IReadOnlyDictionary<string, string> values) =>
        Place()
            .Replace(
                words,
                place =>
                {
                    var lead = place.Groups["lead"].Value;
                    if (values.TryGetValue(place.Groups["name"].Value, out var value) && value.Length > 0)
                        return lead + value;
                    if (place.Groups["fallback"].Value is { Length: > 0 } fallback)
                        return lead + fallback;
                    var next = place.Index + place.Length < words.Length ? words[place.Index + place.Length] : ' ';
                    return char.IsLetterOrDigit(next) || next == '{' ? lead : "";
                }
            );

    /// <summary>The words as they read before anything is known: with fallbacks, or with nothing.</summary>
    public static string BeforeAnswers(string words) => Fill(words, new Dictionary<string, string>());

    /// <summary>A draft of the template for one person.</summary>
    public static MessageDraft Draft(MessageTemplate template, IReadOnlyDictionary<string, string> values) =>
        new(
            OneLine(Fill(template.Subject, values)),
            [.. template.Parts.Select(part => part is TextPart text ? text with { Text = Fill(text.Text, values) } : part)]
        );

    /// <summary>The text in one line, so that it can stand in a mail header.</summary>
    public static string OneLine(string text) =>
        string.Join(' ', new string([.. text.Select(c => char.IsControl(c) ? ' ' : c)]).Split(' ', StringSplitOptions.RemoveEmptyEntries));

    [GeneratedRegex(@"(?<lead>,? ?)\{(?<name>answer:[a-z0-9-]+|[a-z][A-Za-z]*)(?:\|(?<fallback>[^{}]*))?\}", RegexOptions.CultureInvariant)]
    private static partial Regex Place();
}
