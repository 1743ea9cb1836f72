using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>What was written to a client, by them, and about them to the team.</summary>
internal sealed class ClientMessages(PorchDb db) : IClientPart
{
    public IEnumerable<ClientRows> RowsOf(WholePerson person)
    {
        var (records, emails) = (person.Records, person.Emails);
        // Before the mail to them: which mail to the team is theirs is told by it.
        yield return new ClientRows<PracticeMessage>(cancellationToken => PracticeToTeamAsync(person, cancellationToken))
        {
            WhenMerged = WhenMerged.GoesOver,
            Saved = null,
        };
        yield return new ClientRows<OutgoingMail>(cancellationToken => ToTeamAsync(person, cancellationToken))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One mail to your team that speaks of them", "{0} mails to your team that speak of them"),
            Saved = one => new
            {
                one.To,
                one.Subject,
                one.Text,
                At = one.Written,
            },
        };
        yield return new ClientRows<OutgoingMail>(
            db.OutgoingMail.Where(mail =>
                mail.ClientId != null && records.Contains(mail.ClientId.Value) || emails.Contains(EF.Functions.Collate(mail.To, "NOCASE"))
            )
        )
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One message to them, sent or waiting", "{0} messages to them, sent or waiting"),
            Saved = one => new
            {
                one.To,
                one.Subject,
                one.Text,
                At = one.Written,
                one.State,
            },
        };
        yield return new ClientRows<IncomingMessage>(
            db.IncomingMail.Where(mail => records.Contains(mail.ClientId) || emails.Contains(EF.Functions.Collate(mail.From, "NOCASE")))
        )
        {
            WhenMerged = WhenMerged.GoesOver,
            ReachFurther = true,
            Goes = ("One message from them", "{0} messages from them"),
            Saved = one => new
            {
                one.From,
                one.Subject,
                one.Text,
                one.At,
            },
        };
        yield return new ClientRows<PracticeMessage>(
            db.PracticeMail.Where(mail =>
                mail.ClientId != null && records.Contains(mail.ClientId.Value)
                || emails.Contains(EF.Functions.Collate(mail.To, "NOCASE"))
                || emails.Contains(EF.Functions.Collate(mail.From, "NOCASE"))
            )
        )
        {
            WhenMerged = WhenMerged.GoesOver,
            Saved = null,
        };
        yield return new ClientRows<ShortMessage>(db.ShortMessages.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Saved = one => new
            {
                one.Phone,
                one.Text,
                one.At,
            },
        };
        yield return new ClientRows<TeamChatPost>(db.TeamChat.Where(one => one.ClientId != null && records.Contains(one.ClientId.Value)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Saved = one => new { one.Text, one.At },
        };
        yield return new ClientRows<UnsubscribeLink>(db.UnsubscribeLinks.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.Stays,
            Saved = null,
        };
    }

    /// <summary>Mail to those who work here, and to helpers outside, that names them or is about their work.</summary>
    private async Task<IQueryable<OutgoingMail>> ToTeamAsync(WholePerson person, CancellationToken cancellationToken)
    {
        var mail = await db
            .OutgoingMail.AsNoTracking()
            .Where(one => one.ClientId == null)
            .Select(one => new
            {
                one.Id,
                one.EffectKey,
                one.Subject,
                one.Text,
            })
            .ToListAsync(cancellationToken);
        var theirs = mail.Where(one => person.IsNamedIn(one.Subject, one.Text) || one.EffectKey.Split(' ').Any(person.Work.Contains))
            .Select(one => one.Id)
            .ToList();
        return db.OutgoingMail.Where(one => theirs.Contains(one.Id));
    }

    private async Task<IQueryable<PracticeMessage>> PracticeToTeamAsync(WholePerson person, CancellationToken cancellationToken)
    {
        var names = (
            await (await ToTeamAsync(person, cancellationToken)).Select(one => one.MessageId).ToListAsync(cancellationToken)
        ).ToHashSet();
        var theirs = (
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
        ).Where(one => names.Contains(one.MessageId) || person.IsNamedIn(one.Subject, one.Text)).Select(one => one.Id).ToList();
        return db.PracticeMail.Where(one => theirs.Contains(one.Id));
    }
}
