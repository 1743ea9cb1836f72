using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class FormStructureTests
{
    [Fact]
    public void A_sound_form_has_no_findings() => FormStructure.Check(Everything, FieldCatalogue.BuiltIn).ShouldBeEmpty();

    [Fact]
    public void What_cannot_work_is_named_at_its_place()
    {
        Places(Everything with { Title = " " }).ShouldBe(["title"]);
        Places(Form()).ShouldBe(["title"]);
        Places(OnePage(Width, Width)).ShouldBe(["width"]);
        Places(OnePage(Width with { Wording = "" })).ShouldBe(["width"]);
        Places(OnePage(Budget with { Kind = new ChoiceKind([]) })).ShouldBe(["budget"]);
        Places(OnePage(Budget with { Kind = new ChoiceKind([new Option("a", "A", new Band(new Bound(5), new Bound(4)))]) }))
            .ShouldBe(["budget"]);
    }

    [Fact]
    public void Conditions_may_look_only_at_what_was_asked_before()
    {
        Places(OnePage(Width with { AskedOnlyWhen = new IsCondition(Of(Decides), "yes") }, Decides)).ShouldBe(["width"]);
        Places(OnePage(Decides, Width with { AskedOnlyWhen = new IsCondition(Of(Decides), "yes") })).ShouldBeEmpty();
        Places(OnePage(Decides) with { SendOffs = [new SendOff("no", "No", "No") { When = new FitCondition(Fit.NotNow) }] })
            .ShouldBeEmpty();
        Places(OnePage(Decides, Width with { AskedOnlyWhen = new FitCondition(Fit.ComeIn) })).ShouldBe(["width"]);
    }

    [Fact]
    public void Routes_lead_only_forward()
    {
        Places(
                Form(
                    new Page("one", "One", [Decides]),
                    new Page("two", "Two", [Width]) { Routes = [new RouteRule(new IsCondition(Of(Decides), "yes"), "one")] }
                )
            )
            .ShouldBe(["two"]);
        Places(Form(new Page("one", "One", [Decides]) { Routes = [new RouteRule(new IsCondition(Of(Decides), "yes"), "end")] }))
            .ShouldBeEmpty();
    }

    [Fact]
    public void A_send_off_that_nothing_leads_to_needs_a_condition()
    {
        var no = new SendOff("no", "No", "No.");
        Places(OnePage(Decides) with { SendOffs = [no] }).ShouldBe(["no"]);
        Places(OnePage(Decides) with { SendOffs = [no with { When = new IsCondition(Of(Decides), "no") }] }).ShouldBeEmpty();
        Places(
                Form(new Page("one", "One", [Decides]) { Routes = [new RouteRule(new IsCondition(Of(Decides), "no"), "no")] }) with
                {
                    SendOffs = [no],
                }
            )
            .ShouldBeEmpty();
    }

    [Theory]
    [InlineData("https://www.example.com/advice", true)]
    [InlineData("javascript:alert(1)", false)]
    [InlineData("data:text/html,x", false)]
    [InlineData("www.example.com", false)]
    public void A_way_forward_leads_to_a_page_on_the_web_and_to_nothing_else(string address, bool fits) =>
        Places(
                OnePage(Decides) with
                {
                    DefaultSendOff = new SendOff("end", "End", "End.") { WaysForward = [new WayForward("There", "It may help.", address)] },
                }
            )
            .ShouldBe(fits ? [] : ["end"]);

    [Fact]
    public void An_answer_must_fit_where_it_lands()
    {
        Places(OnePage(Words with { LandsIn = new SetField("project.wanted") })).ShouldBe(["words"]);
        Places(OnePage(Words with { LandsIn = new SetField("project.invented") })).ShouldBe(["words"]);
        Places(OnePage(Words with { LandsIn = new SetField("project.what") })).ShouldBeEmpty();
    }

    [Fact]
    public void Numbers_and_days_that_cannot_be_meant_are_found_before_anybody_meets_them()
    {
        Questions(Wanted with { Kind = new DateKind(new DateLimits(FromDays: 3_000_000)) });
        Questions(Wanted with { Kind = new DateKind(new DateLimits(Earliest: LocalDate.MaxIsoValue)) });
        Questions(Width with { Kind = new NumberKind(5, 3) });
        Questions(
            Extras with
            {
                Kind = new ChoiceKind(Extras.Options, Several: true) { AtLeast = 3, AtMost = 2 },
            }
        );
        Questions(
            Budget with
            {
                Kind = new ChoiceKind([new Option("a", "A", new Band(new Bound(1), null, "EUR", Instalments: int.MaxValue))]),
            }
        );
        Questions(new Question("sum", "Sum", new WorkedOutKind(new DivideAndRoundUp(new FixedValue(new NumberAnswer(3)), 0))));
        foreach (
            Condition condition in new Condition[]
            {
                new WithinNextDaysCondition(Of(Wanted), int.MaxValue),
                new BeforeCondition(Of(Wanted), LocalDate.MinIsoValue),
                new AfterCondition(Of(Wanted), LocalDate.MaxIsoValue),
                new NumberBetweenCondition(Of(Width), 9, 3),
                new NumberCondition(Of(Width), NumberRelation.Over, decimal.MaxValue),
            }
        )
        {
            Places(OnePage(Wanted, Width, Decides with { AskedOnlyWhen = new NotCondition(condition) }))
                .ShouldBe(["decides"], condition.ToString());
            Rules(Points("p", 5, condition)).Check().Select(finding => finding.Place).ShouldBe(["p"]);
            // Whoever meets such a form all the same gets an answer, and no crash.
            condition
                .Evaluate(
                    Known(
                        OnePage(Wanted, Width),
                        ("wanted", AnswerState.Of(new DateAnswer(Today))),
                        ("width", AnswerState.Of(new NumberAnswer(4)))
                    )
                )
                .ShouldNotBe(Truth.Unknown);
        }

        Rules(Points("p", int.MaxValue, new AllCondition([]))).Check().ShouldHaveSingleItem();
        PorchLight
            .Core.Screening.Screener.Judge(
                Rules(Points("p", int.MaxValue, new AllCondition([])), Points("q", int.MaxValue, new AllCondition([]))),
                Known(Everything)
            )
            .Score.ShouldBe(1_000_000_000);

        static void Questions(Question question) => Places(OnePage(question)).ShouldBe([question.Key], question.Kind.ToString());
    }

    private static IEnumerable<string> Places(FormContent form) =>
        FormStructure.Check(form, FieldCatalogue.BuiltIn).Select(finding => finding.Place).Distinct();
}
