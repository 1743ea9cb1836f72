using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
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
    /// <param name="DayQuestions">The questions that ask for a day, for counting places by month.</param>
    /// <param name="Months">How each limited month stands.</param>
    /// <param name="MonthChoices">The months to come that can be limited.</param>
    /// <param name="Waiting">How many asked to be told when it is open again.</param>
    /// <param name="Unfinished">How many filling-ins are kept to be finished later.</param>
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
        IReadOnlyList<Person> People
    );

    internal sealed record Named(string Key, string Words);

    internal sealed record Person(Guid Id, string Name, string Email);

    /// <param name="Taken">How many inquiries have a place.</param>
    /// <param name="Waiting">How many wait for one.</param>
    internal sealed record MonthView(YearMonth Month, string Words, int Places, int Taken, int Waiting);

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
            return Problems.Unfinished(findings);
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
                        limit.Places,
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
            await db.SavedDrafts.CountAsync(draft => draft.FormId == form.Id && draft.Ended == null, cancellationToken),
            await db
                .Users.OrderBy(user => user.DisplayName)
                .Select(user => new Person(user.Id, user.DisplayName, user.Email!))
                .ToListAsync(cancellationToken)
        );
    }
}
