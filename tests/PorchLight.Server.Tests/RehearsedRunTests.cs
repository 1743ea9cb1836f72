using System.Text.Json;
using CsCheck;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using static PorchLight.Server.Tests.RunTests;

namespace PorchLight.Server.Tests;

/// <summary>Runs do exactly what was rehearsed.</summary>
public sealed class RehearsedRunTests
{
    [Fact]
    public async Task The_engine_does_exactly_what_the_rehearsal_said()
    {
        await using var app = new TestApp();
        await OthersAreOffAsync(app);
        var cases = new List<(FollowThroughContent Content, (int Hours, bool Books)[] Acts, int Nods)>();
        // Nothing happens at the very moment of the start, where either may come first.
        Gen.Select(RandomContent, Gen.Select(Gen.Int[1, 900], Gen.Bool).Array[0, 3], Gen.Int[0, 2])
            .Sample((content, acts, nods) => cases.Add((content, acts, nods)), iter: 25, threads: 1);
        foreach (var (content, acts, nods) in cases)
            await PlayAsync(app, content, acts, nods);
    }

    private static async Task PlayAsync(TestApp app, FollowThroughContent content, (int Hours, bool Books)[] acts, int nods)
    {
        var (client, project, inquiry) = await SomebodyAsync(app);
        var start = app.Now;
        var assumed = acts.Select(act => new Assumption(
                start + Duration.FromHours(act.Hours),
                act.Books ? new MeetingBooked() : new ReplyReceived(null)
            ))
            .OrderBy(one => one.At)
            .ToList();
        Duration? after = nods switch
        {
            0 => Duration.Zero,
            1 => Duration.FromHours(30),
            _ => null,
        };
        var rehearsed = await InAsync(
            app,
            async (db, services) =>
            {
                var business = await db.BusinessAsync();
                var facts = await services
                    .GetRequiredService<RunFactsLoader>()
                    .LoadAsync((await db.Clients.FindAsync(client))!, project, await db.Inquiries.FindAsync(inquiry), judges: true);
                return new Rehearsal(content, business.Calendar, business.Window, facts).Play(start, assumed, after);
            }
        );
        var run = await StartAsync(app, content, new EventContext(client, project, inquiry));
        var coming = new Queue<Assumption>(assumed);
        while (true)
        {
            // What somebody does comes before what falls due at the same moment.
            while (coming.TryPeek(out var comes) && comes.At <= app.Now)
                await HappensAsync(app, client, coming.Dequeue().What);
            // Two workers at once, and each moment twice: nothing is done twice.
            await Task.WhenAll(app.WorkAsync(), app.WorkAsync());
            var now = app.Now;
            var stands = await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == run));
            var nod =
                stands.State.Current is { Status: StepStatus.Waiting, Due: { } since } && after is { } late ? since + late : (Instant?)null;
            var moments = new[] { stands.NextMoment, nod, coming.TryPeek(out var first) ? first.At : null };
            if (!stands.Active || moments.Min() is not { } next)
                break;
            if (next > now)
                app.Time.Advance((next - now).ToTimeSpan());
            else if (nod <= now)
                await InWriteAsync(
                    app,
                    async (db, services) =>
                        await services
                            .GetRequiredService<RunEngine>()
                            .NodAsync((await db.Runs.FindAsync(run))!, stands.State.Current!.Key, now, sendNow: false, Guid.Empty)
                );
        }

        var ended = await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == run));
        ended.State.Steps.Select(Plain).ShouldBe(rehearsed.Run.Steps.Select(Plain), JsonSerializer.Serialize(content, Json.Options));
        (ended.State.Status, ended.State.Ended, ended.State.StoppedBy).ShouldBe(
            (rehearsed.Run.Status, rehearsed.Run.Ended, rehearsed.Run.StoppedBy)
        );
        var sent = await app.AskAsync(db =>
            db.OutgoingMail.Where(mail => mail.ClientId == client).OrderBy(mail => mail.Written).ThenBy(mail => mail.Id).ToListAsync()
        );
        sent.Select(mail => (mail.Subject, mail.Written))
            .ShouldBe(
                rehearsed
                    .Effects.Where(effect => effect.Kind == RunEffectKind.TakeEffect && content.Step(effect.Step!).Action is SendMessage)
                    .Select(effect => (effect.Step!, effect.At))
            );
        (await app.AskAsync(db => db.ClientTasks.CountAsync(task => task.ClientId == client))).ShouldBe(
            rehearsed.Effects.Count(effect => effect.Kind == RunEffectKind.TakeEffect && content.Step(effect.Step!).Action is MakeTask)
        );
        await InWriteAsync(
            app,
            async (db, services) =>
                await services
                    .GetRequiredService<RunEngine>()
                    .StopByHandAsync(await db.Runs.Where(one => one.Active).ToListAsync(), app.Now)
        );
    }

    internal static StepState Plain(StepState step) => step with { Counted = null, By = null, Due = null };

    internal static Gen<FollowThroughContent> RandomContent { get; } =
        Gen.Select(
            Gen.Select(
                Gen.Int[0, 9],
                Gen.Enum<TimeUnit>(),
                Gen.Int[0, 12],
                Gen.Int[0, 15],
                Gen.Int[0, 8],
                (action, unit, amount, flags, target) =>
                    new Step(
                        "",
                        "",
                        action switch
                        {
                            0 => new MakeTask("Measure", 1, null),
                            1 => new MoveStage("talking"),
                            2 => new WaitFor(new BookedOccasion(), target < 6 ? $"s{target}" : null),
                            3 => new Branch(target % 2 == 0 ? new AllCondition([]) : new AnyCondition([]), $"s{target}", null),
                            4 => new WaitFor(new RepliedOccasion()),
                            5 when target == 0 => new EndRun(),
                            _ => new SendMessage(new MessageTemplate("", [])),
                        },
                        new Schedule(
                            flags % 4 == 0 ? Anchor.RunStart : Anchor.PreviousSettled,
                            unit switch
                            {
                                TimeUnit.Minutes => amount * 50,
                                TimeUnit.Months => amount / 9,
                                TimeUnit.Weeks => amount / 6,
                                _ => amount,
                            },
                            unit,
                            AtOnce: flags % 3 == 0
                        ),
                        NeedsNod: flags % 2 == 0
                    )
                    {
                        Condition = flags == 7 ? new AnyCondition([]) : null,
                    }
            ).Array[1, 6],
            Gen.Bool,
            Gen.Int[0, 3],
            (steps, rhythm, stops) =>
                new FollowThroughContent(
                    "Played",
                    new ByHandStart(),
                    [
                        .. steps.Select(
                            (step, index) =>
                                step with
                                {
                                    Key = $"s{index}",
                                    Name = $"s{index}",
                                    Action =
                                        step.Action is SendMessage
                                            ? new SendMessage(new MessageTemplate($"s{index}", [new TextPart("text", "A word.")]))
                                            : step.Action,
                                }
                        ),
                    ],
                    stops switch
                    {
                        0 => [],
                        1 => [StopOn.Replied],
                        2 => [new StopOn(new BookedOccasion(), Mail("last", Next))],
                        _ => [StopOn.Replied, StopOn.Booked],
                    }
                )
                {
                    KeepsRhythm = rhythm,
                }
        );
}
