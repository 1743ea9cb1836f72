using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What holds for a form beside its words: its days, its places, who may open it, its guard, who is told.</summary>
internal static class FormSettingsEndpoints
{
    private const string Gone = "This form is not here any more.";

    /// <param name="State">How its light stands.</param>
    /// <param name="Words">The same in a sentence.</param>
    /// <param name="Received">How many answers came in.</param>
    /// <param name="DayQuestions">The questions that ask for a day, for limits by month.</param>
    /// <param name="Months">How each limited month stands.</param>
    /// <param name="MonthChoices">The months to come that can be limited.</param>
    /// <param name="Waiting">How many asked to be told when it is open again.</param>
    /// <param name="Unfinished">How many filling-ins are kept to be finished later.</param>
    /// <param name="EarlyExits">Who left by an early way out, before they said who they are.</param>
    /// <param name="People">Who can be told.</param>
    internal sealed record FormSettingsView(
        FormSettings Settings,
        LightState State,
        string Words,
        int Received,
        IReadOnlyList<Named> DayQuestions,
        IReadOnlyList<MonthView> Months,
        IReadOnlyList<Named> MonthChoices,
        int Waiting,
        int Unfinished,
        EarlyExitsView EarlyExits,
        IReadOnlyList<Person> People
    );

    /// <summary>Those who left by an early way out and are no inquiry: a count, and what the last of them answered.</summary>
    /// <param name="Count">How many.</param>
    /// <param name="Latest">The newest first.</param>
    internal sealed record EarlyExitsView(int Count, IReadOnlyList<EarlyExit> Latest);

    /// <param name="At">When, in words.</param>
    /// <param name="SendOff">What they were told, by its title.</param>
    /// <param name="Answers">What they answered, a line each.</param>
    internal sealed record EarlyExit(Guid Id, string At, string SendOff, IReadOnlyList<string> Answers);

    internal sealed record Named(string Key, string Words);

    internal sealed record Person(Guid Id, string Name, string Email);

    /// <param name="Taken">How many inquiries have a place.</param>
    /// <param name="Waiting">How many wait for one.</param>
    internal sealed record MonthView(YearMonth Month, string Words, int Most, int Taken, int Waiting);

    public static void MapFormSettings(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms/{id}/settings").For(Access.Member).WithTags("Forms");
        group.MapGet(
            "",
            async Task<Results<Ok<FormSettingsView>, ProblemHttpResult>> (
                Id<Form> id,
                PorchDb db,
                FormAccess access,
                BusinessClock clock,
                CancellationToken cancellationToken
            ) =>
                await db.Forms.FindAsync([id], cancellationToken) is { } form
                    ? TypedResults.Ok(await ViewAsync(form, db, access, clock, cancellationToken))
                    : Problems.NotFound(Gone)
        );
        group.MapPut("", SaveAsync);
    }

    private static async Task<Results<Ok<FormSettingsView>, ProblemHttpResult>> SaveAsync(
        Id<Form> id,
        Edit<FormSettings> edit,
        PorchDb db,
        FormAccess access,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(Gone);
        var (merged, refusal) = edit.Onto(form.Settings);
        if (refusal is not null)
            return refusal;
        if (merged.Check(form.Draft) is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        form.Settings = merged;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(form, db, access, clock, cancellationToken));
    }

    private static async Task<FormSettingsView> ViewAsync(
        Form form,
        PorchDb db,
        FormAccess access,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var received = await db.CountReceivedAsync(form.Id, cancellationToken);
        var months = await db
            .CountingInquiries.Where(inquiry => inquiry.FormId == form.Id && inquiry.WantedMonth != null)
            .GroupBy(inquiry => new { inquiry.WantedMonth, inquiry.Waits })
            .Select(group => new
            {
                group.Key.WantedMonth,
                group.Key.Waits,
                Count = group.Count(),
            })
            .ToListAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var state = await access.LightAsync(form, business);
        int Count(YearMonth month, bool waits) => months.FirstOrDefault(one => one.WantedMonth == month && one.Waits == waits)?.Count ?? 0;
        return new FormSettingsView(
            form.Settings,
            state,
            form.Settings.Say(state, received),
            received,
            [
                .. form
                    .Draft.Questions.Where(question => question.Kind is DateKind or DateRangeKind)
                    .Select(question => new Named(question.Key, question.Wording)),
            ],
            [
                .. (form.Settings.Capacity?.Months ?? [])
                    .OrderBy(limit => limit.Month)
                    .Select(limit => new MonthView(
                        limit.Month,
                        Capacities.Say(limit.Month),
                        limit.Most,
                        Count(limit.Month, false),
                        Count(limit.Month, true)
                    )),
            ],
            [
                .. Capacities
                    .MonthsToCome(business.Calendar.Today(clock.GetCurrentInstant()))
                    .Select(month => new Named(YearMonthPattern.Iso.Format(month), Capacities.Say(month))),
            ],
            await db.ReopenSubscriptions.CountAsync(wish => wish.FormId == form.Id, cancellationToken),
            await db.UnfinishedForms.CountAsync(draft => draft.FormId == form.Id && draft.Ended == null, cancellationToken),
            await EarlyExitsAsync(form, db, clock.GetCurrentInstant(), business.DateTimeZone, cancellationToken),
            await db
                .Users.OrderBy(user => user.DisplayName)
                .Select(user => new Person(user.Id, user.DisplayName, user.Email!))
                .ToListAsync(cancellationToken)
        );
    }

    private const int MostShown = 20;

    private static async Task<EarlyExitsView> EarlyExitsAsync(
        Form form,
        PorchDb db,
        Instant now,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var left = db
            .Submissions.AsNoTracking()
            .Where(sent => sent.FormId == form.Id && !sent.IsErased && !db.Inquiries.Any(inquiry => inquiry.SubmissionId == sent.Id));
        var latest = await left.OrderByDescending(sent => sent.At)
            .ThenByDescending(sent => sent.Id)
            .Take(MostShown)
            .ToListAsync(cancellationToken);
        var numbers = latest.Select(sent => sent.FormVersion).Distinct().ToList();
        var versions = await db
            .FormVersions.AsNoTracking()
            .Where(version => version.FormId == form.Id && numbers.Contains(version.Number))
            .ToDictionaryAsync(version => version.Number, version => version.Content, cancellationToken);
        return new EarlyExitsView(
            await left.CountAsync(cancellationToken),
            [
                .. latest.Select(sent => new EarlyExit(
                    sent.Id.Value,
                    TimeWords.At(sent.At, now, zone),
                    KnownValues.BeforeAnswers(versions[sent.FormVersion].FindSendOff(sent.SendOff)?.Title ?? ""),
                    [
                        .. versions[sent.FormVersion]
                            .Questions.Where(question => sent.Answers.ByQuestion.ContainsKey(question.Key))
                            .Select(question =>
                                $"{KnownValues.BeforeAnswers(question.Wording).TrimEnd('?', ':', ' ')}: {AnswerWords.Say(sent.Answers.ByQuestion[question.Key], question)}"
                            ),
                    ]
                )),
            ]
        );
    }
}
