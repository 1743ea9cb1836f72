using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>What speaks of a person beside their own records, and would be left of them otherwise.</summary>
/// <param name="TeamMail">Mail to those who work here, and to helpers outside, that names them or is about their work.</param>
/// <param name="Practice">The same in the practice mailbox.</param>
/// <param name="Drafts">Forms they left half-finished, under another key or address.</param>
/// <param name="Uploads">What they uploaded to those and never sent.</param>
/// <param name="ImportFiles">Files of people that were only looked at and hold them.</param>
internal sealed record ErasedTraces(
    IReadOnlyList<Id<OutgoingMail>> TeamMail,
    IReadOnlyList<Id<PracticeMessage>> Practice,
    IReadOnlyList<Id<SavedDraft>> Drafts,
    IReadOnlyList<StoredFile> Uploads,
    IReadOnlyList<Id<ClientImport>> ImportFiles
)
{
    private IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>Looks for them, and changes nothing.</summary>
    public static async Task<ErasedTraces> LookAsync(
        PorchDb db,
        IReadOnlyList<Id<Client>> records,
        IReadOnlyList<string> emails,
        CancellationToken cancellationToken
    )
    {
        var words = await WordsAsync(db, records, emails, cancellationToken);
        var work = (
            await db
                .Inquiries.Where(one => records.Contains(one.ClientId))
                .Select(one => new { Inquiry = one.Id, Project = one.ProjectId })
                .ToListAsync(cancellationToken)
        )
            .SelectMany(one => new[] { one.Inquiry.ToString(), one.Project.ToString() })
            .Concat(
                (
                    await db
                        .Runs.Where(run => run.ClientId != null && records.Contains(run.ClientId.Value))
                        .Select(run => run.Id)
                        .ToListAsync(cancellationToken)
                ).Select(run => run.ToString())
            )
            .ToHashSet();
        var mail = await db
            .OutgoingMail.AsNoTracking()
            .Where(one => one.ClientId == null)
            .Select(one => new
            {
                one.Id,
                one.EffectKey,
                one.MessageId,
                one.Subject,
                one.Text,
            })
            .ToListAsync(cancellationToken);
        var theirs = mail.Where(one => Names(words, one.Subject, one.Text) || one.EffectKey.Split(' ').Any(work.Contains)).ToList();
        var names = theirs.Select(one => one.MessageId).ToHashSet();
        var practice = (
            await db
                .PracticeMail.AsNoTracking()
                .Where(one => one.ClientId == null)
                .Select(one => new
                {
                    one.Id,
                    one.MessageId,
                    one.Subject,
                    one.Text,
                })
                .ToListAsync(cancellationToken)
        ).Where(one => names.Contains(one.MessageId) || Names(words, one.Subject, one.Text));
        var drafts = (await db.SavedDrafts.AsNoTracking().Where(draft => draft.Ended == null).ToListAsync(cancellationToken))
            .Where(draft => draft.Answers is { } left && left.ByQuestion.Values.Any(answer => IsTheirs(answer, emails)))
            .ToList();
        var keys = drafts.Select(draft => (Guid?)draft.SendKey).ToList();
        return new ErasedTraces(
            [.. theirs.Select(one => one.Id)],
            [.. practice.Select(one => one.Id)],
            [.. drafts.Select(draft => draft.Id)],
            await db
                .StoredFiles.AsNoTracking()
                .Where(file => file.SubmissionId == null && keys.Contains(file.SendKey))
                .ToListAsync(cancellationToken),
            [
                .. (
                    await db
                        .ClientImportFiles.AsNoTracking()
                        .Where(file => db.ClientImports.Any(import => import.Id == file.ImportId && import.State == ImportState.Looked))
                        .ToListAsync(cancellationToken)
                )
                    .Where(file => PeopleFile.Unpack(file.Table).Rows.Any(row => Names(words, [.. row])))
                    .Select(file => file.ImportId),
            ]
        )
        {
            Words = words,
        };
    }

    /// <summary>Takes them away, as part of the caller's write.</summary>
    public async Task EraseAsync(PorchDb db, Tokens tokens, CancellationToken cancellationToken)
    {
        await db.OutgoingMail.Where(mail => TeamMail.Contains(mail.Id)).ExecuteDeleteAsync(cancellationToken);
        await db.PracticeMail.Where(mail => Practice.Contains(mail.Id)).ExecuteDeleteAsync(cancellationToken);
        await db.SavedDrafts.Where(draft => Drafts.Contains(draft.Id)).ExecuteDeleteAsync(cancellationToken);
        var uploads = Uploads.Select(file => file.Id).ToList();
        await db.StoredFiles.Where(file => uploads.Contains(file.Id)).ExecuteDeleteAsync(cancellationToken);
        await db.ClientImportFiles.Where(file => ImportFiles.Contains(file.ImportId)).ExecuteDeleteAsync(cancellationToken);
        await db
            .ClientImports.Where(import => ImportFiles.Contains(import.Id) && import.State == ImportState.Looked)
            .ExecuteDeleteAsync(cancellationToken);
        foreach (var import in await db.ClientImports.ToListAsync(cancellationToken))
        {
            if (Words.SelectMany(word => word.Split(' ')).Any(part => part.Length > 3 && Names([part], import.FileName)))
                import.FileName = $"people{Path.GetExtension(import.FileName)}";
        }

        // An answer that is shown again to the same press says what was made of whom.
        foreach (var done in await db.CompletedRequests.Where(one => one.Answer != null).ToListAsync(cancellationToken))
        {
            if (Names(Words, tokens.Open(done.Answer!)))
                done.Answer = null;
        }

        foreach (var view in await db.InquiryListViews.ToListAsync(cancellationToken))
        {
            if (Says(view.Query.Words))
                view.Query = view.Query with { Words = "" };
        }

        foreach (var view in await db.SavedViews.ToListAsync(cancellationToken))
        {
            if (Says(view.Query.Words))
                view.Query = view.Query with { Words = "" };
        }

        await db.CurrentWrite!.FlushAsync(cancellationToken);
    }

    private bool Says(string typed) =>
        typed.Length > 3 && Words.Any(word => word.Contains(typed.Trim(), StringComparison.OrdinalIgnoreCase) || Names([word], typed));

    /// <summary>What they are told by: their full names, addresses and phone numbers, as they ever stood in the records.</summary>
    private static async Task<IReadOnlyList<string>> WordsAsync(
        PorchDb db,
        IReadOnlyList<Id<Client>> records,
        IReadOnlyList<string> emails,
        CancellationToken cancellationToken
    )
    {
        string[] fields = [BuiltInFields.Name.Key, BuiltInFields.Phone.Key];
        var values = await db
            .FieldValues.AsNoTracking()
            .Where(value => records.Contains(value.ClientId) && fields.Contains(value.Field))
            .ToListAsync(cancellationToken);
        var names = await db
            .Clients.IgnoreQueryFilters()
            .Where(client => records.Contains(client.Id))
            .Select(client => client.Name)
            .ToListAsync(cancellationToken);
        return
        [
            .. values
                .Select(value => value.Value)
                .OfType<Answer>()
                .Select(value => Core.Forms.AnswerWords.Say(value))
                .Concat(names)
                .Concat(emails)
                .Concat(records.Select(record => record.ToString()))
                .Where(word => word.Length > 3 && word != Contact.NoName)
                .Distinct(StringComparer.OrdinalIgnoreCase),
        ];
    }

    private static bool Names(IReadOnlyList<string> words, params IReadOnlyList<string> texts) =>
        texts.Any(text => words.Any(word => text.Contains(word, StringComparison.OrdinalIgnoreCase)));

    private static bool IsTheirs(Answer? answer, IReadOnlyList<string> emails) =>
        answer is TextAnswer { Text: var text } && emails.Contains(EmailAddress.Key(text));
}
