using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using NodaTime.Text;

namespace PorchLight.Core.Forms;

/// <summary>The limits that belong to a kind of question.</summary>
public static partial class AnswerLimits
{
    private const int MaxNamePart = 100;
    private const int MaxAddressPart = 200;
    private const int MaxWebAddress = 2000;
    private const int MaxOwnWords = 500;
    private const int MaxStrokes = 60_000;

    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("d MMMM uuuu");

    /// <summary>What is wrong with one tidied answer, as a sentence that says what to do, or null. Rows are checked cell by cell elsewhere.</summary>
    /// <param name="question">The question.</param>
    /// <param name="answer">The answer, or null when it was left blank.</param>
    /// <param name="today">The day of asking in the business's zone.</param>
    /// <param name="required">Whether it must be answered now.</param>
    public static string? Check(Question question, Answer? answer, LocalDate today, bool required) =>
        (question.Kind, answer) switch
        {
            (WorkedOutKind or HiddenKind, _) => null,
            (_, null) => required ? MissingSentence(question.Kind) : null,
            (ShortTextKind kind, TextAnswer a) => WrongLength(a.Text, kind.MinLength, kind.MaxLength) ?? MoreThanALine(a.Text),
            (LongTextKind kind, TextAnswer a) => WrongLength(a.Text, kind.MinLength, kind.MaxLength),
            (EmailKind, TextAnswer a) => CheckEmail(a.Text),
            (WebAddressKind, TextAnswer a) => CheckWebAddress(a.Text),
            (PhoneKind, PhoneAnswer a) => TooLong(a.Typed, PhoneReader.Longest)
                ?? (
                    a.E164 is not null || a.LocalOnly
                        ? null
                        : "This does not look like a phone number. Please check the digits; a number from another country starts with + and its code."
                ),
            (NumberKind kind, NumberAnswer a) => kind.Whole && a.Value != decimal.Truncate(a.Value)
                ? "Please give a whole number."
                : OutOfRange(a.Value, kind.Min, kind.Max),
            (ScaleKind kind, NumberAnswer a) => a.Value < kind.Low || a.Value > kind.High || a.Value != decimal.Truncate(a.Value)
                ? "This step is not on the scale. Please choose again."
                : null,
            (MoneyKind kind, MoneyAnswer a) => a.Currency == kind.Currency
                ? OutOfRange(a.Amount, kind.Min, kind.Max)
                : $"Please give the amount in {kind.Currency}.",
            (DateKind kind, DateAnswer a) => OutsideDays(kind.Limits, today, a.Date, a.Date),
            (DateRangeKind kind, DateRangeAnswer a) => a.To < a.From ? "The last day lies before the first one. Please change one of them."
            : a.Roughly && !kind.OrMonth ? "Please choose two days."
            : OutsideDays(kind.Limits, today, a.Roughly ? a.To : a.From, a.Roughly ? a.From : a.To),
            (YesNoKind, YesNoAnswer) => null,
            (ChoiceKind kind, ChoiceAnswer a) => CheckChoice(question, kind, a),
            (LookUpKind, LookUpAnswer a) => a.Columns is null
                ? "This is not on the list any more. Please type a few letters and choose again."
                : null,
            (PersonNameKind, PersonNameAnswer a) => TooLong(a.Given, MaxNamePart)
                ?? TooLong(a.Family, MaxNamePart)
                ?? (a.Given.Length == 0 ? "Please tell us your first name, so that we know what to call you." : null)
                ?? (a.Full.Any(char.IsControl) ? "Please write your name in one line." : null),
            (AddressKind, AddressAnswer a) => a
                .Parts.Select(part => TooLong(part, MaxAddressPart))
                .FirstOrDefault(found => found is not null),
            (FilesKind kind, FilesAnswer a) => CheckFiles(kind, a),
            (RowsKind kind, RowsAnswer a) => CheckCount(kind, a.Rows.Count),
            (ConsentKind or AdvertisingKind, ConsentAnswer) => null,
            (SignatureKind kind, SignatureAnswer a) => CheckSignature(kind, a),
            _ => "This answer is not of the kind the question asks for. Please answer it again.",
        };

    /// <summary>What is wrong with an e-mail address by the HTML Living Standard's pattern, or null.</summary>
    public static string? CheckEmail(string address) =>
        TooLong(address, 254)
        ?? (
            EmailPattern().IsMatch(address)
                ? null
                : "This does not look like an e-mail address. It needs a part before and after the @, like name@example.com."
        );

    private static string MissingSentence(QuestionKind kind) =>
        kind switch
        {
            EmailKind => "Please give your e-mail address, so that we can answer you.",
            PhoneKind => "Please give a phone number.",
            PersonNameKind => "Please tell us your name.",
            ChoiceKind { Several: true } => "Please choose at least one.",
            ChoiceKind or YesNoKind or ScaleKind => "Please choose one.",
            DateKind => "Please choose a day.",
            DateRangeKind { OrMonth: true } => "Please choose the days, or a month.",
            DateRangeKind => "Please choose the first and the last day.",
            LookUpKind => "Please type a few letters and choose from the list.",
            FilesKind => "Please add a file.",
            RowsKind rows => $"Please add at least one {rows.OneIsCalled}.",
            ConsentKind => "We need your agreement to this before we can go on.",
            SignatureKind => "Please sign here.",
            _ => "Please answer this.",
        };

    private static string? WrongLength(string text, int min, int max) =>
        TooLong(text, max)
        ?? (
            text.Length >= min
                ? null
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"Please say a little more: at least {min:N0} characters, and this is {text.Length:N0}."
                )
        );

    private static string? TooLong(string text, int max) =>
        text.Length <= max
            ? null
            : string.Create(
                CultureInfo.InvariantCulture,
                $"This is {text.Length:N0} characters long; {max:N0} fit here. Please shorten it, or send the rest when we answer."
            );

    private static string? MoreThanALine(string text) => text.AsSpan().ContainsAny('\r', '\n') ? "Please write this in one line." : null;

    private static string? OutOfRange(decimal value, decimal? min, decimal? max) =>
        value < min ? string.Create(CultureInfo.InvariantCulture, $"The smallest number that makes sense here is {min:#,0.##}.")
        : value > max ? string.Create(CultureInfo.InvariantCulture, $"The largest number that makes sense here is {max:#,0.##}.")
        : null;

    private static string? OutsideDays(DateLimits? limits, LocalDate today, LocalDate from, LocalDate to)
    {
        if (limits is null)
            return null;
        var (first, last) = limits.On(today);
        return from < first ? $"The first day that is possible here is {Day.Format(first.Value)}."
            : to > last ? $"The last day that is possible here is {Day.Format(last.Value)}."
            : null;
    }

    private static string? CheckWebAddress(string address) =>
        TooLong(address, MaxWebAddress)
        ?? (
            Uri.TryCreate(address, UriKind.Absolute, out var page)
            && page.Scheme is "http" or "https"
            && page.Host.Contains('.', StringComparison.Ordinal)
                ? null
                : "This does not look like the address of a page on the web. It looks like www.example.com."
        );

    private static string? CheckChoice(Question question, ChoiceKind kind, ChoiceAnswer answer)
    {
        var options = answer.Keys.Select(question.FindOption).ToList();
        if (options.Contains(null) || answer.Keys.Distinct().Count() != answer.Keys.Count)
            return "One of these answers is not on offer. Please choose again.";
        if (!kind.Several && options.Count > 1)
            return "Please choose only one.";
        if (options.Count > 1 && options.FirstOrDefault(option => option!.NoneOfThese) is { } none)
            return $"“{none.Label}” does not go together with another answer. Please take one or the other back.";
        if (kind.Several && options.Count < kind.AtLeast && !options.Any(option => option!.NoneOfThese || option.Unsure))
            return $"Please choose at least {kind.AtLeast}.";
        if (kind.Several && options.Count > kind.AtMost)
            return $"Please choose at most {kind.AtMost}.";
        if (answer.OwnWords is null)
            return options.FirstOrDefault(option => option!.OwnWords) is { } own ? $"Please say what you mean by “{own.Label}”." : null;
        return TooLong(answer.OwnWords, MaxOwnWords) ?? MoreThanALine(answer.OwnWords);
    }

    private static string? CheckFiles(FilesKind kind, FilesAnswer answer)
    {
        if (answer.Files.Count > kind.AtMost)
            return kind.AtMost == 1
                ? "Only one file fits here. Please take the others away."
                : $"At most {kind.AtMost} files fit here. Please take some away.";
        foreach (var file in answer.Files)
        {
            if (CheckFile(kind, file) is { } wrong)
                return wrong;
        }

        return null;
    }

    /// <summary>Why a file cannot be taken for a question, as a sentence, or null.</summary>
    /// <param name="kind">The question's limits.</param>
    /// <param name="file">The file, with its size and what its content shows it to be.</param>
    public static string? CheckFile(FilesKind kind, FileRef file) =>
        file.Bytes > kind.MaxBytes ? $"“{file.Name}” is larger than {SayBytes(kind.MaxBytes)}. Please send a smaller copy."
        : kind.Groups is { Count: > 0 } groups && !groups.Contains(file.Group)
            ? $"“{file.Name}” is not a file of the kind we can use here. These are: {string.Join(", ", FileTypes.Endings(groups))}."
        : null;

    /// <summary>A size in words: "25 MB".</summary>
    /// <param name="bytes">At least 0.</param>
    public static string SayBytes(long bytes) =>
        bytes switch
        {
            < 1024 => string.Create(CultureInfo.InvariantCulture, $"{bytes} bytes"),
            < 1024 * 1024 => string.Create(CultureInfo.InvariantCulture, $"{bytes / 1024.0:0} KB"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{bytes / (1024.0 * 1024.0):0.#} MB"),
        };

    private static string? CheckCount(RowsKind kind, int count) =>
        count < kind.Least ? $"Please add at least {kind.Least}; there {(count == 1 ? "is" : "are")} {count} so far."
        : count > kind.Most
            ? $"At most {kind.Most} fit here; there are {count}. Please take some away, or tell us about the rest when we answer."
        : null;

    private static string? CheckSignature(SignatureKind kind, SignatureAnswer answer) =>
        answer.Name.Length == 0
            ? "Please write your name, too; a drawn line alone does not say who signed."
            : TooLong(answer.Name, MaxNamePart * 2)
                ?? MoreThanALine(answer.Name)
                ?? (
                    answer.Strokes is { } strokes && (strokes.Length > MaxStrokes || !Strokes().IsMatch(strokes))
                        ? "The drawn signature cannot be read. Please draw it again."
                        : null
                )
                ?? (
                    answer.OnBehalfOf switch
                    {
                        null => null,
                        _ when !kind.ForOthers => "Please sign for yourself.",
                        "" => "Please write whom you sign for, or choose that you sign for yourself.",
                        var other => TooLong(other, MaxNamePart * 2),
                    }
                );

    [GeneratedRegex(@"^(?:[ML]\d{1,3} \d{1,3})+\z", RegexOptions.CultureInvariant)]
    private static partial Regex Strokes();

    // WHATWG HTML Living Standard, 4.10.5.1.5 "E-mail state": the pattern of a valid e-mail address.
    [GeneratedRegex(
        @"^[a-zA-Z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?(?:\.[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)*\z",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex EmailPattern();
}
