using Microsoft.EntityFrameworkCore;
using NodaTime.Text;
using PorchLight.Core.Common;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;
using PorchLight.Server.Forms;

namespace PorchLight.Server.Inquiries;

/// <summary>A filling-in that is kept to be finished later.</summary>
/// <param name="Token">What the link names it by.</param>
/// <param name="Until">Until when it is kept, in words.</param>
/// <param name="Answers">As they were left, by question key.</param>
internal sealed record KeptView(
    string Token, string Until, int Version, string Page, Guid SendKey, int Revision, IReadOnlyDictionary<string, PorchLight.Core.Forms.Answer?> Answers);

/// <summary>Keeps filling-ins to be finished later, and lets them go in time.</summary>
internal sealed class KeptDesk(PorchDb db, FileRoom room, Tokens tokens, TimeProvider time)
{
    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("d MMMM uuuu");

    /// <summary>The filling-in a link names, or a sentence for people about what became of it.</summary>
    public async Task<(KeptFilling? Filling, string? Lost)> FindAsync(Form form, string? token, CancellationToken stop)
    {
        if (string.IsNullOrEmpty(token))
            return (null, null);
        var hash = Tokens.Hash(token);
        return await db.KeptFillings.SingleOrDefaultAsync(kept => kept.LinkHash == hash && kept.FormId == form.Id, stop) switch
        {
            null => (null, "We cannot find the answers this link was made for. Perhaps it was cut short. You can begin anew below."),
            { Ended: KeptEnd.Sent } => (null, "The answers behind this link have been sent already. Thank you! Below is an empty form, should there be more."),
            { Ended: KeptEnd.RanOut } kept => (null, RanOut(kept)),
            var kept when kept.GoodUntil < time.Now() => (null, RanOut(kept)),
            var kept => (kept, null),
        };

        static string RanOut(KeptFilling kept) =>
            $"This link was good until {Day.Format(kept.GoodUntil.InUtc().Date)}; the answers behind it are deleted, as we said. You can begin anew below.";
    }

    public KeptView View(KeptFilling kept, Business business) => new(
        tokens.Open(kept.LinkSealed), Until(kept, business), kept.FormVersion, kept.Page, kept.SendKey, kept.Revision, kept.Answers!.ByQuestion);

    public static string Until(KeptFilling kept, Business business) => Day.Format(kept.GoodUntil.InZone(business.DateTimeZone).Date);

    /// <summary>It has been sent: only the mark stays. Part of the caller's transaction.</summary>
    public async Task SentAsync(Id<Form> form, Guid sendKey, CancellationToken stop)
    {
        if (await db.KeptFillings.SingleOrDefaultAsync(kept => kept.FormId == form && kept.SendKey == sendKey, stop) is { } kept)
            End(kept, KeptEnd.Sent);
    }

    /// <summary>Lets go of what nobody came back to, with its files, and of marks nobody needs any more.</summary>
    public async Task SweepAsync(CancellationToken stop)
    {
        var now = time.Now();
        await using (var transaction = await db.BeginWriteAsync(stop))
        {
            foreach (var kept in await db.KeptFillings.Where(kept => kept.Ended == null && kept.GoodUntil < now).ToListAsync(stop))
            {
                End(kept, KeptEnd.RanOut);
                await db.StoredFiles.Where(file => file.Filling == kept.SendKey && file.FormId == kept.FormId && file.SubmissionId == null).ExecuteDeleteAsync(stop);
            }

            var forgotten = now - KeptFilling.MarkLifetime;
            await db.KeptFillings.Where(kept => kept.Ended != null && kept.GoodUntil < forgotten).ExecuteDeleteAsync(stop);
            await db.SaveChangesAsync(stop);
            await transaction.CommitAsync(stop);
        }

        await room.SweepAsync(db, stop);
    }

    private static void End(KeptFilling kept, KeptEnd how) => (kept.Ended, kept.Answers, kept.MailedTo) = (how, null, null);
}
