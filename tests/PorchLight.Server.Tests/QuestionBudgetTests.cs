using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Ready;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>How many questions a screen asks of the database: so many, however many rows it shows.</summary>
public sealed class QuestionBudgetTests
{
    [Fact]
    public async Task A_screen_asks_as_many_questions_for_many_rows_as_for_few_and_no_more_than_it_is_given()
    {
        var asked = new Questions();
        await using var app = new TestApp
        {
            SeedData = SeedData.DemoWithPeople,
            Change = services => services.ConfigureDbContext<PorchDb>(db => db.AddInterceptors(asked)),
        };
        var owner = app.Owner();
        await AskedMoreAsync(app, "first@rows.example");
        var (client, inquiry, follow) = await app.AskAsync(async db =>
        {
            var one = await db.Clients.SingleAsync(one => one.EmailKey == "first@rows.example");
            return (
                one.Id,
                await db.Inquiries.Where(received => received.ClientId == one.Id).Select(received => received.Id).FirstAsync(),
                await db
                    .Runs.GroupBy(run => run.FollowThroughId)
                    .OrderByDescending(runs => runs.Count())
                    .Select(runs => runs.Key)
                    .FirstAsync()
            );
        });
        var budgets = new Dictionary<string, int>
        {
            ["/api/today"] = 18,
            ["/api/bell"] = 9,
            ["/api/forms"] = 5,
            ["/api/inquiries/found"] = 7,
            [$"/api/inquiries/{inquiry}"] = 20,
            ["/api/clients/found"] = 7,
            [$"/api/clients/{client}"] = 25,
            [$"/api/clients/{client}/runs"] = 9,
            [$"/api/clients/{client}/messages"] = 5,
            ["/api/follow-throughs"] = 10,
            [$"/api/follow-throughs/{follow}/people"] = 10,
            ["/api/practice/mail/found"] = 5,
            ["/api/library/messages"] = 10,
            ["/api/unfinished-forms"] = 5,
            ["/api/webhooks/calls/found"] = 5,
            ["/api/forms/found"] = 5,
            ["/api/library/messages/found"] = 10,
            ["/api/files/found"] = 11,
            ["/api/files"] = 10,
        };
        var few = await CountAsync();
        await app.ChangeAsync(async db =>
        {
            var form = await db.Forms.FirstAsync();
            for (var more = 0; more < 3; more++)
                db.AddFollowThroughs([ReadyForms.Thanks(form.Id.Value, $"More {more}")]);
        });
        for (var more = 0; more < 6; more++)
            await AskedMoreAsync(app, $"more{more}@rows.example");
        await AskedMoreAsync(app, "first@rows.example");
        await AskedMoreAsync(app, "first@rows.example");
        var many = await CountAsync();
        many.ShouldBe(few);
        many.Where(one => one.Value > budgets[one.Key])
            .Select(one => $"{one.Key} asks {one.Value}, not {budgets[one.Key]}")
            .ShouldBeEmpty();

        async Task<Dictionary<string, int>> CountAsync()
        {
            var counts = new Dictionary<string, int>();
            foreach (var address in budgets.Keys)
            {
                // What never changes is read for the first time, and held.
                await LookAsync(address);
                asked.Made.Clear();
                await LookAsync(address);
                counts[address] = asked.Made.Count;
            }

            return counts;
        }

        async Task LookAsync(string address) =>
            (
                address.EndsWith("/found", StringComparison.Ordinal)
                    ? await owner.PostAsync(address, Asked(new { }))
                    : await owner.GetAsync(address)
            ).EnsureSuccessStatusCode();
    }

    /// <summary>Somebody asks, is written to by a follow-through, and has a note and a task.</summary>
    private static async Task AskedMoreAsync(TestApp app, string email)
    {
        (await app.SendAsync(Answers(email))).EnsureSuccessStatusCode();
        await app.PassTimeAsync(Duration.FromMinutes(20));
        var client = await app.AskAsync(db => db.Clients.Where(one => one.EmailKey == email).Select(one => one.Id).SingleAsync());
        var (owner, today) = (app.Owner(), LocalDatePattern.Iso.Format(app.Now.InUtc().Date));
        foreach (
            var (what, words) in new (string, object)[]
            {
                ("notes", new { projectId = (Guid?)null, text = "Rang." }),
                (
                    "tasks",
                    new
                    {
                        projectId = (Guid?)null,
                        title = "Ring back",
                        isDate = false,
                        on = today,
                        @for = (Guid?)null,
                    }
                ),
            }
        )
            (await owner.PostAsync($"/api/clients/{client}/{what}", Body(words))).EnsureSuccessStatusCode();
    }
}
