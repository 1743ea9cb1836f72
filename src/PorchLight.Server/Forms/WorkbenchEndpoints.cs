using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <param name="Text">Lines that were typed or pasted.</param>
internal sealed record TypedText(string Text);

/// <param name="Text">Lines that were typed or pasted.</param>
/// <param name="Money">Whether amounts among them are money.</param>
/// <param name="Taken">The keys of the options there are already.</param>
internal sealed record TypedAnswers(string Text, bool Money, IReadOnlyList<string> Taken);

/// <param name="Question">The question as it is.</param>
/// <param name="Kind">The kind it shall have.</param>
internal sealed record KindToChange(Question Question, QuestionKind Kind);

/// <summary>What helps to build a form. Nothing here changes it: that is done by saving its content.</summary>
internal static class WorkbenchEndpoints
{
    private const int LongestText = 20_000;
    private const int MostLines = 200;

    public static void MapWorkbench(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms").For(Access.Member).WithTags("Forms");
        group.MapPost("/{id}/typed-questions", ReadQuestionsAsync);
        group.MapPost("/typed-options", ReadOptionsAsync);
        group.MapPost("/changed-kind", ChangeKind);
    }

    /// <summary>Questions made of lines, each of the kind its words propose; they are not added yet.</summary>
    private static async Task<Results<Ok<IReadOnlyList<Question>>, ProblemHttpResult>> ReadQuestionsAsync(
        Id<Form> id,
        TypedText typed,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        if (TooMuch(typed.Text) is { } refusal)
            return refusal;
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(ContentEndpoints.Gone);
        var business = await db.BusinessAsync();
        return TypedResults.Ok(TypedQuestions.Read(typed.Text, form.Draft, new ProposalContext(business.Currency)));
    }

    /// <summary>Options made of lines; they are not added yet.</summary>
    private static async Task<Results<Ok<IReadOnlyList<Option>>, ProblemHttpResult>> ReadOptionsAsync(TypedAnswers typed, PorchDb db) =>
        TooMuch(typed.Text) is { } refusal
            ? refusal
            : TypedResults.Ok(TypedOptions.Read(typed.Text, typed.Money ? (await db.BusinessAsync()).Currency : null, typed.Taken));

    /// <summary>A question asked in another way, with what gets lost; it is not saved yet.</summary>
    private static Ok<ChangedKind> ChangeKind(KindToChange change) => TypedResults.Ok(KindChange.To(change.Question, change.Kind));

    private static ProblemHttpResult? TooMuch(string text) =>
        text.Length > LongestText || text.AsSpan().Count('\n') > MostLines
            ? Problems.Unprocessable($"This list is too long. Please paste at most {MostLines} lines at once.")
            : null;
}
