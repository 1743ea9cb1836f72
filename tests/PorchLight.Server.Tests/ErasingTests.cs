using System.Net;
using System.Net.Http.Json;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Clients;
using PorchLight.Server.Demo;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using static PorchLight.Server.Tests.FieldTests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Erasing a person, by hand and when the keeping period is over.</summary>
public sealed class ErasingTests
{
    /// <summary>Words of theirs that stand in the records, in what they sent, in mail and in what happened.</summary>
    private static readonly string[] Theirs =
    [
        "Brackenridge",
        "tilda@bakes",
        "555 0142",
        "Bread and gulls",
        "sticks on Mondays",
        "She phoned back",
        "Ring about gulls",
        "Lime-washed twice",
    ];

    [Fact]
    public async Task Of_somebody_erased_no_word_is_left_in_any_table_and_what_is_counted_stays()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.SendAsync(Answers("other@lodge.example"));
        await app.WorkAsync();
        var owner = app.Owner();
        var client = await OnlyClientAsync(owner, "tilda@bakes.example");
        var id = client.Text("id");
        await owner.PostAsync($"/api/clients/{id}/notes", Body(new { projectId = (Guid?)null, text = "The door sticks on Mondays." }));
        foreach (var isDone in new[] { false, true })
        {
            var task = new
            {
                projectId = (Guid?)null,
                title = isDone ? "Lime-washed twice" : "Ring about gulls",
                isDate = false,
                on = (string?)null,
                @for = (Guid?)null,
            };
            var made = (await (await owner.PostAsync($"/api/clients/{id}/tasks", Body(task))).JsonAsync()).Text("id");
            object Words(bool done) =>
                new
                {
                    task.title,
                    task.on,
                    task.@for,
                    isDone = done,
                };
            if (isDone)
                await owner.PutAsync($"/api/clients/{id}/tasks/{made}", Body(new { was = Words(false), now = Words(true) }));
        }

        var inquiry = client.GetProperty("projects")[0].GetProperty("inquiries")[0].Text("id");
        await owner.PostAsync($"/api/inquiries/{inquiry}/got-in-touch", Body(new { text = "She phoned back." }));
        await owner.PostAsync($"/api/inquiries/{inquiry}/reply", Body(Written("Your wall, Brackenridge", "Gladly.")));
        await app.WorkAsync();
        var received = await app.AskAsync(db => db.Events.CountAsync(logged => logged.Kind == "inquiryReceived"));
        (await LeftAsync(app)).ShouldBe(Theirs.Order(), "all of it is there before");

        var preview = await owner.GetAsync($"/api/clients/{id}/erasing").JsonAsync();
        var goes = preview.GetProperty("goes").EnumerateArray().Select(line => line.GetString()).ToList();
        goes.ShouldContain("One inquiry with its answers");
        (await app.Member().DeleteAsync($"/api/clients/{id}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await owner.DeleteAsync($"/api/clients/{id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.DeleteAsync($"/api/clients/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        (await LeftAsync(app)).ShouldBe(["Brackenridge", "555 0142", "Bread and gulls"], ignoreOrder: true, "the other wrote the same");
        (await owner.DeleteAsync($"/api/clients/{(await OnlyClientAsync(owner)).Text("id")}")).EnsureSuccessStatusCode();
        (await LeftAsync(app)).ShouldBeEmpty();
        (await app.AskAsync(db => db.Events.CountAsync(logged => logged.Kind == "inquiryReceived"))).ShouldBe(received);
        (await app.AskAsync(db => db.Submissions.CountAsync())).ShouldBe(2, "a form that takes only so many has taken these");
        (await app.AskAsync(db => db.Events.CountAsync(logged => logged.Kind == "clientErased" && logged.ClientId == null))).ShouldBe(2);
        var form = (await owner.GetFromJsonAsync<List<System.Text.Json.JsonElement>>("/api/forms"))!.First(one =>
            one.Text("title") == "A wall to paint"
        );
        (await (await owner.GetAsync($"/api/forms/{form.Text("id")}/answers.csv")).Content.ReadAsStringAsync())
            .Trim()
            .Split('\n')
            .Length.ShouldBe(1);

        // Whoever writes again is somebody new.
        await app.SendAsync(Answers());
        (await OnlyClientAsync(owner)).GetProperty("differences").GetArrayLength().ShouldBe(0);
    }

    /// <summary>One person, put wherever the program keeps anything, and looked for in every byte of the folder and of a backup.</summary>
    [Fact]
    public async Task Of_somebody_erased_no_byte_is_left_in_the_folder_or_in_a_backup()
    {
        await using var app = new TestApp { Time = new(TestClock.Written), Durable = true };
        var (owner, link) = (app.Owner(), await app.LinkAsync());
        var maren = await app.AskAsync(db => db.Users.Select(user => user.Id).FirstAsync());
        await app.ChangeFormAsync(settings => settings with { Notified = [maren] });
        var answers = Answers("quillfeather@nib.example");
        answers["name"] = new PersonNameAnswer("Wilhelmina", "Quillfeather");
        answers["phone"] = new PhoneAnswer("01 555 0977");
        answers["what"] = new TextAnswer("Vellum and verdigris, Quillfeather style");
        await app.SendAsync(answers);
        // Left half-finished under another key, told to the team, imported to look at, searched for and kept as a view.
        await UnfinishedFormTests.KeepAsync(app, link, Guid.NewGuid(), answers);
        foreach (var views in new[] { "inquiries", "clients" })
            await owner.PutAsync(
                $"/api/{views}/views/{Guid.NewGuid()}",
                Body(new { name = "One of them", query = new { words = "Quillfeather" } })
            );
        await app.WorkAsync();
        var id = (await OnlyClientAsync(owner, "quillfeather@nib.example")).Text("id");
        await owner.PostAsync($"/api/clients/{id}/notes", Body(new { projectId = (Guid?)null, text = "Quillfeather pays in quills." }));
        await app.PassTimeAsync(Duration.FromDays(3));
        await ImportTests.TakeAsync(app, "Name,Email\nWilhelmina Quillfeather,quillfeather@nib.example\n"u8.ToArray(), "quillfeather.csv");
        (await BytesAsync(app, owner, Quillfeather)).ShouldNotBeEmpty("they stand there before");

        var goes = (await owner.GetAsync($"/api/clients/{id}/erasing").JsonAsync()).GetProperty("goes").ToString();
        foreach (var line in new[] { "to your team", "unfinished", "never imported" })
            goes.ShouldContain(line);
        (await owner.DeleteAsync($"/api/clients/{id}")).EnsureSuccessStatusCode();
        (await BytesAsync(app, owner, Quillfeather)).ShouldBeEmpty();
    }

    /// <summary>
    /// A house in which somebody has a row of every kind there is, whichever area keeps it: all of it was told before, none of it is left,
    /// and no byte of the folder or of a backup says their name.
    /// </summary>
    [Fact]
    public async Task Of_somebody_with_a_row_of_every_kind_none_is_left_and_no_byte()
    {
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople, Durable = true };
        await app.WorkAsync();
        var (id, tables) = (default(Id<Client>), await TablesAsync(app));
        await app.ChangeAsync(async db => id = await new EveryRowOf(db, "Quillfeather", "quillfeather@nib.example").AddAsync(tables));
        // What they wrote may stand with somebody else's mail.
        await app.ChangeAsync(async db =>
            db.IncomingMail.Add(
                new IncomingMessage
                {
                    Id = new Id<IncomingMessage>(Guid.CreateVersion7()),
                    MessageId = "<elsewhere@nib.example>",
                    ClientId = (await db.CountingClients.FirstAsync(one => one.Id != id)).Id,
                    Kind = IncomingKind.Reply,
                    From = "Quillfeather@nib.example",
                    Subject = "About the other wall",
                    Text = "Quillfeather again.",
                    At = app.Now,
                    AnswersId = null,
                }
            )
        );
        await using var scope = app.Services.CreateAsyncScope();
        var looked = scope.ServiceProvider.GetRequiredService<PorchDb>();
        var person = await looked.WholePersonAsync(id, CancellationToken.None);
        var rows = scope.ServiceProvider.GetServices<IClientPart>().SelectMany(part => part.RowsOf(person)).ToList();
        (await WithAnyAsync()).ShouldBe([.. rows.Select(one => one.Table.Name).Except(Unrelated).Order()], "there is one of each before");
        var owner = app.Owner();
        var everything = await owner.GetStringAsync($"/api/clients/{id}/everything.json");
        everything.ShouldContain("Quillfeather");
        everything.ShouldNotContain("Sealed", Case.Sensitive, "keys are nobody's to have");

        (await owner.DeleteAsync($"/api/clients/{id}")).EnsureSuccessStatusCode();
        (await WithAnyAsync()).ShouldBe(["Submission"], "what is counted stays");
        (await RowsAsync(app))
            .Select(row => row.Text)
            .Where(text => text.Contains("quillfeather", StringComparison.Ordinal))
            .ShouldBeEmpty();
        (await BytesAsync(app, owner, "quillfeather")).ShouldBeEmpty();

        async Task<List<string>> WithAnyAsync()
        {
            var found = new SortedSet<string>(StringComparer.Ordinal);
            foreach (var one in rows)
            {
                if (await one.AnyAsync(CancellationToken.None))
                    found.Add(one.Table.Name);
            }

            return [.. found];
        }
    }

    /// <summary>Files of people to import hang on nobody; they are looked through for names, as the test above has it.</summary>
    private static readonly string[] Unrelated = [nameof(ClientImport)];

    internal static async Task<List<Type>> TablesAsync(TestApp app)
    {
        await using var scope = app.Services.CreateAsyncScope();
        return
        [
            .. scope
                .ServiceProvider.GetServices<IClientPart>()
                .SelectMany(part => part.RowsOf(WholePerson.Nobody))
                .Select(one => one.Table)
                .Where(table => !Unrelated.Contains(table.Name))
                .Distinct(),
        ];
    }

    private static readonly string[] Quillfeather = ["quillfeather", "verdigris", "5550977", "555 0977"];

    /// <summary>The files of the folder and of a backup in which anything of theirs stands, in whatever case and letters.</summary>
    private static async Task<List<string>> BytesAsync(TestApp app, HttpClient owner, params string[] theirs)
    {
        var files = Directory
            .GetFiles(app.Folder, "*", SearchOption.AllDirectories)
            .Where(file => Path.GetFileName(file) is not ("in-use" or "copying"))
            .Select(file => (Path.GetFileName(file), ReadShared(file)))
            .ToList();
        var download = await owner.GetAsync("/api/settings/backup.zip");
        using var zip = new System.IO.Compression.ZipArchive(await download.Content.ReadAsStreamAsync());
        foreach (var entry in zip.Entries)
        {
            using var bytes = new MemoryStream();
            await using (var stream = await entry.OpenAsync())
                await stream.CopyToAsync(bytes);
            files.Add(("backup " + entry.FullName, bytes.ToArray()));
        }

        return
        [
            .. from file in files
            let text = System.Text.Encoding.Latin1.GetString(file.Item2).ToLowerInvariant()
            from word in theirs
            where text.Contains(word, StringComparison.Ordinal)
            select $"{file.Item1}: {word}",
        ];
    }

    private static byte[] ReadShared(string file)
    {
        using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        return bytes.ToArray();
    }

    /// <summary>
    /// A second way to say who is meant: a row is theirs when it holds their identifier, or that of a row that is theirs, or is what one of their inquiries sent. No other row of any
    /// table changes in any cell.
    /// </summary>
    [Fact]
    public async Task Of_everybody_else_every_cell_stays_as_it_was()
    {
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        await app.WorkAsync();
        var owner = app.Owner();
        var everybody = await app.AskAsync(db => db.CountingClients.Select(client => client.Id).ToListAsync());
        Random.Shared.Shuffle(System.Runtime.InteropServices.CollectionsMarshal.AsSpan(everybody));
        foreach (var client in everybody.Take(4))
        {
            var before = await RowsAsync(app);
            HashSet<string> theirs = [client.ToString()];
            for (var known = 0; known < theirs.Count; )
            {
                known = theirs.Count;
                theirs.UnionWith(before.Where(row => row.Holds(theirs)).SelectMany(row => row.Identifiers));
            }

            (await owner.DeleteAsync($"/api/clients/{client}")).EnsureSuccessStatusCode();
            var after = (await RowsAsync(app)).GroupBy(row => row.Text).ToDictionary(same => same.Key, same => same.Count());
            foreach (var row in before.Where(row => !row.Holds(theirs)).GroupBy(row => row.Text))
                after.GetValueOrDefault(row.Key).ShouldBeGreaterThanOrEqualTo(row.Count(), $"without {client}: {row.Key}");
            before.Count(row => row.Holds(theirs)).ShouldBeGreaterThan(5);
        }
    }

    /// <summary>A row of a table.</summary>
    /// <param name="Text">Its table and every cell with its column.</param>
    /// <param name="Identifiers">Its own identifier, where that is more than a number, and that of what was sent, which names nobody.</param>
    private sealed record Row(string Text, IReadOnlyList<string> Identifiers)
    {
        public bool Holds(HashSet<string> identifiers) => identifiers.Any(Text.Contains);
    }

    private static Task<List<Row>> RowsAsync(TestApp app) =>
        app.AskAsync(async db =>
        {
            await using var connection = new SqliteConnection(db.Database.GetConnectionString());
            await connection.OpenAsync();
            var rows = new List<Row>();
            foreach (var table in await ReadAsync(connection, "SELECT name FROM sqlite_master WHERE type = 'table'"))
            {
                // The index of words has its own form; what it finds is looked at elsewhere.
                if (table.StartsWith("ClientWords", StringComparison.Ordinal))
                    continue;
                await using var command = connection.CreateCommand();
                command.CommandText = $"SELECT * FROM \"{table}\"";
                await using var reader = await command.ExecuteReaderAsync();
                while (await reader.ReadAsync())
                {
                    var cells = Enumerable
                        .Range(0, reader.FieldCount)
                        .Select(column => $"{reader.GetName(column)} {reader.GetValue(column)}".ToLowerInvariant())
                        .ToList();
                    var identifiers = cells
                        .Where(cell => cell.Split(' ')[0] is "id" or "submissionid")
                        .Select(cell => cell.Split(' ')[1])
                        .Where(id => Guid.TryParse(id, out _));
                    rows.Add(new Row($"{table}: {string.Join(" | ", cells)}", [.. identifiers]));
                }
            }

            return rows;
        });

    [Fact]
    public async Task What_was_made_one_with_them_is_erased_with_them()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.SendAsync(new(Answers("oskar@venn.example")) { ["name"] = new PersonNameAnswer("Oskar", "Venn") });
        await app.WorkAsync();
        var ids = await app.AskAsync(db => db.Clients.Select(client => client.Id).ToListAsync());
        var owner = app.Owner();
        await owner.PutAsync($"/api/clients/{ids[0]}/beside/{ids[1]}/merged", Body(new { take = Array.Empty<string>() }));
        (await owner.DeleteAsync($"/api/clients/{ids[0]}")).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Clients.IgnoreQueryFilters().CountAsync())).ShouldBe(0);
        (await app.AskAsync(db => db.FieldValues.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task The_keeping_period_is_announced_on_today_for_a_week_and_then_runs_by_itself()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        await app.SendAsync(Answers("other@lodge.example"));
        await app.SendAsync(Answers("planned@yard.example"));
        await app.WorkAsync();
        var owner = app.Owner();
        // Something is to do for one of them beyond the period.
        var planned = (await OnlyClientAsync(owner, "planned@yard.example")).Text("id");
        var task = new
        {
            projectId = (Guid?)null,
            title = "Paint it again",
            isDate = true,
            on = "2027-03-20",
            @for = (Guid?)null,
        };
        (await owner.PostAsync($"/api/clients/{planned}/tasks", Body(task))).EnsureSuccessStatusCode();
        var settings = await owner.GetAsync("/api/settings").JsonAsync();
        var was = settings.GetProperty("keeping");
        (
            await owner.PutAsync("/api/settings/keeping", Body(new { was, now = new { unfinishedDays = 30, clientMonths = 0 } }))
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (
            await owner.PutAsync("/api/settings/keeping", Body(new { was, now = new { unfinishedDays = 30, clientMonths = 2 } }))
        ).EnsureSuccessStatusCode();
        await app.PassTimeAsync(Duration.FromDays(50));
        (await SoonAsync()).ShouldBeEmpty();
        // What a follow-through did by itself keeps nobody.
        await using (var scope = app.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
            await using var write = await db.WriteAsync(CancellationToken.None);
            var other = await db.Clients.FirstAsync(client => client.EmailKey == "other@lodge.example");
            await scope
                .ServiceProvider.GetRequiredService<EventLog>()
                .AppendAsync(new StepDone("later", By: null), app.Now, new EventContext(other.Id));
            await write.SaveAsync(CancellationToken.None);
        }

        await app.PassTimeAsync(Duration.FromDays(8));
        (await SoonAsync()).Count.ShouldBe(2);
        var kept = (await SoonAsync())[0];
        (
            await (await app.SignedInAsync(DemoBusiness.OwnerMail)).PutAsync($"/api/clients/{kept}/kept", Body(new { }))
        ).EnsureSuccessStatusCode();
        (await SoonAsync()).Count.ShouldBe(1);
        await app.PassTimeAsync(Duration.FromDays(8));
        (await app.AskAsync(db => db.Clients.Select(client => client.Id).ToListAsync()))
            .Select(id => id.ToString())
            .ShouldBe([kept, planned], ignoreOrder: true);

        async Task<List<string>> SoonAsync() =>
            [
                .. (await (await app.SignedInAsync(DemoBusiness.OwnerMail)).GetAsync("/api/today").JsonAsync())
                    .GetProperty("erasedSoon")
                    .EnumerateArray()
                    .Select(one => one.Text("id")),
            ];
    }

    /// <summary>Which of their words stand anywhere in the database, looked for in every column of every table.</summary>
    private static async Task<IEnumerable<string>> LeftAsync(TestApp app)
    {
        var found = new SortedSet<string>();
        await app.AskAsync(async db =>
        {
            await using var connection = new SqliteConnection(db.Database.GetConnectionString());
            await connection.OpenAsync();
            var cells = new List<string>();
            foreach (var table in await ReadAsync(connection, "SELECT name FROM sqlite_master WHERE type = 'table'"))
            {
                // What the index of words holds stands in a table of its own form, and is asked below as a search asks.
                if (table.StartsWith("ClientWords", StringComparison.Ordinal))
                    continue;
                cells.AddRange(await ReadAsync(connection, $"SELECT * FROM \"{table}\""));
            }

            cells.AddRange(await ReadAsync(connection, "SELECT words FROM ClientWords"));
            found.UnionWith(Theirs.Where(words => cells.Any(cell => cell.Contains(words, StringComparison.OrdinalIgnoreCase))));
            return 0;
        });
        return found;
    }

    private static async Task<List<string>> ReadAsync(SqliteConnection connection, string sql)
    {
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        await using var reader = await command.ExecuteReaderAsync();
        var cells = new List<string>();
        while (await reader.ReadAsync())
        {
            for (var column = 0; column < reader.FieldCount; column++)
                cells.Add(reader.GetValue(column).ToString()!);
        }

        return cells;
    }
}
