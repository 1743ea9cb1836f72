using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Server.Identity;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Whatever the contract lets one look at, looked at with what really stands in the demo.</summary>
public sealed class EveryGetTests
{
    private static readonly JsonElement Contract = JsonDocument
        .Parse(File.ReadAllText(Repository.Find("src/PorchLight.Server/openapi.json")))
        .RootElement;

    /// <summary>A run and the step of it that waits belong together.</summary>
    private const string Nods = "{runId}/{step}";

    [Fact]
    public async Task Everything_that_can_be_looked_at_is_shown_for_what_stands_there()
    {
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        var owner = app.Owner();
        var known = await KnownAsync(app, owner);
        var unasked = new List<string>();
        var wrong = new List<string>();
        var heard = new HashSet<string>();
        foreach (var path in Contract.GetProperty("paths").EnumerateObject().Where(path => path.Value.TryGetProperty("get", out _)))
        {
            var addresses = Addresses(path.Name, path.Value.GetProperty("get"), known);
            if (addresses.Count == 0)
                unasked.Add(path.Name);
            foreach (var address in addresses)
            {
                var before = await app.AskAsync(db => Task.FromResult(db.Mark()));
                var answer = await owner.GetAsync(address);
                if (!await app.AskAsync(db => Task.FromResult(db.IsUnchangedSince(before))))
                    wrong.Add($"{address} wrote something, and was only looked at.");
                if (answer.Headers.TryGetValues(AnswerAreas.MadeOfHeader, out var areas))
                    heard.UnionWith(areas.Single().Split(' '));
                // Nobody is laid beside themselves.
                var isBesideItself = address.Split("/beside/") is [var one, var other] && one.EndsWith(other, StringComparison.Ordinal);
                if (!answer.IsSuccessStatusCode && !isBesideItself)
                    wrong.Add($"{address} answered {(int)answer.StatusCode}: {await answer.Content.ReadAsStringAsync()}");
            }
        }

        unasked.ShouldBeEmpty("each is asked with something that is there");
        wrong.ShouldBeEmpty();
        var told = await app.AskAsync(db =>
            Task.FromResult(db.Model.GetEntityTypes().Select(entity => WriteGuard.AreaOf(entity.ClrType)).OfType<string>().ToHashSet())
        );
        told.Except(heard).ShouldBeEmpty("whatever a write tells of, some screen is made of");
    }

    [Fact]
    public async Task An_answer_says_what_it_was_made_of_and_a_write_what_it_changed_and_a_stranger_hears_nothing_of_either()
    {
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        var owner = app.Owner();
        var client = await app.AskAsync(db => db.Clients.Select(one => one.Id).FirstAsync());
        (await owner.GetAsync("/api/clients/leads")).ShouldSatisfyAllConditions(
            seen => Said(seen, AnswerAreas.MadeOfHeader).ShouldBe(["records"]),
            seen => Said(seen, AnswerAreas.ChangedHeader).ShouldBeEmpty()
        );
        (await owner.GetAsync("/api/choices")).ShouldSatisfyAllConditions(seen =>
            Said(seen, AnswerAreas.MadeOfHeader).ShouldBeEmpty("what the program itself knows never changes")
        );
        for (var again = 0; again < 2; again++)
            Said(await owner.GetAsync("/api/clients/choices"), AnswerAreas.MadeOfHeader)
                .ShouldBe(["fields", "lists", "records"], "what is remembered from the last time is a part of it all the same");
        var written = await owner.PostAsync($"/api/clients/{client}/notes", Body(new { projectId = (Guid?)null, text = "Rang." }));
        written.EnsureSuccessStatusCode();
        Said(written, AnswerAreas.ChangedHeader).ShouldBe(["records"]);
        Said(await owner.PutAsync("/api/clients/standing", Body(Array.Empty<object>())), AnswerAreas.ChangedHeader)
            .ShouldBeEmpty("nothing was changed");
        var stranger = await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}");
        Said(stranger, AnswerAreas.MadeOfHeader).ShouldBeEmpty();

        static IReadOnlyList<string> Said(HttpResponseMessage answer, string header) =>
            answer.Headers.TryGetValues(header, out var areas) ? areas.Single().Split(' ') : [];
    }

    /// <summary>Values for the parts of addresses: by address and name where they differ, else by name.</summary>
    private static async Task<Dictionary<string, List<string>>> KnownAsync(TestApp app, HttpClient owner)
    {
        var token = await app.LinkAsync();
        var (withList, list) = await LookedUpAsync(app);
        var sent = await (await app.SendAsync(Answers("walk@bakes.example"))).JsonAsync();
        await app.PassTimeAsync(NodaTime.Duration.FromDays(5));
        var invite = (
            await (
                await owner.PostAsync(
                    "/api/people/invites",
                    Body(
                        new
                        {
                            name = "Nora New",
                            email = "new@ochrewren.example",
                            role = Roles.Member,
                        }
                    )
                )
            ).JsonAsync()
        ).Text("link").Split('/')[^1];
        var meetingLink = (await owner.GetAsync("/api/meeting-types").JsonAsync())[0].Text("link").Split('/')[^1];
        var import = (await ImportTests.TakeAsync(app, "Name,Email\nAda Byron,ada@bakes.example\n"u8.ToArray(), "people.csv")).Text("id");
        var message = new Id<LibraryMessage>(Guid.CreateVersion7());
        await app.ChangeAsync(db =>
        {
            db.LibraryMessages.Add(
                new LibraryMessage
                {
                    Id = message,
                    Name = "Hello",
                    Folder = "",
                    Message = new MessageTemplate("A word", [new TextPart("text", "Dear {firstName}")]),
                    Changed = app.Now,
                }
            );
            db.OutgoingMail.First(mail => mail.State == MailState.HandedOver).State = MailState.Failed;
            return Task.CompletedTask;
        });
        return await app.AskAsync(async db =>
        {
            var forms = await Ids(db.Forms.Select(form => form.Id));
            var clients = await Ids(db.Clients.Where(one => db.Projects.Any(project => project.ClientId == one.Id)).Select(one => one.Id));
            var types = await Ids(db.MeetingTypes.Select(type => type.Id));
            var people = await db.Users.Select(user => user.Id).ToListAsync();
            var nods = await db.Runs.Where(run => run.NodStatus != null).ToListAsync();
            return new Dictionary<string, List<string>>
            {
                ["/api/forms id"] = forms,
                ["/api/inquiries id"] = await Ids(db.Inquiries.Select(inquiry => inquiry.Id)),
                ["/api/clients id"] = clients,
                ["/api/clients/{id}/beside/{other} other"] = [clients[^1]],
                ["/api/clients/names ids"] = [clients[0]],
                ["/api/clients/{id}/runs/startable project"] = await Ids(db.Projects.Select(project => project.Id).Take(1)),
                ["/api/clients/imports id"] = [import],
                ["/api/follow-throughs id"] = await Ids(db.FollowThroughs.Select(one => one.Id)),
                ["/api/mail id"] = await Ids(db.OutgoingMail.Where(mail => mail.State == MailState.Failed).Select(mail => mail.Id)),
                ["/api/practice/mail id"] = await Ids(db.PracticeMail.Select(mail => mail.Id)),
                ["/api/library/messages id"] = [message.ToString()],
                ["/api/library/built-in kind"] =
                [
                    .. Enum.GetNames<BuiltInMessage>().Select(name => JsonNamingPolicy.CamelCase.ConvertName(name)),
                ],
                ["/api/join token"] = [invite],
                [Nods] =
                [
                    .. nods.Select(run =>
                        $"{run.Id}/{run.State.Steps.First(step => step.Status is Core.FollowThrough.StepStatus.Waiting).Key}"
                    ),
                ],
                ["/public/forms token"] = [token],
                ["/public/receipts token"] = [sent.Text("receipt")],
                ["/api/meeting-types id"] = types,
                ["/api/meetings/times type"] = types,
                ["/api/meetings/of-client client"] = await Ids(db.Meetings.Select(meeting => meeting.ClientId)),
                ["/api/meetings id"] = await Ids(db.Meetings.Select(meeting => meeting.Id)),
                ["/public/meetings token"] = [meetingLink],
                ["count"] = ["2"],
                ["inDays"] = ["true"],
                ["people"] = [people[0].ToString()],
                ["field"] = ["client.name", "project.service"],
                ["number"] = ["1"],
                ["version"] = ["1"],
                ["from"] = ["1"],
                ["to"] = ["1"],
                ["accent"] = ["%23AA3300"],
                ["/public/forms/{token}/{version}/look-up token"] = [withList],
                ["question"] = [list],
                ["typed"] = ["a"],
                ["words"] = ["a wall"],
            };
        });

        static async Task<List<string>> Ids<T>(IQueryable<Id<T>> ids) => [.. (await ids.ToListAsync()).Select(id => id.ToString())];
    }

    /// <summary>A form with a question that looks something up in a list: its link, and the question.</summary>
    private static async Task<(string Link, string Question)> LookedUpAsync(TestApp app)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var forms = await scope.ServiceProvider.GetRequiredService<PorchDb>().Forms.ToListAsync();
        var (form, question) = forms
            .SelectMany(form => form.Draft.Questions.Select(question => (form, question)))
            .First(one => one.question.Kind is LookUpKind);
        return (scope.ServiceProvider.GetRequiredService<Tokens>().Open(form.LinkSealed), question.Key);
    }

    private static List<string> Addresses(string path, JsonElement operation, Dictionary<string, List<string>> known)
    {
        List<string> addresses = path.Contains(Nods, StringComparison.Ordinal)
            ? [.. known[Nods].Select(nod => path.Replace(Nods, nod, StringComparison.Ordinal))]
            : [path];
        foreach (var parameter in operation.TryGetProperty("parameters", out var all) ? all.EnumerateArray() : [])
        {
            var (name, place) = (parameter.Text("name"), parameter.Text("in"));
            var isRequired = parameter.TryGetProperty("required", out var required) && required.GetBoolean();
            if (
                place == "path"
                && path.Contains($"{{{name}}}", StringComparison.Ordinal)
                && !Nods.Contains($"{{{name}}}", StringComparison.Ordinal)
            )
                addresses =
                [
                    .. addresses.SelectMany(address =>
                        Values(path, name, known).Select(value => address.Replace($"{{{name}}}", value, StringComparison.Ordinal))
                    ),
                ];
            else if (place == "query" && isRequired)
                addresses =
                [
                    .. addresses.SelectMany(address =>
                        Values(path, name, known).Select(value => $"{address}{(address.Contains('?') ? '&' : '?')}{name}={value}")
                    ),
                ];
        }

        return addresses;
    }

    private static List<string> Values(string path, string name, Dictionary<string, List<string>> known) =>
        known
            .Where(one =>
                one.Key == name
                || (
                    one.Key.EndsWith($" {name}", StringComparison.Ordinal)
                    && path.StartsWith(one.Key.Split(' ')[0], StringComparison.Ordinal)
                )
            )
            .OrderByDescending(one => one.Key.Length)
            .Select(one => one.Value)
            .FirstOrDefault()
        ?? [];
}
