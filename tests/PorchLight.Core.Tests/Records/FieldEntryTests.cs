using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Records;

public sealed class FieldEntryTests
{
    private static readonly Guid Photo = new("019abc00-0000-7000-8000-000000000007");

    private static readonly FieldColumn[] Columns = [new("name", "Name", FieldKind.PersonName), new("born", "Born", FieldKind.Date)];

    public static TheoryData<FieldKind> Kinds => [.. Enum.GetValues<FieldKind>()];

    /// <summary>A value of each kind as somebody writes it.</summary>
    private static Answer Written(FieldKind kind) =>
        kind switch
        {
            FieldKind.Text or FieldKind.OneOf => new TextAnswer("Ochre"),
            FieldKind.LongText => new TextAnswer("Ochre\nand slate"),
            FieldKind.Email => new TextAnswer("tilda@bakes.example"),
            FieldKind.Phone => new PhoneAnswer("01 555 0142"),
            FieldKind.WebAddress => new TextAnswer("bakes.example"),
            FieldKind.Number => new NumberAnswer(4),
            FieldKind.Money => new MoneyAnswer(4_000, "EUR"),
            FieldKind.Date => new DateAnswer(Today),
            FieldKind.YesNo => new YesNoAnswer(true),
            FieldKind.SeveralOf => new TextsAnswer(["Ochre", "Slate"]),
            FieldKind.Address => new AddressAnswer("1 Quay", null, "Howth", null, null, null),
            FieldKind.PersonName => new PersonNameAnswer("Tilda", "Brackenridge"),
            FieldKind.Files => new FilesAnswer([new FileRef(Photo)]),
            _ => new RowsAnswer([Row("Robin", new LocalDate(2019, 2, 3))]),
        };

    [Theory]
    [MemberData(nameof(Kinds))]
    public void A_value_of_the_kind_is_taken_and_one_of_another_shape_is_not(FieldKind kind)
    {
        var field = Of(kind);
        var entered = Enter(Written(kind), field);
        entered.Fault.ShouldBeNull();
        entered.Value.ShouldNotBeNull();
        Enter(entered.Value, field).Value.ShouldBe(entered.Value, "what is kept can be entered again");
        Answer other = kind == FieldKind.YesNo ? new NumberAnswer(1) : new YesNoAnswer(true);
        Enter(other, field).Fault.ShouldNotBeNull();
    }

    [Theory]
    [InlineData(FieldKind.Date, "2027-05-14")]
    [InlineData(FieldKind.Number, "4.5")]
    [InlineData(FieldKind.Money, "4000")]
    [InlineData(FieldKind.YesNo, "Yes")]
    [InlineData(FieldKind.YesNo, "n")]
    [InlineData(FieldKind.Email, "tilda@bakes.example")]
    [InlineData(FieldKind.Phone, "+353 1 555 0142")]
    [InlineData(FieldKind.PersonName, "Mary Ann Brackenridge")]
    [InlineData(FieldKind.SeveralOf, "Ochre; Slate, Ochre")]
    [InlineData(FieldKind.Address, "1 Quay, Howth")]
    public void Text_is_read_as_the_kind_of_the_field(FieldKind kind, string text)
    {
        var read = FieldEntry.Read(text, Of(kind), Around, "EUR");
        read.Fault.ShouldBeNull();
        Enter(read.Value!, Of(kind)).Value.ShouldBe(read.Value);
    }

    [Theory]
    [InlineData(FieldKind.Date, "next spring")]
    [InlineData(FieldKind.Number, "a few")]
    [InlineData(FieldKind.YesNo, "perhaps")]
    [InlineData(FieldKind.Email, "no address")]
    [InlineData(FieldKind.Phone, "ring twice")]
    [InlineData(FieldKind.Files, "photo.jpg")]
    [InlineData(FieldKind.Rows, "Robin")]
    public void What_cannot_be_read_is_said_and_never_guessed(FieldKind kind, string text)
    {
        var read = FieldEntry.Read(text, Of(kind), Around, "EUR");
        (read.Value, read.Fault).ShouldBe((null, read.Fault));
        read.Fault.ShouldNotBeNullOrWhiteSpace();
    }

    [Fact]
    public void Blank_text_and_blank_values_empty_the_field()
    {
        foreach (var kind in Enum.GetValues<FieldKind>())
            FieldEntry.Read(" \t ", Of(kind), Around, "EUR").ShouldBe(new EnteredValue(null, null));
        Enter(new TextAnswer("  "), Of(FieldKind.Text)).ShouldBe(new EnteredValue(null, null));
        Enter(new RowsAnswer([new AnswerRow(new Dictionary<string, Answer?>())]), Of(FieldKind.Rows)).Value.ShouldBeNull();
    }

    [Fact]
    public void Only_files_that_are_there_and_rows_with_sound_cells_are_taken()
    {
        Enter(new FilesAnswer([new FileRef(Guid.NewGuid())]), Of(FieldKind.Files)).Value.ShouldBeNull();
        var odd = new RowsAnswer([new AnswerRow(new Dictionary<string, Answer?> { ["born"] = new TextAnswer("May") })]);
        Enter(odd, Of(FieldKind.Rows)).Fault.ShouldBe("Row 1, Born: This cannot be kept in “Born”. Please enter it again.");
        var unknown = new RowsAnswer([
            new AnswerRow(
                new Dictionary<string, Answer?> { ["name"] = new PersonNameAnswer("Robin", ""), ["shoe"] = new NumberAnswer(42) }
            ),
        ]);
        ((RowsAnswer)Enter(unknown, Of(FieldKind.Rows)).Value!).Rows.Single().Answers.Keys.ShouldBe(["name"]);
    }

    [Fact]
    public void A_rough_amount_stays_rough_and_only_where_amounts_are_kept()
    {
        var rough = new BandAnswer("4,000 to 9,000", new Band(new Bound(4_000), new Bound(9_000), "EUR"));
        Enter(rough, Of(FieldKind.Money)).Value.ShouldBe(rough);
        Enter(rough, Of(FieldKind.Number)).Fault.ShouldNotBeNull("an amount of money is no bare number");
        Enter(new MoneyAnswer(5, "USD"), Of(FieldKind.Money)).Fault.ShouldBe("Please give the amount in EUR.");
    }

    [Fact]
    public void What_would_fit_another_kind_is_carried_over_and_what_would_not_is_nothing()
    {
        Carried(new TextAnswer("2027-05-14"), FieldKind.Date).ShouldBe(new DateAnswer(new LocalDate(2027, 5, 14)));
        Carried(new TextAnswer("next spring"), FieldKind.Date).ShouldBeNull();
        Carried(new NumberAnswer(1_200.5m), FieldKind.Text).ShouldBe(new TextAnswer("1200.5"));
        Carried(new TextAnswer("Ochre, Slate"), FieldKind.SeveralOf).ShouldBe(new TextsAnswer(["Ochre", "Slate"]));
        Carried(new TextsAnswer(["Ochre", "Slate"]), FieldKind.Text).ShouldBe(new TextAnswer("Ochre, Slate"));
        Carried(new PersonNameAnswer("Tilda", "Brackenridge"), FieldKind.Text).ShouldBe(new TextAnswer("Tilda Brackenridge"));
        Carried(new YesNoAnswer(false), FieldKind.OneOf).ShouldBe(new TextAnswer("No"));
        Carried(new TextAnswer("No"), FieldKind.YesNo).ShouldBe(new YesNoAnswer(false));

        static Answer? Carried(Answer value, FieldKind to) => FieldEntry.Carried(value, Of(to), Around, "EUR");
    }

    private static EnteredValue Enter(Answer value, Field field) =>
        FieldEntry.Of(
            value,
            field,
            Around with
            {
                Files = new Dictionary<Guid, FileRef> { [Photo] = new FileRef(Photo, "wall.jpg", 10, FileGroup.Picture) },
            },
            "EUR"
        );

    private static Field Of(FieldKind kind) =>
        new("client.own", "Own", kind)
        {
            Options = kind is FieldKind.OneOf or FieldKind.SeveralOf ? ["Ochre", "Slate"] : [],
            Columns = kind == FieldKind.Rows ? Columns : [],
        };

    private static AnswerRow Row(string name, LocalDate born) =>
        new(new Dictionary<string, Answer?> { ["name"] = new PersonNameAnswer(name, "Pell"), ["born"] = new DateAnswer(born) });
}
