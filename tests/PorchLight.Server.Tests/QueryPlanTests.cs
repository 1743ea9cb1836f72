using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What is asked of the database while a lead waits, and how SQLite finds it (https://www.sqlite.org/eqp.html).</summary>
public sealed class QueryPlanTests
{
    /// <summary>What a business has few of, and what is read whole.</summary>
    private static readonly string[] Few =
    [
        "Businesses",
        "Forms",
        "StoredFollowThroughs",
        "AspNetUsers",
        "Fields",
        "ClientImports",
        "ProjectWatchers",
        "Webhooks",
        "BuiltInTexts",
    ];

    [Fact]
    public async Task A_sending_and_what_the_worker_does_after_it_walk_through_no_table_that_grows()
    {
        var asked = new Questions();
        await using var app = new TestApp { Change = services => services.ConfigureDbContext<PorchDb>(db => db.AddInterceptors(asked)) };
        await app.LinkAsync();
        asked.Made.Clear();
        await app.SendAsync(Answers());
        await app.WorkAsync();
        // The same lead again: now there is a client, values on file, and a run to stop.
        await app.SendAsync(Answers());
        await app.WorkAsync();

        var questions = asked.Made.DistinctBy(question => question.Text).ToList();
        questions.Count.ShouldBeGreaterThan(15);
        var walks = new List<string>();
        foreach (var (text, parameters) in questions.Where(question => !Few.Any(few => question.Text.Contains($"FROM \"{few}\""))))
            walks.AddRange(
                (await app.AskAsync(db => PlanAsync(db, text, parameters)))
                    .Where(step => step.StartsWith("SCAN ", StringComparison.Ordinal) && !OnlyWhatIsLeftToDo(step))
                    .Select(step => $"{step}: {text}")
            );
        walks.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_sending_by_somebody_new_asks_seven_things_and_none_of_them_twice()
    {
        var asked = new Questions();
        await using var app = new TestApp { Change = services => services.ConfigureDbContext<PorchDb>(db => db.AddInterceptors(asked)) };
        // What never changes is read for the first and held.
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var (link, ticket) = (await app.LinkAsync(), await app.TicketAsync());
        asked.Made.Clear();
        var sending = Body(
            new
            {
                version = 1,
                sendKey = Guid.NewGuid(),
                answers = Answers("ned@harbour.example"),
                cameFrom = (string?)null,
                ticket,
            }
        );
        (await app.CreateClient().PostAsync($"/public/forms/{link}/send", sending)).EnsureSuccessStatusCode();

        asked.Made.Select(question => question.Text).ShouldBeUnique();
        asked.Made.Count.ShouldBe(7, string.Join("\n", asked.Made.Select(question => question.Text)));
    }

    /// <summary>An index of what waits to be done, which is empty when it is done; and a question without a table.</summary>
    private static bool OnlyWhatIsLeftToDo(string step) =>
        step.EndsWith("IX_Clients_IsUnindexed", StringComparison.Ordinal) || step == "SCAN CONSTANT ROW";

    private static async Task<List<string>> PlanAsync(PorchDb db, string text, IReadOnlyList<(string Name, object? Value)> parameters)
    {
        await db.Database.OpenConnectionAsync();
        await using var explain = db.Database.GetDbConnection().CreateCommand();
        explain.CommandText = $"EXPLAIN QUERY PLAN {text}";
        foreach (var (name, value) in parameters)
            explain.Parameters.Add(new SqliteParameter(name, value ?? DBNull.Value));
        var steps = new List<string>();
        await using var reader = await explain.ExecuteReaderAsync();
        while (await reader.ReadAsync())
            steps.Add(reader.GetString(3));
        return steps;
    }
}
