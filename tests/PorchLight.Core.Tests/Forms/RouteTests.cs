using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class RouteTests
{
    private static readonly Page Last = new("last", "Last", [Words]);

    [Fact]
    public void Pages_run_in_order_and_a_page_whose_condition_is_not_true_is_skipped()
    {
        var form = Form(
            new Page("one", "One", [Decides]),
            new Page("two", "Two", [Width]) { ShownOnlyWhen = new IsCondition(Of(Decides), "yes") },
            Last
        );
        Trace(form, ("decides", new YesNoAnswer(true))).Pages.ShouldBe(["one", "two", "last"]);
        Trace(form, ("decides", new YesNoAnswer(false))).Pages.ShouldBe(["one", "last"]);
        Trace(form).Pages.ShouldBe(["one", "last"], "unknown is not true");
    }

    [Fact]
    public void The_first_rule_that_holds_leads_forward_and_what_is_passed_over_is_off_the_route()
    {
        var form = Form(
            new Page("one", "One", [Decides]) { Routes = [new RouteRule(new IsCondition(Of(Decides), "no"), "last")] },
            new Page("two", "Two", [Width]),
            Last
        );
        var route = Trace(form, ("decides", new YesNoAnswer(false)), ("width", new NumberAnswer(3)));
        route.Pages.ShouldBe(["one", "last"]);
        route.Answers["width"].Status.ShouldBe(AnswerStatus.OffRoute);
        route.Answers["words"].Status.ShouldBe(AnswerStatus.Blank);
    }

    [Fact]
    public void A_rule_may_lead_straight_to_a_send_off()
    {
        var form = Form(new Page("one", "One", [Decides]) { Routes = [new RouteRule(new IsCondition(Of(Decides), "no"), "end")] }, Last);
        var route = Trace(form, ("decides", new YesNoAnswer(false)));
        (route.SendOff, route.Next).ShouldBe(("end", null));
        route.Answers["words"].Status.ShouldBe(AnswerStatus.OffRoute);
    }

    [Fact]
    public void On_the_open_page_what_is_blank_is_not_asked_yet_and_what_depends_on_it_may_still_come()
    {
        var form = Form(new Page("one", "One", [Decides, Width with { AskedOnlyWhen = new IsCondition(Of(Decides), "yes") }]), Last);
        var open = Routes.Trace(Known(form), Given(), "one");
        open.Answers.Values.Select(state => state.Status).Distinct().ShouldBe([AnswerStatus.NotAskedYet]);
        open.Asked(form).ShouldBe(["decides"]);
        open.Next.ShouldBe("last");

        var answered = Routes.Trace(Known(form), Given(("decides", new YesNoAnswer(false))), "one");
        answered.Answers["width"].Status.ShouldBe(AnswerStatus.OffRoute);
    }

    [Fact]
    public void An_answer_to_a_question_that_is_not_asked_is_not_part_of_what_is_sent()
    {
        var form = OnePage(Decides, Width with { AskedOnlyWhen = new IsCondition(Of(Decides), "yes"), Required = true });
        var route = Trace(form, ("decides", new YesNoAnswer(false)), ("width", new NumberAnswer(3)));
        route.Answers["width"].Answer.ShouldBeNull();
        AnswerChecks.Check(Known(form), route).ShouldBeEmpty("off-route questions are never checked");
    }

    [Fact]
    public void A_send_off_without_a_condition_is_for_the_route_that_leads_to_it_and_for_no_other()
    {
        var form = Form(
            new Page("one", "One", [Decides]) { Routes = [new RouteRule(new IsCondition(Of(Decides), "no"), "kind-no")] },
            Last
        ) with
        {
            SendOffs = [new SendOff("kind-no", "No", "No.")],
        };
        Ends(form).ShouldBe(["kind-no", "end", "end"]);
    }

    [Fact]
    public void The_first_send_off_whose_condition_is_true_is_taken_else_the_default_one()
    {
        var form = OnePage(Decides) with { SendOffs = [new SendOff("kind-no", "No", "No.") { When = new IsCondition(Of(Decides), "no") }] };
        Ends(form).ShouldBe(["kind-no", "end", "end"]);
    }

    [Fact]
    public void Every_random_form_ends_and_every_question_is_in_exactly_one_state_that_fits_its_page() =>
        Gen.Select(RandomForms.Form, RandomForms.Answers)
            .Sample(
                (form, given) =>
                {
                    var route = Routes.Trace(Known(form), given);
                    route.Next.ShouldBeNull();
                    route.Pages.ShouldBe(route.Pages.Order(StringComparer.Ordinal), ignoreOrder: false, "forward only");
                    var asked = route.Asked(form).ToHashSet();
                    foreach (var question in form.Questions)
                    {
                        route
                            .Answers[question.Key]
                            .ShouldBe(asked.Contains(question.Key) ? AnswerState.OfNullable(given[question.Key]) : AnswerState.OffRoute);
                    }
                }
            );

    [Fact]
    public void What_an_open_page_already_settled_never_changes_later() =>
        Gen.Select(RandomForms.Form, RandomForms.Answers)
            .Sample(
                (form, given) =>
                {
                    var final = Routes.Trace(Known(form), given);
                    foreach (var page in final.Pages)
                    {
                        foreach (
                            var (key, state) in Routes
                                .Trace(Known(form), given, page)
                                .Answers.Where(answer => answer.Value.Status != AnswerStatus.NotAskedYet)
                        )
                            final.Answers[key].ShouldBe(state);
                    }
                }
            );

    private static Route Trace(FormContent form, params (string, Answer?)[] given) => Routes.Trace(Known(form), Given(given));

    /// <summary>Compared with a second way to say it: by the last page that was shown, and three questions in their order.</summary>
    [Fact]
    public void Every_random_form_ends_as_its_rules_and_conditions_say()
    {
        var sendOff = Gen.Select(Gen.Int[0, 2], RandomForms.ConditionOn(6)).Select((kind, when) => kind == 0 ? null : when);
        Gen.Select(RandomForms.Form, RandomForms.Answers, sendOff, sendOff, Gen.Int[0, 2])
            .Sample(
                (made, given, first, second, led) =>
                {
                    var to = new[] { "s1", "s2", "end" }[led];
                    var form = made with
                    {
                        SendOffs = [new SendOff("s1", "1", "1.") { When = first }, new SendOff("s2", "2", "2.") { When = second }],
                        Pages =
                        [
                            .. made.Pages.Select(page =>
                                page with
                                {
                                    Routes = [.. page.Routes.Select(rule => rule.To == "end" ? rule with { To = to } : rule)],
                                }
                            ),
                        ],
                    };
                    var route = Routes.Trace(Known(form), given);
                    var atTheEnd = Known(form) with { Answers = route.Answers };
                    bool Holds(Condition? when) => when is not null && when.Evaluate(atTheEnd) == Truth.True;

                    var rule = form.Pages.Single(page => page.Key == route.Pages[^1]).Routes.FirstOrDefault(one => Holds(one.When));
                    var expected = "end";
                    if (Holds(second))
                        expected = "s2";
                    if (Holds(first))
                        expected = "s1";
                    if (rule is not null && form.Pages.All(page => page.Key != rule.To))
                        expected = rule.To;
                    Routes.End(route, atTheEnd).Key.ShouldBe(expected);
                }
            );
    }

    /// <summary>The send-offs of somebody who does not decide, who does, and who does not say.</summary>
    private static string[] Ends(FormContent form) =>
        [
            .. new[] { new YesNoAnswer(false), new YesNoAnswer(true), null }.Select(answer =>
            {
                var route = Trace(form, ("decides", answer));
                return Routes.End(route, Known(form) with { Answers = route.Answers }).Key;
            }),
        ];
}
