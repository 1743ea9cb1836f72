using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using static PorchLight.Server.Tests.RunTests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>
/// What a person hears and what goes on for them, in random houses, against a second way that only counts what went and what was due.
/// </summary>
public sealed class OneMessageADayTests
{
    private static readonly Channel[] Channels = [Channel.Mail, Channel.Mail, Channel.Text, Channel.PageNote];

    [Fact]
    public async Task Nobody_is_sent_two_automatic_messages_on_one_day_and_none_waits_while_a_day_is_free()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await OthersAreOffAsync(app);
        var chance = new Random(20_261_202);
        var people = new List<Somebody>();
        for (var one = 0; one < 6; one++)
        {
            var (client, project, inquiry) = await SomebodyAsync(app);
            await MayBeTextedAsync(app, client);
            var journeys = new List<Journey>();
            for (var n = chance.Next(2, 5); n > 0; n--)
            {
                var hours = Enumerable.Range(0, chance.Next(1, 4)).Select(_ => chance.Next(0, 60)).Order().ToList();
                var steps = hours
                    .Select((after, index) => Message($"{n}.{index}", after, Channels[chance.Next(Channels.Length)]))
                    .ToArray();
                var run = await StartAsync(app, Content(steps) with { SideBySide = true }, new EventContext(client, project, inquiry));
                journeys.Add(new Journey(run.ToString(), app.Now, hours));
            }

            people.Add(new Somebody(client, journeys));
        }

        var business = await app.AskAsync(db => db.BusinessAsync());
        for (var hour = 0; hour < 24 * 16; hour += 2)
        {
            await app.PassTimeAsync(Duration.FromHours(2));
            var now = app.Now;
            foreach (var somebody in people)
            {
                var sent = await SentAsync(app, somebody.Client);
                sent.CountBy(one => Day(one.At)).Where(day => day.Value > 1).ShouldBeEmpty("no day holds two");
                var waits = somebody.Journeys.Where(journey =>
                    sent.Count(one => one.Key.Contains(journey.Run, StringComparison.Ordinal)) is var gone
                    && gone < journey.Hours.Count
                    && journey.Began + Duration.FromHours(journey.Hours[gone]) <= now
                );
                if (IsOpen(now) && sent.All(one => Day(one.At) != Day(now)))
                    waits.Select(journey => journey.Run).ShouldBeEmpty($"{now}: the day is free");
            }
        }

        foreach (var somebody in people)
            (await SentAsync(app, somebody.Client)).Count.ShouldBe(
                somebody.Journeys.Sum(journey => journey.Hours.Count),
                "all went in the end"
            );

        LocalDate Day(Instant at) => at.InZone(business.DateTimeZone).Date;

        // The window of the business, by its hours as they were typed.
        bool IsOpen(Instant at)
        {
            var local = at.InZone(business.DateTimeZone).LocalDateTime;
            return business.Hours.Weekly.Any(day => day.Day == local.DayOfWeek && day.Spans.Count > 0)
                && !business.Hours.Closed.Contains(local.Date)
                && local.TimeOfDay >= business.Hours.Window.From
                && local.TimeOfDay < business.Hours.Window.To;
        }
    }

    [Fact]
    public async Task Of_two_who_become_one_the_journey_that_began_last_goes_on_and_beside_it_only_what_may_run_beside_others()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await OthersAreOffAsync(app);
        var chance = new Random(20_261_203);
        var ended = 0;
        for (var round = 0; round < 12; round++)
        {
            var people = new[] { await SomebodyAsync(app), await SomebodyAsync(app) };
            // In the order they began; of one person what a later one ends has ended already.
            var under = new List<(Id<Run> Run, int Whose, bool IsSideBySide)>();
            for (var n = chance.Next(2, 7); n > 0; n--)
            {
                var (whose, isSideBySide) = (chance.Next(2), chance.Next(3) > 0);
                var (client, project, inquiry) = people[whose];
                var run = await StartAsync(
                    app,
                    Content(Message("later", 24 * 30, Channel.Mail)) with
                    {
                        SideBySide = isSideBySide,
                    },
                    new EventContext(client, project, inquiry)
                );
                under.RemoveAll(other => other.Whose == whose && !(other.IsSideBySide && isSideBySide));
                under.Add((run, whose, isSideBySide));
                app.Time.Advance(TimeSpan.FromMinutes(1));
            }

            (await UnderWayAsync(people[0].Client, people[1].Client)).ShouldBe(under.Select(one => one.Run), ignoreOrder: true);
            (
                await app.Owner()
                    .PutAsync(
                        $"/api/clients/{people[0].Client}/beside/{people[1].Client}/merged",
                        Body(new { take = Array.Empty<string>() })
                    )
            ).EnsureSuccessStatusCode();

            var last = under[^1];
            var goOn = last.IsSideBySide ? under.Where(one => one.IsSideBySide).ToList() : [last];
            ended += under.Count - goOn.Count;
            (await UnderWayAsync(people[0].Client)).ShouldBe(goOn.Select(one => one.Run), ignoreOrder: true, $"round {round}");
            foreach (var over in under.Except(goOn))
                (await StateAsync(app, over.Run)).StoppedBy.ShouldBe(RunEnd.AnotherStarted);
        }

        ended.ShouldBeGreaterThan(3, "enough of them ended");

        Task<List<Id<Run>>> UnderWayAsync(params Id<Client>[] of) =>
            app.AskAsync(db =>
                db.Runs.Where(run => run.Active && run.ClientId != null && of.Contains(run.ClientId.Value))
                    .Select(run => run.Id)
                    .ToListAsync()
            );
    }

    private sealed record Somebody(Id<Client> Client, List<Journey> Journeys);

    /// <param name="Run">The run, by its identifier.</param>
    /// <param name="Began">When it began.</param>
    /// <param name="Hours">How many hours after that each of its messages is due.</param>
    private sealed record Journey(string Run, Instant Began, List<int> Hours);

    private static Step Message(string key, int hours, Channel channel) =>
        Mail(key, new Schedule(Anchor.RunStart, hours, TimeUnit.Hours)) is { Action: SendMessage send } step
            ? step with
            {
                Action = send with { Channel = channel },
            }
            : throw new InvalidOperationException("A message is a message.");

    private static Task MayBeTextedAsync(TestApp app, Id<Client> client) =>
        app.ChangeAsync(async db =>
            new RecordWriter(db).Write(
                await db.Clients.SingleAsync(one => one.Id == client),
                null,
                BuiltInFields.MayText.Key,
                new YesNoAnswer(true),
                null,
                new ValueSource(ValueOrigin.Hand, "Nobody", app.Now)
            )
        );

    /// <summary>What went to somebody by itself over every channel, by what it is the effect of.</summary>
    private static Task<List<(string Key, Instant At)>> SentAsync(TestApp app, Id<Client> client) =>
        app.AskAsync(async db =>
            (
                await db
                    .OutgoingMail.Where(mail => mail.ClientId == client && mail.Automatic && mail.EffectKey.StartsWith("run "))
                    .Select(mail => new { mail.EffectKey, At = mail.Written })
                    .ToListAsync()
            )
                .Concat(
                    await db
                        .ShortMessages.Where(note => note.ClientId == client)
                        .Select(note => new { note.EffectKey, note.At })
                        .ToListAsync()
                )
                .Select(one => (one.EffectKey, one.At))
                .ToList()
        );
}
