using System.Globalization;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Money;

namespace PorchLight.Core.Forms;

/// <summary>Says an answer in words.</summary>
public static class AnswerWords
{
    /// <summary>The answer as a person would read it; options by their labels.</summary>
    /// <param name="answer">The answer.</param>
    /// <param name="question">The question it answers, for the labels of options; null for a value on file.</param>
    public static string Say(Answer answer, Question? question = null) =>
        answer switch
        {
            TextAnswer a => a.Text,
            TextsAnswer a => string.Join(", ", a.Texts),
            NumberAnswer a => a.Value.ToString("#,0.##", CultureInfo.InvariantCulture) + UnitOf(question),
            MoneyAnswer a => new MoneyAmount(a.Amount, a.Currency).ToString(),
            BandAnswer a => a.Label,
            DateAnswer a => DateWords.Say(a.Date),
            YesNoAnswer a => a.Yes ? "Yes" : "No",
            ChoiceAnswer a => string.Join(
                ", ",
                InOrder(a.Keys, question).Select(key => SayOption(question?.FindOption(key), key, a.OwnWords))
            ),
            PhoneAnswer a => a.Typed,
            PersonNameAnswer a => a.Full,
            AddressAnswer a => string.Join(", ", a.Parts),
            DateRangeAnswer { Roughly: true } a => "some time in " + DateWords.SayMonth(a.From),
            DateRangeAnswer a => $"{DateWords.Say(a.From)} to {DateWords.Say(a.To)}",
            LookUpAnswer a => a.Columns is { Count: > 0 } columns ? string.Join(", ", columns.Where(column => column.Length > 0)) : a.Key,
            FilesAnswer a => string.Join(", ", a.Files.Select(file => file.Name)),
            RowsAnswer a => string.Join("\n", a.Rows.Select((row, index) => SayRow(question, row, index))),
            ConsentAnswer a => $"Agreed: {a.Wording}",
            SignatureAnswer a =>
                $"Signed by {a.Name}{(a.OnBehalfOf is null ? "" : $" for {a.OnBehalfOf}")} on {(a.Date is { } day ? DateWords.Say(day) : "a day unknown")} ({(a.Strokes is null ? "typed" : "drawn")})",
            _ => throw new ArgumentOutOfRangeException(nameof(answer), answer, "An answer of an unknown kind."),
        };

    // As the options stand, so that the same choice reads the same whatever was ticked first.
    private static IEnumerable<string> InOrder(IReadOnlyList<string> keys, Question? question) =>
        question is null
            ? keys
            : question
                .Options.Select(option => option.Key)
                .Where(keys.Contains)
                .Concat(keys.Where(key => question.FindOption(key) is null));

    private static string UnitOf(Question? question) => question?.Kind.UnitOfAnswers() is { } unit ? " " + unit : "";

    private static string SayOption(Option? option, string key, string? ownWords) =>
        option is null ? key
        : option.OwnWords && ownWords is not null ? $"{option.Label}: {ownWords}"
        : option.Label;

    // One line a row, so that a list stays readable in a note, a mail or a cell.
    private static string SayRow(Question? question, AnswerRow row, int index)
    {
        var cells = question is null
            ? row.Answers.Values.OfType<Answer>().Select(answer => Say(answer))
            : question
                .RowQuestions.Where(cell => row[cell.Key] is not null)
                .Select(cell =>
                    cell.Kind is PersonNameKind
                        ? Say(row[cell.Key]!, cell)
                        : $"{cell.Wording.TrimEnd('?', ':', ' ')}: {Say(row[cell.Key]!, cell)}"
                );
        return string.Create(CultureInfo.InvariantCulture, $"{index + 1}. {string.Join("; ", cells)}");
    }
}
