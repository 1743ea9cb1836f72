using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

public sealed class ComparisonTests
{
    /// <summary>Comparisons that can be true of one choice or of several, but are worded for the other.</summary>
    private static readonly Dictionary<AnswerSort, Comparison[]> WordedForOthers = new()
    {
        [AnswerSort.OneOption] = [Comparison.Includes, Comparison.IncludesNoneOf],
        [AnswerSort.SeveralOptions] = [Comparison.Is, Comparison.IsNot, Comparison.IsOneOf, Comparison.NumberIs, Comparison.NumberBetween],
    };

    private static readonly AnswerTo It = new("it");

    private static readonly Band Some = new(new Bound(0), new Bound(5), "EUR");

    [Fact]
    public void Comparisons_are_named_as_stored_conditions_are()
    {
        var stored = typeof(Condition)
            .GetCustomAttributes<JsonDerivedTypeAttribute>()
            .Where(one => one.DerivedType.IsAssignableTo(typeof(ComparisonCondition)))
            .Select(one => one.TypeDiscriminator);
        Enum.GetValues<Comparison>()
            .Select(one => JsonNamingPolicy.CamelCase.ConvertName(one.ToString()))
            .ShouldBe(stored, ignoreOrder: true);
    }

    /// <summary>The one that judges conditions is asked which comparisons it can ever decide.</summary>
    [Fact]
    public void Exactly_those_comparisons_are_offered_that_can_be_decided()
    {
        (QuestionKind Kind, Answer Answer)[] all =
        [
            (new ShortTextKind(), new TextAnswer("a")),
            (new LongTextKind(), new TextAnswer("a")),
            (new EmailKind(), new TextAnswer("a")),
            (new WebAddressKind(), new TextAnswer("a")),
            (new HiddenKind("a"), new TextAnswer("a")),
            (new NumberKind(), new NumberAnswer(2)),
            (new ScaleKind(1, 5), new NumberAnswer(2)),
            (new MoneyKind("EUR"), new MoneyAnswer(2, "EUR")),
            (new DateKind(), new DateAnswer(Today)),
            (new DateRangeKind(), new DateRangeAnswer(Today, Today)),
            (new YesNoKind(), new YesNoAnswer(true)),
            (new ChoiceKind([new Option("a", "A")]), ChoiceAnswer.Of("a")),
            (new ChoiceKind([new Option("a", "A", Some)]), ChoiceAnswer.Of("a")),
            (new ChoiceKind([new Option("a", "A", Unsure: true)]), ChoiceAnswer.Of("a")),
            (new ChoiceKind([new Option("a", "A"), new Option("b", "B")], Several: true), new ChoiceAnswer(["a", "b"])),
            (new PhoneKind(), new PhoneAnswer("1")),
            (new PersonNameKind(), new PersonNameAnswer("A", "B")),
            (new AddressKind(), new AddressAnswer("A", null, null, null, null, null)),
            (new FilesKind(), new FilesAnswer([])),
            (new ConsentKind("a"), new ConsentAnswer()),
            (new SignatureKind("a"), new SignatureAnswer("a")),
            (new ListKind([new Question("x", "X", new ShortTextKind())], "x"), new RowsAnswer([])),
            (new WorkedOutKind(new FixedValue(new NumberAnswer(1))), new NumberAnswer(2)),
            (new WorkedOutKind(new JoinedText("a")), new TextAnswer("a")),
            (new WorkedOutKind(new CopiedAnswer("it")), new NumberAnswer(2)),
        ];
        foreach (var (kind, answer) in all)
        {
            var form = Form(new Page("one", "One", [new Question("it", "It", kind)]));
            var known = new AnswerContext(form, new Dictionary<string, AnswerState> { ["it"] = AnswerState.Of(answer) }, Today);
            var decided = Enum.GetValues<Comparison>()
                .Where(one => Tries(one).Any(condition => condition.Evaluate(known) != Truth.Unknown));
            var sort = Comparisons.SortOf(form.Questions.Single(), form);
            // Whether they know is asked of every choice by whoever judges; it is offered where an option says so.
            var worded = WordedForOthers.GetValueOrDefault(sort, []);
            if (kind is ChoiceKind { Options: var options } && !options.Any(option => option.Unsure))
                worded = [.. worded, Comparison.DoesNotKnow];
            // A value that goes round in a circle comes to nothing.
            if (kind is WorkedOutKind { Value: CopiedAnswer })
                worded = [Comparison.NumberIs, Comparison.NumberBetween];
            Comparisons.Of(form.Questions.Single(), form).ShouldBe(decided.Except(worded), ignoreOrder: true, kind.ToString());
        }
    }

    [Fact]
    public void A_value_that_repeats_a_choice_is_compared_as_the_choice_in_its_currency()
    {
        var form = Form(new Page("one", "One", [Budget, new Question("copy", "Copy", new WorkedOutKind(new CopiedAnswer("budget")))]));
        var copy = form.FindQuestion("copy")!;
        Comparisons.Of(copy, form).ShouldBe(Comparisons.Of(Budget, form));
        (Comparisons.CurrencyOf(copy, form), Comparisons.OptionsOf(copy, form)).ShouldBe(("EUR", Budget.Options));
    }

    [Fact]
    public void What_is_offered_of_a_field_hangs_on_what_it_keeps()
    {
        Comparisons.Of(BuiltInFields.Find("project.budget")!)[0].ShouldBe(Comparison.NumberIs);
        Comparisons.Of(BuiltInFields.Find("project.wanted")!)[0].ShouldBe(Comparison.Before);
        Comparisons.Of(BuiltInFields.Phone).ShouldBe([Comparison.IsAnswered, Comparison.IsBlank]);
    }

    [Fact]
    public void Conditions_are_said_as_sentences()
    {
        var form = Form(new Page("one", "One", [Budget, Decides, Width, Wanted, Extras]));
        new AllCondition([
            new NumberCondition(new AnswerTo("budget"), NumberRelation.Under, 1500, "EUR"),
            new AnyCondition([
                new IsCondition(new AnswerTo("decides"), "yes"),
                new NotCondition(new IsAnsweredCondition(new AnswerTo("gone"))),
            ]),
        ])
            .Say(form, FieldCatalogue.BuiltIn)
            .ShouldBe(
                $"“{Budget.Wording}” is under 1,500 EUR and (“{Decides.Wording}” is yes or it is not so that a question that is gone is answered)"
            );
        new IncludesCondition(new AnswerTo("extras"), Extras.Options[0].Key)
            .Say(form, FieldCatalogue.BuiltIn)
            .ShouldBe($"“{Extras.Wording}” includes “{Extras.Options[0].Label}”");
        new FitCondition(Fit.TalkFirst).Say(form, FieldCatalogue.BuiltIn).ShouldBe("the fit is Talk first");
        new NumberCondition(new PointsSoFar(), NumberRelation.AtLeast, 40)
            .Say(form, FieldCatalogue.BuiltIn)
            .ShouldBe("the number of points is at least 40");
        new IsCondition(new ValueOnFile("client.source"), "flyer")
            .Say(form, FieldCatalogue.BuiltIn)
            .ShouldBe("what you know of Client: Found us through is “flyer”");
    }

    private static IEnumerable<ComparisonCondition> Tries(Comparison comparison) =>
        comparison switch
        {
            Comparison.Is => [new IsCondition(It, "a")],
            Comparison.IsNot => [new IsNotCondition(It, "a")],
            Comparison.IsOneOf => [new IsOneOfCondition(It, ["a"])],
            Comparison.Includes => [new IncludesCondition(It, "a")],
            Comparison.IncludesNoneOf => [new IncludesNoneOfCondition(It, ["a"])],
            Comparison.DoesNotKnow => [new DoesNotKnowCondition(It)],
            Comparison.NumberIs =>
            [
                new NumberCondition(It, NumberRelation.Under, 9),
                new NumberCondition(It, NumberRelation.Under, 9, "EUR"),
            ],
            Comparison.NumberBetween => [new NumberBetweenCondition(It, 0, 9), new NumberBetweenCondition(It, 0, 9, "EUR")],
            Comparison.Before => [new BeforeCondition(It, Today)],
            Comparison.After => [new AfterCondition(It, Today)],
            Comparison.DateBetween => [new DateBetweenCondition(It, Today, Today)],
            Comparison.WithinNextDays => [new WithinNextDaysCondition(It, 3)],
            Comparison.IsAnswered => [new IsAnsweredCondition(It)],
            Comparison.IsBlank => [new IsBlankCondition(It)],
            _ => throw new ArgumentOutOfRangeException(nameof(comparison)),
        };
}
