using System.Text.Json;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Tests.Forms;
using PorchLight.Core.Workbench;

namespace PorchLight.Core.Tests.Workbench;

public sealed class KindChangeTests
{
    private static readonly Question Asked = new("wall", "Which wall?", new ShortTextKind(120, 3))
    {
        Help = "The town is enough.",
        Width = ItemWidth.Half,
        AskedOnlyWhen = new IsBlankCondition(new AnswerTo("name")),
    };

    [Fact]
    public void From_every_kind_to_every_kind_what_is_no_matter_of_the_kind_stays_and_nothing_is_left_that_the_new_one_refuses()
    {
        foreach (var from in QuestionKindTests.EachKind)
        {
            foreach (var to in QuestionKindTests.EachKind)
            {
                var before = Asked with
                {
                    Kind = from,
                    Required = from.Uses().HasFlag(KindUses.MayBeRequired),
                    LandsIn = BuiltInFields
                        .All.Where((Asked with { Kind = from }).Fits)
                        .Select(field => new SetField(field.Key))
                        .FirstOrDefault(),
                };
                var (after, lost) = KindChange.To(before, to, FieldCatalogue.BuiltIn);
                var said = $"{from.Describe()} to {to.Describe()}";
                after.Kind.GetType().ShouldBe(to.GetType(), said);
                (after with { Kind = from, Required = before.Required, LandsIn = before.LandsIn }).ShouldBe(before, said);
                after.Required.ShouldBe(before.Required && to.Uses().HasFlag(KindUses.MayBeRequired), said);
                if (after.LandsIn is { } place)
                    after.RefusesToLand(place, FieldCatalogue.BuiltIn).ShouldBeNull(said);
                else if (before.LandsIn is { } had)
                    before.RefusesToLand(had, FieldCatalogue.BuiltIn).ShouldBeNull(said);
                // Something is said whenever something goes, and nothing is said when all is kept.
                var gone =
                    (before.Required && !after.Required)
                    || (before.LandsIn is not null && after.LandsIn is null)
                    || (before.Options.Count > 0 && after.Options.Count == 0)
                    || (before.RowQuestions.Count > 0 && after.RowQuestions.Count == 0)
                    || IsLessThan(after.Kind, from);
                (lost.Count > 0).ShouldBe(gone, said);
                if (from.GetType() == to.GetType() && from is not ChoiceKind)
                    after.ShouldBe(before, said);
            }
        }
    }

    [Fact]
    public void Limits_that_both_kinds_have_go_over()
    {
        Changed(new ShortTextKind(120, 3), new LongTextKind()).ShouldBe(new LongTextKind(MinLength: 3));
        Changed(new LongTextKind(4000, 900), new ShortTextKind()).ShouldBe(new ShortTextKind(200, 200), "no longer than may be written");
        Changed(new NumberKind(2, 40, "m"), new MoneyKind("EUR")).ShouldBe(new MoneyKind("EUR", 2, 40));
        Changed(new MoneyKind("EUR", 2, 40), new NumberKind(Unit: "m")).ShouldBe(new NumberKind(2, 40, "m"));
        var limits = new DateLimits(FromDays: 14);
        Changed(new DateKind(limits), new DateRangeKind(OrMonth: true)).ShouldBe(new DateRangeKind(limits, OrMonth: true));
        Changed(new DateRangeKind(limits), new DateKind()).ShouldBe(new DateKind(limits));
        Changed(new ConsentKind("You may keep this."), new AdvertisingKind("")).ShouldBe(new AdvertisingKind("You may keep this."));
    }

    [Fact]
    public void Answers_to_choose_from_stay_whether_one_or_several_are_chosen()
    {
        IReadOnlyList<Option> options = [new("wall", "A wall"), new("sign", "A sign")];
        var several = Changed(new ChoiceKind(options) { DropDown = true }, new ChoiceKind([], Several: true)).ShouldBeOfType<ChoiceKind>();
        (several.Options, several.Several, several.DropDown).ShouldBe((options, true, false));
        var one = Changed(several with { AtLeast = 1, AtMost = 2 }, new ChoiceKind([])).ShouldBeOfType<ChoiceKind>();
        (one.Options, one.Several, one.AtLeast, one.AtMost).ShouldBe((options, false, null, null));
        Changed(new YesNoKind(), new ChoiceKind([]))
            .ShouldBeOfType<ChoiceKind>()
            .Options.Select(option => option.Label)
            .ShouldBe(["Yes", "No"]);
    }

    [Fact]
    public void What_rows_ask_stays_between_lists_and_people_but_no_key_comes_twice()
    {
        var list = new ListKind(
            [new Question("name", "Name", new ShortTextKind()), new Question("size", "Size", new NumberKind())],
            "painter",
            1,
            9
        );
        var people = Changed(list, new PeopleKind("name", null, [])).ShouldBeOfType<PeopleKind>();
        people.Questions.Select(question => question.Key).ShouldBe(["name", "size"]);
        (people.Least, people.Most).ShouldBe((1, 9));
        Changed(people, new ListKind([], "line"))
            .ShouldBeOfType<ListKind>()
            .Asks.Select(question => question.Key)
            .ShouldBe(["name", "size"]);
    }

    [Fact]
    public void What_a_new_kind_does_not_keep_is_named()
    {
        Lost(new NumberKind(2, 40, "m", Whole: true), new MoneyKind("EUR"))
            .ShouldBe(["This kind of answer does not keep the unit “m”, whole numbers only."]);
        Lost(new ShortTextKind(80, 3), new EmailKind())
            .ShouldBe(["This kind of answer does not keep at least 3 characters, at most 80 characters."]);
        Lost(new DateKind(new DateLimits(FromDays: 14)), new ShortTextKind())
            .ShouldBe(["This kind of answer does not keep at least 14 days from today."]);
        Lost(new ConsentKind("You may keep this."), new YesNoKind())
            .ShouldBe(["This kind of answer does not keep the words “You may keep this.”."]);
        Lost(new ScaleKind(1, 5), new NumberKind()).ShouldBeEmpty();
        Changed(new NumberKind(0, 10), new ScaleKind(1, 5)).ShouldBe(new ScaleKind(0, 10));
        Changed(new NumberKind(0, 1000), new ScaleKind(1, 5)).ShouldBe(new ScaleKind(1, 5), "too many steps");
        Lost(new NumberKind(0, 1000), new ScaleKind(1, 5)).ShouldNotBeEmpty();
    }

    /// <summary>A second way: a member of the stored kind that is not as the catalogue has it, and that the new kind is not stored with.</summary>
    private static bool IsLessThan(QuestionKind after, QuestionKind from)
    {
        string[] noLimits =
        [
            "kind",
            "options",
            "from",
            "several",
            "asks",
            "more",
            "called",
            "currency",
            "nameKey",
            "bornKey",
            "list",
            "shown",
        ];
        var (kept, begins) = (Members(after), Members(KindCatalogue.For("EUR").First(one => one.Kind.GetType() == from.GetType()).Kind));
        return from.GetType() != after.GetType()
            && Members(from)
                .Where(member => !noLimits.Contains(member.Key) && begins.GetValueOrDefault(member.Key) != member.Value)
                .Any(member => kept.GetValueOrDefault(member.Key) != member.Value);
    }

    private static Dictionary<string, string> Members(QuestionKind kind) =>
        JsonSerializer
            .SerializeToNode(kind, RandomForms.Wire)!
            .AsObject()
            .Where(member => member.Value is not null)
            .ToDictionary(
                member =>
                    member.Key switch
                    {
                        "low" => "min",
                        "high" => "max",
                        var name => name,
                    },
                member => member.Value!.ToJsonString()
            );

    private static IReadOnlyList<string> Lost(QuestionKind from, QuestionKind to) =>
        KindChange.To(Asked with { Kind = from }, to, FieldCatalogue.BuiltIn).Lost;

    private static QuestionKind Changed(QuestionKind from, QuestionKind to) =>
        KindChange.To(Asked with { Kind = from }, to, FieldCatalogue.BuiltIn).Question.Kind;
}
