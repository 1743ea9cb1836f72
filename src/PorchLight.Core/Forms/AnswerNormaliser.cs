using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>What the program knows that no browser is asked for, when answers are brought into their stored shape.</summary>
/// <param name="Region">The business's ISO 3166 region ("IE"), for phone numbers without a country code.</param>
/// <param name="Version">The version of the form that is answered.</param>
/// <param name="At">The instant of asking.</param>
/// <param name="Today">Its day in the business's zone.</param>
public sealed record NormaliseContext(string Region, int Version, Instant At, LocalDate Today)
{
    /// <summary>The files uploaded with this filling-in, by identifier. Others are not taken.</summary>
    public IReadOnlyDictionary<Guid, FileRef> Files { get; init; } = new Dictionary<Guid, FileRef>();

    /// <summary>The shown columns of the lines that were looked up, by list and line. Others are not taken.</summary>
    public IReadOnlyDictionary<(Guid List, string Key), IReadOnlyList<string>> Lines { get; init; } =
        new Dictionary<(Guid, string), IReadOnlyList<string>>();
}

/// <summary>Brings answers into their stored shape.</summary>
public static class AnswerNormaliser
{
    /// <summary>
    /// Every answer in its stored shape: text trimmed and without control characters, phone numbers with their E.164 form,
    /// rows cell by cell, files and looked-up lines as the program has them, what was agreed to word for word; what
    /// is empty as null. Answers to questions the form does not have are left out.
    /// </summary>
    /// <param name="form">The version that is answered.</param>
    /// <param name="given">Answers by question key.</param>
    /// <param name="context">What the program itself knows.</param>
    public static Dictionary<string, Answer?> Normalise(
        FormContent form,
        IReadOnlyDictionary<string, Answer?> given,
        NormaliseContext context
    ) =>
        form.Questions.ToDictionary(
            question => question.Key,
            question => Normalise(question, given.GetValueOrDefault(question.Key), context)
        );

    private static Answer? Normalise(Question question, Answer? answer, NormaliseContext context) =>
        (question.Kind, answer) switch
        {
            (WorkedOutKind, _) => null,
            (HiddenKind, TextAnswer a) => Clean(a.Text) is { Length: > 0 } text ? new TextAnswer(Cut(text, HiddenLongest)) : null,
            (WebAddressKind, TextAnswer a) => Clean(a.Text) is { Length: > 0 } text ? new TextAnswer(WithScheme(text)) : null,
            (_, TextAnswer a) => Clean(a.Text) is { Length: > 0 } text ? new TextAnswer(text) : null,
            (_, PhoneAnswer a) => Clean(a.Typed) is { Length: > 0 } typed ? PhoneReader.Read(typed, context.Region) : null,
            (_, PersonNameAnswer a) => (Clean(a.Given), Clean(a.Family)) is var (given, family) && given.Length + family.Length > 0
                ? new PersonNameAnswer(given, family)
                : null,
            (_, ChoiceAnswer a) => a.Keys.Count == 0
                ? null
                : new ChoiceAnswer(a.Keys, a.Keys.Any(key => question.FindOption(key) is { OwnWords: true }) ? Part(a.OwnWords) : null),
            (_, AddressAnswer a) => new AddressAnswer(
                Part(a.Street),
                Part(a.Unit),
                Part(a.City),
                Part(a.Region),
                Part(a.PostalCode),
                Part(a.Country)
            )
                is var tidy
            && tidy.Parts.Any()
                ? tidy
                : null,
            (LookUpKind kind, LookUpAnswer a) => new LookUpAnswer(a.Key, context.Lines.GetValueOrDefault((kind.List, a.Key))),
            (_, FilesAnswer a) => a
                .Files.DistinctBy(file => file.Id)
                .Select(file => context.Files.GetValueOrDefault(file.Id))
                .OfType<FileRef>()
                .ToArray()
                is { Length: > 0 } files
                ? new FilesAnswer(files)
                : null,
            // Empty rows stay, so that a row keeps its place; rows that are all empty are a blank on the route.
            (RowsKind kind, RowsAnswer a) => a.Rows.Count == 0
                ? null
                : new RowsAnswer([.. a.Rows.Select(row => Normalise(kind, row, context))]),
            (ConsentKind kind, ConsentAnswer) => new ConsentAnswer(kind.Statement, context.Version, context.At),
            (AdvertisingKind kind, ConsentAnswer) => new ConsentAnswer(kind.Statement, context.Version, context.At),
            // To sign for somebody who is not named is not to sign for oneself: the blank stays, and is asked about.
            (_, SignatureAnswer a) => Clean(a.Name) is var name && name.Length == 0 && a.Strokes is null && Part(a.OnBehalfOf) is null
                ? null
                : new SignatureAnswer(
                    name,
                    a.Strokes is { Length: > 0 } ? a.Strokes : null,
                    a.OnBehalfOf is null ? null : Clean(a.OnBehalfOf),
                    context.Today
                ),
            _ => answer,
        };

    private static AnswerRow Normalise(RowsKind kind, AnswerRow row, NormaliseContext context) =>
        new(
            kind.Questions.Select(question => (question.Key, Answer: Normalise(question, row[question.Key], context)))
                .Where(cell => cell.Answer is not null)
                .ToDictionary(cell => cell.Key, cell => cell.Answer)
        );

    private const int HiddenLongest = 500;

    private static string Cut(string text, int longest) => text.Length <= longest ? text : text[..longest];

    private static string WithScheme(string text) => text.Contains("://", StringComparison.Ordinal) ? text : $"https://{text}";

    private static string? Part(string? part) => part is not null && Clean(part) is { Length: > 0 } text ? text : null;

    // Characters nobody can type or see (but line ends and tabs) are no part of what was said.
    private static string Clean(string text) =>
        UnicodeText.Valid(text.Any(IsUnseen) ? string.Concat(text.Where(c => !IsUnseen(c))) : text).Trim();

    private static bool IsUnseen(char c) => char.IsControl(c) && c is not ('\r' or '\n' or '\t');
}
