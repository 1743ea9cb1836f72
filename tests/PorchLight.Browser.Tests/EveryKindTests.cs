using NodaTime;
using OpenQA.Selenium;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Browser.Tests;

public sealed class EveryKindTests
{
    [Theory]
    [InlineData(1280)]
    [InlineData(320)]
    public async Task Every_kind_of_question_can_be_used_by_everybody_also_in_error_and_all_of_it_arrives(int width)
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor(width, 800);
        lead.Open(await app.OpenEveryKindAsync() + "?utm_source=flyer");

        Errs(lead, "A short text", 7);
        lead.Type("A short text", "Bread");
        lead.Type("A long text", "Bread and gulls");
        lead.Type("An e-mail address", "robin@pell.example");
        lead.Type("A phone number", "01 555 0142");
        lead.Type("A web address", "pell.example");
        lead.Type("A number", "2.5");
        lead.Type("An amount", "4000");
        lead.Press("Go on");

        lead.Sees("Yes or no");
        Errs(lead, "Yes or no", 6);
        lead.Click("//label[normalize-space()='No']");
        lead.Click("//label[starts-with(normalize-space(),'Another')]");
        lead.Type("In your own words", "Something of mine");
        lead.Click("//option[.='Pear']");
        lead.Click("//label[normalize-space()='Wires']");
        lead.Click("//label[normalize-space()='None of these']");
        lead.Find("//label[normalize-space()='Wires']//input").Selected.ShouldBeFalse("none of these stands alone");
        lead.Click("//fieldset[@id='q-scale']//label[contains(normalize-space(),'4')]");
        lead.Choose("Window gilding");
        lead.Press("Go on");

        lead.Sees("A day");
        Errs(lead, "A day", 5);
        lead.Field("A day").SendKeys("05202027");
        lead.Choose("Some time in a month");
        lead.Click("//fieldset[@id='q-range']//option[2]");
        lead.Type("Street and number", "1 Quay");
        lead.Type("Town or city", "Howth");
        lead.Type("From a list", "och");
        lead.Click("//li[contains(.,'Ochre')]");
        var file = Path.Combine(Path.GetTempPath(), $"plan-{Guid.NewGuid():N}.pdf");
        await File.WriteAllTextAsync(file, "%PDF-1.7 a plan");
        lead.Browser.FindElement(By.CssSelector("input[type=file]")).SendKeys(file);
        lead.Sees(Path.GetFileName(file));
        lead.Wait(
            "the file is through",
            () => lead.Browser.FindElements(By.XPath($"//button[@aria-label='Remove {Path.GetFileName(file)}']")).Count == 1
        );
        lead.Press("Go on");

        lead.Sees("Some rows");
        Errs(lead, "A name", 5);
        lead.Click("//fieldset[@id='q-name']//input[1]");
        lead.Type("First name", "Robin");
        lead.Type("What it says", "Bread");
        lead.Type("How wide", "2");
        lead.Find("//fieldset[@id='q-painters']//input").SendKeys("Ada");
        lead.Field("Birth date").SendKeys("03042015");
        lead.Choose("You may keep these answers.");
        lead.Type("Your full name", "Robin Pell");
        lead.Press("Go on");

        lead.Sees("Have we got this right?");
        foreach (
            var words in new[]
            {
                "Bread and gulls",
                "https://pell.example",
                "Another: Something of mine",
                "None of these",
                "20 May 2027",
                "Ochre wren, OW 01",
                Path.GetFileName(file),
                "What it says: Bread",
                "Signed by Robin Pell",
            }
        )
            lead.Sees(words);
        lead.FindsNothingAtAll();
        NothingSticksOut(lead);
        lead.Press("Send");
        lead.Sees("Thank you, Robin");
        lead.FindsNothingAtAll();
        lead.Reload();
        lead.Sees("Thank you, Robin");
        lead.LeavesNoTraceElsewhere(app.Address);

        var sent = app.Ask(db => db.Submissions.Single(one => one.SendOff == "end")).Answers.ByQuestion;
        sent.Count.ShouldBe(25, string.Join(", ", sent.Keys));
        sent["tag"].ShouldBe(new TextAnswer("flyer"));
        sent["day"].ShouldBe(new DateAnswer(new LocalDate(2027, 5, 20)));
        sent["several"].ShouldBe(ChoiceAnswer.Of("none"));
        sent.ShouldNotContainKey("news", "permission to advertise is given or it is not");
        File.Delete(file);
    }

    [Fact]
    public async Task Rows_are_added_copied_moved_taken_away_and_put_back_by_keyboard_alone_and_a_name_is_a_signature()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(
            await app.OpenFormAsync(
                new FormContent(
                    "Signs",
                    "",
                    [
                        new Page(
                            "one",
                            "One",
                            [
                                new Question(
                                    "signs",
                                    "Which signs?",
                                    new ListKind(
                                        [new Question("says", "What it says", new ShortTextKind()) { Required = true }],
                                        "sign",
                                        1,
                                        3
                                    )
                                )
                                {
                                    Required = true,
                                },
                                new Question("sign", "Sign here", new SignatureKind("So be it.")) { Required = true },
                            ]
                        ),
                    ],
                    [],
                    new SendOff("end", "Thank you", "Thank you.")
                )
            )
        );
        lead.Find("//input[ancestor::label or @id='q-signs/0/says']").SendKeys("Bread");
        Press(lead, "Add another sign");
        Active(lead).SendKeys("Cake");
        Press(lead, "Copy Sign 2");
        Active(lead).SendKeys(" and tea");
        lead.Sees("This is as many as you can add (3).");
        Press(lead, "Move Sign 3 up");
        Press(lead, "Move Sign 2 up");
        Says(lead).ShouldBe(["Cake and tea", "Bread", "Cake"]);
        lead.Find("//*[@role='status' and contains(.,'is now number 1')]");
        Press(lead, "Remove Sign 2");
        Says(lead).ShouldBe(["Cake and tea", "Cake"]);
        Press(lead, "Put it back");
        Says(lead).ShouldBe(["Cake and tea", "Bread", "Cake"]);
        lead.Field("Your full name").SendKeys("Robin Pell" + Keys.Enter);
        lead.Sees("Thank you");
        var sent = app.Ask(db => db.Submissions.Single()).Answers.ByQuestion;
        ((RowsAnswer)sent["signs"]).Rows.Select(row => ((TextAnswer)row["says"]!).Text).ShouldBe(["Cake and tea", "Bread", "Cake"]);
        ((SignatureAnswer)sent["sign"]).Name.ShouldBe("Robin Pell");

        static void Press(Visitor lead, string words) =>
            lead.Find($"//button[@aria-label='{words}' or normalize-space()='{words}']").SendKeys(Keys.Enter);

        static IWebElement Active(Visitor lead)
        {
            lead.Wait("a field of a row has the focus", () => lead.Browser.SwitchTo().ActiveElement().TagName == "input");
            return lead.Browser.SwitchTo().ActiveElement();
        }

        static string?[] Says(Visitor lead) =>
            [.. lead.Browser.FindElements(By.XPath("//fieldset[@id='q-signs']//input")).Select(input => input.GetDomProperty("value"))];
    }

    [Fact]
    public async Task A_drawn_signature_arrives_as_it_was_drawn_and_the_owner_sees_it()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(
            await app.OpenFormAsync(
                new FormContent(
                    "Leave to paint",
                    "",
                    [
                        new Page(
                            "one",
                            "One",
                            [
                                new Question("email", "Mail", new EmailKind()) { LandsIn = new SetField("client.email") },
                                new Question("sign", "Sign here", new SignatureKind("So be it.", ForOthers: true)) { Required = true },
                            ]
                        ),
                    ],
                    [],
                    new SendOff("end", "Thank you", "Thank you.")
                )
            )
        );
        lead.Type("Mail", "robin@pell.example");
        lead.Choose("I may sign for someone else");
        lead.Type("Your full name", "Robin Pell");
        lead.Press("Send");
        lead.Sees("Please write whom you sign for, or choose that you sign for yourself.");
        lead.FindsNothingAtAll();
        lead.Type("Whom you sign for", "Pell Cycles");
        lead.Press("Draw it instead");
        new OpenQA.Selenium.Interactions.Actions(lead.Browser)
            .MoveToElement(lead.Find("//canvas"), -100, -20)
            .ClickAndHold()
            .MoveByOffset(80, 40)
            .MoveByOffset(60, -50)
            .Release()
            .Perform();
        lead.FindsNothingAtAll();
        lead.Press("Send");
        lead.Sees("Thank you");
        var signature = (SignatureAnswer)app.Ask(db => db.Submissions.Single()).Answers.ByQuestion["sign"];
        signature.OnBehalfOf.ShouldBe("Pell Cycles");
        signature.Strokes.ShouldNotBeNull().ShouldStartWith("M");

        var inquiry = app.Ask(db => db.Inquiries.Single()).Id;
        lead.ComeIn(app, $"/inquiries/{inquiry}");
        lead.Find("//*[@aria-label='The signature as it was drawn']");
        lead.FindsNothingInTheWay();
    }

    [Fact]
    public async Task What_is_heavy_comes_only_where_it_is_used()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(app.FormAddress);
        lead.Sees("What is your name?");
        Loaded(lead)
            .ShouldNotContain(script =>
                script.Contains("Files", StringComparison.Ordinal)
                || script.Contains("LookUp", StringComparison.Ordinal)
                || script.Contains("Signature", StringComparison.Ordinal)
                || script.Contains("Proof", StringComparison.Ordinal)
            );
        lead.Open(
            await app.OpenFormAsync(
                new FormContent(
                    "Files",
                    "",
                    [new Page("one", "One", [new Question("photos", "Files?", new FilesKind())])],
                    [],
                    new SendOff("end", "Thank you", "Thank you.")
                )
            )
        );
        lead.Sees("Choose files");
        Loaded(lead).ShouldContain(script => script.Contains("Files", StringComparison.Ordinal));

        static List<string> Loaded(Visitor lead) =>
            [
                .. lead.Run<IReadOnlyCollection<object>>("return performance.getEntriesByType('resource').map(entry => entry.name)")
                    .Cast<string>()
                    .Where(name => name.EndsWith(".js", StringComparison.Ordinal)),
            ];
    }

    /// <summary>The page untouched, and then with everything still to be answered.</summary>
    private static void Errs(Visitor lead, string first, int findings)
    {
        lead.Sees(first);
        lead.FindsNothingAtAll();
        NothingSticksOut(lead);
        lead.Press("Go on");
        lead.Sees($"{findings} answers need another look");
        lead.Wait("the summary has the focus", () => lead.Browser.SwitchTo().ActiveElement().GetDomAttribute("role") == "alert");
        lead.FindsNothingAtAll();
        NothingSticksOut(lead);
    }

    private static void NothingSticksOut(Visitor lead) =>
        lead.Run<bool>("return document.documentElement.scrollWidth <= window.innerWidth").ShouldBeTrue();
}
