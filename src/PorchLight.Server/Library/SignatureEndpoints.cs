using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Library;

/// <summary>What stands below messages: the business's, and each person's own.</summary>
internal static class SignatureEndpoints
{
    private const int Longest = 2_000;

    /// <param name="Text">May be formatted; empty for none of one's own.</param>
    internal sealed record Signature(string Text)
    {
        public IReadOnlyList<Finding> Check() =>
            Text.Length <= Longest ? [] : [new Finding("text", $"A signature has at most {Longest:N0} characters.")];
    }

    /// <param name="Used">What stands below a message of the business as things are.</param>
    internal sealed record SignaturesView(Signature Business, Signature Mine, string Used);

    public static void MapSignatures(this IEndpointRouteBuilder api)
    {
        api.MapGet("/library/signatures", ShowAsync).For(Access.Member).WithTags("Library");
        api.MapPut("/library/signatures/business", ChangeBusinessAsync).For(Access.Owner).WithTags("Library");
        api.MapPut("/library/signatures/mine", ChangeMineAsync).For(Access.Member).WithTags("Library");
    }

    private static async Task<SignaturesView> ShowAsync(PorchDb db, ClaimsPrincipal who, CancellationToken cancellationToken) =>
        new(
            new Signature((await db.BusinessAsync()).Signature),
            new Signature((await db.Users.AsNoTracking().SingleAsync(user => user.Id == who.UserId(), cancellationToken)).Signature),
            (await db.SignaturesAsync()).Shared
        );

    private static async Task<Results<Ok<Signature>, ProblemHttpResult>> ChangeBusinessAsync(
        Edit<Signature> edit,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var (merged, refusal) = edit.Onto(new Signature(business.Signature));
        if (refusal is not null)
            return refusal;
        if (merged.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        business.Signature = merged.Text.Trim();
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new Signature(business.Signature));
    }

    private static async Task<Results<Ok<Signature>, ProblemHttpResult>> ChangeMineAsync(
        Edit<Signature> edit,
        PorchDb db,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var user = await db.Users.SingleAsync(one => one.Id == who.UserId(), cancellationToken);
        var (merged, refusal) = edit.Onto(new Signature(user.Signature));
        if (refusal is not null)
            return refusal;
        if (merged.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        user.Signature = merged.Text.Trim();
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new Signature(user.Signature));
    }
}
