using System.Text;
using CsCheck;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class ImportTests
{
    private static readonly NormaliseContext Dublin = new("IE", 0, Instant.FromUtc(2026, 11, 26, 9, 0), new LocalDate(2026, 11, 26));

    /// <summary>The same words in each encoding; what Windows-1252 has where Latin-1 has nothing is from the WHATWG Encoding Standard.</summary>
    [Fact]
    public void Text_is_read_whatever_it_was_written_in()
    {
        const string words = "Name,E-mail\r\nDún Laoghaire “Signs” – 500 €,a@b.example";
        byte[] windows =
        [
            .. "Name,E-mail\r\nD"u8,
            0xFA,
            .. "n Laoghaire "u8,
            0x93,
            .. "Signs"u8,
            0x94,
            .. " "u8,
            0x96,
            .. " 500 "u8,
            0x80,
            .. ",a@b.example"u8,
        ];
        TextDecoding.Read(Encoding.UTF8.GetBytes(words)).ShouldBe(new DecodedText(words, "UTF-8"));
        TextDecoding.Read([.. Encoding.UTF8.Preamble, .. Encoding.UTF8.GetBytes(words)]).ShouldBe(new DecodedText(words, "UTF-8"));
        TextDecoding.Read(windows).ShouldBe(new DecodedText(words, "Windows-1252"));
        foreach (var utf16 in new[] { Encoding.Unicode, Encoding.BigEndianUnicode })
        {
            TextDecoding.Read([.. utf16.Preamble, .. utf16.GetBytes(words)]).ShouldBe(new DecodedText(words, "UTF-16"));
            TextDecoding.Read(utf16.GetBytes(words)).ShouldBe(new DecodedText(words, "UTF-16"), "also without a mark");
        }

        TextDecoding.Read([]).Text.ShouldBe("");
    }

    [Fact]
    public void Any_bytes_are_some_text() => Gen.Byte.Array[0, 60].Sample(bytes => TextDecoding.Read(bytes).Text.ShouldNotBeNull());

    [Theory]
    [InlineData("a;b;c\n1,5;2;3", ';')]
    [InlineData("a,b\n", ',')]
    [InlineData("a\tb, c\td", '\t')]
    [InlineData("\"a;b;c\",d\n", ',')]
    [InlineData("one column", ',')]
    public void What_parts_the_cells_is_seen_in_the_first_line(string text, char separator) =>
        PeopleTable.SeparatorOf(text).ShouldBe(separator);

    [Theory]
    [InlineData("a,\"b\nc\",d\n", null)]
    [InlineData("a,\"b\"\"c\",d", null)]
    [InlineData("a,5\" pipe,d\ne", null)]
    [InlineData("a,b\nc,\"d\ne,f\n", 2)]
    [InlineData("\"a", 1)]
    public void A_file_that_was_cut_off_within_a_cell_is_noticed(string text, int? line) => PeopleTable.OpenQuote(text, ',').ShouldBe(line);

    [Fact]
    public void Columns_are_known_by_their_own_words_and_by_those_of_other_programs()
    {
        ImportColumns
            .Propose(
                ["First Name", "Last Name", "Display Name", "E-mail Address", "Mobile", "ZIP", "Shoe size", "Status", "E-mail"],
                FieldCatalogue.BuiltIn
            )
            .ShouldBe([
                "client.name given",
                "client.name family",
                "client.name",
                "client.email",
                "client.phone",
                "client.address postalCode",
                "",
                "standing",
                "",
            ]);
        ImportColumns.Propose(VCards.Headings, FieldCatalogue.BuiltIn).Skip(1).ShouldNotContain("", "cards fit without a question");
    }

    [Fact]
    public void A_line_becomes_a_person_and_what_cannot_be_kept_is_left_out_with_a_sentence()
    {
        var targets = new[]
        {
            "client.name",
            "client.email",
            "client.phone",
            "client.born",
            "client.address city",
            "client.address postalCode",
            "tags",
            "notes",
            "standing",
        };
        var person = Read(
            targets,
            "Ada Penrose",
            "ada@penrose.example",
            "01 555 0142",
            "in May",
            "Howth",
            "D13",
            "Murals; signs,Murals",
            "Likes tea.",
            "past"
        );
        person.Values["client.name"].ShouldBe(new PersonNameAnswer("Ada", "Penrose"));
        ((PhoneAnswer)person.Values["client.phone"]).E164.ShouldBe("+35315550142");
        person.Values["client.address"].ShouldBe(new AddressAnswer(null, null, "Howth", null, "D13", null));
        (person.Note, person.Standing).ShouldBe(("Likes tea.", Standing.Past));
        person.Tags.ShouldBe(["Murals", "signs"]);
        person.Faults.Single().Column.ShouldBe(3);
        person.Faults.Single().Sentence.ShouldStartWith("Birth date is left out.");
    }

    [Fact]
    public void A_line_without_name_address_or_number_is_nobody()
    {
        var nobody = Read(["client.email", "client.company"], "nowhere", "Bakes");
        nobody.IsSomebody.ShouldBeFalse();
        nobody.Faults.Select(fault => fault.Column).ShouldBe([0, null]);
        Read(["client.email"], "ada@penrose.example").IsSomebody.ShouldBeTrue();
    }

    [Fact]
    public void No_line_of_any_file_makes_it_fall()
    {
        var targets = ImportColumns.Targets(FieldCatalogue.BuiltIn).Select(target => target.Key).ToList();
        Gen.String.Array[targets.Count]
            .Sample(cells =>
            {
                var person = ImportedPerson.Read(cells, targets, FieldCatalogue.BuiltIn, Dublin, "EUR");
                person.Faults.ShouldAllBe(fault => fault.Sentence.Length > 0);
            });
    }

    private static ImportedPerson Read(string[] targets, params string[] cells) =>
        ImportedPerson.Read(cells, targets, FieldCatalogue.BuiltIn, Dublin, "EUR");
}
