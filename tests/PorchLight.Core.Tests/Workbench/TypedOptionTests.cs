using System.Globalization;
using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Workbench;

namespace PorchLight.Core.Tests.Workbench;

public sealed class TypedOptionTests
{
    [Fact]
    public void A_pasted_list_is_read_without_what_made_it_a_list() =>
        TypedLines
            .Read(
                "- A wall\r\n  • A sign  \n\n3. Letters,   gilded\n(4) A van\nb) A window\n[ ] A shutter\n☐ A door\n3 rooms\n1.5 m wide\n– 2 gates\nA – B"
            )
            .ShouldBe([
                "A wall",
                "A sign",
                "Letters, gilded",
                "A van",
                "A window",
                "A shutter",
                "A door",
                "3 rooms",
                "1.5 m wide",
                "2 gates",
                "A – B",
            ]);

    [Fact]
    public void Options_get_keys_of_their_own_and_what_they_mean()
    {
        var options = TypedOptions.Read(
            "A mural\nA mural\na mural\nÉlan & Söhne\n漆\nOther\nNone of these\nI don’t know yet",
            null,
            ["a-mural"]
        );
        options.Select(option => option.Label).ShouldBe(["A mural", "Élan & Söhne", "漆", "Other", "None of these", "I don’t know yet"]);
        options.Select(option => option.Key).ShouldBe(["a-mural-2", "elan-sohne", "answer", "other", "none-of-these", "i-dont-know-yet"]);
        options
            .Select(option => (option.OwnWords, option.NoneOfThese, option.Unsure, option.Band))
            .ShouldBe([
                (false, false, false, null),
                (false, false, false, null),
                (false, false, false, null),
                (true, false, false, null),
                (false, true, false, null),
                (false, false, true, null),
            ]);
    }

    [Fact]
    public void Amounts_become_bands_that_share_no_number()
    {
        var options = TypedOptions.Read("Under 1,500\n1,500 to 4,000\n4,000 to 9,000\nMore than 9,000\nNot sure", "EUR", []);
        options
            .Select(option => option.Band)
            .ShouldBe([
                new Band(null, new Bound(1500, Open: true), "EUR"),
                new Band(new Bound(1500), new Bound(4000, Open: true), "EUR"),
                new Band(new Bound(4000), new Bound(9000), "EUR"),
                new Band(new Bound(9000, Open: true), null, "EUR"),
                null,
            ]);
        options[^1].Unsure.ShouldBeTrue();
    }

    [Fact]
    public void A_list_of_which_only_some_are_amounts_stands_for_none() =>
        TypedOptions.Read("Under 1,500\nMore than that", "EUR", []).ShouldAllBe(option => option.Band == null);

    [Theory]
    [InlineData("up to €1,500", null, 1500, false)]
    [InlineData("less than 200 euro", null, 200, true)]
    [InlineData("2k-4k", 2000, 4000, false)]
    [InlineData("£1 200 – £2 400", 1200, 2400, false)]
    [InlineData("between 5 and 10 m²", 5, 10, false)]
    [InlineData("12", 12, 12, false)]
    [InlineData("up to 5km", null, 5, false)]
    [InlineData("2kg", 2, 2, false)]
    [InlineData("10kW - 20kW", 10, 20, false)]
    [InlineData("9,000 or more", 9000, null, false)]
    [InlineData("9,000+", 9000, null, false)]
    [InlineData("over 20 people", 20, null, true)]
    [InlineData("at least 3", 3, null, false)]
    public void An_amount_is_read_as_people_write_it(string label, int? low, int? high, bool open) =>
        TypedOptions
            .ReadBand(label, null)
            .ShouldBe(
                new Band(low is { } a ? new Bound(a, open && high is null) : null, high is { } b ? new Bound(b, open && low is null) : null)
            );

    [Theory]
    [InlineData("A wall of 3 m by 4 m")]
    [InlineData("9 to 5 on weekdays")]
    [InlineData("4,000 to 1,500")]
    [InlineData("1,50")]
    [InlineData("3rd floor, left")]
    [InlineData("99999999999999")]
    [InlineData("")]
    public void What_is_no_amount_is_none(string label) => TypedOptions.ReadBand(label, null).ShouldBeNull();

    [Fact]
    public void Bands_written_out_at_random_are_read_back_equal() =>
        Gen.Select(
                Gen.Int[0, 2_000_000],
                Gen.Int[0, 2_000_000],
                Gen.Int[0, 5],
                Gen.Bool,
                Gen.OneOf(Gen.Const(""), Gen.Const("€"), Gen.Const("EUR "))
            )
            .Sample(sample =>
            {
                var (one, other, shape, spaced, sign) = sample;
                var (low, high) = (Math.Min(one, other), Math.Max(one, other));
                // Written by hand, not by the program: thousands from the right, parted by commas or blanks.
                string Write(int number)
                {
                    var digits = number.ToString(CultureInfo.InvariantCulture);
                    for (var at = digits.Length - 3; at > 0; at -= 3)
                        digits = digits.Insert(at, spaced ? " " : ",");
                    return sign + digits;
                }

                var (label, band) = shape switch
                {
                    0 => ($"Under {Write(low)}", new Band(null, new Bound(low, Open: true), "EUR")),
                    1 => ($"Up to {Write(low)}", new Band(null, new Bound(low), "EUR")),
                    2 => ($"Over {Write(high)}", new Band(new Bound(high, Open: true), null, "EUR")),
                    3 => ($"{Write(high)} or more", new Band(new Bound(high), null, "EUR")),
                    4 => ($"{Write(low)} to {Write(high)}", new Band(new Bound(low), new Bound(high), "EUR")),
                    _ => ($"{Write(low)}–{Write(high)}", new Band(new Bound(low), new Bound(high), "EUR")),
                };
                TypedOptions.ReadBand(label, "EUR").ShouldBe(band, label);
            });

    [Fact]
    public void Whatever_is_pasted_every_line_has_a_key_of_its_own_that_a_form_may_have() =>
        Gen
            .String.Array[0, 6]
            .Sample(lines =>
            {
                var options = TypedOptions.Read(string.Join('\n', lines), null, ["answer"]);
                options.Select(option => option.Key).Append("answer").ShouldBeUnique();
                options.ShouldAllBe(option => System.Text.RegularExpressions.Regex.IsMatch(option.Key, @"^[a-z0-9-]{1,60}\z"));
            });
}
