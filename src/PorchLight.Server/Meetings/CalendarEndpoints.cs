using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>The station Calendar: a week with its meetings, and the days of projects and tasks that lie in it.</summary>
internal static class CalendarEndpoints
{
    private const int UsualFromHour = 9;
    private const int UsualToHour = 17;

    /// <param name="Title">"This week".</param>
    /// <param name="Note">What it holds, in a sentence or two.</param>
    /// <param name="First">Its first day.</param>
    /// <param name="Range">"30 November to 6 December 2026".</param>
    /// <param name="FromHour">The first hour that has to be shown.</param>
    /// <param name="ToHour">The hour up to which has to be shown.</param>
    /// <param name="Now">Where now is in the picture; null in another week.</param>
    /// <param name="People">Everybody who works here.</param>
    internal sealed record WeekView(
        string Title,
        string Note,
        LocalDate First,
        LocalDate Before,
        LocalDate After,
        LocalDate Today,
        string Range,
        string Zone,
        IReadOnlyList<WeekDay> Days,
        int FromHour,
        int ToHour,
        WeekNow? Now,
        IReadOnlyList<WeekEntry> Entries,
        IReadOnlyList<BusyBlock> Busy,
        IReadOnlyList<UpcomingMeeting> Upcoming,
        IReadOnlyList<DayOfWork> DaysOfWork,
        IReadOnlyList<MeetingTypeEndpoints.Host> People
    );

    /// <param name="Name">"Mon".</param>
    /// <param name="IsClosed">Whether the business does not work on it.</param>
    internal sealed record WeekDay(LocalDate Date, string Name, int Number, bool IsToday, bool IsClosed);

    /// <param name="Minute">Minutes of the clock since midnight.</param>
    internal sealed record WeekNow(int Day, int Minute);

    /// <param name="Meeting">The meeting.</param>
    /// <param name="Clock">"11:00".</param>
    /// <param name="Detail">What it is and where.</param>
    /// <param name="Says">The whole of it, for who does not see the picture.</param>
    /// <param name="IsNext">Whether it is the next to come.</param>
    internal sealed record WeekEntry(
        Id<Meeting> Meeting,
        int Day,
        int From,
        int To,
        int Lane,
        int Lanes,
        string Clock,
        string Title,
        string Detail,
        string Says,
        MeetingState State,
        bool IsNext,
        bool CanMove
    );

    /// <param name="Title">What it is called, for whoever keeps the calendar; "Busy" for others.</param>
    /// <param name="Detail">Whose calendar it stands in.</param>
    /// <param name="Says">The whole of it, for who does not see the picture.</param>
    internal sealed record BusyBlock(int Day, int From, int To, int Lane, int Lanes, string Title, string Detail, string Says);

    /// <param name="When">"Today 15:00".</param>
    /// <param name="About">What the inquiry says it is about, in a line; null for none.</param>
    internal sealed record UpcomingMeeting(Id<Meeting> Meeting, string When, string Name, string Detail, string? About);

    /// <param name="Day">The day in words: "Monday".</param>
    /// <param name="Project">The project; null for a task about the client.</param>
    internal sealed record DayOfWork(string Day, LocalDate Date, Id<Client> Client, Id<Project>? Project, string Name, string Label);

    public static void MapCalendar(this IEndpointRouteBuilder api) =>
        api.MapGet("/calendar/week", ShowWeekAsync).For(Access.Member).WithTags("Calendar");

    /// <param name="day">Any day of the week, "2026-12-07"; left out for this week.</param>
    /// <param name="people">Whose meetings are shown; none for everybody's.</param>
    private static async Task<Results<Ok<WeekView>, ProblemHttpResult>> ShowWeekAsync(
        string? day,
        Guid[]? people,
        PorchDb db,
        FieldCatalogues catalogues,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var asked = day is null ? null : LocalDatePattern.Iso.Parse(day);
        // Around the ends of the calendar there is no week before or after.
        if (asked is { Success: false } or { Value: { Year: < 1900 or > 2400 } })
            return Problems.Unprocessable("A day is written like 2026-12-07.");
        var (business, now) = (await db.BusinessAsync(), clock.GetCurrentInstant());
        var zone = business.DateTimeZone;
        var (today, weekBegins) = (now.InZone(zone).Date, Locales.WeekBeginsOn(business.Region));
        var first = WeekOf(asked?.Value ?? today, weekBegins);
        var within = new Span(
            first.AtStartOfDayInZone(zone).ToInstant(),
            first.PlusDays(WeekLayout.Days).AtStartOfDayInZone(zone).ToInstant()
        );
        var meetings = await MeetingsAsync(db, within, people ?? [], cancellationToken);
        var next = meetings.Find(one => one.Meeting.State == MeetingState.Booked && one.Meeting.End > now);
        var busy = await BusyAsync(db, within, people ?? [], cancellationToken);
        // What is busy stands beside meetings at the same time, so both are laid out together.
        var blocks = WeekLayout.Of([.. meetings.Select(one => one.Meeting.When), .. busy.Select(one => one.When)], first, zone);
        IEnumerable<WeekBlock> OfMeetings() => blocks.Where(block => block.Item < meetings.Count);
        var open = business.Hours.Weekly.SelectMany(one => one.Spans).ToList();
        var local = now.InZone(zone).LocalDateTime;
        return TypedResults.Ok(
            new WeekView(
                CalendarNote.Title(first, WeekOf(today, weekBegins)),
                CalendarNote.Say(
                    [
                        .. meetings
                            .Where(one => one.Meeting.State == MeetingState.Booked)
                            .Select(one => one.Meeting.Start.InZone(zone).LocalDateTime),
                    ],
                    local
                ),
                first,
                first.PlusDays(-WeekLayout.Days),
                first.PlusDays(WeekLayout.Days),
                today,
                CalendarNote.Range(first),
                Locales.CityOf(business.Zone),
                [
                    .. Enumerable
                        .Range(0, WeekLayout.Days)
                        .Select(first.PlusDays)
                        .Select(date => new WeekDay(
                            date,
                            date.DayOfWeek.ToString()[..3],
                            date.Day,
                            date == today,
                            !business.Calendar.IsWorkingDay(date)
                        )),
                ],
                Math.Min(
                    open.Select(span => span.From.Hour).Append(UsualFromHour).Min(),
                    OfMeetings().Select(block => block.From / 60).Append(UsualFromHour).Min()
                ),
                Math.Max(
                    open.Select(span => span.To == OpenSpan.EndOfDay ? 24 : span.To.Hour + (span.To.Minute > 0 ? 1 : 0))
                        .Append(UsualToHour)
                        .Max(),
                    OfMeetings().Select(block => (block.To + 59) / 60).Append(UsualToHour).Max()
                ),
                local.Date >= first && local.Date < first.PlusDays(WeekLayout.Days)
                    ? new WeekNow(Period.DaysBetween(first, local.Date), local.Hour * 60 + local.Minute)
                    : null,
                [
                    .. blocks
                        .Where(block => block.Item < meetings.Count)
                        .Select(block => EntryOf(block, meetings[block.Item], next, now, business)),
                ],
                [
                    .. blocks
                        .Where(block => block.Item >= meetings.Count)
                        .Select(block => BusyOf(block, busy[block.Item - meetings.Count], who.UserId(), zone)),
                ],
                [
                    .. meetings
                        .Where(one => one.Meeting.State == MeetingState.Booked && one.Meeting.End > now)
                        .Select(one => UpcomingOf(one, now, zone)),
                ],
                await DaysOfWorkAsync(db, await catalogues.ReadAsync(db), first, cancellationToken),
                await db
                    .Users.OrderBy(user => user.DisplayName)
                    .ThenBy(user => user.Id)
                    .Select(user => new MeetingTypeEndpoints.Host(user.Id, user.DisplayName))
                    .ToListAsync(cancellationToken)
            )
        );
    }

    private sealed record BusyTime(Span When, string Title, string Calendar, Guid User, string Name);

    private static Task<List<BusyTime>> BusyAsync(PorchDb db, Span within, Guid[] people, CancellationToken cancellationToken) =>
        (
            from entry in db.OutsideEntries
            where entry.From < within.To && entry.To > within.From
            join calendar in db.OutsideCalendars on entry.CalendarId equals calendar.Id
            where people.Length == 0 || people.Contains(calendar.UserId)
            join user in db.Users on calendar.UserId equals user.Id
            orderby entry.From, entry.Id
            select new BusyTime(new Span(entry.From, entry.To), entry.Title, calendar.Name, user.Id, user.DisplayName)
        ).ToListAsync(cancellationToken);

    /// <summary>What somebody keeps elsewhere is their own: others see only that they are busy.</summary>
    private static BusyBlock BusyOf(WeekBlock block, BusyTime busy, Guid viewer, DateTimeZone zone)
    {
        var isOwn = busy.User == viewer;
        var (title, detail) = (isOwn && busy.Title.Length > 0 ? busy.Title : "Busy", isOwn ? busy.Calendar : busy.Name);
        return new BusyBlock(
            block.Day,
            block.From,
            block.To,
            block.Lane,
            block.Lanes,
            title,
            detail,
            $"{title}, {detail}, {MeetingTimeWords.Say(busy.When, zone, zone)}"
        );
    }

    private sealed record ShownMeeting(Meeting Meeting, string Type, string? About);

    private static async Task<List<ShownMeeting>> MeetingsAsync(PorchDb db, Span within, Guid[] people, CancellationToken cancellationToken)
    {
        var rows = await (
            from meeting in db.Meetings
            where meeting.Start < within.To && meeting.End > within.From && meeting.State != MeetingState.Cancelled
            where people.Length == 0 || db.MeetingHosts.Any(host => host.MeetingId == meeting.Id && people.Contains(host.UserId))
            join type in db.MeetingTypes on meeting.TypeId equals type.Id
            join inquiry in db.Inquiries on meeting.InquiryId equals inquiry.Id into inquiries
            from inquiry in inquiries.DefaultIfEmpty()
            orderby meeting.Start, meeting.Id
            select new
            {
                meeting,
                type.Content,
                About = inquiry == null ? null : inquiry.About,
            }
        ).ToListAsync(cancellationToken);
        return [.. rows.Select(row => new ShownMeeting(row.meeting, row.Content.Name, row.About is { Length: > 0 } about ? about : null))];
    }

    /// <summary>The meetings to come until a moment, in order; else the next one.</summary>
    internal static async Task<IReadOnlyList<UpcomingMeeting>> UpcomingAsync(
        PorchDb db,
        Instant now,
        Instant until,
        CancellationToken cancellationToken
    )
    {
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var meetings = await MeetingsAsync(db, new Span(now, now + Duration.FromDays(SlotRules.FarthestHorizon)), [], cancellationToken);
        var booked = meetings.Where(one => one.Meeting.State == MeetingState.Booked).ToList();
        return [.. booked.Where((one, index) => index == 0 || one.Meeting.Start < until).Select(one => UpcomingOf(one, now, zone))];
    }

    private static UpcomingMeeting UpcomingOf(ShownMeeting one, Instant now, DateTimeZone zone) =>
        new(one.Meeting.Id, CapitalOf(TimeWords.At(one.Meeting.Start, now, zone)), one.Meeting.Name, DetailOf(one), one.About);

    private static WeekEntry EntryOf(WeekBlock block, ShownMeeting shown, ShownMeeting? next, Instant now, Business business) =>
        new(
            shown.Meeting.Id,
            block.Day,
            block.From,
            block.To,
            block.Lane,
            block.Lanes,
            TimeWords.Clock(shown.Meeting.Start.InZone(business.DateTimeZone).TimeOfDay),
            shown.Meeting.Name,
            DetailOf(shown),
            $"{shown.Meeting.Name}, {DetailOf(shown)}, {MeetingTimeWords.Say(shown.Meeting.When, business.DateTimeZone, business.DateTimeZone)}",
            shown.Meeting.State,
            shown == next,
            MeetingChange.RefuseOurs(shown.Meeting.State, shown.Meeting.Start, now) is null
        );

    private static string DetailOf(ShownMeeting shown) =>
        $"{shown.Type}, {MeetingPlaceWords.ForUs(shown.Meeting.Place, shown.Meeting.PlaceWords)}";

    /// <summary>What lies on the days of a week beside meetings: dates of projects, and tasks that are not done.</summary>
    private static async Task<IReadOnlyList<DayOfWork>> DaysOfWorkAsync(
        PorchDb db,
        FieldCatalogue catalogue,
        LocalDate first,
        CancellationToken cancellationToken
    )
    {
        var last = first.PlusDays(WeekLayout.Days - 1);
        var fields = catalogue
            .Offered.Where(field => field is { Kind: FieldKind.Date, Scope: RecordScope.Project })
            .ToDictionary(field => field.Key, field => field.Label);
        var (keys, earliest, latest) = (
            fields.Keys.ToList(),
            ValueOrder.Of(new DateAnswer(first)).Number,
            ValueOrder.Of(new DateAnswer(last)).Number
        );
        var dates = await (
            from value in db.FieldValues
            where value.IsCurrent && keys.Contains(value.Field) && value.OrderNumber >= earliest && value.OrderNumber <= latest
            join client in db.CountingClients on value.ClientId equals client.Id
            select new { value, client.Name }
        ).ToListAsync(cancellationToken);
        var tasks = await (
            from task in db.ClientTasks
            where task.Done == null && task.On != null && task.On >= first && task.On <= last
            join client in db.CountingClients on task.ClientId equals client.Id
            select new { task, client.Name }
        ).ToListAsync(cancellationToken);
        return
        [
            .. dates
                .Select(one => new DayOfWork(
                    "",
                    ((DateAnswer)one.value.Value!).Date,
                    one.value.ClientId,
                    one.value.ProjectId,
                    one.Name,
                    fields[one.value.Field]
                ))
                .Concat(
                    tasks.Select(one => new DayOfWork(
                        "",
                        one.task.On!.Value,
                        one.task.ClientId,
                        one.task.ProjectId,
                        one.Name,
                        one.task.Title
                    ))
                )
                .OrderBy(one => one.Date)
                .ThenBy(one => one.Name, StringComparer.CurrentCulture)
                .Select(one => one with { Day = one.Date.DayOfWeek.ToString() }),
        ];
    }

    private static LocalDate WeekOf(LocalDate day, IsoDayOfWeek begins) => day.PlusDays(1).Previous(begins);

    private static string CapitalOf(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
