using System.Security.Claims;
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

/// <summary>New forms from the ready ones, with their screening and what follows an inquiry.</summary>
internal static class ReadyFormEndpoints
{
    /// <param name="Title">The title of a new form.</param>
    /// <param name="StartingPrice">Where the work starts in price, in the business's currency.</param>
    internal sealed record NewForm(string Title, decimal StartingPrice);

    internal sealed record NewFormView(Id<Form> Id);

    public static void MapReadyForms(this IEndpointRouteBuilder api) =>
        api.MapPost("/forms", MakeAsync).For(Access.Member).WithTags("Forms").Once();

    /// <summary>A new form from the ready one, with its light off until the owner has read it.</summary>
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
        if (ReadyForms.Check(title, asked.StartingPrice) is { Count: > 0 } findings)
            return Problems.Unfinished(findings);
        await using var write = await db.WriteAsync(cancellationToken);
        var ready = ReadyForms.Inquiry(title, asked.StartingPrice, (await db.Businesses.SingleAsync(cancellationToken)).Currency);
        var form = db.AddForm(
            tokens,
            ready.Content,
            "We take no inquiries just now. Please look in again soon.",
            clock.GetCurrentInstant()
        );
        form.Settings = new FormSettings { Told = [(await users.GetUserAsync(who))!.Id] };
        db.AddScreening(form, ready.Screening);
        db.AddFollowThroughs(ready.FollowThroughs(form.Id.Value));
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new NewFormView(form.Id));
    }
}
