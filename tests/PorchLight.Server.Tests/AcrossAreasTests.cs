using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Server.FollowThrough;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What once went wrong between two areas: each of these was seen.</summary>
public sealed class AcrossAreasTests
{
    [Fact]
    public async Task Two_records_of_one_person_that_are_made_one_keep_one_journey()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        app.Time.Advance(TimeSpan.FromMinutes(5));
        await app.SendAsync(new(Answers("oskar@venn.example")) { ["name"] = new PersonNameAnswer("Oskar", "Venn") });
        await app.WorkAsync();
        var ids = await app.AskAsync(db => db.Clients.OrderBy(client => client.Since).Select(client => client.Id).ToListAsync());
        (await app.AskAsync(db => db.Runs.CountAsync(run => run.Active))).ShouldBe(2, "each is on a journey");
        (
            await app.Owner().PutAsync($"/api/clients/{ids[0]}/beside/{ids[1]}/merged", Body(new { take = Array.Empty<string>() }))
        ).EnsureSuccessStatusCode();
        var runs = await app.AskAsync(db => db.Runs.OrderBy(run => run.Id).ToListAsync());
        runs.Select(run => (run.ClientId, run.Active)).ShouldBe([(ids[0], false), (ids[0], true)], "the one that was started last goes on");
        runs[0].State.StoppedBy.ShouldBe(RunEnd.AnotherStarted);
    }

    [Fact]
    public async Task Two_who_share_a_mailbox_can_each_be_sent_a_link()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers("office@mill.example"));
        await app.SendAsync(new(Answers("office@mill.example")) { ["name"] = new PersonNameAnswer("Zacharias", "Quist") });
        var clients = await app.AskAsync(db => db.Clients.ToListAsync());
        clients.Count.ShouldBe(2, "an unlike name under one address is someone else");
        var form = await app.AskAsync(db => db.Forms.Select(one => one.Id).FirstAsync());
        (
            await app.Owner()
                .PostAsync(
                    $"/api/forms/{form}/links",
                    Body(
                        new
                        {
                            email = "office@mill.example",
                            givenName = "Zacharias",
                            familyName = "Quist",
                        }
                    )
                )
        ).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.PersonalLinks.SingleAsync())).ClientId.ShouldBe(
            clients.Single(client => client.Name == "Zacharias Quist").Id
        );
    }

    [Fact]
    public async Task What_is_told_again_to_the_same_press_is_kept_with_the_thing_and_sealed()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var key = Guid.NewGuid();
        async Task<HttpResponseMessage> InviteAsync()
        {
            using var asked = new HttpRequestMessage(HttpMethod.Post, "/api/people/invites")
            {
                Content = Body(
                    new
                    {
                        name = "Nora New",
                        email = "nora@ochrewren.example",
                        role = "member",
                    }
                ),
                Headers = { { "Send-Key", key.ToString() } },
            };
            return await owner.SendAsync(asked);
        }

        var first = await InviteAsync();
        first.StatusCode.ShouldBe(HttpStatusCode.OK, await first.Content.ReadAsStringAsync());
        var said = await first.Content.ReadAsStringAsync();
        var kept = await app.AskAsync(db => db.CompletedRequests.SingleAsync(done => done.Key == key));
        (kept.Status, kept.Answer!.Contains("nora", StringComparison.OrdinalIgnoreCase)).ShouldBe((200, false));
        (await (await InviteAsync()).Content.ReadAsStringAsync()).ShouldBe(said);
        (await app.AskAsync(db => db.Invites.CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task In_a_business_of_ones_own_mail_that_only_practises_keeps_no_promise()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        await app.AskAsync(db => db.Database.ExecuteSqlRawAsync("UPDATE Businesses SET IsDemo = 0"));
        var id = await app.AskAsync(db => db.Inquiries.Select(inquiry => inquiry.Id).SingleAsync());
        var owner = app.Owner();
        (await owner.PostAsync($"/api/inquiries/{id}/reply", Body(Written("Your wall", "Gladly.")))).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).PromiseStopped.ShouldBeNull();
        (await owner.PostAsync($"/api/inquiries/{id}/answered-elsewhere", null)).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).PromiseStopped.ShouldNotBeNull();
    }

    [Fact]
    public async Task What_is_parked_rests_until_its_day_and_comes_back_when_the_clock_is_moved_on()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var id = await app.AskAsync(db => db.Inquiries.Select(inquiry => inquiry.Id).SingleAsync());
        (
            await owner.PutAsync(
                "/api/inquiries/stages",
                Body(
                    new
                    {
                        moves = new[]
                        {
                            new
                            {
                                inquiry = id,
                                stage = "parked",
                                until = new LocalDate(2026, 12, 3),
                                reason = (string?)null,
                                answered = false,
                            },
                        },
                    }
                )
            )
        ).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).Need.ShouldBe(InquiryNeed.Parked, "though its promise is still open");
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("promised").GetArrayLength().ShouldBe(0);
        await app.WorkAsync();
        // The business's days pass, and not an hour of the machine's.
        app.Services.GetRequiredService<Calendar.BusinessClock>().Ahead = Duration.FromDays(11);
        await app.WorkAsync();
        (await app.AskAsync(db => db.Projects.SingleAsync())).ParkedUntil.ShouldBeNull();
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).Need.ShouldBe(InquiryNeed.Reply);
    }

    [Fact]
    public async Task Whoever_was_turned_away_is_not_thanked_by_a_follow_through_for_everybody()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var link = await app.MakeQuickFormAsync(
            new FormContent(
                "Short",
                "",
                [new Page("one", "One", [new Question("email", "Your address?", new EmailKind())])],
                [],
                new SendOff("no", "Sorry", "Not here.") { TurnsAway = true }
            )
        );
        (await app.SendAsync(link, new() { ["email"] = new TextAnswer("ada@bakes.example") })).EnsureSuccessStatusCode();
        await app.WorkAsync();
        var form = await app.AskAsync(async db => (await db.Forms.ToListAsync()).Single(one => one.Draft.Title == "Short").Id);
        (await app.AskAsync(db => db.Inquiries.CountAsync(inquiry => inquiry.FormId == form))).ShouldBe(1, "it is an inquiry all the same");
        (await app.AskAsync(db => db.Runs.CountAsync())).ShouldBe(0);
        (await app.AskAsync(db => db.OutgoingMail.CountAsync(mail => mail.To == "ada@bakes.example"))).ShouldBe(0);
    }

    [Fact]
    public async Task Two_follow_throughs_that_start_each_other_are_refused_and_come_to_an_end_where_they_do_all_the_same()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        var (one, other) = (new Id<StoredFollowThrough>(Guid.CreateVersion7()), new Id<StoredFollowThrough>(Guid.CreateVersion7()));
        await app.ChangeAsync(db =>
        {
            foreach (var (id, next) in new[] { (one, other), (other, one) })
            {
                db.FollowThroughs.Add(
                    new StoredFollowThrough
                    {
                        Id = id,
                        Number = 1,
                        IsOn = true,
                    }
                );
                db.FollowThroughVersions.Add(
                    new FollowThroughVersion
                    {
                        FollowThroughId = id,
                        Number = 1,
                        Content = new FollowThroughContent(
                            "Round and round",
                            new ByHandStart(),
                            [
                                new Step(
                                    "go",
                                    "Go",
                                    new StartAnother(next.Value),
                                    new Schedule(Anchor.RunStart, 0, TimeUnit.Days, AtOnce: true),
                                    false
                                ),
                            ],
                            []
                        ),
                        Since = app.Now,
                        By = "Maren",
                    }
                );
            }

            return Task.CompletedTask;
        });
        (await app.Owner().GetAsync($"/api/follow-throughs/{one}").JsonAsync())
            .GetProperty("findings")
            .ToString()
            .ShouldContain("again and again");
        var project = await app.AskAsync(db => db.Projects.SingleAsync());
        (
            await app.Owner()
                .PostAsync($"/api/clients/{project.ClientId}/runs", Body(new { followThroughId = one, projectId = project.Id }))
        ).EnsureSuccessStatusCode();
        for (var pass = 0; pass < 30; pass++)
            await app.PassTimeAsync(Duration.FromMinutes(1));
        (await app.AskAsync(db => db.Runs.CountAsync())).ShouldBeLessThan(20);
        (await app.AskAsync(db => db.Runs.ToListAsync())).ShouldContain(run =>
            run.Failure != null && run.Failure.Contains("start each other")
        );
    }
}
