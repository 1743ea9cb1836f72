using CsCheck;
using NodaTime;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class ColumnContentsTests
{
    private static readonly NormaliseContext Context = new("IE", 0, Instant.FromUtc(2026, 11, 23, 9, 0), new LocalDate(2026, 11, 23));

    [Theory]
    [InlineData(FieldKind.Number, "39", "44,5", "", "1,200")]
    [InlineData(FieldKind.Money, "€1,200", "900 EUR", "EUR 12.50")]
    [InlineData(FieldKind.Date, "24/12/2026", "3 May 2027", "2027-05-14")]
    [InlineData(FieldKind.YesNo, "yes", "No", "yes")]
    [InlineData(FieldKind.Email, "ada@penrose.example", " TILDA@bakes.example ")]
    [InlineData(FieldKind.WebAddress, "https://bakes.example", "bakes.example/wall")]
    [InlineData(FieldKind.OneOf, "small", "large", "small", "small", "Large", "small")]
    [InlineData(FieldKind.Text, "blue", "red", "green")]
    [InlineData(FieldKind.Text, "39", "a dozen")]
    [InlineData(FieldKind.LongText, "Two\nlines", "One")]
    [InlineData(FieldKind.Text, "", " ")]
    public void A_column_keeps_what_stands_in_all_of_its_cells(FieldKind kind, params string[] cells) =>
        ColumnContents.KindOf(cells, Context, "EUR").ShouldBe(kind);

    [Fact]
    public void A_field_for_a_column_has_its_heading_a_name_of_its_own_and_its_words_to_choose_from()
    {
        string[] sizes = ["small", "large", "small", "Small", "large", "small"];
        var field = ColumnContents.FieldFor(" Shirt\tsize ", sizes, FieldCatalogue.BuiltIn, Context, "EUR");
        (field.Label, field.Kind, field.Scope).ShouldBe(("Shirt size", FieldKind.OneOf, RecordScope.Client));
        field.Options.ShouldBe(["small", "large"]);
        FieldCatalogue.BuiltIn.Check(field).ShouldBeEmpty();
        ColumnContents.FieldFor("company", ["Bakes"], FieldCatalogue.BuiltIn, Context, "EUR").Label.ShouldBe("company 2");
        ColumnContents.FieldFor("", ["Bakes"], FieldCatalogue.BuiltIn, Context, "EUR").Label.ShouldBe("A field");
    }

    [Fact]
    public void Addresses_and_numbers_to_call_are_known_without_a_heading_but_no_small_numbers() =>
        ImportColumns
            .Propose(
                new PeopleTable(
                    ["Who", "", "How to call", "Guests", "E-mail"],
                    [
                        ["Ada Penrose", "ada@penrose.example", "01 555 0177", "12", ""],
                        ["Tilda", "", "+353 1 555 0199", "30", ""],
                    ]
                ),
                FieldCatalogue.BuiltIn,
                Context,
                "EUR"
            )
            .ShouldBe(["", "", "client.phone", "", "client.email"], "the heading counts before what stands in another column");

    /// <summary>Whatever stands in a column, the field that is made for it keeps every cell of it.</summary>
    [Fact]
    public void No_cell_of_a_column_is_refused_by_the_field_that_is_made_for_it() =>
        Gen.OneOf(
                Gen.Int[-5000, 90_000].Select(number => $"{number}"),
                Gen.Decimal[0, 9_000].Select(number => $"€{number:0.00}"),
                Gen.Date.Select(day => $"{day:yyyy-MM-dd}"),
                RandomForms.Pick("yes", "no", "", "a@b.example", "b.example", "small", "large", "Two\nlines", "1", "0", "12.5.2027"),
                Gen.String[0, 300]
            )
            .Array[0, 12]
            .Where(cells => cells.All(cell => cell.Length <= 300))
            .Sample(cells =>
            {
                var field = ColumnContents.FieldFor("Column", cells, FieldCatalogue.BuiltIn, Context, "EUR");
                foreach (var cell in cells)
                    FieldEntry.Read(cell, field, Context, "EUR").Fault.ShouldBeNull($"{cell} in {field.Kind}");
            });
}
