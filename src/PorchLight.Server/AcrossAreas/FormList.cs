using System.Globalization;
using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Lists;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <param name="Service">The name of the service it asks about; null for none in particular.</param>
/// <param name="Shines">Whether it takes answers.</param>
/// <param name="Answers">How many were sent.</param>
/// <param name="LastAnswer">When the last one came, in words; null when there is none.</param>
/// <param name="LastAnswerAt">The same to sort by.</param>
/// <param name="Archived">Whether it is put away.</param>
internal sealed record FormRow(
    Id<Form> Id,
    string Title,
    string? Service,
    bool Shines,
    int Version,
    bool UnpublishedChanges,
    int Answers,
    string? LastAnswer,
    string? LastAnswerExactly,
    Instant? LastAnswerAt,
    int Questions,
    bool Archived
);

/// <summary>The forms as a list one works in. They are few, so they are read whole.</summary>
internal sealed class FormList(PorchDb db, FormAccess access, BusinessClock clock) : ListOf<FormRow, Id<Form>, FormQuery, FormRow>
{
    private List<FormRow>? _all;

    public override string Name => "forms";

    protected override Expression<Func<FormRow, Id<Form>>> Identifier => row => row.Id;

    public override IReadOnlyList<ListFilter<FormRow, FormQuery>> Filters =>
        [
            Several("services", "Any service", query => query.Services, row => row.Service, ServicesAsync),
            new("archived", "those put away", (rows, query) => rows.Where(row => row.Archived == query.Archived))
            {
                Kind = FilterKind.Switch,
            },
        ];

    public override IReadOnlyList<ListOrder<FormRow>> Orders =>
        [
            InOrder("made", "Sort by when they were made", false),
            InOrder("title", "title", false, By(row => new NaturalText(row.Title))),
            InOrder("answers", "number of answers", true, By(row => row.Answers)),
            InOrder("lastAnswer", "last answer", true, By(row => row.LastAnswerAt)),
            InOrder("service", "service", false, By(row => new NaturalText(row.Service ?? "\uffff"))),
        ];

    protected override IReadOnlyList<ListColumn<FormRow>> Columns =>
        [
            new("Title", row => row.Title),
            new("Service", row => row.Service),
            new("Light", row => row.Shines ? "on" : "off"),
            new("Answers", row => row.Answers.ToString(CultureInfo.InvariantCulture)),
            new("Last answer", row => row.LastAnswer),
            new("Version", row => row.Version.ToString(CultureInfo.InvariantCulture)),
            new("Changed since", row => row.UnpublishedChanges ? "yes" : "no"),
            new("Questions", row => row.Questions.ToString(CultureInfo.InvariantCulture)),
        ];

    protected override string OrderOf(FormQuery query) => Json.NameOf(query.Order);

    protected override async Task<IQueryable<FormRow>> AllAsync(FormQuery query, CancellationToken cancellationToken)
    {
        var words = query.Words.Trim();
        return (await ReadAsync(cancellationToken))
            .Where(row => $"{row.Title} {row.Service}".Contains(words, StringComparison.OrdinalIgnoreCase))
            .AsQueryable();
    }

    protected override async Task<IReadOnlyList<FormRow>> RowsAsync(
        IReadOnlyList<Id<Form>> ids,
        FormQuery query,
        CancellationToken cancellationToken
    )
    {
        var rows = (await ReadAsync(cancellationToken)).ToDictionary(row => row.Id);
        return [.. ids.Select(id => rows[id])];
    }

    /// <summary>All forms, the oldest first.</summary>
    public async Task<List<FormRow>> ReadAsync(CancellationToken cancellationToken)
    {
        if (_all is not null)
            return _all;
        var sent = await db
            .CountingSubmissions.GroupBy(one => one.FormId)
            .Select(group => new
            {
                group.Key,
                Count = group.Count(),
                Last = group.Max(one => one.At),
            })
            .ToDictionaryAsync(group => group.Key, cancellationToken);
        var business = await db.BusinessAsync();
        var services = business.Lists.Services.ToDictionary(service => service.Key, service => service.Name);
        var now = clock.GetCurrentInstant();
        var rows = new List<FormRow>();
        foreach (var form in (await db.Forms.AsNoTracking().ToListAsync(cancellationToken)).OrderBy(form => form.Id.Value))
        {
            var answers = sent.GetValueOrDefault(form.Id);
            rows.Add(
                new FormRow(
                    form.Id,
                    form.Draft.Title,
                    form.Service is { } key ? services.GetValueOrDefault(key) : null,
                    await access.LightAsync(form, business) == LightState.On,
                    form.PublishedVersion,
                    form.DraftRevision != form.PublishedRevision,
                    answers?.Count ?? 0,
                    answers is null ? null : TimeWords.InList(answers.Last, now, business.DateTimeZone),
                    answers is null ? null : TimeWords.Exactly(answers.Last, business.DateTimeZone),
                    answers?.Last,
                    form.Draft.Questions.Count(),
                    form.Archived is not null
                )
            );
        }

        return _all = rows;
    }

    private async Task<IReadOnlyList<FilterChoice>> ServicesAsync(CancellationToken cancellationToken) =>
        Named((await ReadAsync(cancellationToken)).Select(row => row.Service));
}
