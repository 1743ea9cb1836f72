using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Library;

/// <summary>The messages that the program sends by itself: listed, rewritten for the business or one form, or switched off.</summary>
internal static class BuiltInMessageEndpoints
{
    private const string FormGone = "This form is not here any more.";
    private const string OfNoForm = "This message is the same for every form. Change it in the library.";

    /// <param name="WithoutIt">What happens instead while it is switched off; null while it is sent.</param>
    /// <param name="FormsOfTheirOwn">The titles of the forms that have words of their own, or do not send it.</param>
    internal sealed record BuiltInRow(
        BuiltInMessage Kind,
        string Name,
        string When,
        Wording Wording,
        string? WithoutIt,
        IReadOnlyList<string> FormsOfTheirOwn
    );

    /// <summary>What follows at once when a form is sent.</summary>
    /// <param name="FollowThroughId">The follow-through that writes; null where nothing is written.</param>
    /// <param name="Subject">The subject of its first message.</param>
    internal sealed record ThanksRow(string Form, Id<StoredFollowThrough>? FollowThroughId, string? FollowThrough, string? Subject);

    /// <param name="Thanks">A line for each form and each follow-through that thanks at once.</param>
    internal sealed record BuiltInList(IReadOnlyList<BuiltInRow> Messages, IReadOnlyList<ThanksRow> Thanks);

    internal sealed record BuiltInContent(Wording Wording, MessageTemplate Message);

    /// <param name="FormTitle">The form it is seen for; null for all.</param>
    /// <param name="WithoutIt">What happens where it is switched off; null where it cannot be.</param>
    /// <param name="StaysOn">Why it cannot be switched off; null where it can be.</param>
    /// <param name="Standard">The words that hold where it has none of its own; null where those are switched off.</param>
    internal sealed record BuiltInView(
        BuiltInMessage Kind,
        string Name,
        string When,
        string? FormTitle,
        string? WithoutIt,
        string? StaysOn,
        IReadOnlyList<SetIn> Values,
        MessageTemplate? Standard,
        BuiltInContent Content
    );

    public static void MapBuiltInMessages(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/library/built-in").For(Access.Member).WithTags("Library");
        group.MapGet("", ListAsync);
        group.MapGet("/{kind}", ShowAsync);
        group.MapPut("/{kind}", ChangeAsync);
        group.MapPost("/{kind}/test", TestAsync).Once();
    }

    /// <param name="form">The form whose messages are meant: those that can have words of its own; null for all, as they go by default.</param>
    private static async Task<BuiltInList> ListAsync(Id<Form>? form, PorchDb db, CancellationToken cancellationToken)
    {
        var texts = await db.BuiltInTexts.AsNoTracking().ToListAsync(cancellationToken);
        var forms = await db.Forms.AsNoTracking().Where(form => form.PublishedVersion > 0).ToListAsync(cancellationToken);
        var titles = forms.ToDictionary(form => form.Id, form => form.Draft.Title);
        return new BuiltInList(
            [
                .. BuiltInMessages
                    .All.Where(one => form is null || one.IsOfForms)
                    .Select(one =>
                    {
                        var own = texts.Where(text => text.Kind == one.Kind).ToList();
                        var chosen = own.FirstOrDefault(text => text.FormId == form);
                        return new BuiltInRow(
                            one.Kind,
                            one.Name,
                            one.When,
                            chosen?.Wording ?? Wording.Standard,
                            chosen is { Wording: Wording.Off } ? one.WithoutIt : null,
                            [
                                .. own.Select(text => text.FormId is { } other ? titles.GetValueOrDefault(other) : null)
                                    .OfType<string>()
                                    .Order(NaturalOrder.Instance),
                            ]
                        );
                    }),
            ],
            await ThanksAsync(db, forms, cancellationToken)
        );
    }

    /// <summary>What is written at once to who sends each form: by the follow-throughs in force, whatever else they do.</summary>
    private static async Task<List<ThanksRow>> ThanksAsync(PorchDb db, List<Form> forms, CancellationToken cancellationToken)
    {
        var live = await CompiledQueries.LiveFollowThroughs(db).ToListAsync(cancellationToken);
        var writing = live.Select(one => (Id: one.FollowThroughId, one.Content, First: one.Content.Steps is [var first, ..] ? first : null))
            .Where(one =>
                one
                    is {
                        Content.Starts: InquiryStart,
                        First: { NeedsNod: false, Schedule: { AtOnce: true, Amount: 0 }, Action: SendMessage { Channel: Channel.Mail } }
                    }
            )
            .ToList();
        return
        [
            .. forms
                .OrderBy(form => form.Draft.Title, NaturalOrder.Instance)
                .SelectMany(form =>
                {
                    var own = writing.Where(one => ((InquiryStart)one.Content.Starts).Form is not { } id || id == form.Id.Value).ToList();
                    return own.Count == 0
                        ? [new ThanksRow(form.Draft.Title, null, null, null)]
                        : own.Select(one => new ThanksRow(
                            form.Draft.Title,
                            one.Id,
                            one.Content.Name,
                            ((SendMessage)one.First!.Action).Message.Subject
                        ));
                }),
        ];
    }

    private static async Task<Results<Ok<BuiltInView>, ProblemHttpResult>> ShowAsync(
        string kind,
        Id<Form>? form,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var (meant, refusal) = await FindAsync(kind, form, db);
        return refusal is not null ? refusal : TypedResults.Ok(await ViewAsync(meant, form, db, cancellationToken));
    }

    private static async Task<Results<Ok<BuiltInView>, ProblemHttpResult>> ChangeAsync(
        string kind,
        Id<Form>? form,
        Edit<BuiltInContent> edit,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var (meant, refusal) = await FindAsync(kind, form, db);
        if (refusal is not null)
            return refusal;
        var (merged, clash) = edit.Onto((await ViewAsync(meant, form, db, cancellationToken)).Content);
        if (clash is not null)
            return clash;
        var found = BuiltInMessages.Find(meant);
        if (merged.Wording == Wording.Off && !found.CanBeOff)
            return Problems.Invalid(new Finding("wording", found.StaysOn!));
        if (merged.Wording == Wording.Own && found.Check(merged.Message) is { } sentence)
            return Problems.Invalid(new Finding("message", sentence));
        var stored = await StoredAsync(meant, form, db, cancellationToken);
        if (merged.Wording == Wording.Standard)
        {
            if (stored is not null)
                db.BuiltInTexts.Remove(stored);
        }
        else if (stored is not null)
            (stored.Wording, stored.Message) = (merged.Wording, merged.Message);
        else
            db.BuiltInTexts.Add(
                new BuiltInText
                {
                    Id = new Id<BuiltInText>(Guid.CreateVersion7()),
                    FormId = form,
                    Kind = meant,
                    Wording = merged.Wording,
                    Message = merged.Message,
                }
            );
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(meant, form, db, cancellationToken));
    }

    /// <summary>Sends the message to the person who asks, as it goes now, with examples where it speaks of somebody.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TestAsync(
        string kind,
        Id<Form>? form,
        PorchDb db,
        MailQueue mail,
        ProgramMail messages,
        BusinessClock clock,
        ClaimsPrincipal who,
        UserManager<User> users,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var (meant, refusal) = await FindAsync(kind, form, db);
        if (refusal is not null)
            return refusal;
        if (await messages.WordsAsync(meant, form) is not { } words)
            return Problems.Unprocessable("It is switched off, so there is nothing to send.");
        var content = ProgramMail.Write(
            words,
            await messages.ExamplesAsync(meant, form is { } id ? await db.Forms.FindAsync([id], cancellationToken) : null)
        );
        await LibraryMessageEndpoints.QueueTestAsync(db, mail, users, who, content, clock);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<(BuiltInMessage Kind, ProblemHttpResult? Refusal)> FindAsync(string name, Id<Form>? form, PorchDb db)
    {
        if (!Enum.TryParse<BuiltInMessage>(name, ignoreCase: true, out var kind) || !Enum.IsDefined(kind))
            return (kind, Problems.NotFound("There is no such message."));
        if (form is null)
            return (kind, null);
        if (await db.Forms.FindAsync(form) is null)
            return (kind, Problems.NotFound(FormGone));
        return (kind, BuiltInMessages.Find(kind).IsOfForms ? null : Problems.Unprocessable(OfNoForm));
    }

    private static Task<BuiltInText?> StoredAsync(BuiltInMessage kind, Id<Form>? form, PorchDb db, CancellationToken cancellationToken) =>
        db.BuiltInTexts.SingleOrDefaultAsync(text => text.Kind == kind && text.FormId == form, cancellationToken);

    private static async Task<BuiltInView> ViewAsync(BuiltInMessage kind, Id<Form>? form, PorchDb db, CancellationToken cancellationToken)
    {
        var found = BuiltInMessages.Find(kind);
        var stored = await StoredAsync(kind, form, db, cancellationToken);
        var standard = form is null ? found.Standard : await new ProgramMail(db).WordsAsync(kind, null);
        return new BuiltInView(
            kind,
            found.Name,
            found.When,
            form is null ? null : (await db.Forms.FindAsync([form], cancellationToken))!.Draft.Title,
            found.WithoutIt,
            found.StaysOn,
            found.Values,
            standard,
            stored is null
                ? new BuiltInContent(Wording.Standard, standard ?? found.Standard)
                : new BuiltInContent(stored.Wording, stored.Message)
        );
    }
}
