using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Money;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>The replies that are one key away: seen and changed before they go; to send one moves the project on.</summary>
internal static class QuickReplyEndpoints
{
    /// <param name="To">The address they go to.</param>
    /// <param name="Replies">In the order they are offered.</param>
    /// <param name="Colleagues">Whom a kind no may name, each with the sentence that names them.</param>
    internal sealed record QuickRepliesView(string To, IReadOnlyList<QuickReplyView> Replies, IReadOnlyList<ColleagueNamed> Colleagues);

    /// <param name="StageName">What the stage is called the project comes to; null where it stays.</param>
    internal sealed record QuickReplyView(
        QuickReplyKind Kind,
        string Letter,
        string Label,
        MessageDraft Draft,
        string? Stage,
        string? StageName,
        LocalDate? Until
    );

    internal sealed record ColleagueNamed(string Name, string Sentence);

    /// <param name="Draft">The message as the person sees it; nothing else is sent.</param>
    /// <param name="Stage">The key of the stage the project comes to; null where it stays.</param>
    /// <param name="Until">The day it comes back, of a stage where nothing happens; else null.</param>
    internal sealed record QuickReplyToSend(MessageDraft Draft, string? Stage, LocalDate? Until);

    public static void MapQuickReplies(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/inquiries/{id}/quick-replies").For(Access.Member).WithTags("Inquiries");
        group.MapGet("", ShowAsync);
        group.MapPost("", SendAsync).Once();
    }

    private static async Task<Results<Ok<QuickRepliesView>, ProblemHttpResult>> ShowAsync(
        Id<Inquiry> id,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { } inquiry)
            return Problems.NotFound(InquiryActionEndpoints.Gone);
        var client = (await db.Clients.FindAsync([inquiry.ClientId], cancellationToken))!;
        if (client.Email is not { } to)
            return Problems.Unprocessable($"{client.Name} left no e-mail address. Please call them instead.");
        var business = await db.BusinessAsync();
        var project = (await db.Projects.FindAsync([inquiry.ProjectId], cancellationToken))!;
        var sent = (await db.Submissions.FindAsync([inquiry.SubmissionId], cancellationToken))!;
        var content = (await db.FormVersionAsync(inquiry.FormId, inquiry.FormVersion))!.Content;
        var onFile = ValuesOnFile.Read(
            await db
                .FieldValues.AsNoTracking()
                .Where(value =>
                    value.ClientId == client.Id && value.IsCurrent && (value.ProjectId == null || value.ProjectId == project.Id)
                )
                .ToListAsync(cancellationToken)
        );
        var service = onFile.GetValueOrDefault(BuiltInFields.Service.Key) is TextAnswer { Text: var name }
            ? business.Lists.ServiceCalled(name)
            : null;
        var replies = QuickReplies.For(
            new QuickReplyContext(
                (onFile.GetValueOrDefault(BuiltInFields.Name.Key) as PersonNameAnswer)?.Given ?? "",
                business.OwnerName,
                business.Name,
                service?.Name,
                service?.StartsAt is { } price ? new MoneyAmount(price, business.Currency).ToString() : null,
                (onFile.GetValueOrDefault("project.wanted") as DateAnswer)?.Date,
                service?.LeadWeeks,
                [.. content.SendOffs.Where(end => end.TurnsAway).SelectMany(end => end.WaysForward)],
                Budgets.IsLeftOpen(content, sent.Answers.ByQuestion, sent.Answers.Pages)
            ),
            business.Lists.Stages,
            project.Stage,
            inquiry.Verdict.Fit == Fit.NotNow || content.FindSendOff(sent.SendOff) is { TurnsAway: true },
            clock.GetCurrentInstant(),
            business.Calendar
        );
        return TypedResults.Ok(
            new QuickRepliesView(
                to,
                [
                    .. replies.Select(reply => new QuickReplyView(
                        reply.Kind,
                        reply.Letter.ToString(),
                        reply.Label,
                        reply.Draft,
                        reply.Stage,
                        business.Lists.Stages.FirstOrDefault(stage => stage.Key == reply.Stage)?.Name,
                        reply.Until
                    )),
                ],
                [.. business.Lists.Colleagues.Select(one => new ColleagueNamed(one.Name, $"{one.Name}: {one.About}"))]
            )
        );
    }

    private static async Task<Results<Ok<MailGoing>, ProblemHttpResult>> SendAsync(
        Id<Inquiry> id,
        QuickReplyToSend reply,
        PorchDb db,
        PersonalMail mail,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { } inquiry)
            return Problems.NotFound(InquiryActionEndpoints.Gone);
        var (business, now) = (await db.BusinessAsync(), clock.GetCurrentInstant());
        var client = (await db.Clients.FindAsync([inquiry.ClientId], cancellationToken))!;
        if (reply.Stage is not null && business.Lists.Stages.All(stage => stage.Key != reply.Stage))
            return Problems.Invalid(new Finding("stage", "This stage is not in your list any more. Please choose another one."));
        if (reply.Until <= business.Calendar.Today(now))
            return Problems.Invalid(new Finding("until", "Choose a day to come: until then nothing happens."));
        var (going, refusal) = await mail.SendAsync(
            client,
            reply.Draft,
            new EventContext(client.Id, inquiry.ProjectId, inquiry.Id),
            who.UserId(),
            stage: reply.Stage,
            until: reply.Until
        );
        if (going is null)
            return refusal!;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(going);
    }
}
