using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What a client sent, uploaded and left half-finished, and the links and wishes that are theirs.</summary>
internal sealed class ClientInquiries(PorchDb db) : IClientPart
{
    public IEnumerable<ClientRows> RowsOf(WholePerson person)
    {
        var (records, submissions, emails) = (person.Records, person.Submissions, person.Emails);
        yield return new ClientRows<Inquiry>(db.Inquiries.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One inquiry with its answers", "{0} inquiries with their answers"),
            Saved = one => new
            {
                one.Id,
                one.Received,
                one.About,
                one.Fit,
                one.Score,
                one.CameFrom,
                Project = one.ProjectId,
            },
        };
        yield return new ClientRows<Submission>(db.Submissions.Where(one => submissions.Contains(one.Id)))
        {
            WhenMerged = WhenMerged.Stays,
            StayEmptied = true,
            Saved = one => new
            {
                Form = one.FormId,
                one.At,
                Answers = one.Answers.ByQuestion,
            },
        };
        yield return new ClientRows<OverruledFit>(
            db.OverruledFits.Where(one => db.Inquiries.Any(asked => asked.Id == one.InquiryId && records.Contains(asked.ClientId)))
        )
        {
            WhenMerged = WhenMerged.Stays,
            Saved = one => new
            {
                one.Fit,
                one.Reason,
                one.By,
                one.At,
            },
        };
        yield return new ClientRows<LaterVerdict>(
            db.LaterVerdicts.Where(one => db.Inquiries.Any(asked => asked.Id == one.InquiryId && records.Contains(asked.ClientId)))
        )
        {
            WhenMerged = WhenMerged.Stays,
            Saved = null,
        };
        yield return new ClientRows<DueNotification>(
            db.DueNotifications.Where(one => db.Inquiries.Any(asked => asked.Id == one.InquiryId && records.Contains(asked.ClientId)))
        )
        {
            WhenMerged = WhenMerged.Stays,
            Saved = null,
        };
        yield return new ClientRows<StoredFile>(cancellationToken => UploadsAsync(person, cancellationToken))
        {
            WhenMerged = WhenMerged.Stays,
            Goes = ("One file they never sent", "{0} files they never sent"),
            Saved = Of,
        };
        yield return new ClientRows<UnfinishedForm>(cancellationToken => LeftAsync(person, cancellationToken))
        {
            WhenMerged = WhenMerged.Stays,
            Goes = ("One form they left unfinished", "{0} forms they left unfinished"),
            Saved = one => new { one.Saved, Answers = one.Answers?.ByQuestion },
        };
        yield return new ClientRows<UnfinishedForm>(
            db.UnfinishedForms.Where(draft =>
                draft.MailedTo != null && emails.Contains(EF.Functions.Collate(draft.MailedTo, "NOCASE"))
                || db.Submissions.Any(sent => submissions.Contains(sent.Id) && sent.SendKey == draft.SendKey)
            )
        )
        {
            WhenMerged = WhenMerged.Stays,
            Saved = one => new { one.Saved, Answers = one.Answers?.ByQuestion },
        };
        yield return new ClientRows<ReopenSubscription>(db.ReopenSubscriptions.Where(wish => emails.Contains(wish.EmailKey)))
        {
            WhenMerged = WhenMerged.Stays,
            Saved = one => new { one.Email, one.At },
        };
        yield return new ClientRows<StoredFile>(SentFiles(person))
        {
            WhenMerged = WhenMerged.Stays,
            Goes = ("One file they sent", "{0} files they sent"),
            Saved = Of,
        };
        yield return new ClientRows<PersonalLink>(
            db.PersonalLinks.Where(link =>
                link.ClientId != null && records.Contains(link.ClientId.Value)
                || emails.Contains(EF.Functions.Collate(link.Email, "NOCASE"))
            )
        )
        {
            WhenMerged = WhenMerged.GoesOver,
            Saved = one => new
            {
                one.Email,
                one.GivenName,
                one.FamilyName,
                one.Made,
                one.Opened,
                one.Used,
            },
        };

        static object Of(StoredFile one) =>
            new
            {
                one.Name,
                one.Bytes,
                one.At,
            };
    }

    public async Task<IReadOnlyList<string>> FilesOfAsync(WholePerson person, CancellationToken cancellationToken) =>
        await SentFiles(person)
            .Concat(await UploadsAsync(person, cancellationToken))
            .Select(file => file.StoredAs)
            .ToListAsync(cancellationToken);

    /// <summary>What they sent stays to be counted, without an answer of theirs.</summary>
    public async Task ForgetAsync(WholePerson person, CancellationToken cancellationToken)
    {
        var submissions = person.Submissions;
        await db
            .Submissions.Where(sent => submissions.Contains(sent.Id))
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(sent => sent.Answers, new SentAnswers(new Dictionary<string, Answer>(), []))
                        .SetProperty(sent => sent.ReceiptHash, sent => "erased " + sent.ReceiptHash)
                        .SetProperty(sent => sent.ReceiptSealed, "")
                        .SetProperty(sent => sent.IsErased, true),
                cancellationToken
            );
    }

    public Task MergedAsync(ClientMerge merge, Instant now, CancellationToken cancellationToken) =>
        InquiryListColumns.MarkAsync(db, [merge.KeptId, merge.OtherId], cancellationToken);

    public Task SplitAsync(ClientMerge merge, CancellationToken cancellationToken) =>
        InquiryListColumns.MarkAsync(db, [merge.KeptId, merge.OtherId], cancellationToken);

    private IQueryable<StoredFile> SentFiles(WholePerson person)
    {
        var submissions = person.Submissions;
        return db.StoredFiles.Where(file => file.SubmissionId != null && submissions.Contains(file.SubmissionId.Value));
    }

    /// <summary>Forms they left half-finished under another key or address, told by what they answered.</summary>
    private async Task<IQueryable<UnfinishedForm>> LeftAsync(WholePerson person, CancellationToken cancellationToken)
    {
        List<Id<UnfinishedForm>> theirs =
            person.Emails.Count == 0
                ? []
                :
                [
                    .. (await db.UnfinishedForms.AsNoTracking().Where(draft => draft.Ended == null).ToListAsync(cancellationToken))
                        .Where(draft => draft.Answers is { } left && left.ByQuestion.Values.Any(IsTheirs))
                        .Select(draft => draft.Id),
                ];
        return db.UnfinishedForms.Where(draft => theirs.Contains(draft.Id));

        bool IsTheirs(Answer? answer) => answer is TextAnswer { Text: var text } && person.Emails.Contains(EmailAddress.Key(text));
    }

    /// <summary>What they uploaded to those and never sent.</summary>
    private async Task<IQueryable<StoredFile>> UploadsAsync(WholePerson person, CancellationToken cancellationToken)
    {
        var keys = await (await LeftAsync(person, cancellationToken)).Select(draft => (Guid?)draft.SendKey).ToListAsync(cancellationToken);
        return db.StoredFiles.Where(file => file.SubmissionId == null && keys.Contains(file.SendKey));
    }
}
