using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Server.Demo;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Browser.Tests;

/// <summary>Building a form in the real interface.</summary>
public sealed class WorkbenchTests
{
    /// <summary>What is edited nowhere, and why.</summary>
    private static readonly HashSet<string> MadeByItself =
    [
        "FormContent.pages", // the outline
        "FormContent.sendOffs",
        "FormContent.defaultSendOff",
        "FormContent.look", // a line of its own in the outline
        "Page.items",
        "QuestionKindListKind.asks", // the outline, one level in
        "QuestionKindPeopleKind.more",
        "QuestionKindPeopleKind.nameKey", // a key, like all keys
        "FileLink.file", // the picker beside its label
        "Option.label", // the line of the option
        "Band.isEmpty", // follows from the ends
    ];

    [Fact]
    public async Task By_keyboard_alone_a_form_of_three_pages_is_built_given_a_condition_previewed_and_published()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 422");
        owner.ComeIn(app, "/forms/new");
        owner.Find("//button[starts-with(., 'A blank page')]");
        owner.TabTo("A blank page", Keys.Enter);
        owner.TabTo("Title");
        owner.Keyboard("Letterpress cards", Keys.Enter);
        owner.Find("//section[@aria-label='Outline']");

        owner.TabTo("Ask something here");
        foreach (var (question, number) in new[] { ("Your name", 1), ("Your e-mail address", 2), ("Shall we frame them?", 3) })
        {
            owner.Keyboard(question, Keys.Enter);
            owner.Wait($"{question} is a line", () => Lines(owner).Count == number + 4);
        }

        AddPage(owner, "How wide is the frame?", lines: 9);
        AddPage(owner, "Anything else?", lines: 11);
        // The frame's width is asked only of whom wants one.
        owner.ShiftTabTo("How wide is the frame?");
        owner.Keyboard(Keys.Enter);
        owner.TabTo("Ask it only when …", Keys.Enter);
        owner.Wait("the condition is there", () => owner.Focused("What is compared"));
        owner.Wait(
            "it is stored",
            () =>
                Stored(app).FindQuestion("how-wide-is-the-frame")?.AskedOnlyWhen
                    is IsCondition { Of: AnswerTo { Question: "shall-we-frame-them" }, Value: "yes" }
        );

        owner.TabTo("wide", Keys.Enter);
        owner.Enter("//iframe[@title='The form as people see it']");
        owner.Sees("Letterpress cards");
        owner.Leave();
        // A page moves with what stands on it; Undo takes it back.
        owner.ShiftTabTo("Page 2", Keys.ArrowDown);
        owner.Keyboard(Keys.Alt + Keys.ArrowUp);
        owner.Wait("it stands on the first page", () => Stored(app).Pages[0].Questions.Count() == 4);
        owner.Keyboard(Keys.Control + "z");
        owner.Wait("it is back", () => Stored(app).Pages[1].Questions.Count() == 1);
        owner.ShiftTabTo("Publish version 1", Keys.Enter);
        owner.Sees("Version 1 is published");
        var published = app.Ask(db => db.FormVersions.AsEnumerable().Single(version => version.Content.Title == "Letterpress cards"));
        published.Content.Pages.Select(page => page.Questions.Count()).ShouldBe([3, 1, 1]);
        published.Content.FindQuestion("your-name")!.Kind.ShouldBe(new PersonNameKind());
    }

    [Fact]
    public async Task Every_member_a_form_can_have_is_edited_on_some_desk_and_no_desk_is_in_anybodys_way()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        var (picture, video, list) = await TakeInAsync(app);
        await app.OpenFormAsync(EveryKind.Form(list, picture, video));
        var (form, sister) = app.Ask(db => db.Forms.OrderBy(one => one.Id).ToList()) is [var first, .., var last]
            ? (last.Id, first.Id)
            : default;
        app.Write(db =>
        {
            var mine = db.Forms.Single(one => one.Id == form);
            mine.Draft = WorkbenchForms.Everything(mine.Draft, picture, video, sister.Value);
        });
        owner.ComeIn(app, $"/forms/{form}");
        owner.Find("//button[@data-line='full']");
        var (edited, desks) = (new HashSet<string>(), new HashSet<string>());
        foreach (var line in Lines(owner))
        {
            owner.Click($"//button[@data-line='{line}']");
            owner.Find($"//button[@data-line='{line}'][@aria-current='true']");
            if (line is "radio" or "banded")
                owner.Click("//button[starts-with(@aria-label, 'More: ')]");
            // Which columns a list has is known once the lists are there.
            if (Edited(owner).Contains("QuestionKindLookUpKind.list"))
                owner.Wait("its columns are there", () => Edited(owner).Contains("QuestionKindLookUpKind.show"));
            var here = Edited(owner).ToHashSet();
            edited.UnionWith(here);
            // A desk with the same parts as one before it has nothing new in anybody's way.
            if (desks.Add(string.Join(' ', here.Order(StringComparer.Ordinal))))
                owner.FindsNothingAtAll(desks.Count == 1 ? "html" : "section.shadow-soft");
        }

        var schema = JsonNode.Parse(await app.CreateClient().GetStringAsync("/schemas/form.json"))!;
        Members(schema).Except(MadeByItself).Except(edited).ShouldBeEmpty("these are edited nowhere");
        MadeByItself.Intersect(edited).ShouldBeEmpty("these are edited after all");
    }

    [Fact]
    public async Task On_a_slow_line_no_question_and_no_letter_is_lost()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app, "/forms");
        owner.Follow("A wall to paint");
        owner.Click("//button[@data-line='place']");
        // Slower than anybody types, also on a busy machine: the first answer must not come in between.
        owner.IsSlow(10_000);
        string[] asked = ["What colour is it?", "How many walls are there?", "Who has the key?"];
        var line = owner.Find("(//input[@aria-label='Ask something here'])[1]");
        foreach (var question in asked)
            line.SendKeys(question + Keys.Enter);
        owner.Type("What you ask", "Where in the world is the wall?");
        owner.IsSlow(0);
        owner.Wait(
            "all of it is kept",
            () =>
                Stored(app, "A wall to paint").Pages[0].Questions.Select(question => question.Wording).TakeLast(4) is var last
                && last.SequenceEqual(["Where in the world is the wall?", .. asked])
        );
        // The line has gone on to another place by now, and so does what is asked there.
        Open(owner, "name");
        owner.Find("(//input[@aria-label='Ask something here'])[1]").SendKeys("What shall we call you?" + Keys.Enter);
        owner.Wait(
            "it stands behind what is chosen",
            () => Stored(app, "A wall to paint").Pages[0].Questions.ElementAt(1).Wording == "What shall we call you?"
        );

        // When the line breaks it is tried again by itself, and kept for whoever leaves meanwhile and comes back.
        owner.WillBeRefused("ERR_INTERNET_DISCONNECTED", "/form/assets/index-");
        owner.IsCutOff(true);
        owner.Type("What you ask", "What name is on the door?");
        owner.Sees("We cannot be reached just now");
        owner.IsCutOff(false);
        AsksFirst("What name is on the door?");
        owner.SeesNoMore("We cannot be reached just now");
        var form = owner.Browser.Url;
        owner.IsCutOff(true);
        owner.Type("What you ask", "And who pays for it?");
        owner.Sees("We cannot be reached just now");
        owner.GoTo("/forms");
        owner.IsCutOff(false);
        owner.Open(form);
        AsksFirst("And who pays for it?");

        // What cannot be loaded says so, whatever shows it, and is loaded when one says.
        owner.WillBeRefused("ERR_BLOCKED_BY_CLIENT");
        owner.IsKeptFrom("*/api/library/messages");
        owner.GoTo("/library");
        owner.Sees("Some of this page could not be loaded");
        owner.FindsNothingInTheWay();
        owner.IsKeptFrom(null);
        owner.Press("Try again");
        owner.SeesNoMore("Some of this page could not be loaded");

        void AsksFirst(string wording) =>
            owner.Wait($"{wording} is stored", () => Stored(app, "A wall to paint").Pages[0].Questions.ElementAt(1).Wording == wording);
    }

    [Fact]
    public async Task A_question_deleted_here_and_edited_there_is_asked_about_and_different_questions_are_both_kept()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("ERR_INTERNET_DISCONNECTED", "status of 409", "/form/assets/index-");
        owner.ComeIn(app, "/forms");
        owner.Follow("A wall to paint");
        owner.Click("//button[@data-line='place']");
        owner.IsCutOff(true);
        var first = owner.OpenASecondWindow();
        owner.Type("What you ask", "Where does the wall stand?");
        owner.Wait("it is stored", () => Stored(app, "A wall to paint").FindQuestion("place")!.Wording == "Where does the wall stand?");
        owner.SwitchTo(first);
        owner.Find("//button[@data-line='place']").SendKeys(Keys.Delete);
        owner.Sees("We cannot be reached just now");
        owner.Click("//button[@data-line='phone']");
        owner.IsCutOff(false);
        owner.Type("What you ask", "A phone number?");
        // It may be tried again before the last letter is typed.
        owner.Wait(
            "it is asked about",
            () =>
                owner.Text.Contains("Changed in two windows", StringComparison.Ordinal)
                && owner.Text.Contains("Where does the wall stand?", StringComparison.Ordinal)
        );
        owner.FindsNothingInTheWay();
        owner.Press("Use the saved version");
        owner.Wait(
            "the question is back, and what was written elsewhere is kept, too",
            () =>
                (
                    Stored(app, "A wall to paint").FindQuestion("place")?.Wording,
                    Stored(app, "A wall to paint").FindQuestion("phone")?.Wording
                ) == ("Where does the wall stand?", "A phone number?")
        );
    }

    [Fact]
    public async Task The_preview_is_answered_to_the_end_and_says_what_is_worked_out_and_nothing_of_it_is_kept()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        await app.OpenFormAsync(
            new FormContent(
                "Tables",
                "",
                [
                    new Page(
                        "one",
                        "Guests",
                        [
                            new Question("guests", "How many guests?", new NumberKind()) { Required = true },
                            new Question(
                                "tables",
                                "Tables",
                                new WorkedOutKind(new DivideAndRoundUp(new CopiedAnswer("guests"), 8), Shown: false)
                            ),
                        ]
                    ),
                ],
                [],
                new SendOff("end", "Thank you", "That was all.")
            )
        );
        owner.ComeIn(app, $"/forms/{app.Ask(db => db.Forms.ToList()).Single(form => form.Draft.Title == "Tables").Id}");
        owner.Click("//button[@data-line='tables']");
        owner.Sees("Not known yet with the answers");
        var before = Counts(app);
        owner.Enter("//iframe[@title='The form as people see it']");
        owner.Type("How many guests?", "23");
        owner.Leave();
        // It may be worked out before one has left the preview.
        owner.Wait("the desk says it", () => owner.Text.Contains("With the answers in the preview: 3.", StringComparison.Ordinal));
        owner.Enter("//iframe[@title='The form as people see it']");
        owner.Press("Send");
        owner.Sees("That was all.");
        owner.Leave();
        Counts(app).ShouldBe(before);
    }

    [Fact]
    public async Task A_form_of_the_demo_is_built_anew_from_a_blank_page()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app, "/forms/new");
        owner.Click("//button[starts-with(., 'A blank page')]");
        owner.Type("Title", "How did it go?");
        owner.Press("Make the form");
        owner.Type("Intro", "Two minutes, and honest words help us most.");
        Open(owner, "page");
        owner.Type("What stands above it", "The work and us");
        var line = owner.Find("//input[@aria-label='Ask something here']");
        string[] asked =
        [
            "How likely is it that you would send a friend to us?",
            "What was best?",
            "What should we do better next time?",
            "May we quote you?",
            "As whom?",
        ];
        foreach (var question in asked)
            line.SendKeys(question + Keys.Enter);
        owner.Wait("they are asked", () => Stored(app, "How did it go?").Questions.Count() == 5);
        var keys = Stored(app, "How did it go?").Questions.Select(question => question.Key).ToList();

        Open(owner, keys[0]);
        owner.Type("From", "0");
        owner.Type("To", "10");
        owner.Type("Words at the low end", "Not at all");
        owner.Type("Words at the high end", "I already have");
        owner.Choose("It must be answered");
        Open(owner, keys[1]);
        owner.Pick("Kind of answer", "Several lines of text");
        owner.Type("At most, in characters", "1500");
        Open(owner, keys[2]);
        owner.Pick("Kind of answer", "Several lines of text");
        owner.Type("At most, in characters", "1500");
        owner.Type("Help text", "We read every word, and nobody else does.");
        owner.Press("It must be answered when …");
        Compare(owner, asked[0], "is at most", "6");
        Open(owner, keys[3]);
        owner.Press("Ask it only when …");
        Compare(owner, asked[0], "is at least", "9");
        Open(owner, keys[4]);
        owner.Type("At most, in characters", "120");
        owner.Type("An example in the empty box", "Tilda, bakery in Howth");
        owner.Choose("It must be answered");
        owner.Press("Ask it only when …");
        owner.Choose("What is compared", asked[3]);

        owner.Press("Add a send-off");
        owner.Find("//button[@data-line='send-off'][@aria-current='true']");
        owner.Type("Headline", "Thank you for telling us");
        owner.Type("What it says", "That was not good enough, and we would like to put it right. Maren reads this today.");
        owner.Press("Use it when …");
        Compare(owner, asked[0], "is at most", "6");
        Open(owner, "thank-you");
        owner.Type("Headline", "Thank you");
        owner.Type("What it says", "That made our day.");
        owner.Press("A button that leads on");
        owner.Type("What it says", "See what we painted since", part: "LinkButton.label");
        owner.Type("Web address", "https://ochrewren.example/walls");

        var wanted = ByOrder(DemoRequests.HowDidItGo);
        owner.Wait("it is the same form", () => JsonNode.DeepEquals(ByOrder(Stored(app, "How did it go?")), wanted));
    }

    /// <summary>The form with its keys named by their order, for they are made of words and mean nothing by themselves.</summary>
    private static JsonNode ByOrder(FormContent form)
    {
        var keys = form
            .Pages.SelectMany(page => page.Items.Select(item => item.Key).Prepend(page.Key))
            .Concat(form.SendOffs.Append(form.DefaultSendOff).Select(sendOff => sendOff.Key))
            .Select((key, index) => (key, index))
            .ToDictionary(one => one.key, one => $"key-{one.index}");
        return Put(System.Text.Json.JsonSerializer.SerializeToNode(form, Json.Options)!);

        JsonNode Put(JsonNode node)
        {
            switch (node)
            {
                case JsonObject inner:
                    foreach (var (name, value) in inner.ToList())
                        inner[name] = value is null ? null : Put(value).DeepClone();
                    return inner;
                case JsonArray list:
                    return new JsonArray([.. list.Select(one => one is null ? null : Put(one).DeepClone())]);
                default:
                    return node is JsonValue text && text.TryGetValue<string>(out var word) && keys.TryGetValue(word, out var key)
                        ? JsonValue.Create(key)
                        : node;
            }
        }
    }

    private static void Open(Visitor owner, string line)
    {
        owner.Click($"//button[@data-line='{line}']");
        owner.Find($"//button[@data-line='{line}'][@aria-current='true']");
    }

    private static void Compare(Visitor owner, string question, string how, string number)
    {
        owner.Choose("What is compared", question);
        owner.Choose("How it is compared", how);
        owner.Type("The number it is compared with", number);
    }

    private static void AddPage(Visitor owner, string question, int lines)
    {
        owner.TabTo("Add a page", Keys.Enter);
        owner.Wait("there is another page", () => Lines(owner).Count == lines - 1);
        owner.ShiftTabTo("Ask something here");
        owner.Keyboard(question, Keys.Enter);
        owner.Wait($"{question} is a line", () => Lines(owner).Count == lines);
    }

    private static List<string> Lines(Visitor owner) =>
        [
            .. owner
                .Run<IReadOnlyCollection<object>>("return [...document.querySelectorAll('[data-line]')].map(line => line.dataset.line)")
                .Cast<string>(),
        ];

    /// <summary>The members for which there is something to type, tick or press.</summary>
    private static IEnumerable<string> Edited(Visitor owner) =>
        owner
            .Run<IReadOnlyCollection<object>>(
                """
                const controls = 'input, select, textarea, button, [role=textbox]';
                return [...document.querySelectorAll('[data-member]')]
                  .filter(part => part.matches(controls) || part.querySelector(controls))
                  .flatMap(part => part.dataset.member.split(' '))
                """
            )
            .Cast<string>();

    /// <summary>Every member of every definition a form is made of; answers are what forms bring, not what they are.</summary>
    private static HashSet<string> Members(JsonNode schema)
    {
        var definitions = schema["definitions"]!.AsObject();
        return
        [
            .. definitions
                .Where(one =>
                    !one.Key.StartsWith("Answer", StringComparison.Ordinal) || one.Key.StartsWith("AnswerRule", StringComparison.Ordinal)
                )
                // What rows ask is a question without a page, on the same desk.
                .Where(one => one.Key is not ("Question" or "FileRef"))
                .SelectMany(one =>
                    (one.Value!["properties"]?.AsObject() ?? [])
                        .Select(property => property.Key)
                        .Where(member => member is not ("key" or "item") && !(member == "kind" && one.Key != "ItemQuestion"))
                        .Select(member => $"{one.Key}.{member}")
                )
                .Where(member => member != "ItemQuestion.kind"),
        ];
    }

    private static async Task<(Guid Picture, Guid Video, Guid List)> TakeInAsync(BrowserApp app)
    {
        using var scope = app.Services.CreateScope();
        var things = await DemoFiles.TakeInAsync(
            scope.ServiceProvider.GetRequiredService<PorchDb>(),
            scope.ServiceProvider.GetRequiredService<FileStore>(),
            scope.ServiceProvider.GetRequiredService<TimeProvider>()
        );
        return (things.Gilded, things.Lettering, things.Colours);
    }

    private static (int, int, int, int) Counts(BrowserApp app) =>
        app.Ask(db => (db.Submissions.Count(), db.Inquiries.Count(), db.Clients.Count(), db.OutgoingMail.Count()));

    private static FormContent Stored(BrowserApp app, string title = "Letterpress cards") =>
        app.Ask(db => db.Forms.ToList()).Single(form => form.Draft.Title == title).Draft;
}
