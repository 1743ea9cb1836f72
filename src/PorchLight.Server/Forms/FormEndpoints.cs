using System.Security.Claims;
using System.Text.Encodings.Web;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Brand;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Webhooks;
using PorchLight.Core.Workbench;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>One form: its working copy, publishing, light and link.</summary>
internal static class FormEndpoints
{
    private const string Gone = "This form is not here any more.";

    /// <param name="LightOn">Whether a person has turned the light on.</param>
    /// <param name="Shines">Whether it takes answers.</param>
    /// <param name="Light">How the light stands, in a sentence.</param>
    /// <param name="Warnings">What should be known before it is published, a sentence each.</param>
    internal sealed record FormView(
        Id<Form> Id,
        string Title,
        int Revision,
        bool LightOn,
        bool Shines,
        string Light,
        string AwayNote,
        int Version,
        bool UnpublishedChanges,
        Sharing Sharing,
        IReadOnlyList<Finding> Findings,
        IReadOnlyList<string> Warnings
    );

    /// <summary>Ways to bring people to a form.</summary>
    /// <param name="Link">Its address.</param>
    /// <param name="Inline">Code that sets it into a page.</param>
    /// <param name="Button">Code for a button that floats over a page.</param>
    /// <param name="TextLink">Code for a link in a text.</param>
    /// <param name="Plain">The form as plain HTML; null unless its settings allow it and it is published.</param>
    /// <param name="Parameters">What its address can fill in.</param>
    /// <param name="IsOnlyNear">Whether nobody outside can open the link, because the address is that of this machine or network.</param>
    internal sealed record Sharing(
        string Link,
        string Inline,
        string Button,
        string TextLink,
        string? Plain,
        IReadOnlyList<LinkParameter> Parameters,
        bool IsOnlyNear
    )
    {
        public static Sharing Of(Form form, FormContent? published, string token, string site, BrandLook look)
        {
            var (link, script) = ($"{site}/f/{token}", $"<script src=\"{site}/embed.js\" async></script>");
            var label = HtmlEncoder.Default.Encode(form.Draft.Title);
            var colour = Contrast.IsColour(look.Accent) ? $" data-colour=\"{look.Accent}\"" : "";
            return new Sharing(
                link,
                $"<div data-porch-light=\"{token}\" data-title=\"{label}\"></div>\n{script}",
                $"<a href=\"{link}\" data-porch-light=\"{token}\" data-as=\"button\"{colour}>{label}</a>\n{script}",
                $"<a href=\"{link}\" data-porch-light=\"{token}\" data-as=\"link\">{label}</a>\n{script}",
                form.Settings.TakesPlainPosts && published is not null
                    ? PlainMarkup.Write(published, $"{site}/public/forms/{token}/plain")
                    : null,
                [.. form.Draft.Questions.Select(LinkParameter.Of).OfType<LinkParameter>()],
                WebhookAddress.IsOnlyNear(site)
            );
        }
    }

    /// <param name="Name">The name in the address.</param>
    /// <param name="Fills">The wording of the question it answers; null for a tag that nobody sees.</param>
    /// <param name="Options">What it can be, for a choice; else empty.</param>
    internal sealed record LinkParameter(string Name, string? Fills, IReadOnlyList<string> Options)
    {
        public static LinkParameter? Of(Question question) =>
            (question.Kind, question.Prefill) switch
            {
                (HiddenKind { Parameter: { } name }, _) => new LinkParameter(name, null, []),
                (_, FromAddress from) => new LinkParameter(
                    from.Parameter,
                    KnownValues.BeforeAnswers(question.Wording),
                    [.. question.Options.Select(option => option.Key)]
                ),
                _ => null,
            };
    }

    /// <param name="Words">What people see while the light is off.</param>
    internal sealed record AwayNote(string Words);

    internal sealed record LightSwitch(bool On);

    public static void MapForms(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms").For(Access.Member).WithTags("Forms");
        group.MapGet("/{id}", ShowAsync);
        group
            .MapGet(
                "/{id}/look",
                async Task<IResult> (
                    Id<Form> id,
                    PorchDb db,
                    Tokens tokens,
                    PreviewTickets previews,
                    CancellationToken cancellationToken
                ) =>
                    await db.Forms.FindAsync([id], cancellationToken) is { } form
                        ? TypedResults.Redirect($"/f/{tokens.Open(form.LinkSealed)}?look={Uri.EscapeDataString(previews.Open(form.Id))}")
                        : Problems.NotFound(Gone)
            )
            .ExcludeFromDescription();
        group.MapPut("/{id}/away-note", SaveAwayNoteAsync);
        group.MapPost("/{id}/publish", PublishAsync);
        group.MapPost("/{id}/light", SwitchLightAsync);
    }

    private static async Task<Results<Ok<FormView>, ProblemHttpResult>> ShowAsync(
        Id<Form> id,
        PorchDb db,
        FieldCatalogues fields,
        Tokens tokens,
        FormAccess access,
        BusinessClock clock,
        PublicAddress address,
        CancellationToken cancellationToken
    ) =>
        await db.Forms.FindAsync([id], cancellationToken) is { } form
            ? TypedResults.Ok(await ViewAsync(form, db, fields, tokens, access, clock, address, cancellationToken))
            : Problems.NotFound(Gone);

    /// <summary>What is said while the light is off holds at once, whatever version is published.</summary>
    private static async Task<Results<Ok<AwayNote>, ProblemHttpResult>> SaveAwayNoteAsync(
        Id<Form> id,
        Edit<AwayNote> edit,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(Gone);
        var (note, refusal) = edit.Onto(new AwayNote(form.AwayNote));
        if (refusal is not null)
            return refusal;
        form.AwayNote = note.Words.Trim();
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new AwayNote(form.AwayNote));
    }

    private static async Task<Results<Ok<FormView>, ProblemHttpResult>> PublishAsync(
        Id<Form> id,
        PorchDb db,
        FieldCatalogues fields,
        Tokens tokens,
        FormAccess access,
        BusinessClock clock,
        PublicAddress address,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(Gone);
        var lists = (await db.BusinessAsync()).Lists;
        if (FormStructure.Check(lists.Into(form.Draft), await fields.ReadAsync(db)) is { Count: > 0 } findings)
            return Problems.Unprocessable("This form cannot be published yet.", findings);
        if (form.DraftRevision != form.PublishedRevision)
        {
            db.Publish(form, lists, clock.GetCurrentInstant(), who.DisplayName());
            await write.SaveAsync(cancellationToken);
        }

        return TypedResults.Ok(await ViewAsync(form, db, fields, tokens, access, clock, address, cancellationToken));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SwitchLightAsync(
        Id<Form> id,
        LightSwitch light,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(Gone);
        if (light.On && form.PublishedVersion == 0)
            return Problems.Unprocessable("Publish the form first; until then there is nothing to show.");
        if (light.On && form.Archived is not null)
            return Problems.Unprocessable("This form is put away. Bring it back in the list of forms first.");
        form.LightOn = light.On;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<FormView> ViewAsync(
        Form form,
        PorchDb db,
        FieldCatalogues fields,
        Tokens tokens,
        FormAccess access,
        BusinessClock clock,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        var token = tokens.Open(form.LinkSealed);
        var site = address.Site;
        var published =
            form.Settings.TakesPlainPosts && form.PublishedVersion > 0
                ? (await db.FormVersionAsync(form.Id, form.PublishedVersion))!.Content
                : null;
        var state = await access.LightAsync(form, business);
        var received = await db.CountReceivedAsync(form.Id, cancellationToken);
        return new FormView(
            form.Id,
            form.Draft.Title,
            form.DraftRevision,
            form.LightOn,
            state == LightState.On,
            form.Settings.Say(state, received),
            form.AwayNote,
            form.PublishedVersion,
            form.DraftRevision != form.PublishedRevision,
            Sharing.Of(form, published, token, site, business.Look),
            FormStructure.Check(business.Lists.Into(form.Draft), await fields.ReadAsync(db)),
            FormWarnings.Of(
                business.Lists.Into(form.Draft),
                form.ScreeningDraft is { Signals.Count: > 0 } draft
                    && JsonSerializer.Serialize(draft, Json.Options)
                        != JsonSerializer.Serialize(await ScreeningEndpoints.InForceAsync(form, db), Json.Options)
            )
        );
    }
}
