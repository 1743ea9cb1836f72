using System.Globalization;
using System.Text.RegularExpressions;
using PhoneNumbers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>Checks answers against their questions and brings them into their stored shape.</summary>
public static partial class AnswerChecks
{
    private const int MaxNamePart = 100;
    private const int MaxAddressPart = 200;

    /// <summary>
    /// Every answer in its stored shape: text trimmed and without control characters, phone numbers with their E.164 form, what is empty as null.
    /// Answers to questions the form does not have are left out.
    /// </summary>
    /// <param name="form">The version that is answered.</param>
    /// <param name="given">Answers by question key.</param>
    /// <param name="region">The business's ISO 3166 region ("IE"), for phone numbers without a country code.</param>
    public static Dictionary<string, Answer?> Tidy(
        FormContent form, IReadOnlyDictionary<string, Answer?> given, string region) =>
        form.Questions.ToDictionary(question => question.Key, question => Tidy(given.GetValueOrDefault(question.Key), region));

    /// <summary>
    /// What has to be put right before the answers can be sent, in form order, at most one finding a question; the
    /// place is the question's key. Questions that are not shown are never checked.
    /// </summary>
    /// <param name="form">The version that is answered.</param>
    /// <param name="route">The route the tidied answers take.</param>
    /// <param name="onlyPage">Check this page alone, or null for the whole route.</param>
    public static IReadOnlyList<Finding> Check(FormContent form, Route route, string? onlyPage = null)
    {
        var pages = onlyPage is null ? form.Pages : form.Pages.Where(page => page.Key == onlyPage);
        var onPages = pages.SelectMany(page => page.Questions).Select(question => question.Key).ToHashSet();
        return [.. route.Asked(form)
            .Where(onPages.Contains)
            .Select(key => (Key: key, Sentence: Check(form.FindQuestion(key)!, route.Answers[key].Answer)))
            .Where(found => found.Sentence is not null)
            .Select(found => new Finding(found.Key, found.Sentence!))];
    }

    /// <summary>The sentence over findings: how many answers need another look.</summary>
    public static string Summary(IReadOnlyList<Finding> findings) => findings.Count == 1
        ? "One answer needs another look before this can go on."
        : $"{findings.Count} answers need another look before this can go on.";

    /// <summary>What is wrong with one tidied answer, as a sentence that says what to do, or null.</summary>
    /// <param name="question">The question.</param>
    /// <param name="answer">The answer, or null when it was left blank.</param>
    public static string? Check(Question question, Answer? answer) => (question.Kind, answer) switch
    {
        (_, null) => question.Required ? MissingSentence(question.Kind) : null,
        (ShortTextKind kind, TextAnswer a) => TooLong(a.Text, kind.MaxLength)
            ?? (a.Text.AsSpan().ContainsAny('\r', '\n') ? "Please write this in one line." : null),
        (LongTextKind kind, TextAnswer a) => TooLong(a.Text, kind.MaxLength),
        (EmailKind, TextAnswer a) => CheckEmail(a.Text),
        (PhoneKind, PhoneAnswer a) => TooLong(a.Typed, 50) ?? (a.E164 is not null
            ? null
            : "This does not look like a phone number. Please check the digits; a number from another country starts with + and its code."),
        (NumberKind kind, NumberAnswer a) => OutOfRange(a.Value, kind.Min, kind.Max),
        (MoneyKind kind, MoneyAnswer a) => a.Currency == kind.Currency
            ? OutOfRange(a.Amount, kind.Min, kind.Max)
            : $"Please give the amount in {kind.Currency}.",
        (DateKind, DateAnswer) or (YesNoKind, YesNoAnswer) => null,
        (ChoiceKind kind, ChoiceAnswer a) => CheckChoice(question, kind, a),
        (PersonNameKind, PersonNameAnswer a) => TooLong(a.Given, MaxNamePart) ?? TooLong(a.Family, MaxNamePart)
            ?? (a.Given.Length == 0 ? "Please tell us your first name, so that we know what to call you." : null)
            ?? (a.Full.Any(char.IsControl) ? "Please write your name in one line." : null),
        (AddressKind, AddressAnswer a) => a.Parts.Select(part => TooLong(part, MaxAddressPart)).FirstOrDefault(found => found is not null),
        _ => "This answer is not of the kind the question asks for. Please answer it again.",
    };

    private static Answer? Tidy(Answer? answer, string region) => answer switch
    {
        TextAnswer a => Clean(a.Text) is { Length: > 0 } text ? new TextAnswer(text) : null,
        PhoneAnswer a => Clean(a.Typed) is { Length: > 0 } typed ? new PhoneAnswer(typed, ToE164(typed, region)) : null,
        PersonNameAnswer a => (Clean(a.Given), Clean(a.Family)) is var (given, family) && given.Length + family.Length > 0
            ? new PersonNameAnswer(given, family)
            : null,
        ChoiceAnswer a => a.Keys.Count > 0 ? a : null,
        AddressAnswer a => new AddressAnswer(Part(a.Street), Part(a.Unit), Part(a.City), Part(a.Region), Part(a.PostalCode), Part(a.Country)) is var tidy
            && tidy.Parts.Any() ? tidy : null,
        _ => answer,
    };

    private static string? Part(string? part) => part is not null && Clean(part) is { Length: > 0 } text ? text : null;

    // Characters nobody can type or see (but line ends and tabs) are no part of what was said.
    private static string Clean(string text) => (text.Any(IsUnseen) ? string.Concat(text.Where(c => !IsUnseen(c))) : text).Trim();

    private static bool IsUnseen(char c) => char.IsControl(c) && c is not ('\r' or '\n' or '\t');

    /// <summary>What is wrong with an e-mail address by the HTML Living Standard's pattern, or null.</summary>
    public static string? CheckEmail(string address) => TooLong(address, 254) ?? (EmailPattern().IsMatch(address)
        ? null
        : "This does not look like an e-mail address. It needs a part before and after the @, like name@example.com.");

    /// <summary>The ISO 3166 regions whose phone numbers can be read without a country code, in order.</summary>
    public static IReadOnlyList<string> PhoneRegions() => [.. PhoneNumberUtil.GetInstance().GetSupportedRegions().Order(StringComparer.Ordinal)];

    /// <summary>The number in E.164 form, or null when it is none that could be dialled (by libphonenumber).</summary>
    /// <param name="typed">As typed.</param>
    /// <param name="region">The ISO 3166 region for numbers without a country code.</param>
    public static string? ToE164(string typed, string region)
    {
        if (typed.Length > 50)
            return null;
        var phones = PhoneNumberUtil.GetInstance();
        try
        {
            var number = phones.Parse(typed, region);
            return phones.IsPossibleNumber(number) ? phones.Format(number, PhoneNumberFormat.E164) : null;
        }
        catch (NumberParseException)
        {
            return null;
        }
    }

    private static string MissingSentence(QuestionKind kind) => kind switch
    {
        EmailKind => "Please give your e-mail address, so that we can answer you.",
        PhoneKind => "Please give a phone number.",
        PersonNameKind => "Please tell us your name.",
        ChoiceKind { Several: true } => "Please choose at least one.",
        ChoiceKind or YesNoKind => "Please choose one.",
        DateKind => "Please choose a day.",
        _ => "Please answer this.",
    };

    private static string? TooLong(string text, int max) => text.Length <= max
        ? null
        : string.Create(CultureInfo.InvariantCulture,
            $"This is {text.Length:N0} characters long; {max:N0} fit here. Please shorten it, or send the rest when we answer.");

    private static string? OutOfRange(decimal value, decimal? min, decimal? max) =>
        value < min ? string.Create(CultureInfo.InvariantCulture, $"The smallest number that makes sense here is {min:#,0.##}.")
        : value > max ? string.Create(CultureInfo.InvariantCulture, $"The largest number that makes sense here is {max:#,0.##}.")
        : null;

    private static string? CheckChoice(Question question, ChoiceKind kind, ChoiceAnswer answer) =>
        answer.Keys.Any(key => question.FindOption(key) is null) || answer.Keys.Distinct().Count() != answer.Keys.Count
            ? "One of these answers is not on offer. Please choose again."
            : !kind.Several && answer.Keys.Count > 1 ? "Please choose only one." : null;

    // WHATWG HTML Living Standard, 4.10.5.1.5 "E-mail state": the pattern of a valid e-mail address.
    [GeneratedRegex(@"^[a-zA-Z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?(?:\.[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)*\z",
        RegexOptions.CultureInvariant)]
    private static partial Regex EmailPattern();
}
