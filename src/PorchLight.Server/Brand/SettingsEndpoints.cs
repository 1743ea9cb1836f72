using System.Security.Claims;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Brand;

/// <summary>What the owner settles for the whole business: card, look, hours, reply promise.</summary>
internal static class SettingsEndpoints
{
    private const int LargestLogo = 1024 * 1024;

    /// <param name="Business">Name, sender, country, currency, zone.</param>
    /// <param name="Look">Colours and typeface of public pages.</param>
    /// <param name="Logo">The logo's address, or null.</param>
    /// <param name="Hours">When the business works and sends.</param>
    /// <param name="Promise">How fast it answers.</param>
    /// <param name="PromiseExample">What the promise means for somebody who writes now, as a sentence.</param>
    /// <param name="Lists">What it sells, and how people find it.</param>
    /// <param name="Welcome">Who welcomes people on covers.</param>
    /// <param name="Photo">The address of the owner's picture, or null.</param>
    /// <param name="Keeping">How long unfinished forms are kept.</param>
    internal sealed record SettingsView(
        BusinessCard Business,
        BrandLook Look,
        string? Logo,
        OpeningWords Hours,
        ReplyPromise Promise,
        string PromiseExample,
        BusinessLists Lists,
        WelcomeCard Welcome,
        string? Photo,
        Keeping Keeping
    );

    /// <summary>What can be chosen for codes that nobody knows by heart.</summary>
    internal sealed record ChoicesView(
        IReadOnlyList<NamedCode> Zones,
        IReadOnlyList<NamedCode> Countries,
        IReadOnlyList<NamedCode> Currencies
    );

    /// <param name="Accent">The nearest colour on which white words can be read; the one asked for when it passes.</param>
    internal sealed record ReadableView(string Accent);

    public static void MapSettings(this IEndpointRouteBuilder api)
    {
        api.MapGet("/choices", Choices).WithTags("Settings").For(Access.Public);
        var group = api.MapGroup("/settings").WithTags("Settings").For(Access.Owner);
        group.MapGet(
            "",
            async (PorchDb db, BusinessClock clock, CancellationToken cancellationToken) =>
                TypedResults.Ok(View(await db.BusinessAsync(), clock))
        );
        group.MapPut(
            "/business",
            async (Edit<BusinessCard> edit, PorchDb db, BusinessClock clock, PublicAddress address, CancellationToken cancellationToken) =>
            {
                var saved = await SaveAsync(
                    edit,
                    db,
                    clock,
                    business => business.Card,
                    (business, card) => business.Card = card.Normalise(),
                    card => card.Normalise().Check(),
                    cancellationToken
                );
                if (saved.Result is Ok<SettingsView> { Value.Business: var card })
                    address.Use(card.PublicAddress);
                return saved;
            }
        );
        group.MapPut(
            "/look",
            (Edit<BrandLook> edit, PorchDb db, BusinessClock clock, CancellationToken cancellationToken) =>
                SaveAsync(
                    edit,
                    db,
                    clock,
                    business => business.Look,
                    (business, look) => business.Look = look,
                    look => look.Check(),
                    cancellationToken
                )
        );
        group.MapPut(
            "/hours",
            (Edit<OpeningWords> edit, PorchDb db, BusinessClock clock, CancellationToken cancellationToken) =>
                SaveAsync(
                    edit,
                    db,
                    clock,
                    business => OpeningWords.Of(business.Hours),
                    (business, words) => business.Hours = words.Read().Hours,
                    words => words.Read().Findings,
                    cancellationToken
                )
        );
        group.MapPut(
            "/promise",
            (Edit<ReplyPromise> edit, PorchDb db, BusinessClock clock, CancellationToken cancellationToken) =>
                SaveAsync(
                    edit,
                    db,
                    clock,
                    business => business.Promise,
                    (business, promise) => (business.PromiseHours, business.PromiseClock) = (promise.Hours, promise.Clock),
                    promise => promise.Check(),
                    cancellationToken
                )
        );
        group.MapPut("/lists", SaveListsAsync);
        group.MapPut(
            "/welcome",
            (Edit<WelcomeCard> edit, PorchDb db, BusinessClock clock, CancellationToken cancellationToken) =>
                SaveAsync(
                    edit,
                    db,
                    clock,
                    business => business.Welcome,
                    (business, welcome) => business.Welcome = welcome,
                    welcome => welcome.Check(),
                    cancellationToken
                )
        );
        group.MapPut(
            "/keeping",
            (Edit<Keeping> edit, PorchDb db, BusinessClock clock, CancellationToken cancellationToken) =>
                SaveAsync(
                    edit,
                    db,
                    clock,
                    business => new Keeping(business.KeepUnfinishedDays, business.KeepClientsMonths),
                    (business, keeping) =>
                        (business.KeepUnfinishedDays, business.KeepClientsMonths) = (keeping.UnfinishedDays, keeping.ClientMonths),
                    keeping => keeping.Check(),
                    cancellationToken
                )
        );
        group.MapGet(
            "/look/readable",
            Results<Ok<ReadableView>, ProblemHttpResult> (string accent) =>
                Contrast.IsColour(accent)
                    ? TypedResults.Ok(new ReadableView(BrandLook.ReadableAccent(accent)))
                    : Problems.Unprocessable("A colour is written like #2a2f5b.")
        );
        group.MapPut("/logo", SaveLogoAsync).Accepts<IFormFile>("*/*");
        group.MapDelete("/logo", RemoveLogoAsync);
    }

    /// <summary>The logo, for public pages.</summary>
    public static void MapLogo(this IEndpointRouteBuilder app) =>
        app.MapGet(
                "/brand/{hash}",
                async Task<IResult> (string hash, PorchDb db, HttpResponse response, CancellationToken cancellationToken) =>
                {
                    if (await db.BrandPictures.FindAsync([hash], cancellationToken) is not { } picture)
                        return Problems.NotFound("There is no picture at this address.");
                    response.Headers.CacheControl = "public, max-age=31536000, immutable";
                    response.Headers.ContentSecurityPolicy = "default-src 'none'; sandbox";
                    return TypedResults.Bytes(picture.Bytes, picture.ContentType);
                }
            )
            .For(Access.Public)
            .ExcludeFromDescription();

    /// <summary>Where the logo is had, or null.</summary>
    public static string? LogoAddress(this Business business) => business.LogoHash is { } hash ? $"/brand/{hash}" : null;

    private static async Task<Results<Ok<SettingsView>, ProblemHttpResult>> SaveAsync<T>(
        Edit<T> edit,
        PorchDb db,
        BusinessClock clock,
        Func<Business, T> read,
        Action<Business, T> set,
        Func<T, IReadOnlyList<Finding>> check,
        CancellationToken cancellationToken
    )
        where T : class
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var (merged, refusal) = edit.Onto(read(business));
        if (refusal is not null)
            return refusal;
        if (check(merged) is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        set(business, merged);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(View(business, clock));
    }

    private static async Task<Results<Ok<SettingsView>, ProblemHttpResult>> SaveListsAsync(
        Edit<BusinessLists> edit,
        PorchDb db,
        IListsInUse use,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var (merged, refusal) = edit.Onto(business.Lists);
        if (refusal is not null)
            return refusal;
        var (was, now) = (business.Lists, merged.Normalise().Remembering(business.Lists));
        if ((IReadOnlyList<Finding>)[.. now.Check(), .. await use.CheckAsync(was, now)] is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        business.Lists = now;
        await use.ChangeAsync(was, now, who, clock.GetCurrentInstant());
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(View(business, clock));
    }

    private static async Task<Results<Ok<SettingsView>, ProblemHttpResult>> SaveLogoAsync(
        HttpRequest request,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        using var body = new MemoryStream();
        if (request.ContentLength is not (> 0 and <= LargestLogo))
            return Problems.Unprocessable("A logo can be up to one megabyte. Please make the picture smaller.");
        await request.Body.CopyToAsync(body, cancellationToken);
        var bytes = body.ToArray();
        if (PictureKind(bytes) is not { } contentType)
            return Problems.Unprocessable("This is not a PNG, JPEG or WebP picture. Please save your logo as one of these.");
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var hash = Convert.ToHexString(SHA256.HashData(bytes));
        await ReplaceLogoAsync(db, business, hash, cancellationToken);
        if (await db.BrandPictures.FindAsync([hash], cancellationToken) is null)
            db.BrandPictures.Add(
                new BrandPicture
                {
                    Hash = hash,
                    ContentType = contentType,
                    Bytes = bytes,
                }
            );
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(View(business, clock));
    }

    private static async Task<Ok<SettingsView>> RemoveLogoAsync(PorchDb db, BusinessClock clock, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        await ReplaceLogoAsync(db, business, null, cancellationToken);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(View(business, clock));
    }

    private static async Task ReplaceLogoAsync(PorchDb db, Business business, string? hash, CancellationToken cancellationToken)
    {
        await db.BrandPictures.Where(picture => picture.Hash != hash).ExecuteDeleteAsync(cancellationToken);
        business.LogoHash = hash;
    }

    /// <summary>What a picture is by its first bytes, whatever it says of itself; null for anything else.</summary>
    private static string? PictureKind(ReadOnlySpan<byte> bytes) =>
        bytes is [0x89, (byte)'P', (byte)'N', (byte)'G', 0x0d, 0x0a, 0x1a, 0x0a, ..] ? "image/png"
        : bytes is [0xff, 0xd8, 0xff, ..] ? "image/jpeg"
        : bytes.Length > 12 && bytes.StartsWith("RIFF"u8) && bytes[8..].StartsWith("WEBP"u8) ? "image/webp"
        : null;

    private static SettingsView View(Business business, BusinessClock clock)
    {
        var now = clock.GetCurrentInstant();
        return new SettingsView(
            business.Card,
            business.Look,
            business.LogoAddress(),
            OpeningWords.Of(business.Hours),
            business.Promise,
            business.Promise.Deadline(now, business.Calendar) is { } deadline
                ? $"Someone who writes to you now is promised an answer {DeadlineWords.ToLead(deadline, now, business.Calendar)}."
                : "With these hours and closed days no answer can be promised: no working day comes within 400 days.",
            business.Lists,
            business.Welcome,
            business.OwnerPhoto is { } photo ? PublicAddress.OfFile(photo) : null,
            new Keeping(business.KeepUnfinishedDays, business.KeepClientsMonths)
        );
    }

    private static Ok<ChoicesView> Choices() => TypedResults.Ok(new ChoicesView(Locales.Zones, Locales.Countries, Locales.Currencies));
}
