using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What somebody who runs the program sees of it: health and logs.</summary>
public sealed class OperationsTests
{
    [Fact]
    public async Task Health_says_database_worker_and_mail()
    {
        await using var app = new TestApp();
        await app.WorkAsync();
        var well = await HealthAsync(app);
        (well.Status, well.Text("status"), well.Text("database"), well.Text("worker"), well.Text("mail")).ShouldBe(
            (HttpStatusCode.OK, "ready", "ready", "ready", "ready")
        );
        await app.SendAsync(Answers());
        (await HealthAsync(app)).Text("mail").ShouldBe("1 waiting");
        await app.ChangeAsync(db => db.OutgoingMail.ExecuteUpdateAsync(mail => mail.SetProperty(one => one.State, MailState.Failed)));
        (await HealthAsync(app)).Text("mail").ShouldBe("0 waiting, 1 stuck");
    }

    [Fact]
    public async Task A_silent_worker_or_a_broken_database_is_not_ready()
    {
        await using var app = new TestApp { BreaksSomething = true };
        await app.WorkAsync();
        app.Time.Advance(TimeSpan.FromMinutes(4));
        var silent = await HealthAsync(app);
        (silent.Status, silent.Text("worker")).ShouldBe(
            (HttpStatusCode.ServiceUnavailable, "behind: local, mail, webhooks, calendars, mailbox")
        );
        await app.WorkAsync();
        await app.AskAsync(db => db.Database.ExecuteSqlRawAsync("ALTER TABLE OutgoingMail RENAME TO Elsewhere"));
        var broken = await HealthAsync(app);
        (broken.Status, broken.Text("database")).ShouldBe((HttpStatusCode.ServiceUnavailable, "cannot be read"));
    }

    [Fact]
    public async Task Skipping_ahead_carries_along_what_waits_for_a_moment_of_its_own()
    {
        await using var app = new TestApp();
        await app.WorkAsync();
        await ImportTests.TakeAsync(app, "Name,Email\nAda Byron,ada@bakes.example\n"u8.ToArray(), "people.csv");
        await app.WorkAsync();
        (await app.AskAsync(db => db.ClientImports.CountAsync())).ShouldBe(1);
        app.Services.GetRequiredService<BusinessClock>().Ahead += Retention.LookedAtImport + Duration.FromMinutes(1);
        await app.WorkAsync();
        (await app.AskAsync(db => db.ClientImports.CountAsync())).ShouldBe(0, "no hour of the machine has passed");
    }

    [Fact]
    public async Task What_fails_is_asked_again_after_a_rest_and_the_others_in_its_lane_go_on()
    {
        await using var app = new TestApp { BreaksSomething = true };
        var work = app.Services.GetRequiredService<DueWork>();
        (await work.PassAsync(DueLane.Local, CancellationToken.None)).ShouldNotBeNull("something is planned");
        await app.SendAsync(Answers());
        await app.AskAsync(db => db.Database.ExecuteSqlRawAsync("ALTER TABLE ReopenSubscriptions RENAME TO Elsewhere"));
        (await work.PassAsync(DueLane.Local, CancellationToken.None)).ShouldBeNull("it rests");
        (await app.AskAsync(db => db.OutgoingMail.AnyAsync(mail => mail.To == "tilda@bakes.example"))).ShouldBeTrue("the run went on");
        await app.AskAsync(db => db.Database.ExecuteSqlRawAsync("ALTER TABLE Elsewhere RENAME TO ReopenSubscriptions"));
        (await work.PassAsync(DueLane.Local, CancellationToken.None)).ShouldNotBeNull();
    }

    [Fact]
    public async Task A_program_that_can_read_but_not_write_is_not_ready()
    {
        await using var app = new TestApp { BreaksSomething = true };
        await app.WorkAsync();
        await app.AskAsync(db =>
            db.Database.ExecuteSqlRawAsync(
                "CREATE TRIGGER full BEFORE UPDATE ON Businesses BEGIN SELECT RAISE(ABORT, 'database or disk is full'); END"
            )
        );
        var full = await HealthAsync(app);
        (full.Status, full.Text("database")).ShouldBe((HttpStatusCode.ServiceUnavailable, "cannot be written"));
    }

    [Fact]
    public async Task A_disk_that_is_nearly_full_takes_no_files_and_the_owner_is_told()
    {
        await using var app = new TestApp { BreaksSomething = true, Settings = { ["PorchLight:MegabytesKeptFree"] = "1000000000" } };
        await app.WorkAsync();
        (await HealthAsync(app)).Text("disk").ShouldBe("nearly full");
        (await app.Owner().GetAsync("/api/today").JsonAsync()).Text("warning").ShouldContain("nearly full");
        (await (await app.SendAsync(Answers())).SentenceAsync()).ShouldContain("our disk is nearly full");
    }

    [Fact]
    public async Task Every_answer_names_its_request_and_the_log_carries_the_same_name()
    {
        var log = new CapturedLog();
        await using var app = new TestApp { Change = log.Keep };
        var response = await app.CreateClient().GetAsync("/health");
        var id = response.Headers.GetValues("X-Request-Id").Single();
        log.Lines.ShouldContain(line => line.StartsWith($"{id} GET /health answered 200", StringComparison.Ordinal));
    }

    [Fact]
    public async Task No_answer_no_password_and_no_link_comes_into_the_log_even_when_things_fail()
    {
        var log = new CapturedLog();
        await using var app = new TestApp { BreaksSomething = true, Change = log.Keep };
        var link = await app.LinkAsync();
        var answers = Answers("secret-mail@bakes.example");
        answers["what"] = new TextAnswer("a secret wish");
        await app.SendAsync(answers);
        await app.AskAsync(db => db.Database.ExecuteSqlRawAsync("ALTER TABLE OutgoingMail RENAME TO Elsewhere"));
        answers["email"] = new TextAnswer("another-secret@bakes.example");
        (await app.SendAsync(answers)).StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        answers["budget"] = new TextAnswer("a secret sum");
        await app.SendAsync(answers);
        await app.CreateClient().PostAsync($"/public/forms/{link}/send", new StringContent("{\"answers\":\"a secret word"));
        await (await app.StrangerAsync()).PostAsync(
            "/api/sign-in",
            Body(new { email = "maren@ochrewren.example", password = "a secret password" })
        );
        log.Lines.ShouldContain(line => line.Contains("/public/forms/{token}/send answered 500", StringComparison.Ordinal));
        log.Lines.ShouldContain(line => line.Contains("Unhandled failure at POST /public/forms/{token}/send", StringComparison.Ordinal));
        foreach (var secret in new[] { "secret", "Tilda", "Brackenridge", link })
            log.Lines.ShouldNotContain(line => line.Contains(secret, StringComparison.Ordinal));
    }

    private static async Task<(HttpStatusCode Status, Func<string, string> Text)> HealthAsync(TestApp app)
    {
        var response = await app.CreateClient().GetAsync("/health");
        var body = await response.JsonAsync();
        return (response.StatusCode, name => body.Text(name));
    }
}
