using System.Globalization;
using PorchLight.Core.Calendar;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>What somebody chose for a kind of question, beside the kind itself.</summary>
public static class KindLimits
{
    /// <summary>
    /// The limits and words of a kind that are not those it begins with, each as part of a sentence: "at least 3", "the unit “m”". Options
    /// and what rows ask are left aside. Two kinds that share a limit say it in the same words.
    /// </summary>
    /// <param name="kind">Any kind.</param>
    /// <returns>Empty where nothing was chosen.</returns>
    public static IReadOnlyList<string> Of(QuestionKind kind) =>
        [
            .. (
                kind switch
                {
                    ShortTextKind text => Length(text.MinLength, text.MaxLength, new ShortTextKind().MaxLength),
                    LongTextKind text => Length(text.MinLength, text.MaxLength, new LongTextKind().MaxLength),
                    NumberKind number =>
                    [
                        .. Range(number.Min, number.Max),
                        number.Unit is { } unit ? $"the unit “{unit}”" : null,
                        number.Whole ? "whole numbers only" : null,
                    ],
                    MoneyKind money => Range(money.Min, money.Max),
                    ScaleKind scale =>
                    [
                        $"at least {scale.Low}",
                        $"at most {scale.High}",
                        .. Quoted(scale.LowLabel, scale.HighLabel),
                        "whole numbers only",
                    ],
                    DateKind day => Days(day.Limits),
                    DateRangeKind days => [.. Days(days.Limits), days.OrMonth ? "a month instead of days" : null],
                    ChoiceKind choice =>
                    [
                        choice.DropDown ? "a drop-down" : null,
                        choice.AtLeast is { } least ? $"at least {least} to choose" : null,
                        choice.AtMost is { } most ? $"at most {most} to choose" : null,
                    ],
                    FilesKind files =>
                    [
                        files.AtMost != new FilesKind().AtMost ? $"at most {files.AtMost} files" : null,
                        files.MaxBytes != FilesKind.UsualMaxBytes ? $"at most {files.MaxBytes / 1024 / 1024} MB each" : null,
                        files.Groups is { Count: > 0 } groups ? $"only {string.Join(", ", groups).ToLowerInvariant()}" : null,
                    ],
                    RowsKind rows =>
                    [
                        rows.Least > 0 ? $"at least {rows.Least} rows" : null,
                        rows.Most != new ListKind([], "").Most ? $"at most {rows.Most} rows" : null,
                    ],
                    SignatureKind signature => [.. Quoted(signature.Statement), signature.ForOthers ? "signing for someone else" : null],
                    AgreementKind agreement => Quoted(agreement.Statement),
                    LookUpKind { Show.Count: > 0 } => ["the list to look up in"],
                    WorkedOutKind worked =>
                    [
                        worked.Value == WorkedOutKind.Open ? null : "how it is worked out",
                        worked.Unit is { } unit ? $"the unit “{unit}”" : null,
                    ],
                    HiddenKind { Parameter: { } parameter } => [$"the name “{parameter}” in the address"],
                    _ => Enumerable.Empty<string?>(),
                }
            ).OfType<string>(),
        ];

    /// <summary>The same without what a kind of its sort has when it is taken from the catalogue: nobody chose that.</summary>
    /// <param name="kind">Any kind.</param>
    public static IEnumerable<string> Chosen(QuestionKind kind) =>
        Of(kind).Except(KindCatalogue.For("EUR").Where(one => one.Kind.GetType() == kind.GetType()).SelectMany(one => Of(one.Kind)));

    private static IEnumerable<string?> Length(int min, int max, int usual) =>
        [min > 0 ? $"at least {min} characters" : null, max != usual ? $"at most {max} characters" : null];

    private static IEnumerable<string?> Range(decimal? min, decimal? max) =>
        [
            min is { } least ? string.Create(CultureInfo.InvariantCulture, $"at least {least}") : null,
            max is { } most ? string.Create(CultureInfo.InvariantCulture, $"at most {most}") : null,
        ];

    private static IEnumerable<string?> Days(DateLimits? limits) =>
        [
            limits?.Earliest is { } first ? $"not before {DateWords.Say(first)}" : null,
            limits?.Latest is { } last ? $"not after {DateWords.Say(last)}" : null,
            limits?.FromDays is { } from ? $"at least {from} days from today" : null,
            limits?.ToDays is { } to ? $"at most {to} days from today" : null,
        ];

    private static IEnumerable<string> Quoted(params string?[] words) =>
        words.Where(one => !string.IsNullOrWhiteSpace(one)).Select(one => $"the words “{one}”");
}
