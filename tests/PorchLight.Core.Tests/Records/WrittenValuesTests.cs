using System.Globalization;
using CsCheck;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Money;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class WrittenValuesTests
{
    private static readonly NormaliseContext Ireland = new("IE", 1, Instant.FromUtc(2026, 11, 23, 10, 0), new LocalDate(2026, 11, 23));

    // How numbers are written in these countries: common practice, no source.
    [Theory]
    [InlineData("1,234.5", "IE", "1234.5")]
    [InlineData("1,234", "IE", "1234")]
    [InlineData("1.234", "IE", "1.234")]
    [InlineData("3,5", "IE", "3.5")]
    [InlineData("1.234,5", "IE", "1234.5")]
    [InlineData("1.234", "DE", "1234")]
    [InlineData("1,234", "DE", "1.234")]
    [InlineData("1.234.567,89", "DE", "1234567.89")]
    [InlineData("1 234,50", "FR", "1234.50")]
    [InlineData("1’234.50", "CH", "1234.50")]
    [InlineData("0,125", "IE", "0.125")]
    [InlineData("-12", "IE", "-12")]
    [InlineData("12,34,567", "IE", null)]
    [InlineData("1.2.3", "IE", null)]
    [InlineData("12 apples", "IE", null)]
    [InlineData("", "IE", null)]
    public void A_number_is_read_as_people_of_the_country_write_it(string text, string region, string? number) =>
        WrittenValues.Number(text, region).ShouldBe(number is null ? null : decimal.Parse(number, CultureInfo.InvariantCulture));

    /// <summary>A second way: the framework's own formats, from ICU, write what is read back.</summary>
    [Theory]
    [InlineData("en-IE")]
    [InlineData("de-DE")]
    [InlineData("fr-FR")]
    [InlineData("de-CH")]
    [InlineData("pl-PL")]
    [InlineData("en-US")]
    [InlineData("pt-BR")]
    [InlineData("sv-SE")]
    public void What_the_culture_of_a_country_writes_is_read_back(string culture)
    {
        var (format, region) = (CultureInfo.GetCultureInfo(culture), culture[3..]);
        Gen.Select(Gen.Long[-99_999_999, 99_999_999], Gen.Date[new DateTime(1900, 1, 1), new DateTime(2100, 1, 1)])
            .Sample(
                (cents, date) =>
                {
                    var (number, day) = (cents / 100m, LocalDate.FromDateTime(date));
                    WrittenValues.Number(number.ToString("N2", format).Replace('\u2212', '-'), region).ShouldBe(number);
                    WrittenValues.Day(date.ToString("d MMMM yyyy", format), region).ShouldBe(day);
                    WrittenValues.Day(date.ToString("d", format), region).ShouldBe(day);
                }
            );
    }

    [Theory]
    [InlineData("2027-05-14", "IE", "2027-05-14")]
    [InlineData("14 May 2027", "IE", "2027-05-14")]
    [InlineData("14th May 2027", "IE", "2027-05-14")]
    [InlineData("May 14, 2027", "IE", "2027-05-14")]
    [InlineData("Friday, 14 May 2027", "IE", "2027-05-14")]
    [InlineData("14. Mai 2027", "DE", "2027-05-14")]
    [InlineData("24.12.2026", "IE", "2026-12-24")]
    [InlineData("3/4/2027", "IE", "2027-04-03")]
    [InlineData("3/4/2027", "US", "2027-03-04")]
    [InlineData("5/31/2027", "IE", "2027-05-31")]
    [InlineData("31/31/2027", "IE", null)]
    [InlineData("29 February 2027", "IE", null)]
    [InlineData("3/4/27", "IE", null)]
    [InlineData("14 Mayo", "IE", null)]
    public void A_day_is_read_in_the_order_of_the_country_and_with_the_names_of_months(string text, string region, string? day) =>
        WrittenValues.Day(text, region)?.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture).ShouldBe(day);

    [Theory]
    [InlineData("€ 1,200", "1200")]
    [InlineData("1.200,50 EUR", "1200.50")]
    [InlineData("1200€", "1200")]
    [InlineData("£1,200", null)]
    [InlineData("1,200 USD", null)]
    public void An_amount_may_name_its_currency_and_no_other(string text, string? amount) =>
        WrittenValues.Amount(text, "IE", "EUR").ShouldBe(amount is null ? null : decimal.Parse(amount, CultureInfo.InvariantCulture));

    [Fact]
    public void A_family_name_before_a_comma_is_one() =>
        FieldEntry.Read("Berg, Anna", BuiltInFields.Name, Ireland, "EUR").Value.ShouldBe(new PersonNameAnswer("Anna", "Berg"));

    /// <summary>Whatever kind a field is given and given back, numbers, amounts and days come through whole.</summary>
    [Fact]
    public void Numbers_amounts_and_days_keep_their_worth_when_a_field_changes_its_kind() =>
        Gen.Select(Gen.Long[-99_999_999_999, 99_999_999_999], Gen.Int[0, 4], Gen.Int[-30_000, 60_000], Gen.Bool)
            .Sample(
                (digits, scale, days, isGerman) =>
                {
                    var context = Ireland with { Region = isGerman ? "DE" : "IE" };
                    var number = new NumberAnswer(digits / (decimal)Math.Pow(10, scale));
                    var day = new DateAnswer(new LocalDate(2000, 1, 1).PlusDays(days));
                    There(number, FieldKind.Money, context).ShouldBe(new MoneyAnswer(number.Value, "EUR"));
                    Back(number, FieldKind.Money, FieldKind.Number, context).ShouldBe(number);
                    Back(number, FieldKind.Text, FieldKind.Number, context).ShouldBe(number);
                    Back(new MoneyAnswer(number.Value, "EUR"), FieldKind.Text, FieldKind.Money, context)
                        .ShouldBe(new MoneyAnswer(number.Value, "EUR"));
                    Back(day, FieldKind.Text, FieldKind.Date, context).ShouldBe(day);
                }
            );

    [Theory]
    [InlineData(1.234, "KWD", "1.234 KWD")]
    [InlineData(1234.5, "KWD", "1,234.500 KWD")]
    [InlineData(1500, "JPY", "1,500 JPY")]
    [InlineData(12.5, "EUR", "12.50 EUR")]
    [InlineData(4000, "EUR", "4,000 EUR")]
    [InlineData(0.125, "EUR", "0.125 EUR")]
    public void An_amount_has_the_decimals_of_its_currency_as_published(double amount, string currency, string said) =>
        // ISO 4217, column "minor unit": JPY 0, KWD 3, EUR 2.
        new MoneyAmount((decimal)amount, currency)
            .ToString()
            .ShouldBe(said);

    private static Answer? There(Answer value, FieldKind kind, NormaliseContext context) =>
        FieldEntry.Carried(value, new Field("client.x", "X", kind), context, "EUR");

    private static Answer? Back(Answer value, FieldKind there, FieldKind back, NormaliseContext context) =>
        There(value, there, context) is { } carried ? There(carried, back, context) : null;
}
