using Microsoft.AspNetCore.WebUtilities;
using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>How a form was opened.</summary>
/// <param name="Query">The query of the address ("?utm_source=flyer"), or null.</param>
/// <param name="CameFrom">The page they came from, or null.</param>
/// <param name="Later">The link of a filling-in that was left to be finished later, or null.</param>
/// <param name="Pass">What their browser shows that the code was typed there, or null.</param>
internal sealed record FormOpening(string? Query, string? CameFrom, string? Later, string? Pass);

/// <summary>Puts together what somebody sees who opens a form.</summary>
internal sealed class FormPageLoader(
    PorchDb db,
    FormAccess access,
    UnfinishedForms drafts,
    SpamCheck spam,
    AnswerContextLoader loader,
    ProgramMail messages,
    Tokens tokens,
    BusinessClock clock
)
{
    /// <summary>The outside of a form, and the form itself for who may come in.</summary>
    public async Task<FormPageView> LoadAsync(FormTarget target, FormOpening opening, CancellationToken cancellationToken)
    {
        var business = await db.BusinessAsync();
        var (draft, lost) = await drafts.FindAsync(target.Form, opening.Later, cancellationToken);
        var number = target.IsPreview ? 0 : draft?.FormVersion ?? target.Form.PublishedVersion;
        var version = (await loader.VersionAsync(target, number))!;
        var welcome = await access.JudgeAsync(target, opening.Pass, business);
        return new FormPageView(
            version.Content.Title,
            business.Name,
            FormLook.Over(version.Content.Look, business.Look),
            version.Content.Look?.Logo is { } logo ? PublicAddress.OfFile(logo) : business.LogoAddress(),
            welcome,
            await access.SayAsync(target, welcome, business),
            welcome == AccessState.CodeNeeded ? FormAccessEndpoints.Veil(target.Link!.Email) : null,
            lost,
            welcome == AccessState.Open ? await FormAsync(target, version, draft, opening, business, cancellationToken) : null,
            target.IsPreview,
            target.WrittenDown?.Channel.Say(),
            welcome == AccessState.LightOff && await messages.WordsAsync(BuiltInMessage.OpenAgain, target.Form.Id) is not null,
            target.Link is { Opened: null } && welcome == AccessState.Open
        );
    }

    private async Task<PublicForm> FormAsync(
        FormTarget target,
        FormVersion version,
        UnfinishedForm? draft,
        FormOpening opening,
        Business business,
        CancellationToken cancellationToken
    )
    {
        var content = version.Content;
        var known = await loader.ContextBeforeAnswersAsync(content, target, business, clock.GetCurrentInstant(), cancellationToken);
        var parameters = QueryHelpers.ParseQuery(opening.Query).ToDictionary(pair => pair.Key, pair => pair.Value.ToString());
        var prefilled = Prefilling.Start(content, parameters, known.OnFile, opening.CameFrom);
        return new PublicForm(
            content.Intro,
            version.Number,
            PublicCover.Of(content.Cover, business),
            await SisterAsync(content.NotForUs, cancellationToken),
            content.Review,
            PublicForms.Pages(content, known.Today),
            prefilled,
            PageEvaluation.Begin(known, prefilled.ToDictionary(one => one.Key, one => (Answer?)one.Value)),
            spam.Ticket(target.Form.Id),
            target is { IsPreview: false, WrittenDown: null } && target.Form.Settings.Guard.Proof,
            target.Form.Settings.FollowsUpUnfinished,
            await messages.WordsAsync(BuiltInMessage.FinishLater, target.Form.Id) is not null,
            draft is null ? null : drafts.View(draft, business)
        );
    }

    private async Task<SisterNote?> SisterAsync(NotForUs? note, CancellationToken cancellationToken)
    {
        if (note is null)
            return null;
        var sister = note.SisterForm is { } id ? await db.Forms.FindAsync([new Id<Form>(id)], cancellationToken) : null;
        return sister is { PublishedVersion: > 0 }
            ? new SisterNote(note.Text, $"/f/{tokens.Open(sister.LinkSealed)}", note.SisterLabel ?? sister.Draft.Title)
            : new SisterNote(note.Text, null, null);
    }
}
