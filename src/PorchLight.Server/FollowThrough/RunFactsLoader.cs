using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Meetings;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>What is known of a person and a piece of work, for the planner and for what messages say of them.</summary>
/// <param name="Service">The key of the service the project is about.</param>
/// <param name="LastAutomaticMessage">When they were last sent a message that nobody nodded to.</param>
/// <param name="OnFile">What stands in the fields of the client and the project, by field key.</param>
/// <param name="Known">What they said in the inquiry, with what is on file now; null where nothing is to be judged.</param>
internal sealed record RunFacts(
    string? Service,
    Instant? LastAutomaticMessage,
    IReadOnlyDictionary<string, Answer> OnFile,
    IKnownAnswers? Known
) : IRunFacts
{
    /// <summary>Nothing is known.</summary>
    public static RunFacts None { get; } = new(null, null, new Dictionary<string, Answer>(), null);

    /// <inheritdoc/>
    public Instant? Meeting { get; init; }

    public LocalDate? DayOf(string field) => (OnFile.GetValueOrDefault(field) as DateAnswer)?.Date;

    public Truth Judge(Condition condition) => Known is null ? Truth.Unknown : condition.Evaluate(Known);
}

/// <summary>Gathers what is known, also within the write that makes the records.</summary>
internal sealed class RunFactsLoader(PorchDb db, AnswerContextLoader answers)
{
    /// <param name="judges">Whether conditions are to be judged; else what was answered is not looked at.</param>
    public async Task<RunFacts> LoadAsync(Client client, Id<Project>? project, Inquiry? inquiry, bool judges) =>
        await LoadToStartAsync(client, project, inquiry, judges) with
        {
            LastAutomaticMessage = new[]
            {
                client.Email is { } address ? await LastAutomaticAsync(address) : null,
                await LastNoteAsync(client),
            }.Max(),
        };

    /// <summary>
    /// When a meeting begins that was not cancelled; where none is named, the next to come about a piece of work, else the last that was.
    /// </summary>
    public async Task<Instant?> MeetingAsync(Id<Meeting>? named, Id<Project>? project, Instant now)
    {
        if (named is { } id)
            return await db.Meetings.FindAsync(id) is { State: not MeetingState.Cancelled } meeting ? meeting.Start : null;
        var starts = await db
            .Meetings.Where(one => one.ProjectId == project && one.ProjectId != null && one.State != MeetingState.Cancelled)
            .Select(one => one.Start)
            .ToListAsync();
        return starts.Where(start => start > now).Select(start => (Instant?)start).Min() ?? starts.Select(start => (Instant?)start).Max();
    }

    /// <summary>When a text or a note went to them last that nobody nodded to.</summary>
    private async Task<Instant?> LastNoteAsync(Client client)
    {
        var isNew = db.Entry(client).State == EntityState.Added;
        var stored = isNew
            ? []
            : await db
                .Events.AsNoTracking()
                .Where(logged => logged.ClientId == client.Id && logged.Kind == "noteSent")
                .OrderByDescending(logged => logged.Seq)
                .Take(10)
                .ToListAsync();
        return stored
            .Concat(db.Events.Local.Where(logged => logged.ClientId == client.Id))
            .Where(logged => logged.What is NoteSent { By: null } note && (note.IsText || note.Step.Length > 0))
            .Max(logged => (Instant?)logged.At);
    }

    /// <summary>The same without what was sent last, on which nothing depends before something runs.</summary>
    public async Task<RunFacts> LoadToStartAsync(Client client, Id<Project>? project, Inquiry? inquiry, bool judges)
    {
        var onFile = ValuesOnFile.Read(await ValuesAsync(client, project));
        return new RunFacts(
            await ServiceAsync(inquiry, onFile),
            LastAutomaticMessage: null,
            onFile,
            !judges ? null
                : inquiry is null ? NothingAsked(onFile)
                : await answers.KnownNowAsync(inquiry, onFile)
        );
    }

    /// <summary>What is known of somebody who left a form half-finished.</summary>
    public async Task<RunFacts> LoadAsync(UnfinishedFormFacts left) =>
        new(
            left.Form.Service,
            left.Email is { } address ? await LastAutomaticAsync(address) : null,
            left.Name is { } name ? new Dictionary<string, Answer> { [BuiltInFields.Name.Key] = name } : [],
            left.Known
        );

    private async Task<string?> ServiceAsync(Inquiry? inquiry, Dictionary<string, Answer> onFile)
    {
        var services = (await db.BusinessAsync()).Lists.Services;
        var form = inquiry is null ? null : await db.Forms.FindAsync(inquiry.FormId);
        if (form?.Service is { } asked)
            return asked;
        var said = onFile.GetValueOrDefault(BuiltInFields.Service.Key) is { } value ? AnswerWords.Say(value) : null;
        return services.FirstOrDefault(service => string.Equals(service.Name, said, StringComparison.OrdinalIgnoreCase))?.Key;
    }

    private async Task<List<FieldValue>> ValuesAsync(Client client, Id<Project>? project)
    {
        // Of a client whom this very write makes, all that is known stands beside it.
        var values = db.FieldValues.Local.Where(value => value.ClientId == client.Id && IsMeant(value, project)).ToHashSet();
        if (db.Entry(client).State != EntityState.Added)
            values.UnionWith(
                await db
                    .FieldValues.Where(value =>
                        value.ClientId == client.Id && value.IsCurrent && (value.ProjectId == null || value.ProjectId == project)
                    )
                    .ToListAsync()
            );
        return [.. values.Where(value => value.IsCurrent)];
    }

    private static bool IsMeant(FieldValue value, Id<Project>? project) => value.ProjectId is null || value.ProjectId == project;

    private async Task<Instant?> LastAutomaticAsync(string address)
    {
        var stored = await CompiledQueries.LastAutomaticOfRuns(db, address);
        var unsaved = db
            .OutgoingMail.Local.Where(mail =>
                mail.To == address && mail.Automatic && mail.EffectKey.StartsWith(StepRunner.OfRuns, StringComparison.Ordinal)
            )
            .Max(mail => (Instant?)mail.Written);
        return stored is null || unsaved > stored ? unsaved ?? stored : stored;
    }

    private static AnswerContext NothingAsked(Dictionary<string, Answer> onFile) =>
        new(NoForm, new Dictionary<string, AnswerState>(), LocalDate.MinIsoValue) { OnFile = onFile };

    private static readonly FormContent NoForm = new("", "", [], [], new SendOff("end", "", ""));
}
