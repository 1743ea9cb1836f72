using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Data;
using PorchLight.Server.Demo;

namespace PorchLight.Server.Tests;

public sealed class StorageTests
{
    private static readonly AnswerTo Of = new("budget");
    private static readonly LocalDate Day = new(2027, 2, 28);

    private static readonly object[] Stored =
    [
        DemoForm.Wall, DemoForm.Screening, DemoForm.AfterAnInquiry(Guid.Empty), DemoForm.AfterAKindNo(Guid.Empty),
        new RunState(Instant.FromUtc(2026, 11, 23, 10, 0), [new StepState("first", StepStatus.Approved, Instant.FromUtc(2026, 11, 24, 9, 0), null, "Maren")]),
    ];

    private static readonly Condition[] Conditions =
    [
        new All([new Any([]), new Not(new Is(Of, "yes"))]), new Any([]), new Not(new FitIs(Fit.NotNow)), new Is(Of, "yes"), new IsNot(Of, "no"), new IsOneOf(Of, ["a", "b"]), new Includes(Of, "a"),
        new IncludesNoneOf(Of, ["a"]), new DoesNotKnow(Of), new NumberIs(Of, NumberRelation.AtLeast, 4000.50m, "EUR"),
        new NumberBetween(new PointsSoFar(), 1, 2), new DateBetween(Of, Day, Day), new Before(Of, Day), new After(Of, Day),
        new WithinNextDays(Of, 28), new IsAnswered(new ValueOnFile("client.phone")), new IsBlank(Of), new FitIs(Fit.TalkFirst),
    ];

    private static readonly Answer[] Answers =
    [
        new TextAnswer("„Dún Laoghaire“ 🧱"), new NumberAnswer(6.5m), new MoneyAnswer(0.1m, "KWD"), new BandAnswer("4 to 9", new Band(new Bound(4), new Bound(9, true), "EUR", 12)),
        new DateAnswer(Day), new YesNoAnswer(false), ChoiceAnswer.Of("a", "b"), new PhoneAnswer("01 555 0142", "+35315550142"),
        new PersonNameAnswer("Tilda", ""), new AddressAnswer("1 Quay", null, "Howth", null, "D13", "IE"),
        new ChoiceAnswer(["other"], "on the roof"), new DateRangeAnswer(Day, Day.PlusDays(3), true), new LookUpAnswer("D13", ["Dublin 13", "Howth"]),
        new FilesAnswer([new FileRef(new Guid(1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11), "wall.jpg", 12, FileGroup.Picture)]),
        new RowsAnswer([new AnswerRow(new Dictionary<string, Answer?> { ["width"] = new NumberAnswer(2), ["note"] = null })]),
        new ConsentAnswer("You may keep this.", 3, Instant.FromUtc(2026, 11, 23, 10, 0)), new SignatureAnswer("Tilda Brackenridge", "M1 2L3 4", "The bakery", Day),
    ];

    [Fact]
    public void What_is_stored_comes_back_as_it_was()
    {
        foreach (var value in Stored)
            Again(value, value.GetType()).ShouldBe(JsonSerializer.Serialize(value, value.GetType(), Json.Options));
    }

    [Fact]
    public void Every_condition_comes_back_as_it_was()
    {
        Kinds(Conditions).ShouldBe(Named(typeof(Condition)), ignoreOrder: true);
        foreach (var condition in Conditions)
            Again(condition, typeof(Condition)).ShouldBe(JsonSerializer.Serialize(condition, Json.Options));
    }

    [Fact]
    public void Every_answer_comes_back_equal()
    {
        Kinds(Answers).ShouldBe(Named(typeof(Answer)), ignoreOrder: true);
        foreach (var answer in Answers)
            JsonSerializer.Deserialize<Answer>(JsonSerializer.Serialize(answer, Json.Options), Json.Options).ShouldBe(answer);
    }

    [Fact]
    public void Every_kind_is_written_with_a_discriminator_of_its_own()
    {
        foreach (var family in new[] { typeof(Answer), typeof(Condition), typeof(Subject), typeof(QuestionKind), typeof(SignalEffect), typeof(LandsIn), typeof(Item), typeof(Calculation), typeof(AnswerRule), typeof(Prefill), typeof(StepAction), typeof(Happening) })
        {
            var named = family.GetCustomAttributes<JsonDerivedTypeAttribute>().ToList();
            named.Select(kind => kind.TypeDiscriminator).ShouldBeUnique();
            named.Select(kind => kind.DerivedType).ShouldBe(family.Assembly.GetTypes().Where(type => type.IsSubclassOf(family) && !type.IsAbstract), ignoreOrder: true, family.Name);
        }
    }

    private static IEnumerable<Type> Kinds(IEnumerable<object> values) => values.Select(value => value.GetType()).Distinct();

    private static IEnumerable<Type> Named(Type family) => family.GetCustomAttributes<JsonDerivedTypeAttribute>().Select(kind => kind.DerivedType);

    private static string Again(object value, Type type) =>
        JsonSerializer.Serialize(JsonSerializer.Deserialize(JsonSerializer.Serialize(value, type, Json.Options), type, Json.Options), type, Json.Options);
}
