using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Data;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using Route = PorchLight.Core.Forms.Route;

namespace PorchLight.Server.Inquiries;

/// <summary>Gathers what the program itself knows about a filling-in: its files, the lines that were looked up, the day, the months that are full.</summary>
internal sealed class FillingDesk(PorchDb db)
{
    /// <summary>The version of a form under a number, 0 being the working copy for who may look at it; null for one there is not.</summary>
    public async Task<FormVersion?> VersionAsync(Door door, int number) => !door.Look
        ? await CompiledQueries.FormVersion(db, door.Form.Id, number)
        : number != 0 ? null : new FormVersion
        {
            FormId = door.Form.Id, Number = 0, Content = (await db.BusinessAsync()).Lists.Into(door.Form.Draft), Published = door.Form.DraftSaved, PublishedBy = "",
        };

    /// <param name="version">The version that is answered.</param>
    /// <param name="filling">The send key of the filling-in.</param>
    /// <param name="given">The answers as the browser sent them.</param>
    /// <param name="business">The business.</param>
    /// <param name="now">The instant of asking.</param>
    public async Task<Surroundings> AroundAsync(
        FormVersion version, Guid filling, IReadOnlyDictionary<string, Answer?> given, Business business, Instant now, CancellationToken stop)
    {
        var around = new Surroundings(business.Region, version.Number, now, business.Calendar.Today(now));
        var kinds = version.Content.Questions.Where(question => given.GetValueOrDefault(question.Key) is not null).ToList();
        if (kinds.Any(question => question.Kind is FilesKind))
        {
            var files = await Unsent(version, filling).ToListAsync(stop);
            around = around with { Files = files.ToDictionary(file => file.Id.Value, file => file.Ref) };
        }

        var wanted = kinds.Select(question => (Kind: question.Kind as LookUpKind, Answer: given[question.Key] as LookUpAnswer))
            .Where(pair => pair.Kind is not null && pair.Answer is not null).Select(pair => (pair.Kind!, pair.Answer!.Key)).ToList();
        return wanted.Count == 0 ? around : around with { Lines = await ListEndpoints.LinesAsync(db, wanted, stop) };
    }

    /// <summary>All that is known before anything is answered; on file, only for whom a personal link was made.</summary>
    /// <param name="content">The version.</param>
    /// <param name="door">The door they came by.</param>
    /// <param name="business">The business.</param>
    /// <param name="now">The instant of asking.</param>
    public async Task<Known> NothingAsync(FormContent content, Door door, Business business, Instant now, CancellationToken stop) =>
        Nothing(content, door.Link, business, now) with { OnFile = await OnFileAsync(door.Link, stop) };

    /// <summary>What a sender was asked and said, as their form knew it.</summary>
    public async Task<Known> SaidAsync(Submission sent, FormContent content, Business business, CancellationToken stop)
    {
        var link = sent.PersonalLinkId is { } id ? await db.PersonalLinks.FindAsync([id], stop) : null;
        return Nothing(content, link, business, sent.At) with { Answers = sent.Answers.ByQuestion.ToDictionary(answer => answer.Key, answer => AnswerState.Of(answer.Value)) };
    }

    private static Known Nothing(FormContent content, PersonalLink? link, Business business, Instant now) =>
        new(content, new Dictionary<string, AnswerState>(), business.Calendar.Today(now))
        {
            Values = new Dictionary<string, string>
            {
                ["business"] = business.Name,
                ["owner"] = business.OwnerName,
                ["firstName"] = link?.GivenName ?? "",
            },
        };

    /// <summary>What is on file of the person a personal link was made for, by field key; nothing for everybody else.</summary>
    public async Task<Dictionary<string, Answer>> OnFileAsync(PersonalLink? link, CancellationToken stop)
    {
        if (link is null)
            return [];
        var onFile = new Dictionary<string, Answer> { [BuiltInFields.Email.Key] = new TextAnswer(link.Email) };
        if (link.Name is { } name)
            onFile[BuiltInFields.Name.Key] = name;
        if (link.ClientId is { } client)
        {
            foreach (var (field, value) in await OnFileAsync(client, stop))
                onFile[field] = value;
        }

        return onFile;
    }

    /// <summary>What is on file of a client and of their newest open project, by field key.</summary>
    public async Task<Dictionary<string, Answer>> OnFileAsync(Id<Client> client, CancellationToken stop)
    {
        var project = await db.Projects.Where(one => one.ClientId == client && one.Closed == null).OrderByDescending(one => one.Opened)
            .Select(one => (Id<Project>?)one.Id).FirstOrDefaultAsync(stop);
        var values = await db.FieldValues.AsNoTracking().Where(value => value.ClientId == client && (value.ProjectId == null || value.ProjectId == project))
            .OrderBy(value => value.At).ThenBy(value => value.Id).ToListAsync(stop);
        return values.GroupBy(value => value.Field).ToDictionary(field => field.Key, field => field.Last().Value);
    }

    /// <summary>The month a filling-in is for, where its form counts places by month; else null.</summary>
    public async Task<WantedMonth?> MonthAsync(Form form, IReadOnlyDictionary<string, AnswerState> answers, CancellationToken stop) =>
        form.Settings.Capacity is { } capacity && answers.GetValueOrDefault(capacity.Question).Answer is { } wanted
            ? capacity.Find(wanted, await TakenAsync(form.Id, stop))
            : null;

    /// <summary>How many places of each month are taken.</summary>
    public async Task<Dictionary<YearMonth, int>> TakenAsync(Id<Form> form, CancellationToken stop) => await db.Inquiries
        .Where(inquiry => inquiry.FormId == form && inquiry.WantedMonth != null && !inquiry.Waits)
        .GroupBy(inquiry => inquiry.WantedMonth!.Value).Select(month => new { month.Key, Count = month.Count() })
        .ToDictionaryAsync(month => month.Key, month => month.Count, stop);

    /// <summary>What has to be known of answers before they are sent, by place: that a month is fully booked.</summary>
    public async Task<Dictionary<string, string>> NoticesAsync(Form form, Route route, CancellationToken stop) =>
        form.Settings.Capacity is { } capacity && await MonthAsync(form, route.Answers, stop) is { Waits: true, Month: var full }
            ? new Dictionary<string, string> { [capacity.Question] = Capacities.Note(full, capacity.NextFree(full, await TakenAsync(form.Id, stop))) }
            : [];

    /// <summary>The files uploaded with a filling-in that has not been sent.</summary>
    public IQueryable<StoredFile> Unsent(FormVersion version, Guid filling) =>
        db.StoredFiles.Where(file => file.Filling == filling && file.FormId == version.FormId && file.SubmissionId == null);
}
