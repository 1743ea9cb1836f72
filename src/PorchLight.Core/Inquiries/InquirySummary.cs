using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Inquiries;

/// <summary>Says what an inquiry is about, in one line.</summary>
public static class InquirySummary
{
    private const int Longest = 160;

    /// <summary>The first thing they wrote in their own words, shortened to 160 characters; else the form's title.</summary>
    /// <param name="form">The version that was answered.</param>
    /// <param name="answers">The answers that count, by question key.</param>
    public static string Of(FormContent form, IReadOnlyDictionary<string, Answer> answers)
    {
        var words = form
            .Questions.Where(question => question.Kind is LongTextKind)
            .Select(question => answers.GetValueOrDefault(question.Key))
            .OfType<TextAnswer>()
            .FirstOrDefault()
            ?.Text;
        var line = KnownValues.OneLine(words ?? form.Title);
        return line.Length <= Longest ? line : UnicodeText.Start(line, Longest) + "…";
    }
}
