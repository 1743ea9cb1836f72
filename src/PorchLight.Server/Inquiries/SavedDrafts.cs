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
internal sealed record SavedDraftView(
    string Token,
    string Until,
    int Version,
    string Page,
    Guid SendKey,
    int Revision,
    IReadOnlyDictionary<string, Answer?> Answers
);

/// <summary>Keeps filling-ins to be finished later, and lets them go in time.</summary>
internal sealed class SavedDrafts(PorchDb db, Tokens tokens, TimeProvider time, IServiceProvider services)
{
    /// <summary>The filling-in a link names, or a sentence for people about what became of it.</summary>
    public async Task<(SavedDraft? Filling, string? Lost)> FindAsync(Form form, string? token, CancellationToken cancellationToken)
    {
        if (string.IsNullOrEmpty(token))
            return (null, null);
        var hash = Tokens.Hash(token);
        return await db.SavedDrafts.SingleOrDefaultAsync(
            draft => draft.LinkHash == hash && draft.FormId == form.Id,
            cancellationToken
        ) switch
        {
            null => (null, "We cannot find the answers this link was made for. Perhaps it was cut short. You can begin anew below."),
            { Ended: SavedDraftEnd.Sent } => (
                null,
                "The answers behind this link have been sent already. Thank you! Below is an empty form, should there be more."
            ),
            { Ended: SavedDraftEnd.RanOut } draft => (null, RanOut(draft)),
            var draft when Retention.HasRunOut(draft.GoodUntil, time.Now()) => (null, RanOut(draft)),
            var draft => (draft, null),
        };

        static string RanOut(SavedDraft draft) =>
            $"This link was good until {DateWords.Say(draft.GoodUntil.InUtc().Date)}; the answers behind it are deleted, as we said. You can begin anew below.";
    }

    public SavedDraftView View(SavedDraft draft, Business business) =>
        new(
            tokens.Open(draft.LinkSealed),
            Until(draft, business),
            draft.FormVersion,
            draft.Page,
            draft.SendKey,
            draft.Revision,
            draft.Answers!.ByQuestion
        );

    public static string Until(SavedDraft draft, Business business) => DateWords.Say(draft.GoodUntil.InZone(business.DateTimeZone).Date);

    /// <summary>It has been sent: only the mark stays. Part of the caller's transaction.</summary>
    public async Task SentAsync(Id<Form> form, Guid sendKey)
    {
        if (await CompiledQueries.DraftByKey(db, form, sendKey) is { } draft)
            await EndAsync(draft, SavedDraftEnd.Sent);
    }

    /// <summary>Lets go of what nobody came back to, with its files, and of marks nobody needs any more.</summary>
    public async Task SweepAsync(CancellationToken cancellationToken)
    {
        var now = time.Now();
        await using var write = await db.WriteAsync(cancellationToken);
        foreach (
            var draft in await db.SavedDrafts.Where(draft => draft.Ended == null && draft.GoodUntil < now).ToListAsync(cancellationToken)
        )
        {
            await EndAsync(draft, SavedDraftEnd.RanOut);
            await db.TeamChat.Where(post => post.SavedDraftId == draft.Id).ExecuteDeleteAsync(cancellationToken);
            await db
                .StoredFiles.Where(file => file.SendKey == draft.SendKey && file.FormId == draft.FormId && file.SubmissionId == null)
                .ExecuteDeleteAsync(cancellationToken);
        }

        var forgotten = now - Retention.EndOfDraft;
        await db.SavedDrafts.Where(draft => draft.Ended != null && draft.GoodUntil < forgotten).ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
    }

    /// <summary>Whoever left it went on with it: what was to follow does not. Part of the caller's transaction.</summary>
    public async Task WentOnAsync(SavedDraft draft)
    {
        // Asked for late: what reacts reads forms that were left, too.
        foreach (var reaction in services.GetServices<ILeftFormReaction>())
            await reaction.WentOnAsync(draft);
    }

    private async Task EndAsync(SavedDraft draft, SavedDraftEnd how)
    {
        await WentOnAsync(draft);
        (draft.Ended, draft.Answers, draft.MailedTo) = (how, null, null);
    }
}
