using CsCheck;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class VCardsTests
{
    /// <summary>The card in RFC 6350, section 7.2.1, example 4 and the author's card in section 8, shortened, with its folding.</summary>
    private const string Published = """
        BEGIN:VCARD
        VERSION:4.0
        FN:Simon Perreault
        N:Perreault;Simon;;;ing. jr,M.Sc.
        BDAY:--0203
        GENDER:M
        LANG;PREF=1:fr
        LANG;PREF=2:en
        ORG;TYPE=work:Viagenie
        ADR;TYPE=work:;Suite D2-630;2875 Laurier;
         Quebec;QC;G1V 2M2;Canada
        TEL;VALUE=uri;TYPE="work,voice";PREF=1:tel:+1-418-656-9254;ext=102
        TEL;VALUE=uri;TYPE="work,cell,voice,video,text":tel:+1-418-262-6501
        EMAIL;TYPE=work:simon.perreault@viagenie.ca
        GEO;TYPE=work:geo:46.772673,-71.282945
        URL;TYPE=home:http://nomis80.org
        END:VCARD

        """;

    [Fact]
    public void The_card_of_the_standard_is_read()
    {
        var (people, fault) = VCards.Read(Published);
        fault.ShouldBeNull();
        var cells = VCards.Headings.Zip(people!.Rows.Single()).ToDictionary(pair => pair.First, pair => pair.Second);
        cells["Name"].ShouldBe("Simon Perreault");
        (cells["First name"], cells["Family name"]).ShouldBe(("Simon", "Perreault"));
        cells["Birth date"].ShouldBe("--0203");
        cells["Language"].ShouldBe("fr");
        cells["E-mail"].ShouldBe("simon.perreault@viagenie.ca");
        cells["Phone"].ShouldBe("+1-418-656-9254;ext=102");
        (cells["Flat or floor"], cells["Street"], cells["Town"]).ShouldBe(("Suite D2-630", "2875 Laurier", "Quebec"));
        (cells["Region"], cells["Postal code"], cells["Country"]).ShouldBe(("QC", "G1V 2M2", "Canada"));
        (cells["Company"], cells["Website"]).ShouldBe(("Viagenie", "http://nomis80.org"));
        cells["Notes"].ShouldBe("Another phone: +1-418-262-6501");
    }

    [Fact]
    public void Folded_lines_several_people_escapes_and_older_cards_are_read()
    {
        var (people, _) = VCards.Read(
            "BEGIN:VCARD\r\nVERSION:3.0\r\nitem1.EMAIL:first@a.example\r\nEMAIL;TYPE=WORK,PREF:ada@pen\r\n rose.example\r\nFN:Ada\\, Pen\r\n\trose\r\n"
                + "BDAY:19850412\r\nNOTE:One\\nTwo\\; three\r\nCATEGORIES:murals,signs\\, gilded\r\nEND:VCARD\r\n"
                + "begin:vcard\nVERSION:4.0\nFN:Oskar\nEND:vcard\n"
        );
        people!.Rows.Count.ShouldBe(2);
        var cells = VCards.Headings.Zip(people.Rows[0]).ToDictionary(pair => pair.First, pair => pair.Second);
        (cells["Name"], cells["E-mail"], cells["Birth date"]).ShouldBe(("Ada, Penrose", "ada@penrose.example", "1985-04-12"));
        cells["Notes"].ShouldBe("One\nTwo; three\nAnother e-mail: first@a.example");
        cells["Tags"].ShouldBe("murals, signs, gilded");
    }

    [Theory]
    [InlineData(
        "BEGIN:VCARD\nVERSION:4.0\nFN:Ada\nEND:VCARD\nBEGIN:VCARD\nFN:Osk",
        "The file is cut off: the card that begins in line 5 has no end."
    )]
    [InlineData("BEGIN:VCARD\nFN:Ada\nBEGIN:VCARD\nFN:Oskar\nEND:VCARD", "The file is cut off: the card that begins in line 1 has no end.")]
    [InlineData("Name;E-mail", "Line 1 is no line of a vCard.")]
    [InlineData("BEGIN:VCARD\nVERSION:2.1\nEND:VCARD", "These cards are of an old kind (vCard 2.1).")]
    [InlineData("\n", "There is nobody in this file.")]
    public void What_cannot_be_read_is_said_and_nobody_is_taken(string text, string begins)
    {
        var (people, fault) = VCards.Read(text);
        people.ShouldBeNull();
        fault!.ShouldStartWith(begins);
    }

    private static readonly Gen<string> Words = Gen.String[Gen.Char["aä,;\\ \n:\"🧱ß"], 1, 60]
        .Select(text => $"x{text.Replace("\uD83E", "", StringComparison.Ordinal).Replace("\uDDF1", "", StringComparison.Ordinal)}x");

    [Fact]
    public void Whatever_is_written_is_read_back_and_no_line_is_longer_than_the_standard_has_it() =>
        Words
            .Array[VCards.Headings.Count]
            .Sample(cells =>
            {
                var row = VCards
                    .Headings.Zip(
                        cells,
                        (heading, cell) =>
                            heading switch
                            {
                                "Name" => null!,
                                "Birth date" => "1985-04-12",
                                "Website" => "https://example.com",
                                "Tags" => cell.Replace(",", "", StringComparison.Ordinal),
                                _ => cell,
                            }
                    )
                    .ToArray();
                row[0] = $"{row[1]} {row[2]}";
                var file = VCards.Write([row]);
                foreach (var line in file.Split("\r\n"))
                    System.Text.Encoding.UTF8.GetByteCount(line).ShouldBeLessThanOrEqualTo(75);
                VCards.Read(file).People!.Rows.Single().ShouldBe(row);
            });
}
