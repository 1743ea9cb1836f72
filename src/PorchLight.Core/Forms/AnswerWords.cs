using System.Globalization;
using NodaTime.Text;
using PorchLight.Core.Money;

namespace PorchLight.Core.Forms;

/// <summary>Says an answer in words.</summary>
public static class AnswerWords
{
    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("d MMMM uuuu");

    /// <summary>The answer as a person would read it; options by their labels.</summary>
    /// <param name="answer">The answer.</param>
    /// <param name="question">The question it answers, for the labels of options; null for a value on file.</param>
    public static string Say(Answer answer, Question? question = null) => answer switch
    {
        TextAnswer a => a.Text,
        NumberAnswer a => a.Value.ToString("#,0.##", CultureInfo.InvariantCulture)
            + (question?.Kind is NumberKind { Unit: { } unit } ? " " + unit : ""),
        MoneyAnswer a => new MoneyAmount(a.Amount, a.Currency).ToString(),
        BandAnswer a => a.Label,
        DateAnswer a => Day.Format(a.Date),
        YesNoAnswer a => a.Yes ? "Yes" : "No",
        ChoiceAnswer a => string.Join(", ", a.Keys.Select(key => question?.FindOption(key)?.Label ?? key)),
        PhoneAnswer a => a.Typed,
        PersonNameAnswer a => a.Full,
        AddressAnswer a => string.Join(", ", a.Parts),
        _ => throw new ArgumentOutOfRangeException(nameof(answer), answer, "An answer of an unknown kind."),
    };
}
