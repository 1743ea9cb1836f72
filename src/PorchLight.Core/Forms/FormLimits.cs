using PorchLight.Core.Answers;

namespace PorchLight.Core.Forms;

/// <summary>How large a form, and what is answered to it, may be.</summary>
public static class FormLimits
{
    /// <summary>No list has more rows.</summary>
    public const int MostRows = 200;

    private const int MostAnswers = 2_000;
    private const int MostParts = 20_000;

    /// <summary>
    /// Why answers cannot be looked at at all, as a sentence, or null: there are far more of them than any form asks for, or
    /// there is nothing where something must be. To be asked before anything else walks them; it costs no more than counting.
    /// </summary>
    /// <param name="given">Answers by question key, as they came from outside.</param>
    public static string? Refuse(IReadOnlyDictionary<string, Answer?> given)
    {
        var parts = given.Count;
        if (parts > MostAnswers)
            return TooMuch;
        foreach (var answer in given.Values)
        {
            if (Holey(answer) || answer is RowsAnswer { Rows: var rows } && rows.SelectMany(row => row.Answers.Values).Any(Holey))
                return "There is a gap in what was sent. Please answer it again.";
            parts += answer switch
            {
                RowsAnswer list => list.Rows.Count > MostRows + 1 ? MostParts : list.Rows.Sum(row => 1 + row.Answers.Count),
                ChoiceAnswer choice => choice.Keys.Count,
                FilesAnswer files => files.Files.Count,
                _ => 0,
            };
            if (parts > MostParts)
                return TooMuch;
        }

        return null;
    }

    private const string TooMuch =
        "There are more answers here than this form can hold. Please send fewer, or tell us about the rest when we answer.";

    // The types say that these are never null; what comes from outside may say otherwise.
    private static bool Holey(Answer? answer) =>
        answer switch
        {
            RowsAnswer { Rows: var rows } => rows.Take(MostRows + 2).Any(row => row is null or { Answers: null }),
            ChoiceAnswer { Keys: var keys } => keys.Any(key => key is null),
            FilesAnswer { Files: var files } => files.Any(file => file is null),
            LookUpAnswer { Columns: { } columns } => columns.Any(column => column is null),
            _ => false,
        };
}
