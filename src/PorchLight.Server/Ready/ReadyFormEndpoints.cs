using System.Security.Claims;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Ready;
using PorchLight.Server.Calendar;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Ready;

/// <summary>New forms: from a blank page, from a ready one, as a copy, or from a file. Their light is off at first.</summary>
internal static partial class ReadyFormEndpoints
{
    private const string AwayNote = "We take no inquiries just now. Please look in again soon.";
    private static readonly JsonSerializerOptions Readable = new(Json.Options) { WriteIndented = true };

    private const int LargestFile = 5 * 1024 * 1024;

    /// <param name="Title">The title of a new form.</param>
    /// <param name="StartingPrice">Where the work starts in price, in the business's currency; a blank page asks for none.</param>
    /// <param name="Ready">The key of the ready form it begins as; null for a blank page.</param>
    internal sealed record NewForm(string Title, decimal? StartingPrice, string? Ready);

    internal sealed record NewFormView(Id<Form> Id);

    /// <param name="Key">The key of a ready form.</param>
    /// <param name="Name">What it is for: "Photography".</param>
    /// <param name="About">What it asks and how it sorts, in a sentence.</param>
    /// <param name="Title">A title to begin with.</param>
    /// <param name="Questions">How many questions it asks.</param>
    internal sealed record ReadyFormView(string Key, string Name, string About, string Title, int Questions);

    public static void MapReadyForms(this IEndpointRouteBuilder api)
    {
        var forms = api.MapGroup("/forms").For(Access.Member).WithTags("Forms");
        forms.MapGet(
            "/ready",
            async (PorchDb db) =>
            {
                var currency = (await db.BusinessAsync()).Currency;
                return TypedResults.Ok(
                    ReadyForms
                        .All.Select(ready => new ReadyFormView(
                            ready.Key,
                            ready.Name,
                            ready.About,
                            ready.Title,
                            ready.Make(new ReadyFormRequest(ready.Title, 1000, currency)).Content.Questions.Count()
                        ))
                        .ToList()
                );
            }
        );
        forms.MapPost("", MakeAsync).Once();
        forms.MapPost("/{id}/copies", CopyAsync).Once();
        forms.MapPost("/imported", ImportAsync).Accepts<FormContent>("application/json").Once();
        forms.MapGet("/{id}/form.json", ExportAsync).ExcludeFromDescription();
    }

    private static async Task<Results<Ok<NewFormView>, ProblemHttpResult>> MakeAsync(
        NewForm asked,
        PorchDb db,
        Tokens tokens,
        BusinessClock clock,
        UserManager<User> users,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var title = asked.Title.Trim();
        var findings = asked.Ready is null ? ReadyForms.CheckTitle(title) : ReadyForms.Check(title, asked.StartingPrice ?? 0);
        if (findings.Count > 0)
            return Problems.Invalid(findings);
        if (ReadyForms.Find(asked.Ready) is not { } offered)
            return Problems.Unprocessable("This ready form is not offered any more. Please choose another.");
        await using var write = await db.WriteAsync(cancellationToken);
        var ready = offered.Make(new ReadyFormRequest(title, asked.StartingPrice ?? 0, (await db.BusinessAsync()).Currency));
        var form = await AddAsync(db, tokens, clock, users, who, ready.Content);
        db.AddScreening(form, ready.Screening);
        db.AddFollowThroughs(ready.FollowThroughs(form.Id.Value));
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new NewFormView(form.Id));
    }

    /// <summary>A form like one that is there: what it asks, its screening, settings and service, and what follows an inquiry.</summary>
    private static async Task<Results<Ok<NewFormView>, ProblemHttpResult>> CopyAsync(
        Id<Form> id,
        PorchDb db,
        Tokens tokens,
        BusinessClock clock,
        UserManager<User> users,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } original)
            return Problems.NotFound(ContentEndpoints.Gone);
        var taken = (await db.Forms.Select(one => one.Draft).ToListAsync(cancellationToken)).ConvertAll(draft => draft.Title);
        var copy = await AddAsync(
            db,
            tokens,
            clock,
            users,
            who,
            original.Draft with
            {
                Title = ReadyForms.CopyTitle(original.Draft.Title, taken),
            }
        );
        (copy.Settings, copy.Service, copy.AwayNote) = (original.Settings, original.Service, original.AwayNote);
        if (original.ScreeningVersion > 0)
            db.AddScreening(copy, await db.ScreeningRulesAsync(id, original.ScreeningVersion));
        await db.CopyFollowThroughsAsync(id, original.Draft.Title, copy.Id, copy.Draft.Title);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new NewFormView(copy.Id));
    }

    /// <summary>A form from a file by the published schema. One that does not fit is refused with the place and the reason.</summary>
    private static async Task<Results<Ok<NewFormView>, ProblemHttpResult>> ImportAsync(
        HttpRequest request,
        PorchDb db,
        Tokens tokens,
        BusinessClock clock,
        UserManager<User> users,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        request.HttpContext.AllowBody(LargestFile);
        FormContent? content;
        try
        {
            content = await JsonSerializer.DeserializeAsync<FormContent>(request.Body, Json.Options, cancellationToken);
        }
        catch (Exception unfit) when (unfit is JsonException or NotSupportedException)
        {
            return Problems.Unprocessable(Reason(unfit));
        }

        if (content is null)
            return Problems.Unprocessable("This file holds nothing. Please choose a form that was saved as a file.");
        if (FormBounds.Check(content).ToList() is { Count: > 0 } findings)
            return Problems.Unprocessable("This form cannot be taken in as it is.", findings);
        await using var write = await db.WriteAsync(cancellationToken);
        var form = await AddAsync(db, tokens, clock, users, who, content);
        db.AddScreening(form, ReadyForms.NoScreening);
        db.AddFollowThroughs([ReadyForms.Thanks(form.Id.Value, content.Title)]);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new NewFormView(form.Id));
    }

    private static async Task<IResult> ExportAsync(Id<Form> id, PorchDb db, CancellationToken cancellationToken) =>
        await db.Forms.FindAsync([id], cancellationToken) is { } form
            ? TypedResults.File(
                JsonSerializer.SerializeToUtf8Bytes(form.Draft, Readable),
                "application/json",
                $"{ItemKeys.For(form.Draft.Title, new HashSet<string>(), "form")}.json"
            )
            : Problems.NotFound(ContentEndpoints.Gone);

    private static async Task<Form> AddAsync(
        PorchDb db,
        Tokens tokens,
        BusinessClock clock,
        UserManager<User> users,
        ClaimsPrincipal who,
        FormContent content
    )
    {
        var form = db.AddForm(tokens, content, AwayNote, clock.GetCurrentInstant());
        form.Settings = new FormSettings { Notified = [(await users.GetUserAsync(who))!.Id] };
        return form;
    }

    /// <summary>What does not fit and where, in words for a person; the reader of JSON speaks of types.</summary>
    private static string Reason(Exception unfit)
    {
        var place = unfit is JsonException { Path: { Length: > 1 } path } ? path.TrimStart('$', '.') : null;
        var why =
            Missing().Match(unfit.Message) is { Success: true } missing ? $"{Quoted().Replace(missing.Groups[1].Value, "“$1”")} is missing"
            : Unknown().Match(unfit.Message) is { Success: true } unknown ? $"there is no “{unknown.Groups[1].Value}”"
            : unfit is JsonException { InnerException: JsonException } or JsonException { Path: null or "$" } ? "it is not JSON"
            : "the value is of another kind than the schema says";
        return $"This is not a form we can read: {(place is null ? why : $"at {place} {why}")}.";
    }

    [GeneratedRegex("missing required properties including: (.+?)\\.?( Path|$)")]
    private static partial Regex Missing();

    [GeneratedRegex("unrecognized type discriminator id '([^']*)'")]
    private static partial Regex Unknown();

    [GeneratedRegex("'([^']*)'")]
    private static partial Regex Quoted();
}
