using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;
using PorchLight.Core.Workbench;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <param name="Key">The step's key.</param>
/// <param name="Day">The day it stands on; null where it counts from a day of the project.</param>
/// <param name="When">When it comes, as a part of a sentence.</param>
/// <param name="Does">What it does, as a part of a sentence.</param>
/// <param name="Condition">On what it is done, as a part of a sentence; null for always.</param>
/// <param name="Gaps">How many gaps its message has.</param>
internal sealed record StepFacts(string Key, int? Day, string When, string Does, string? Condition, int Gaps);

/// <param name="Number">The number of the version in force; 0 before there is one.</param>
/// <param name="InForce">Since when it is in force and who put it there, in words; null for one that was there from the beginning.</param>
/// <param name="Content">What is worked on; what is in force while nobody works on another.</param>
/// <param name="IsWorkedOn">Whether somebody works on it.</param>
/// <param name="Starts">What starts it, as a part of a sentence.</param>
/// <param name="Ends">What ends it; empty for a person only.</param>
/// <param name="Steps">What is to be known of each step, in order.</param>
/// <param name="Findings">What stands in the way of putting it into force.</param>
/// <param name="Unfinished">The keys of the steps that are still to be written.</param>
/// <param name="StartsInstead">Where another one starts instead of it, a sentence each.</param>
/// <param name="Changes">What would change by putting it into force, a sentence each.</param>
/// <param name="People">How many are on it.</param>
/// <param name="Behind">How many of them are on an older version.</param>
internal sealed record FollowThroughView(
    Id<StoredFollowThrough> Id,
    int Number,
    bool IsOn,
    bool IsArchived,
    string? InForce,
    FollowThroughContent Content,
    bool IsWorkedOn,
    string Starts,
    string Ends,
    IReadOnlyList<StepFacts> Steps,
    IReadOnlyList<Finding> Findings,
    IReadOnlyList<string> Unfinished,
    IReadOnlyList<string> StartsInstead,
    IReadOnlyList<string> Changes,
    int People,
    int Behind
);

/// <param name="Stages">The stages of the business, in order.</param>
/// <param name="Dates">The fields of projects that hold a date.</param>
/// <param name="PersonDates">The fields of clients that hold a date.</param>
/// <param name="Fields">The fields a step can write into.</param>
/// <param name="People">Who works here.</param>
/// <param name="Others">The other follow-throughs in force.</param>
/// <param name="Webhooks">The webhooks of the business.</param>
/// <param name="Subjects">What a condition can look at: what the form asks that starts it, and what is on file.</param>
/// <param name="OfUnfinishedForm">What can be set into a message to who left a form half-finished.</param>
internal sealed record FollowThroughChoices(
    IReadOnlyList<Choice> Forms,
    IReadOnlyList<Choice> Services,
    IReadOnlyList<Stage> Stages,
    IReadOnlyList<Choice> Dates,
    IReadOnlyList<Choice> PersonDates,
    IReadOnlyList<Field> Fields,
    IReadOnlyList<Choice> People,
    IReadOnlyList<Choice> Others,
    IReadOnlyList<Choice> Webhooks,
    IReadOnlyList<ConditionSubject> Subjects,
    IReadOnlyList<SetIn> OfUnfinishedForm
);

/// <summary>Something a condition can look at.</summary>
/// <param name="Of">What is compared.</param>
/// <param name="Words">How it reads.</param>
/// <param name="Comparisons">What can be compared with it.</param>
/// <param name="Values">The values it can have; empty where it is typed.</param>
/// <param name="Currency">The currency of its amounts; null for anything but money.</param>
internal sealed record ConditionSubject(
    Subject Of,
    string Words,
    IReadOnlyList<Comparison> Comparisons,
    IReadOnlyList<PossibleValue> Values,
    string? Currency
);

/// <param name="Seen">The follow-through as the person saw it who puts it into force.</param>
internal sealed record SeenFollowThrough(FollowThroughContent Seen);

/// <summary>A follow-through: worked on beside the version in force, and put into force as a whole.</summary>
internal static class FollowThroughDraftEndpoints
{
    private const int LongestText = 20_000;

    public static void MapFollowThroughDrafts(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/follow-throughs/{id}").For(Access.Member).WithTags("FollowThrough");
        group.MapGet("", ShowAsync);
        group.MapGet("/choices", ChoicesAsync);
        group.MapPut("", SaveAsync);
        group.MapDelete("/draft", DiscardAsync);
        group.MapPost("/in-force", PutIntoForceAsync);
    }

    private static async Task<Results<Ok<FollowThroughView>, ProblemHttpResult>> ShowAsync(
        Id<StoredFollowThrough> id,
        PorchDb db,
        FollowThroughPartsLoader parts,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) =>
        await db.FollowThroughs.FindAsync([id], cancellationToken) is { } stored
            ? TypedResults.Ok(await ViewAsync(stored, db, parts, clock, cancellationToken))
            : Problems.NotFound(FollowThroughEndpoints.Gone);

    /// <summary>What can be picked where it is worked on.</summary>
    /// <param name="form">The form that starts it; null for none in particular.</param>
    private static async Task<FollowThroughChoices> ChoicesAsync(
        Id<StoredFollowThrough> id,
        Guid? form,
        PorchDb db,
        FieldCatalogues fields,
        FollowThroughPartsLoader loader,
        CancellationToken cancellationToken
    )
    {
        var parts = await loader.LoadAsync(null, id, cancellationToken);
        var business = await db.BusinessAsync();
        var catalogue = await fields.ReadAsync(db);
        var asked = form is { } one ? await db.Forms.FindAsync([new Id<Form>(one)], cancellationToken) : null;
        var content = asked is null ? null : business.Lists.Into(asked.Draft);
        var facts = content is null ? null : FormFacts.Of(content, null, business.Look, catalogue);
        return new FollowThroughChoices(
            parts.Forms,
            parts.Services,
            parts.Stages,
            DatesOf(RecordScope.Project),
            DatesOf(RecordScope.Client),
            [.. parts.Fields.Where(field => FillField.CanFill(field.Kind))],
            parts.People,
            parts.Others,
            parts.Webhooks,
            [
                .. (content?.Questions ?? []).Select(question =>
                {
                    var known = facts!.Questions[question.Key];
                    return new ConditionSubject(
                        new AnswerTo(question.Key),
                        known.Reads ?? KnownValues.BeforeAnswers(question.Wording),
                        known.Comparisons,
                        known.Values,
                        known.Currency
                    );
                }),
                .. catalogue.Offered.Select(field => new ConditionSubject(
                    new ValueOnFile(field.Key),
                    field.Say(),
                    Comparisons.Of(field),
                    [],
                    business.Currency
                )),
            ],
            BuiltInMessages.Find(BuiltInMessage.StillUnfinished).Values
        );

        IReadOnlyList<Choice> DatesOf(RecordScope scope) =>
            [
                .. parts
                    .Fields.Where(field => field.Kind == FieldKind.Date && field.Scope == scope)
                    .Select(field => new Choice(field.Key, field.Label)),
            ];
    }

    /// <summary>
    /// Changes what is worked on, by the same protocol as every other edit. It may be unfinished: nobody is on it until it is put into
    /// force.
    /// </summary>
    private static async Task<Results<Ok<FollowThroughView>, ProblemHttpResult>> SaveAsync(
        Id<StoredFollowThrough> id,
        Edit<FollowThroughContent> edit,
        PorchDb db,
        FollowThroughPartsLoader parts,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (edit.Now.Steps.Count > 2 * FollowThroughCheck.MostSteps || edit.Now.AllSteps.Any(step => LengthOf(step) > LongestText))
            return Problems.Unprocessable("This is more than a follow-through can hold. Take something away, and it is saved again.");
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(FollowThroughEndpoints.Gone);
        var (merged, refusal) = edit.Onto(await WorkedOnAsync(db, stored));
        if (refusal is not null)
            return refusal;
        stored.Draft = merged;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(stored, db, parts, clock, cancellationToken));
    }

    /// <summary>Lets go of what is worked on: the version in force is what is seen again.</summary>
    private static async Task<Results<Ok<FollowThroughView>, ProblemHttpResult>> DiscardAsync(
        Id<StoredFollowThrough> id,
        PorchDb db,
        FollowThroughPartsLoader parts,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(FollowThroughEndpoints.Gone);
        if (stored.Number == 0)
            return Problems.Unprocessable("It was never in force, so there is nothing to go back to. Put it away if it is not wanted.");
        stored.Draft = null;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(stored, db, parts, clock, cancellationToken));
    }

    /// <summary>
    /// Puts what is worked on into force as the next version, which new runs take. Those who are on it stay with theirs until somebody
    /// moves them. The first time it is switched on, too. Pressed twice it is in force already.
    /// </summary>
    private static async Task<Results<Ok<FollowThroughView>, ProblemHttpResult>> PutIntoForceAsync(
        Id<StoredFollowThrough> id,
        SeenFollowThrough request,
        PorchDb db,
        FollowThroughPartsLoader parts,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(FollowThroughEndpoints.Gone);
        if (Edits.UnlessSeen(request.Seen, await WorkedOnAsync(db, stored)) is { } changedMeanwhile)
            return changedMeanwhile;
        var seen = await ViewAsync(stored, db, parts, clock, cancellationToken);
        if (seen.Findings is { Count: > 0 } findings)
            return Problems.Unprocessable(
                findings.Count == 1 ? findings[0].Sentence : $"{findings.Count} things have to be put right first.",
                findings
            );
        if (stored.Draft is { } draft && (seen.Changes.Count > 0 || stored.Number == 0))
        {
            stored.IsOn |= stored.Number == 0;
            stored.Number++;
            db.FollowThroughVersions.Add(
                new FollowThroughVersion
                {
                    FollowThroughId = id,
                    Number = stored.Number,
                    Content = draft,
                    Since = clock.GetCurrentInstant(),
                    By = who.DisplayName(),
                }
            );
        }

        stored.Draft = null;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(stored, db, parts, clock, cancellationToken));
    }

    /// <summary>What somebody works on; what is in force while nobody does.</summary>
    internal static async Task<FollowThroughContent> WorkedOnAsync(PorchDb db, StoredFollowThrough stored) =>
        stored.Draft ?? (await db.InForceAsync(stored))!.Content;

    private static int LengthOf(Step step) => step.Name.Length + step.Action.Words().Sum(words => words.Length);

    /// <summary>Where the narrower one always starts: by every form, or by some.</summary>
    private static async Task<IReadOnlyList<string>> SayBeatenAsync(
        FollowThroughContent content,
        FollowThroughParts parts,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var forms = await db
            .Forms.Where(form => form.Archived == null && form.PublishedVersion > 0)
            .Select(form => form.Id)
            .ToListAsync(cancellationToken);
        return FollowThroughsTogether.SayBeaten(content, parts.Around.Others, [.. forms.Select(form => form.Value)], parts.Names.Form);
    }

    internal static async Task<FollowThroughView> ViewAsync(
        StoredFollowThrough stored,
        PorchDb db,
        FollowThroughPartsLoader loader,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var inForce = await db.InForceAsync(stored);
        var content = stored.Draft ?? inForce!.Content;
        var parts = await loader.LoadAsync(content, stored.Id, cancellationToken);
        var days = StepDays.DaysOf(content);
        var on = await db
            .Runs.Where(run => run.FollowThroughId == stored.Id && run.Active)
            .Select(run => run.FollowThroughNumber)
            .ToListAsync(cancellationToken);
        return new FollowThroughView(
            stored.Id,
            stored.Number,
            stored.IsOn,
            stored.Archived is not null,
            inForce is { Since: { } since, By: { } by }
                ? $"{TimeWords.At(since, clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone)} by {by}"
                : null,
            content,
            stored.Draft is not null,
            content.Starts.Say(parts.Names),
            content.SayStops(parts.Names),
            [
                .. content.Steps.Select(
                    (step, index) =>
                        new StepFacts(
                            step.Key,
                            days[index],
                            step.Schedule.Say(index == 0, parts.Names),
                            step.SayAction(parts.Names),
                            step.Condition is { } condition ? parts.Names.Condition(condition) : null,
                            step.Action is SendMessage { Message.Parts: var written } ? written.OfType<GapPart>().Count() : 0
                        )
                ),
            ],
            FollowThroughCheck.Check(content, parts.Around),
            PlanTable.Unfinished(content),
            await SayBeatenAsync(content, parts, db, cancellationToken),
            inForce is null ? [] : FollowThroughDifferences.Say(inForce.Content, content, parts.Names),
            on.Count,
            on.Count(number => number != stored.Number)
        );
    }
}
