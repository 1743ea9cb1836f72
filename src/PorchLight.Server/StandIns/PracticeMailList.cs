using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Lists;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.StandIns;

/// <summary>Which practice mail is shown, the newest first or the oldest. It is searched in addresses, subjects and texts.</summary>
internal sealed record PracticeMailQuery : ListQuery
{
    /// <summary>Whether only what came back is shown.</summary>
    public bool Incoming { get; init; }
}

internal sealed record MailRow(Id<PracticeMessage> Id, bool Incoming, string Who, string Subject, string At, string Exactly);

/// <summary>The practice mail as a list.</summary>
internal sealed class PracticeMailList(PorchDb db, BusinessClock clock)
    : ListOf<PracticeMessage, Id<PracticeMessage>, PracticeMailQuery, MailRow>
{
    public override string Name => "practice-mail";

    protected override Expression<Func<PracticeMessage, Id<PracticeMessage>>> Identifier => message => message.Id;

    public override IReadOnlyList<ListFilter<PracticeMessage, PracticeMailQuery>> Filters =>
        [Switch("incoming", "what came back", query => query.Incoming, message => message.Incoming)];

    public override IReadOnlyList<ListOrder<PracticeMessage>> Orders => [InOrder("at", "Sort by time", true, By(message => message.At))];

    protected override IReadOnlyList<ListColumn<MailRow>> Columns =>
        [
            new("Way", row => row.Incoming ? "from" : "to"),
            new("Who", row => row.Who),
            new("Subject", row => row.Subject),
            new("When", row => row.At),
        ];

    protected override string OrderOf(PracticeMailQuery query) => "at";

    protected override Task<IQueryable<PracticeMessage>> AllAsync(PracticeMailQuery query, CancellationToken cancellationToken)
    {
        var all = db.PracticeMail.AsNoTracking();
        if (query.Words.Trim() is { Length: > 0 } typed)
        {
            var words = LikePattern.Within(typed);
            all = all.Where(message =>
                EF.Functions.Like(message.From, words, LikePattern.Escape)
                || EF.Functions.Like(message.To, words, LikePattern.Escape)
                || EF.Functions.Like(message.Subject, words, LikePattern.Escape)
                || EF.Functions.Like(message.Text, words, LikePattern.Escape)
            );
        }

        return Task.FromResult(all);
    }

    protected override async Task<IReadOnlyList<MailRow>> RowsAsync(
        IReadOnlyList<Id<PracticeMessage>> ids,
        PracticeMailQuery query,
        CancellationToken cancellationToken
    )
    {
        var (now, zone) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone);
        var mail = await db
            .PracticeMail.AsNoTracking()
            .Where(message => ids.Contains(message.Id))
            .ToDictionaryAsync(message => message.Id, cancellationToken);
        return
        [
            .. ids.Where(mail.ContainsKey)
                .Select(id => mail[id])
                .Select(message => new MailRow(
                    message.Id,
                    message.Incoming,
                    message.Incoming ? message.From : message.To,
                    message.Subject,
                    TimeWords.InList(message.At, now, zone),
                    TimeWords.Exactly(message.At, zone)
                )),
        ];
    }
}
