using System.Text.Json;
using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using static PorchLight.Core.Tests.RandomForms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

/// <summary>Random forms with rows, random answers: what is off the route counts nowhere.</summary>
public sealed class OffRouteTests
{
    [Fact]
    public void Answers_off_the_route_are_never_checked_sent_screened_or_landed() =>
        Gen.Select(FormWithRows, AnswersWithRows, AnswersWithRows, RandomForms.Screening)
            .Sample(
                (form, given, other, rules) =>
                {
                    var known = Known(form);
                    var route = Routes.Trace(known, Tidy(form, given));
                    var off = form
                        .Questions.Where(question => route.Answers[question.Key].Status == AnswerStatus.OffRoute)
                        .Select(question => question.Key)
                        .ToHashSet();

                    // Whatever stands there instead, or nothing at all, everything comes out the same.
                    foreach (
                        var instead in new[]
                        {
                            given.ToDictionary(one => one.Key, one => off.Contains(one.Key) ? null : one.Value),
                            given.ToDictionary(one => one.Key, one => off.Contains(one.Key) ? other[one.Key] : one.Value),
                        }
                    )
                    {
                        var again = Routes.Trace(known, Tidy(form, instead));
                        again.Pages.ShouldBe(route.Pages);
                        again.SendOff.ShouldBe(route.SendOff);
                        again.Answers.ShouldBe(route.Answers);
                        AnswerChecks.Check(known, again).ShouldBe(AnswerChecks.Check(known, route));
                        Screener.Judge(rules, again.Know(known)).Score.ShouldBe(Screener.Judge(rules, route.Know(known)).Score);
                    }

                    AnswerChecks.Check(known, route).ShouldAllBe(finding => !off.Contains(Places.QuestionOf(finding.Place)));
                    route.Answers.Where(state => off.Contains(state.Key)).ShouldAllBe(state => state.Value.Answer == null);
                    Landing
                        .Plan(
                            route.Know(Known(ToNotes(form))),
                            new Dictionary<string, Answer>(),
                            FieldCatalogue.BuiltIn,
                            LandingTrust.NewClient
                        )
                        .Notes.ShouldAllBe(note => !off.Contains(note.Question));
                }
            );

    [Fact]
    public void What_a_row_does_not_ask_never_goes_with_it() =>
        Gen.Select(FormWithRows, AnswersWithRows)
            .Sample(
                (form, given) =>
                {
                    var route = Routes.Trace(Known(form), Tidy(form, given));
                    if (route.Answers["rows"].Answer is not RowsAnswer sent)
                        return;
                    for (var index = 0; index < sent.Rows.Count; index++)
                    {
                        foreach (var cell in sent.Rows[index].Answers.Where(cell => cell.Value is not null))
                            route.Shown.ShouldContain(Places.InRow("rows", index, cell.Key));
                    }
                }
            );

    [Fact]
    public void A_filling_in_that_was_kept_and_resumed_stands_exactly_where_it_was() =>
        Gen.Select(FormWithRows, AnswersWithRows, Gen.Int[0, 2])
            .Sample(
                (form, given, page) =>
                {
                    var resumed = JsonSerializer.Deserialize<Dictionary<string, Answer?>>(JsonSerializer.Serialize(given, Wire), Wire)!;
                    var known = Known(form);
                    var open = form.Pages[page].Key;
                    var (before, after) = (Routes.Trace(known, Tidy(form, given), open), Routes.Trace(known, Tidy(form, resumed), open));
                    after.Pages.ShouldBe(before.Pages);
                    after.Shown.ShouldBe(before.Shown);
                    after.Next.ShouldBe(before.Next);
                    after.Answers.ShouldBe(before.Answers);
                    AnswerChecks.Check(known, after).ShouldBe(AnswerChecks.Check(known, before));
                }
            );

    private static FormContent ToNotes(FormContent form) =>
        form with
        {
            Pages =
            [
                .. form.Pages.Select(page =>
                    page with
                    {
                        Items =
                        [
                            .. page.Items.Select(item =>
                                item is Question question ? question with { LandsIn = new AppendToNotes(RecordScope.Project) } : item
                            ),
                        ],
                    }
                ),
            ],
        };
}
