using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <param name="Text">Lines that were typed or pasted.</param>
/// <param name="Form">The form they are added to, as it stands in the window.</param>
internal sealed record TypedText(string Text, FormContent Form);

/// <param name="Items">What is copied.</param>
/// <param name="Form">The form the copies are set into, as it stands in the window.</param>
internal sealed record ItemsToCopy(IReadOnlyList<Item> Items, FormContent Form);

/// <param name="Key">The field's key.</param>
/// <param name="Label">What it is called, with whose it is.</param>
/// <param name="Comparisons">What can be compared with its value.</param>
internal sealed record FieldOnOffer(string Key, string Label, IReadOnlyList<Comparison> Comparisons);

/// <summary>What forms are built of.</summary>
/// <param name="Kinds">The kinds of questions.</param>
/// <param name="Fields">The fields answers can land in.</param>
/// <param name="Currency">The business's currency.</param>
internal sealed record FormParts(IReadOnlyList<KindOnOffer> Kinds, IReadOnlyList<FieldOnOffer> Fields, string Currency);

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
        group.MapGet("/parts", ShowPartsAsync);
        group.MapPost("/typed-questions", ReadQuestionsAsync);
        group.MapPost("/typed-options", ReadOptionsAsync);
        group.MapPost("/changed-kind", ChangeKindAsync);
        group.MapPost("/copied-items", CopyItems);
    }

    private static async Task<Ok<FormParts>> ShowPartsAsync(PorchDb db, FieldCatalogues fields)
    {
        var currency = (await db.BusinessAsync()).Currency;
        return TypedResults.Ok(
            new FormParts(
                KindCatalogue.For(currency),
                [.. (await fields.ReadAsync(db)).Offered.Select(field => new FieldOnOffer(field.Key, field.Say(), Comparisons.Of(field)))],
                currency
            )
        );
    }

    /// <summary>Questions made of lines, each of the kind its words propose; they are not added yet.</summary>
    private static async Task<Results<Ok<IReadOnlyList<Question>>, ProblemHttpResult>> ReadQuestionsAsync(TypedText typed, PorchDb db) =>
        TooMuch(typed.Text) is { } refusal
            ? refusal
            : TypedResults.Ok(TypedQuestions.Read(typed.Text, typed.Form, new ProposalContext((await db.BusinessAsync()).Currency)));

    /// <summary>Copies with keys of their own; they are not added yet.</summary>
    private static Ok<ItemCopies> CopyItems(ItemsToCopy copy) => TypedResults.Ok(CopiedItems.For(copy.Items, copy.Form));

    /// <summary>Options made of lines; they are not added yet.</summary>
    private static async Task<Results<Ok<IReadOnlyList<Option>>, ProblemHttpResult>> ReadOptionsAsync(TypedAnswers typed, PorchDb db) =>
        TooMuch(typed.Text) is { } refusal
            ? refusal
            : TypedResults.Ok(TypedOptions.Read(typed.Text, typed.Money ? (await db.BusinessAsync()).Currency : null, typed.Taken));

    /// <summary>A question asked in another way, with what gets lost; it is not saved yet.</summary>
    private static async Task<Ok<ChangedKind>> ChangeKindAsync(KindToChange change, PorchDb db, FieldCatalogues fields) =>
        TypedResults.Ok(KindChange.To(change.Question, change.Kind, await fields.ReadAsync(db)));

    private static ProblemHttpResult? TooMuch(string text) =>
        text.Length > LongestText || text.AsSpan().Count('\n') > MostLines
            ? Problems.Unprocessable($"This list is too long. Please paste at most {MostLines} lines at once.")
            : null;
}
