using System.Text.Json;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

/// <summary>What holds for every kind of question there is. A new kind fails here until it has a line in the table.</summary>
public sealed class QuestionKindTests
{
    private static readonly Guid File = Guid.CreateVersion7();
    private static readonly Guid List = Guid.CreateVersion7();

    private static readonly NormaliseContext Context = new("IE", 3, Instant.FromUtc(2026, 11, 23, 10, 0), Today)
    {
        Files = new Dictionary<Guid, FileRef> { [File] = new(File, "wall.jpg", 2_000, FileGroup.Picture) },
        Lines = new Dictionary<(Guid, string), IReadOnlyList<string>> { [(List, "red")] = ["Signal red", "3001"] },
    };

    /// <param name="Kind">The kind.</param>
    /// <param name="Good">An answer as a browser sends it, which must be taken.</param>
    /// <param name="Text">A text that reads as an answer of the kind; null when no text does.</param>
    /// <param name="Fields">The fields its answers can be kept in.</param>
    private sealed record Line(QuestionKind Kind, Answer Good, string? Text, params FieldKind[] Fields);

    private static readonly Line[] Table =
    [
        new(new ShortTextKind(), new TextAnswer(" Bread\u0007 "), "Bread", FieldKind.Text, FieldKind.LongText),
        new(new LongTextKind(), new TextAnswer("Bread\nand cake"), "Bread", FieldKind.LongText),
        new(new EmailKind(), new TextAnswer("tilda@bakes.example"), "tilda@bakes.example", FieldKind.Email),
        new(new PhoneKind(), new PhoneAnswer("+353 1 555 0100"), "+353 1 555 0100", FieldKind.Phone),
        new(
            new WebAddressKind(),
            new TextAnswer("bakes.example"),
            "bakes.example",
            FieldKind.Text,
            FieldKind.LongText,
            FieldKind.WebAddress
        ),
        new(new NumberKind(0, 9, "m"), new NumberAnswer(4), "4", FieldKind.Number),
        new(new MoneyKind("EUR", 1), new MoneyAnswer(4_000, "EUR"), "4000", FieldKind.Money),
        new(new ScaleKind(1, 5), new NumberAnswer(5), "5", FieldKind.Number),
        new(new DateKind(), new DateAnswer(Today), "2027-05-14", FieldKind.Date),
        new(new DateRangeKind(OrMonth: true), new DateRangeAnswer(Today, Today.PlusDays(2)), null, FieldKind.LongText),
        new(new YesNoKind(), new YesNoAnswer(true), "no", FieldKind.YesNo),
        new(
            Budget.Kind,
            ChoiceAnswer.Of("middle"),
            "middle",
            FieldKind.Text,
            FieldKind.LongText,
            FieldKind.Money,
            FieldKind.OneOf,
            FieldKind.SeveralOf
        ),
        new(
            Extras.Kind,
            ChoiceAnswer.Of("lighting", "gilding"),
            "gilding, lighting",
            FieldKind.Text,
            FieldKind.LongText,
            FieldKind.SeveralOf
        ),
        new(
            new ChoiceKind([new Option("a", "A", new Band(new Bound(1), null))]),
            ChoiceAnswer.Of("a"),
            "a",
            FieldKind.Text,
            FieldKind.LongText,
            FieldKind.Number,
            FieldKind.OneOf,
            FieldKind.SeveralOf
        ),
        new(new LookUpKind(List, ["Colour"]), new LookUpAnswer("red"), "red", FieldKind.Text, FieldKind.LongText),
        new(new PersonNameKind(), new PersonNameAnswer("Tilda", ""), "Tilda Brackenridge", FieldKind.PersonName),
        new(new AddressKind(), new AddressAnswer("1 Quay", null, "Howth", null, null, null), null, FieldKind.Address),
        new(new FilesKind(), new FilesAnswer([new FileRef(File)]), null, FieldKind.Files),
        new(
            new ListKind([new Question("says", "What?", new ShortTextKind())], "sign"),
            new RowsAnswer([new AnswerRow(new Dictionary<string, Answer?> { ["says"] = new TextAnswer("Bread") })]),
            null,
            FieldKind.LongText,
            FieldKind.Rows
        ),
        new(
            new PeopleKind("who", null, []),
            new RowsAnswer([new AnswerRow(new Dictionary<string, Answer?> { ["who"] = new PersonNameAnswer("Robin", "Pell") })]),
            null,
            FieldKind.LongText,
            FieldKind.Rows
        ),
        new(new ConsentKind("You may keep this."), new ConsentAnswer(), null),
        new(new AdvertisingKind("You may write to me."), new ConsentAnswer(), null, FieldKind.YesNo),
        new(new SignatureKind("I agree."), new SignatureAnswer("Tilda Brackenridge"), null),
        new(new WorkedOutKind(new CountRows("rows")), new NumberAnswer(3), null, FieldKind.Text, FieldKind.LongText, FieldKind.Number),
        new(new HiddenKind("utm_source"), new TextAnswer("poster"), "poster", FieldKind.Text, FieldKind.LongText),
    ];

    /// <summary>Each kind at least once, with usual limits.</summary>
    internal static IEnumerable<QuestionKind> EachKind => Table.Select(line => line.Kind);

    public static TheoryData<string> Lines => [.. Table.Select((line, index) => $"{index} {line.Kind.GetType().Name}")];

    [Fact]
    public void Every_kind_there_is_stands_in_the_table() =>
        Table.Select(line => line.Kind.GetType()).Distinct().ShouldBe(QuestionKinds.All.Values, ignoreOrder: true);

    [Theory]
    [MemberData(nameof(Lines))]
    public void It_has_words_and_takes_what_is_good(string at)
    {
        var (kind, good, _, _) = LineOf(at);
        kind.Describe().Trim('.', ' ').ShouldNotBeEmpty();
        kind.MissingSentence().ShouldEndWith(".");
        kind.Faults().ShouldBeEmpty();
        var question = new Question("q", "Q?", kind);
        var stored = Stored(question, good);
        AnswerLimits.Check(question, stored, Today, required: true).ShouldBeNull();
        if (kind is WorkedOutKind)
        {
            stored.ShouldBeNull("nobody types it");
            return;
        }

        Stored(question, stored!).ShouldBe(stored, "what is stored is in its stored shape already");
        AnswerWords.Say(stored!, question).ShouldNotBeEmpty();
    }

    [Theory]
    [MemberData(nameof(Lines))]
    public void It_refuses_every_answer_of_another_kind(string at)
    {
        var (kind, good, _, _) = LineOf(at);
        var question = new Question("q", "Q?", kind);
        foreach (var other in Table.Select(line => line.Good).Where(answer => answer.GetType() != good.GetType()))
        {
            // Nobody sees these two, so that nobody could put them right.
            if (kind is WorkedOutKind or HiddenKind)
                Stored(question, other).ShouldBeNull();
            else
                AnswerLimits.Check(question, Stored(question, other), Today, required: false).ShouldBe(QuestionKind.NotOfThisKind);
        }
    }

    [Theory]
    [MemberData(nameof(Lines))]
    public void A_text_reads_as_an_answer_or_as_none(string at)
    {
        var (kind, _, text, _) = LineOf(at);
        var question = new Question("q", "Q?", kind);
        var read = Prefilling.Read(kind, text ?? "Bread");
        (read is null).ShouldBe(text is null);
        if (read is not null)
            AnswerLimits.Check(question, Stored(question, read), Today, required: true).ShouldBeNull();
    }

    [Theory]
    [MemberData(nameof(Lines))]
    public void Its_answers_can_be_kept_in_these_fields(string at)
    {
        var (kind, _, _, fields) = LineOf(at);
        Enum.GetValues<FieldKind>().Where(kind.FitsField).ShouldBe(fields);
    }

    [Theory]
    [MemberData(nameof(Lines))]
    public void The_examples_of_its_classes_are_answers_it_takes(string at)
    {
        var (kind, _, _, _) = LineOf(at);
        var question = new Question("q", "Q?", kind);
        var comparisons = new ComparisonCondition[]
        {
            new IsCondition(new AnswerTo("q"), "Bread"),
            new NumberCondition(new AnswerTo("q"), NumberRelation.Over, 4),
            new BeforeCondition(new AnswerTo("q"), Today.PlusDays(10)),
            new IncludesCondition(new AnswerTo("q"), "gilding"),
        };
        var examples = kind.Examples(comparisons, Known(OnePage(question)))!.Take(50).ToList();
        examples.ShouldNotBeEmpty();
        // What the program itself must have (a stored file, a line of a list, an address with a point in it) no example can make up.
        if (kind is FilesKind or LookUpKind or EmailKind or WebAddressKind or WorkedOutKind)
            return;
        foreach (var example in examples)
            AnswerLimits.Check(question, Stored(question, example), Today, required: false).ShouldBeNull(example.ToString());
    }

    [Theory]
    [MemberData(nameof(Lines))]
    public void It_is_written_and_read_by_its_name(string at)
    {
        var (kind, _, _, _) = LineOf(at);
        var json = JsonSerializer.Serialize(kind, RandomForms.Wire);
        var name = QuestionKinds.All.Single(pair => pair.Value == kind.GetType()).Key;
        json.ShouldStartWith("{\"kind\":\"" + name + "\"");
        JsonSerializer.Deserialize<QuestionKind>(json, RandomForms.Wire)!.Describe().ShouldBe(kind.Describe());
    }

    [Fact]
    public void What_is_asked_in_plain_markup_can_be_read_back()
    {
        foreach (var line in Table.Where(line => line.Kind.PlainControl() is PlainLine or PlainLines or PlainChoices or PlainUnseen))
        {
            var posted = new Dictionary<string, IReadOnlyList<string>> { ["q"] = line.Text!.Split(", ") };
            var (answers, unreadable) = PlainAnswers.Read(OnePage(new Question("q", "Q?", line.Kind)), posted);
            unreadable.ShouldBeEmpty();
            answers["q"].ShouldBe(Prefilling.Read(line.Kind, line.Text));
        }
    }

    private static Line LineOf(string at) => Table[int.Parse(at.Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture)];

    private static Answer? Stored(Question question, Answer answer) =>
        AnswerNormaliser.Normalise(OnePage(question), new Dictionary<string, Answer?> { ["q"] = answer }, Context)["q"];
}
