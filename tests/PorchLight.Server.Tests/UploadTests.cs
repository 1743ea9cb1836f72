using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Server.Tests;

public sealed class UploadTests
{
    private static readonly byte[] Png =
    [
        0x89,
        (byte)'P',
        (byte)'N',
        (byte)'G',
        0x0d,
        0x0a,
        0x1a,
        0x0a,
        .. Enumerable.Repeat((byte)7, 500),
    ];

    private static readonly FormContent Photos = new(
        "Photos",
        "",
        [
            new Page(
                "one",
                "One",
                [
                    new Question("email", "Mail?", new EmailKind()) { LandsIn = new SetField(BuiltInFields.Email.Key) },
                    new Question("more", "More?", new YesNoKind()),
                    new Question("photos", "Photos?", new FilesKind(2, MaxBytes: 100_000, Groups: [FileGroup.Picture, FileGroup.Document]))
                    {
                        AskedOnlyWhen = new IsCondition(new AnswerTo("more"), "yes"),
                    },
                ]
            ),
        ],
        [],
        new SendOff("end", "Thank you", "Thank you.")
    );

    private static readonly (string Name, string Content, string Says)[] Liars =
    [
        ("wall.png", "<svg xmlns='http://www.w3.org/2000/svg' onload='alert(1)'/>", "not a file we can use here"),
        ("wall.svg", "<svg xmlns='http://www.w3.org/2000/svg' onload='alert(1)'/>", "not a file we can use here"),
        ("wall.html", "<!doctype html><script>alert(1)</script>", "not a file we can use here"),
        ("wall.jpg", "%PDF-1.7 and more", "its name says something else"),
        ("run.exe", "MZ\u0090", "not a file we can use here"),
        ("song.mp3", "ID3 a song", "not a file of the kind"),
        ("empty.png", "", "is empty"),
    ];

    [Fact]
    public async Task A_file_that_lies_about_its_type_or_could_run_is_refused_and_leaves_nothing()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(Photos);
        foreach (var (name, content, says) in Liars)
        {
            var refused = await UploadAsync(app, link, Guid.NewGuid(), name, Encoding.Latin1.GetBytes(content));
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, name);
            (await refused.SentenceAsync()).ShouldContain(says);
        }

        Stored(app).ShouldBeEmpty();
        (await app.AskAsync(db => db.StoredFiles.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task A_name_with_path_parts_is_only_a_name_and_the_file_lies_under_a_random_one()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(Photos);
        foreach (
            var (given, kept) in new[]
            {
                ("../../wwwroot/index.png", "index.png"),
                ("C:\\Users\\Tilda\\wall.png", "wall.png"),
                ("/etc/passwd.png", "passwd.png"),
            }
        )
            (await (await UploadAsync(app, link, Guid.NewGuid(), given, Png)).JsonAsync()).Text("name").ShouldBe(kept);
        Stored(app).Count.ShouldBe(3);
        Stored(app)
            .ShouldAllBe(path =>
                Path.GetFileName(path).Length == 32 && Path.GetFileName(path).All(char.IsAsciiHexDigitLower) && !path.Contains("wwwroot")
            );
    }

    [Fact]
    public async Task A_file_over_the_limit_is_refused_while_it_comes_in_and_leaves_nothing()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(Photos);
        var refused = await UploadAsync(app, link, Guid.NewGuid(), "wall.png", [.. Png, .. new byte[100_000]]);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.SentenceAsync()).ShouldContain("larger than");
        Stored(app).ShouldBeEmpty();
        new FilesKind().MaxBytes.ShouldBe(25 * 1024 * 1024, "what is usual");
    }

    [Fact]
    public async Task A_sent_file_is_the_inquirys_and_comes_only_as_something_to_save_to_who_is_signed_in()
    {
        await using var app = new TestApp();
        var (link, filling) = (await app.MakeQuickFormAsync(Photos), Guid.NewGuid());
        var id = (await (await UploadAsync(app, link, filling, "wall.png", Png)).JsonAsync()).GetProperty("id").GetGuid();
        (await app.SendAsync(link, With(id), filling)).StatusCode.ShouldBe(HttpStatusCode.OK);

        (await app.CreateClient().GetAsync($"/public/files/{id}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound,
            "what leads sent is never public"
        );
        (await app.CreateClient().GetAsync($"/api/files/{id}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        var owner = app.Owner();
        var inquiry = (await owner.WholeListAsync("/api/inquiries")).GetProperty("rows")[0].Text("id");
        var shown = (await owner.GetAsync($"/api/inquiries/{inquiry}").JsonAsync())
            .GetProperty("answers")
            .EnumerateArray()
            .Single(answer => answer.Text("key") == "photos")
            .GetProperty("files")[0];
        var file = await owner.GetAsync(shown.Text("address"));
        (await file.Content.ReadAsByteArrayAsync()).ShouldBe(Png);
        file.Content.Headers.ContentDisposition!.DispositionType.ShouldBe("attachment");
        file.Content.Headers.ContentDisposition.FileName.ShouldBe("wall.png");
        file.Headers.GetValues("X-Content-Type-Options").ShouldBe(["nosniff"]);
        file.Headers.GetValues("Content-Security-Policy").Single().ShouldContain("sandbox");
    }

    [Fact]
    public async Task Somebody_elses_file_and_a_file_behind_an_answer_off_the_route_are_not_sent_along()
    {
        await using var app = new TestApp();
        var (link, mine) = (await app.MakeQuickFormAsync(Photos), Guid.NewGuid());
        var theirs = (await (await UploadAsync(app, link, Guid.NewGuid(), "theirs.png", Png)).JsonAsync()).GetProperty("id").GetGuid();
        (await app.SendAsync(link, With(theirs), mine)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await app.AskAsync(db => db.Submissions.SingleAsync())).Answers.ByQuestion.ShouldNotContainKey("photos");

        var (again, off) = (Guid.NewGuid(), (Guid)default);
        off = (await (await UploadAsync(app, link, again, "off.png", Png)).JsonAsync()).GetProperty("id").GetGuid();
        var answers = With(off);
        answers["more"] = new YesNoAnswer(false);
        (await app.SendAsync(link, answers, again)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await app.AskAsync(db => db.StoredFiles.CountAsync(file => file.SubmissionId != null))).ShouldBe(0);
    }

    [Fact]
    public async Task What_was_never_sent_goes_after_a_day_and_what_was_sent_stays()
    {
        await using var app = new TestApp();
        var (link, sent) = (await app.MakeQuickFormAsync(Photos), Guid.NewGuid());
        var id = (await (await UploadAsync(app, link, sent, "sent.png", Png)).JsonAsync()).GetProperty("id").GetGuid();
        (await app.SendAsync(link, With(id), sent)).EnsureSuccessStatusCode();
        (await UploadAsync(app, link, Guid.NewGuid(), "abandoned.png", Png)).EnsureSuccessStatusCode();
        Stored(app).Count.ShouldBe(2);
        await app.PassTimeAsync(Duration.FromDays(5));
        (await app.AskAsync(db => db.StoredFiles.Select(file => file.Name).ToListAsync())).ShouldBe(["sent.png"]);
        Stored(app).Count.ShouldBe(1);
    }

    [Fact]
    public async Task No_more_files_are_taken_than_the_question_wants_and_one_can_be_taken_back()
    {
        await using var app = new TestApp();
        var (link, filling) = (await app.MakeQuickFormAsync(Photos), Guid.NewGuid());
        var first = (await (await UploadAsync(app, link, filling, "1.png", Png)).JsonAsync()).GetProperty("id").GetGuid();
        (await UploadAsync(app, link, filling, "2.png", Png)).EnsureSuccessStatusCode();
        (await (await UploadAsync(app, link, filling, "3.png", Png)).SentenceAsync()).ShouldBe(
            "At most 2 files fit here. Take one away first."
        );
        var stranger = app.CreateClient();
        await stranger.DeleteAsync($"/public/forms/{link}/1/files/{first}?filling={Guid.NewGuid()}");
        Stored(app).Count.ShouldBe(2, "only who sent it can take it back");
        await stranger.DeleteAsync($"/public/forms/{link}/1/files/{first}?filling={filling}");
        Stored(app).Count.ShouldBe(1);
        (await UploadAsync(app, link, filling, "3.png", Png)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    internal static async Task<HttpResponseMessage> UploadAsync(TestApp app, string link, Guid filling, string name, byte[] bytes)
    {
        var body = new ByteArrayContent(bytes);
        body.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        return await app.CreateClient()
            .PostAsync($"/public/forms/{link}/1/files?filling={filling}&question=photos&name={Uri.EscapeDataString(name)}", body);
    }

    internal static List<string> Stored(TestApp app) =>
        Directory.Exists(Path.Combine(app.Folder, "files")) ? [.. Directory.EnumerateFiles(Path.Combine(app.Folder, "files"))] : [];

    private static Dictionary<string, Answer?> With(Guid file) =>
        new()
        {
            ["email"] = new TextAnswer("tilda@bakes.example"),
            ["more"] = new YesNoAnswer(true),
            ["photos"] = new FilesAnswer([new FileRef(file, "a name of the browser's own", 1)]),
        };
}
