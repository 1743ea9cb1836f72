using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Projects;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Moves the projects of inquiries from stage to stage, one or many at once.</summary>
internal static class InquiryStageEndpoints
{
    private const int MostAtOnce = 5_000;

    /// <param name="Inquiry">The inquiry whose project moves.</param>
    /// <param name="Stage">The key of the stage it comes to.</param>
    /// <param name="Until">The day a parked one comes back; null for no end, and for other stages.</param>
    /// <param name="Reason">Why it will not come, of the business's list; null where nobody says, and for other stages.</param>
    /// <param name="From">
    /// The key of the stage it was seen in, so that nobody moves on what somebody else has moved; null wherever it stands.
    /// </param>
    /// <param name="Answered">
    /// Of one that is parked while a first reply is promised: whether they know of it, so that the promise is kept; null where nobody was
    /// asked.
    /// </param>
    internal sealed record StageMove(
        Id<Inquiry> Inquiry,
        string Stage,
        LocalDate? Until,
        string? Reason,
        string? From = null,
        bool? Answered = null
    );

    internal sealed record StageMoves(IReadOnlyList<StageMove> Moves);

    public static void MapInquiryStages(this IEndpointRouteBuilder api) =>
        api.MapPut("/inquiries/stages", MoveAsync).For(Access.Member).WithTags("Inquiries");

    /// <summary>Moves them, all or none. Gives the moves that bring each back to where it stood.</summary>
    private static async Task<Results<Ok<StageMoves>, ProblemHttpResult>> MoveAsync(
        StageMoves wanted,
        PorchDb db,
        ProjectStages stages,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (wanted.Moves.Count > MostAtOnce)
            return Problems.Unprocessable($"Please move at most {MostAtOnce:N0} at once.");
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var (now, list) = (clock.GetCurrentInstant(), business.Lists.Stages.ToDictionary(stage => stage.Key));
        var today = business.Calendar.Today(now);
        var back = new List<StageMove>();
        foreach (var move in wanted.Moves)
        {
            if (!list.TryGetValue(move.Stage, out var stage))
                return Problems.Invalid(new Finding("stage", "This stage is not in your list any more. Please choose another one."));
            if (stage.Kind == StageKind.Parked && move.Until <= today)
                return Problems.Invalid(new Finding("until", "Choose a day to come: until then nothing happens."));
            // Words of the business's own list: what is kept when a person is erased says nothing of them.
            if (
                move.Reason is { } reason
                && !business.Lists.LostReasons.Contains(reason)
                && !await db.Projects.AnyAsync(project => project.LostReason == reason, cancellationToken)
            )
                return Problems.Invalid(new Finding("reason", "This reason is not in your list any more. Please choose another one."));
            if (await db.Inquiries.FindAsync([move.Inquiry], cancellationToken) is not { } inquiry)
                return Problems.NotFound(InquiryActionEndpoints.Gone);
            var project = (await db.Projects.FindAsync([inquiry.ProjectId], cancellationToken))!;
            if (move.From is { } from && project.Stage != from && project.Stage != move.Stage)
                return Problems.Conflict(
                    $"Someone moved it to “{list.GetValueOrDefault(project.Stage)?.Name ?? project.Stage}”. Nothing was moved; look at it again."
                );
            if (stage.Kind == StageKind.Parked && inquiry is { PromiseStopped: null, PromisedBy: { } deadline })
            {
                if (move.Answered is null)
                    return Problems.Invalid(
                        new Finding(
                            "answered",
                            $"{await NameAsync(db, inquiry, cancellationToken)} is promised a first reply {DeadlineWords.ToOwner(deadline, now, business.Calendar)}. Say whether they know that you come back to them later."
                        )
                    );
                if (move.Answered is true)
                    await events.AppendAsync(
                        new AnsweredElsewhere(who.UserId()),
                        now,
                        new EventContext(inquiry.ClientId, inquiry.ProjectId, inquiry.Id)
                    );
            }

            back.Add(new StageMove(inquiry.Id, project.Stage, project.ParkedUntil, project.LostReason, stage.Key, Answered: false));
            await stages.MoveAsync(project, stage, who.UserId(), now, move.Until, move.Reason);
        }

        await write.SaveAsync(cancellationToken);
        back.Reverse();
        return TypedResults.Ok(new StageMoves(back));
    }

    private static async Task<string> NameAsync(PorchDb db, Inquiry inquiry, CancellationToken cancellationToken) =>
        (await db.Clients.FindAsync([inquiry.ClientId], cancellationToken))?.Name ?? "Someone";
}
