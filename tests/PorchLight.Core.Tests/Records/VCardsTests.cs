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
        cells["Birth date"].ShouldBeEmpty("it says no year");
        cells["Language"].ShouldBe("fr");
        cells["E-mail"].ShouldBe("simon.perreault@viagenie.ca");
        cells["Phone"].ShouldBe("+1-418-656-9254;ext=102");
        (cells["Flat or floor"], cells["Street"], cells["Town"]).ShouldBe(("Suite D2-630", "2875 Laurier", "Quebec"));
        (cells["Region"], cells["Postal code"], cells["Country"]).ShouldBe(("QC", "G1V 2M2", "Canada"));
        (cells["Company"], cells["Website"]).ShouldBe(("Viagenie", "http://nomis80.org"));
        cells["Notes"].ShouldBe("Birthday: 3 February\nAnother phone: +1-418-262-6501");
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

    [Fact]
    public void Line_ends_that_only_Unicode_knows_end_no_line()
    {
        foreach (var odd in new[] { '\u2028', '\u2029', '\u0085', '\f', '\v' })
        {
            var read = VCards.Read($"BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ada\r\nNOTE:one{odd}two\r\nEND:VCARD\r\n");
            read.Fault.ShouldBeNull();
            read.People!.Rows[0][^1].ShouldBe($"one{odd}two");
        }
    }

    [Fact]
    public void A_fold_within_a_character_spoils_none_as_published()
    {
        // RFC 6350, 3.2: "implementations MUST unfold lines at the octet level".
        var card = System.Text.Encoding.UTF8.GetBytes("BEGIN:VCARD\nVERSION:4.0\nFN:Zoë Grünwald\nNOTE:naïve café\nEND:VCARD\n");
        for (var at = 24; at < card.Length - 12; at++)
        {
            if (card[at - 1] == '\n' || card[at] == '\n')
                continue;
            byte[] folded = [.. card[..at], .. "\r\n "u8, .. card[at..]];
            var row = VCards.Read(System.Text.Encoding.UTF8.GetString(VCards.WholeCharacters(folded))).People!.Rows[0];
            (row[0], row[^1]).ShouldBe(("Zoë Grünwald", "naïve café"), $"folded at {at}");
        }
    }

    [Fact]
    public void Middle_names_and_birthdays_without_a_year_are_kept()
    {
        var people = VCards
            .Read(
                "BEGIN:VCARD\nVERSION:4.0\nN:Berg;Anna;Maria,Luise;;\nBDAY:--0514\nEND:VCARD\n"
                    + "BEGIN:VCARD\nVERSION:3.0\nN:Roe;Dervla;;;\nBDAY:1604-02-29\nEND:VCARD\n"
            )
            .People!;
        var cells = people.Rows.Select(row => people.Headings.Zip(row).ToDictionary(pair => pair.First, pair => pair.Second)).ToList();
        (cells[0]["First name"], cells[0]["Birth date"], cells[0]["Notes"]).ShouldBe(("Anna Maria Luise", "", "Birthday: 14 May"));
        (cells[1]["Birth date"], cells[1]["Notes"]).ShouldBe(("", "Birthday: 29 February"));
    }

    [Fact]
    public void A_picture_of_many_megabytes_costs_no_more_than_its_own_length()
    {
        var text = $"BEGIN:VCARD\nVERSION:4.0\nFN:Ada\nPHOTO:{new string('A', 20_000_000)}\nEMAIL:ada@bakes.example\nEND:VCARD\n";
        var before = GC.GetAllocatedBytesForCurrentThread();
        VCards.Read(text).People!.Rows[0][3].ShouldBe("ada@bakes.example");
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(5_000_000);
    }

    [Theory]
    [InlineData(
        "BEGIN:VCARD\nVERSION:4.0\nFN:Ada\nEND:VCARD\nBEGIN:VCARD\nFN:Osk",
        "The file is cut off: the card that begins in line 5 has no end."
    )]
    [InlineData("BEGIN:VCARD\nFN:Ada\nBEGIN:VCARD\nFN:Oskar\nEND:VCARD", "The file is cut off: the card that begins in line 1 has no end.")]
    [InlineData("Name;E-mail", "Line 1 is not a line of a vCard.")]
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
