using System.Globalization;
using System.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>What a value is found, compared and put in order by.</summary>
/// <param name="Text">In small letters without accents, at most 200 characters; null for what is ordered by number.</param>
/// <param name="Number">An amount, of a range its lower end, a day as 20270514, yes as 1 and no as 0; null for text.</param>
public sealed record ValueOrder(string? Text, double? Number)
{
    private const int Longest = 200;

    /// <summary>The order of a value.</summary>
    /// <param name="value">Any value on file.</param>
    public static ValueOrder Of(Answer value) =>
        value switch
        {
            NumberAnswer number => new ValueOrder(null, (double)number.Value),
            MoneyAnswer money => new ValueOrder(null, (double)money.Amount),
            BandAnswer band => new ValueOrder(null, (double)(band.Band.Low?.Value ?? 0)),
            DateAnswer day => new ValueOrder(null, Day(day.Date)),
            YesNoAnswer yesNo => new ValueOrder(null, yesNo.Yes ? 1 : 0),
            PersonNameAnswer name => new ValueOrder(Fold($"{name.Family} {name.Given}"), null),
            PhoneAnswer { E164: { } number } => new ValueOrder(number, null),
            _ => new ValueOrder(Fold(AnswerWords.Say(value)), null),
        };

    /// <summary>Whether the values of a kind of field are ordered by number; all others are by words.</summary>
    /// <param name="kind">The kind.</param>
    public static bool IsByNumber(FieldKind kind) => kind is FieldKind.Number or FieldKind.Money or FieldKind.Date or FieldKind.YesNo;

    /// <summary>A day as a number that orders as days do.</summary>
    /// <param name="day">The day.</param>
    public static double Day(NodaTime.LocalDate day) => (day.Year * 10_000) + (day.Month * 100) + day.Day;

    /// <summary>Words as they are compared and sought: small letters, no accents, one blank for any white space.</summary>
    /// <param name="text">Any text.</param>
    public static string Fold(string text)
    {
        var folded = new StringBuilder();
        foreach (var c in UnicodeText.Normal(text, NormalizationForm.FormKD))
        {
            if (CharUnicodeInfo.GetUnicodeCategory(c) == UnicodeCategory.NonSpacingMark)
                continue;
            if (!char.IsWhiteSpace(c))
                folded.Append(char.ToLowerInvariant(c));
            else if (folded.Length > 0 && folded[^1] != ' ')
                folded.Append(' ');
        }

        var whole = folded.ToString().Trim();
        return UnicodeText.Start(whole, Longest);
    }
}
