using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>What the worked-out values of a working copy come to while somebody tries it. Nothing of a trial is kept.</summary>
internal static class WorkedOutEndpoints
{
    /// <param name="Answers">The answers so far, by question.</param>
    internal sealed record TrialAnswers(IReadOnlyDictionary<string, Answer?> Answers);

    public static void MapWorkedOutValues(this IEndpointRouteBuilder api) =>
        api.MapPost("/forms/{id}/worked-out", WorkOutAsync).For(Access.Member).WithTags("Forms");

    /// <summary>Worked-out values in words, by place; those that are not known are not there.</summary>
    private static async Task<Results<Ok<IReadOnlyDictionary<string, string>>, ProblemHttpResult>> WorkOutAsync(
        Id<Form> id,
        TrialAnswers trial,
        PorchDb db,
        AnswerContextLoader loader,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound("This form is not here any more.");
        if (FormLimits.Refuse(trial.Answers) is { } tooMuch)
            return Problems.Unprocessable(tooMuch);
        var (known, answers) = await TryAsync(form, trial, db, loader, clock, cancellationToken);
        return TypedResults.Ok(WorkedOutValues.Say(known, answers));
    }

    /// <summary>The working copy, and answers somebody tries, as the program reads them.</summary>
    public static async Task<(AnswerContext Known, Dictionary<string, Answer?> Answers)> TryAsync(
        Form form,
        TrialAnswers trial,
        PorchDb db,
        AnswerContextLoader loader,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (business, now) = (await db.BusinessAsync(), clock.GetCurrentInstant());
        var target = new FormTarget(form, null, IsPreview: true, db.Mark());
        var version = (await loader.VersionAsync(target, 0))!;
        var known = await loader.ContextBeforeAnswersAsync(version.Content, target, business, now, cancellationToken);
        var around = await loader.NormaliseContextAsync(version, Guid.Empty, trial.Answers, business, now, cancellationToken);
        return (known, AnswerNormaliser.Normalise(version.Content, trial.Answers, around));
    }
}
