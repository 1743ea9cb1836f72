using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>A filling-in that is kept to be finished later.</summary>
/// <param name="Token">What the link names it by.</param>
/// <param name="Until">Until when it is kept, in words.</param>
/// <param name="Answers">As they were left, by question key.</param>
internal sealed record UnfinishedFormView(
    string Token,
    string Until,
    int Version,
    string Page,
    Guid SendKey,
    int Revision,
    IReadOnlyDictionary<string, Answer?> Answers
);

/// <summary>Keeps filling-ins to be finished later, and lets them go in time.</summary>
internal sealed class UnfinishedForms(PorchDb db, Tokens tokens, TimeProvider time, IServiceProvider services)
{
    /// <summary>The filling-in a link names, or a sentence for people about what became of it.</summary>
    public async Task<(UnfinishedForm? Filling, string? Lost)> FindAsync(Form form, string? token, CancellationToken cancellationToken)
    {
        if (string.IsNullOrEmpty(token))
            return (null, null);
        var hash = Tokens.Hash(token);
        return await db.UnfinishedForms.SingleOrDefaultAsync(
            unfinished => unfinished.LinkHash == hash && unfinished.FormId == form.Id,
            cancellationToken
        ) switch
        {
            null => (null, "We cannot find the answers this link was made for. Perhaps it was cut short. You can begin anew below."),
            { Ended: UnfinishedFormEnd.Sent } => (
                null,
                "The answers behind this link have been sent already. Thank you! Below is an empty form, should there be more."
            ),
            { Ended: UnfinishedFormEnd.RanOut } unfinished => (null, RanOut(unfinished)),
            var unfinished when Retention.HasRunOut(unfinished.GoodUntil, time.Now()) => (null, RanOut(unfinished)),
            var unfinished => (unfinished, null),
        };

        static string RanOut(UnfinishedForm unfinished) =>
            $"This link was good until {DateWords.Say(unfinished.GoodUntil.InUtc().Date)}; the answers behind it are deleted, as we said. You can begin anew below.";
    }

    public UnfinishedFormView View(UnfinishedForm unfinished, Business business) =>
        new(
            tokens.Open(unfinished.LinkSealed),
            Until(unfinished, business),
            unfinished.FormVersion,
            unfinished.Page,
            unfinished.SendKey,
            unfinished.Revision,
            unfinished.Answers!.ByQuestion
        );

    public static string Until(UnfinishedForm unfinished, Business business) =>
        DateWords.Say(unfinished.GoodUntil.InZone(business.DateTimeZone).Date);

    /// <summary>It has been sent: only the mark stays. Part of the caller's transaction.</summary>
    public async Task SentAsync(Id<Form> form, Guid sendKey)
    {
        if (await CompiledQueries.UnfinishedFormByKey(db, form, sendKey) is { } unfinished)
            await EndAsync(unfinished, UnfinishedFormEnd.Sent);
    }

    /// <summary>Lets go of what nobody came back to, with its files, and of marks nobody needs any more.</summary>
    public async Task SweepAsync(CancellationToken cancellationToken)
    {
        var now = time.Now();
        await using var write = await db.WriteAsync(cancellationToken);
        foreach (
            var unfinished in await db
                .UnfinishedForms.Where(unfinished => unfinished.Ended == null && unfinished.GoodUntil < now)
                .ToListAsync(cancellationToken)
        )
        {
            await EndAsync(unfinished, UnfinishedFormEnd.RanOut);
            await db.TeamChat.Where(post => post.UnfinishedFormId == unfinished.Id).ExecuteDeleteAsync(cancellationToken);
            await db
                .StoredFiles.Where(file =>
                    file.SendKey == unfinished.SendKey && file.FormId == unfinished.FormId && file.SubmissionId == null
                )
                .ExecuteDeleteAsync(cancellationToken);
        }

        var forgotten = now - Retention.EndOfUnfinished;
        await db
            .UnfinishedForms.Where(unfinished => unfinished.Ended != null && unfinished.GoodUntil < forgotten)
            .ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
    }

    /// <summary>Whoever left it went on with it: what was to follow does not. Part of the caller's transaction.</summary>
    public async Task WentOnAsync(UnfinishedForm unfinished)
    {
        // Asked for late: what reacts reads forms that were left, too.
        foreach (var reaction in services.GetServices<IUnfinishedFormReaction>())
            await reaction.WentOnAsync(unfinished);
    }

    private async Task EndAsync(UnfinishedForm unfinished, UnfinishedFormEnd how)
    {
        await WentOnAsync(unfinished);
        (unfinished.Ended, unfinished.Answers, unfinished.MailedTo) = (how, null, null);
    }
}
