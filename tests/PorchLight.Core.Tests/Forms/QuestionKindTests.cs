using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class QuestionKindTests
{
    [Fact]
    public void A_web_address_may_leave_out_how_it_starts_but_not_what_it_is()
    {
        var site = new Question("site", "Your site?", new WebAddressKind());
        Tidied(site, new TextAnswer("ochrewren.example/walls")).ShouldBe(new TextAnswer("https://ochrewren.example/walls"));
        Check(site, new TextAnswer("https://ochrewren.example")).ShouldBeNull();
        Check(site, new TextAnswer("https://nowhere"))!.ShouldContain("www.example.com");
        Check(site, new TextAnswer("javascript://alert.example/%0aalert(1)")).ShouldNotBeNull();
    }

    [Fact]
    public void A_scale_takes_only_its_own_steps()
    {
        var scale = new Question("joy", "How was it?", new ScaleKind(0, 10));
        Check(scale, new NumberAnswer(0)).ShouldBeNull();
        Check(scale, new NumberAnswer(10)).ShouldBeNull();
        foreach (var off in new[] { -1m, 11m, 4.5m })
            Check(scale, new NumberAnswer(off))!.ShouldContain("scale");
    }

    [Fact]
    public void Days_may_be_limited_by_the_calendar_and_by_today_and_the_narrower_limit_counts()
    {
        var limits = new DateLimits(new LocalDate(2026, 12, 1), new LocalDate(2027, 1, 31), FromDays: 14, ToDays: 30);
        limits.On(Today).ShouldBe((new LocalDate(2026, 12, 7), new LocalDate(2026, 12, 23)));
        var day = new Question("day", "When?", new DateKind(limits));
        Check(day, new DateAnswer(new LocalDate(2026, 12, 6)))!.ShouldContain("7 December 2026");
        Check(day, new DateAnswer(new LocalDate(2026, 12, 7))).ShouldBeNull();
        Check(day, new DateAnswer(new LocalDate(2026, 12, 24)))!.ShouldContain("23 December 2026");
    }

    [Fact]
    public void Some_time_in_a_month_is_an_answer_where_the_question_says_so()
    {
        var may = new DateRangeAnswer(new LocalDate(2027, 5, 1), new LocalDate(2027, 5, 31), Roughly: true);
        Check(new Question("when", "When?", new DateRangeKind()), may)!.ShouldContain("two days");
        Check(new Question("when", "When?", new DateRangeKind(OrMonth: true)), may).ShouldBeNull();
        Check(new Question("when", "When?", new DateRangeKind()), new DateRangeAnswer(Today, Today.PlusDays(-1)))!.ShouldContain("before");
        AnswerWords.Say(may).ShouldBe("some time in May 2027");
    }

    [Fact]
    public void A_range_of_days_is_before_or_after_a_day_only_when_all_of_it_is()
    {
        var when = new Question("when", "When?", new DateRangeKind());
        var known = Known(
            OnePage(when),
            ("when", AnswerState.Of(new DateRangeAnswer(new LocalDate(2027, 5, 10), new LocalDate(2027, 5, 20))))
        );
        new BeforeCondition(Of(when), new LocalDate(2027, 5, 21)).Evaluate(known).ShouldBe(Truth.True);
        new BeforeCondition(Of(when), new LocalDate(2027, 5, 20)).Evaluate(known).ShouldBe(Truth.Unknown);
        new BeforeCondition(Of(when), new LocalDate(2027, 5, 10)).Evaluate(known).ShouldBe(Truth.False);
        new AfterCondition(Of(when), new LocalDate(2027, 5, 9)).Evaluate(known).ShouldBe(Truth.True);
        new DateBetweenCondition(Of(when), new LocalDate(2027, 5, 1), new LocalDate(2027, 5, 15)).Evaluate(known).ShouldBe(Truth.Unknown);
    }

    [Fact]
    public void Own_words_belong_to_the_option_that_asks_for_them_and_none_of_these_stands_alone()
    {
        var extras = new Question(
            "extras",
            "Extras?",
            new ChoiceKind(
                [
                    new Option("gold", "Gold leaf"),
                    new Option("other", "Something else") { OwnWords = true },
                    new Option("none", "None of these") { NoneOfThese = true },
                    new Option("light", "Lighting"),
                ],
                Several: true
            )
            {
                AtLeast = 2,
                AtMost = 2,
            }
        );
        Tidied(extras, new ChoiceAnswer(["gold"], "stray words")).ShouldBe(ChoiceAnswer.Of("gold"));
        Check(extras, ChoiceAnswer.Of("gold", "other"))!.ShouldContain("what you mean");
        Check(extras, new ChoiceAnswer(["gold", "other"], "a bell")).ShouldBeNull();
        AnswerWords.Say(new ChoiceAnswer(["gold", "other"], "a bell"), extras).ShouldBe("Gold leaf, Something else: a bell");
        Check(extras, ChoiceAnswer.Of("gold", "none"))!.ShouldContain("does not go together");
        Check(extras, ChoiceAnswer.Of("none")).ShouldBeNull("none of these is enough by itself");
        Check(extras, ChoiceAnswer.Of("gold"))!.ShouldContain("at least 2");
    }

    [Fact]
    public void What_was_agreed_to_is_written_by_the_program_and_not_by_the_browser()
    {
        var consent = new Question("consent", "Your data", new ConsentKind("You may keep my answers to reply to me."));
        Tidied(consent, new ConsentAnswer("You may sell my answers.", 99, Instant.MaxValue))
            .ShouldBe(new ConsentAnswer("You may keep my answers to reply to me.", Around.Version, Around.At));
    }

    [Fact]
    public void Permission_to_advertise_can_never_be_required()
    {
        // Regulation (EU) 2016/679, article 7(4): consent must be given freely.
        var news = new Question("news", "News", new AdvertisingKind("You may send me news."));
        FormStructure.Check(OnePage(news)).ShouldBeEmpty();
        FormStructure.Check(OnePage(news with { Required = true })).ShouldHaveSingleItem().Sentence.ShouldContain("given freely");
    }

    [Fact]
    public void A_signature_needs_a_name_a_readable_line_and_the_right_to_sign_for_others()
    {
        var signature = new Question("sign", "Sign", new SignatureKind("I order this."));
        Check(signature, new SignatureAnswer("Tilda B", "M10 20L11 22")).ShouldBeNull();
        Check(signature, new SignatureAnswer("Tilda B")).ShouldBeNull("a typed name is a signature");
        Check(signature, new SignatureAnswer("", "M10 20L11 22"))!.ShouldContain("name");
        Check(signature, new SignatureAnswer("Tilda B", "<svg onload=alert(1)>"))!.ShouldContain("draw it again");
        Check(signature, new SignatureAnswer("Tilda B", null, "The bakery"))!.ShouldContain("yourself");
        var forOthers = signature with { Kind = new SignatureKind("So be it.", ForOthers: true) };
        var blank = new SignatureAnswer("Tilda B", null, "  ");
        Check(forOthers, Tidied(forOthers, blank)!)!
            .ShouldContain("whom you sign for", Case.Sensitive, "it does not become a signature for oneself");
        Check(forOthers, Tidied(forOthers, blank with { OnBehalfOf = " The bakery " })!).ShouldBeNull();
        Tidied(signature, new SignatureAnswer("Tilda B", Date: new LocalDate(1999, 1, 1)))
            .ShouldBe(new SignatureAnswer("Tilda B", Date: Today));
    }

    [Fact]
    public void Only_files_that_were_uploaded_with_this_filling_in_and_lines_that_are_on_the_list_count()
    {
        var photo = new FileRef(Guid.CreateVersion7(), "wall.jpg", 1000, FileGroup.Picture);
        var list = Guid.CreateVersion7();
        var (photos, school) = (
            new Question("photos", "Photos", new FilesKind(Groups: [FileGroup.Picture])),
            new Question("school", "School", new LookUpKind(list, ["Name"]))
        );
        var tidy = AnswerNormaliser.Normalise(
            OnePage(photos, school),
            Given(
                ("photos", new FilesAnswer([photo with { Name = "invented.exe" }, new FileRef(Guid.CreateVersion7())])),
                ("school", new LookUpAnswer("Howth", ["Invented"]))
            ),
            Around with
            {
                Files = new Dictionary<Guid, FileRef> { [photo.Id] = photo },
                Lines = new Dictionary<(Guid, string), IReadOnlyList<string>> { [(list, "Howth")] = ["Howth National School"] },
            }
        );
        tidy["photos"].ShouldBe(new FilesAnswer([photo]));
        tidy["school"].ShouldBe(new LookUpAnswer("Howth", ["Howth National School"]));
        Check(photos, new FilesAnswer([photo with { Group = FileGroup.Sound }]))!.ShouldContain(".jpg");
        Check(photos, new FilesAnswer([photo with { Bytes = 26 * 1024 * 1024 }]))!.ShouldContain("25 MB");
        Check(school, new LookUpAnswer("Nowhere"))!.ShouldContain("choose again");
    }

    [Fact]
    public void A_question_can_be_required_only_when_something_else_was_said()
    {
        var form = OnePage(Decides, Words with { RequiredWhen = new IsCondition(Of(Decides), "no") });
        Findings(form, ("decides", new YesNoAnswer(true))).ShouldBeEmpty();
        Findings(form, ("decides", new YesNoAnswer(false))).Select(finding => finding.Place).ShouldBe(["words"]);
    }

    [Fact]
    public void What_does_not_go_together_is_said_beside_the_later_question()
    {
        var until = new Question("until", "Until?", new DateKind());
        var form = OnePage(until, Wanted, Width) with
        {
            Rules =
            [
                new EndNotBeforeStartRule("wanted", "until"),
                new NeverRule(
                    new NumberCondition(Of(Width), NumberRelation.Over, 50),
                    "width",
                    "That is too wide for us. Please ask the scaffolders."
                ),
            ],
        };
        Findings(form, ("until", new DateAnswer(Today)), ("wanted", new DateAnswer(Today.PlusDays(1))), ("width", new NumberAnswer(60)))
            .ShouldBe([
                new Finding("wanted", "This ends before it starts. Please change one of the two days."),
                new Finding("width", "That is too wide for us. Please ask the scaffolders."),
            ]);
        Findings(form, ("until", new DateAnswer(Today)), ("wanted", new DateAnswer(Today))).ShouldBeEmpty();

        var list = new Question("list", "Who?", new PeopleKind("who", null, []));
        var counted = OnePage(Width, list) with { Rules = [new CountMatchesRowsRule("width", "list")] };
        var one = new RowsAnswer([new AnswerRow(new Dictionary<string, Answer?> { ["who"] = new PersonNameAnswer("Ann", "") })]);
        Findings(counted, ("width", new NumberAnswer(2)), ("list", one))
            .ShouldHaveSingleItem()
            .ShouldBe(new Finding("list", "You said 2, and there is 1 here. Please change one of them."));
    }

    [Fact]
    public void Earlier_answers_stand_in_later_wordings_and_until_then_the_wordings_own_fallback()
    {
        var name = new Question("name", "Name?", new PersonNameKind());
        var form = OnePage(name, Width);
        var words = "How high is it, {answer:name|dear neighbour}, at {answer:width} wide, by {owner}?";
        Wordings.Fill(words, Known(form)).ShouldBe("How high is it, dear neighbour, at wide, by?");
        var known = Known(
            form,
            ("name", AnswerState.Of(new PersonNameAnswer("{owner}", "Pell"))),
            ("width", AnswerState.Of(new NumberAnswer(3)))
        );
        Wordings
            .Fill(words, known with { Values = new Dictionary<string, string> { ["owner"] = "Maren" } })
            .ShouldBe("How high is it, {owner}, at 3 m wide, by Maren?", "what was typed stays words");
    }

    [Theory]
    [InlineData("words", "hello")]
    [InlineData("budget", "middle")]
    [InlineData("decides", "yes")]
    [InlineData("width", "3.5")]
    [InlineData("wanted", "2027-05-14")]
    [InlineData("extras", "gilding,lighting")]
    public void An_address_fills_in_what_it_names(string question, string text)
    {
        var form = OnePage([.. Everything.Questions.Select(one => one with { Prefill = new FromAddress(one.Key) })]);
        Prefilling
            .Start(form, new Dictionary<string, string> { [question] = text }, new Dictionary<string, Answer>(), null)
            .Keys.ShouldBe([question]);
        Prefilling
            .Start(
                form,
                new Dictionary<string, string> { [question] = question == "words" ? "" : "nonsense!" },
                new Dictionary<string, Answer>(),
                null
            )
            .ShouldBeEmpty("nobody wrote it who reads it");
    }

    [Fact]
    public void Hidden_values_come_from_the_address_and_the_page_around_and_records_only_from_a_personal_link()
    {
        var form = OnePage(
            new Question("tag", "Tag", new HiddenKind("utm_source")),
            new Question("page", "Page", new HiddenKind(null)),
            new Question("mail", "E-mail", new EmailKind()) { Prefill = new FromRecord(BuiltInFields.Email.Key) }
        );
        var parameters = new Dictionary<string, string> { ["utm_source"] = "flyer" };
        Prefilling
            .Start(form, parameters, new Dictionary<string, Answer>(), "https://bakery.example/wall")
            .ShouldBe(
                new Dictionary<string, Answer>
                {
                    ["tag"] = new TextAnswer("flyer"),
                    ["page"] = new TextAnswer("https://bakery.example/wall"),
                },
                ignoreOrder: true
            );
        Prefilling
            .Start(
                form,
                parameters,
                new Dictionary<string, Answer> { [BuiltInFields.Email.Key] = new TextAnswer("t@bakes.example") },
                null
            )["mail"]
            .ShouldBe(new TextAnswer("t@bakes.example"));
    }

    private static Answer? Tidied(Question question, Answer answer) => Tidy(OnePage(question), Given((question.Key, answer)))[question.Key];

    private static IReadOnlyList<Finding> Findings(FormContent form, params (string, Answer?)[] given) =>
        AnswerChecks.Check(Known(form), Routes.Trace(Known(form), Given(given)));
}
