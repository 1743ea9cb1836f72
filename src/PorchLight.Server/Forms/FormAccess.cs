using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Forms;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>What a link leads to.</summary>
/// <param name="Form">A published form; for a look, any.</param>
/// <param name="Link">The personal link it was reached by; null for the form's own.</param>
/// <param name="IsPreview">Whether somebody of the business only looks at the working copy: nothing is kept or sent.</param>
/// <param name="Mark">From before it was read; whoever writes looks whether it still holds. Zero: it has to be read again.</param>
internal sealed record FormTarget(Form Form, PersonalLink? Link, bool IsPreview = false, long Mark = 0)
{
    /// <summary>What somebody of the business writes down for a lead; null for everybody who comes themselves.</summary>
    public WrittenDown? WrittenDown { get; init; }
}

/// <summary>Finds what a link leads to, and says who may come in.</summary>
internal sealed class FormAccess(
    PorchDb db,
    BusinessClock clock,
    PreviewTickets previews,
    WriteDownTickets writeDowns,
    IHttpContextAccessor http
)
{
    /// <summary>The header in which a browser shows that the code was typed there.</summary>
    public const string PassHeader = "Form-Pass";

    internal const string NoSuchForm =
        "There is no form at this address. Perhaps the link was cut short; please ask whoever sent it to you.";

    /// <summary>What a form's own or a personal link leads to; null for nothing, or for a form that was never published.</summary>
    public async Task<FormTarget?> FindAsync(string token)
    {
        var mark = db.Mark();
        var hash = Tokens.Hash(token);
        if (await CompiledQueries.FormByLink(db, hash) is { } own)
            return previews.Allows(own.Id, http.HttpContext) ? new FormTarget(own, null, IsPreview: true, mark)
                : own.PublishedVersion > 0
                    ? new FormTarget(own, null, IsPreview: false, mark) { WrittenDown = writeDowns.Read(own.Id, http.HttpContext) }
                : null;
        return
            await CompiledQueries.PersonalLinkByHash(db, hash) is { } link
            && await db.Forms.FindAsync(link.FormId) is { PublishedVersion: > 0 } form
            ? new FormTarget(form, link, IsPreview: false, mark)
            : null;
    }

    /// <summary>The same as it is now, for whoever waited for the lock meanwhile.</summary>
    public async Task<FormTarget> ReloadAsync(FormTarget target, CancellationToken cancellationToken) =>
        target with
        {
            Form = (await db.Forms.FindAsync([target.Form.Id], cancellationToken))!,
            Link = target.Link is { } link ? await db.PersonalLinks.FindAsync([link.Id], cancellationToken) : null,
        };

    /// <summary>What they came for when they may come in, else why not.</summary>
    /// <param name="token">The link.</param>
    /// <param name="pass">What the browser shows, or null.</param>
    /// <param name="lightToo">Whether the light must be on; else who is inside may go on.</param>
    public async Task<(FormTarget? Target, ProblemHttpResult? Refusal)> EnterAsync(string token, string? pass, bool lightToo)
    {
        if (await FindAsync(token) is not { } target)
            return (null, Problems.NotFound(NoSuchForm));
        var business = await db.BusinessAsync();
        return
            await JudgeAsync(target, pass, business) is var welcome
            && (welcome == AccessState.Open || (welcome == AccessState.LightOff && !lightToo))
            ? (target, null)
            : (null, Problems.Conflict(await SayAsync(target, welcome, business)));
    }

    /// <summary>How somebody is met.</summary>
    public async Task<AccessState> JudgeAsync(FormTarget target, string? pass, Business business) =>
        target.IsPreview || target.WrittenDown is not null
            ? AccessState.Open
            : FormAdmission.Judge(
                target.Form.Settings.Admission,
                await LightAsync(target.Form, business),
                StateOf(target.Link, pass),
                clock.GetCurrentInstant()
            );

    /// <summary>Whether a form takes answers, and why not.</summary>
    public async Task<LightState> LightAsync(Form form, Business business) =>
        form.Settings.Judge(
            form.LightOn,
            business.Calendar.Today(clock.GetCurrentInstant()),
            form.Settings.MostAnswers is null ? 0 : await db.CountReceivedAsync(form.Id, CancellationToken.None)
        );

    /// <summary>How they are met, in a sentence for them.</summary>
    public async Task<string> SayAsync(FormTarget target, AccessState welcome, Business business) =>
        FormAdmission.Say(
            welcome,
            target.Form.Settings,
            await LightAsync(target.Form, business),
            target.Form.AwayNote,
            business.Card,
            StateOf(target.Link, null),
            clock.GetCurrentInstant(),
            business.DateTimeZone
        );

    private static LinkState? StateOf(PersonalLink? link, string? pass) =>
        link is null ? null : new LinkState(link.Used, link.GoodUntil, pass is not null && link.PassHash == Tokens.Hash(pass));
}
