using NodaTime;
using PorchLight.Core.Answers;

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

    internal static Answer? Normalise(Question question, Answer? answer, NormaliseContext context) =>
        answer is null ? null : question.Kind.Normalise(answer, context);
}
