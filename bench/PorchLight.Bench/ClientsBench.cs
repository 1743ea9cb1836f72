using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Bench;

/// <summary>The list of 20,000 clients.</summary>
internal static class ClientsBench
{
    private const int People = 20_000;

    private static readonly (string Name, ClientQuery Query, string Sql)[] Lists =
    [
        ("the list", new(), "SELECT Id FROM Clients WHERE Standing <> 'Archived' ORDER BY Since DESC, Id DESC LIMIT 100"),
        ("by name", new() { Order = "name" }, "SELECT Id FROM Clients WHERE Standing <> 'Archived' ORDER BY SortName, Id LIMIT 100"),
        (
            "by a field",
            new() { Order = "project.budget", Backwards = true },
            "SELECT ClientId FROM FieldValues WHERE IsListed AND Field = 'project.budget' AND OrderNumber IS NOT NULL "
                + "ORDER BY OrderNumber DESC LIMIT 100"
        ),
        (
            "filtered by words",
            new() { Filters = [new FieldFilter("project.place", FieldTest.Contains, "howth")] },
            "SELECT ClientId FROM FieldValues WHERE IsListed AND Field = 'project.place' AND OrderText LIKE '%howth%' LIMIT 100"
        ),
        (
            "filtered by an amount",
            new() { Filters = [new FieldFilter("project.budget", FieldTest.AtLeast, "9500")] },
            "SELECT ClientId FROM FieldValues WHERE IsListed AND Field = 'project.budget' AND OrderNumber >= 9500 LIMIT 100"
        ),
        (
            "searched",
            new() { Words = "given17 howth" },
            "SELECT rowid FROM ClientWords WHERE words MATCH '\"given17\"* \"howth\"*' LIMIT 100"
        ),
    ];

    public static async Task MeasureAsync(BenchApp app)
    {
        await app.AskAsync(FillAsync);
        await using (var scope = app.Services.CreateAsyncScope())
        {
            var search = scope.ServiceProvider.GetRequiredService<ClientSearch>();
            while (await search.CatchUpAsync(CancellationToken.None))
                scope.ServiceProvider.GetRequiredService<PorchDb>().ChangeTracker.Clear();
        }

        using var owner = await ListBench.SignInAsync(app);
        foreach (var (name, query, sql) in Lists)
            await ListBench.MeasureAsync(app, owner, $"{People:N0} clients, {name}", "/api/clients/found", query, sql);
    }

    internal static async Task<int> FillAsync(PorchDb db)
    {
        var (form, now) = ((await db.Forms.FirstAsync()).Id, SystemClock.Instance.GetCurrentInstant());
        for (var batch = 0; batch < People; batch += 1000)
        {
            await using var write = await db.WriteAsync(CancellationToken.None);
            var writer = new RecordWriter(db);
            for (var index = batch; index < batch + 1000; index++)
                Add(db, writer, form, index, now - Duration.FromMinutes(index * 7919 % 700_000));
            await write.SaveAsync(CancellationToken.None);
            db.ChangeTracker.Clear();
        }

        return People;
    }

    private static void Add(PorchDb db, RecordWriter writer, Id<Form> form, int index, Instant at)
    {
        var client = db
            .Clients.Add(
                new Client
                {
                    Id = new Id<Client>(Guid.CreateVersion7()),
                    Name = "",
                    Email = null,
                    EmailKey = null,
                    Standing = (Standing)(index % 4),
                    Since = at,
                }
            )
            .Entity;
        var project = db
            .Projects.Add(
                new Project
                {
                    Id = new Id<Project>(Guid.CreateVersion7()),
                    ClientId = client.Id,
                    FormId = form,
                    Title = "A wall to paint",
                    Stage = "new",
                    Opened = at,
                    IsLatest = true,
                }
            )
            .Entity;
        string[] towns = ["Howth", "Bray", "Malahide", "Skerries", "Dalkey"];
        Put("client.name", new PersonNameAnswer($"Given{index % 200}", $"Family{index * 31 % People:00000}"));
        Put("client.email", new TextAnswer($"someone{index}@bakes.example"));
        Put("project.place", new TextAnswer(towns[index % 5]));
        Put("project.budget", new MoneyAnswer(index * 37 % 10_000, "EUR"));
        Put("project.what", new TextAnswer($"The side wall of number {index}, towards the harbour, with bread and gulls on it."));

        void Put(string field, Answer value) =>
            writer.Write(client, project, field, value, null, new ValueSource(ValueOrigin.Hand, "Bench", at));
    }
}
