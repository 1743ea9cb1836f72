using PorchLight.Core.Brand;

namespace PorchLight.Core.Tests.Brand;

public sealed class BusinessCardTests
{
    private static readonly BusinessCard Good = new(
        "Ochre Wren",
        "Maren Tolliver",
        "hello@ochrewren.example",
        "IE",
        "EUR",
        "Europe/Dublin"
    );

    [Fact]
    public void A_tidy_card_has_nothing_to_put_right()
    {
        var typed = new BusinessCard(" Ochre Wren ", "Maren Tolliver\t", " hello@ochrewren.example", "ie", " eur", "Europe/Dublin ");
        typed.Normalise().ShouldBe(Good);
        Good.Check().ShouldBeEmpty();
    }

    [Theory]
    [InlineData("Germany", "Euro", "Berlin", "DE", "EUR", "Europe/Berlin")]
    [InlineData("deutschland", "euros", "Germany", "DE", "EUR", "Europe/Berlin")]
    [InlineData("United Kingdom", "British Pound", "london", "GB", "GBP", "Europe/London")]
    [InlineData("New Zealand", "nzd", "Pacific/Auckland", "NZ", "NZD", "Pacific/Auckland")]
    public void A_country_a_currency_and_a_zone_are_understood_by_their_names(
        string country,
        string currency,
        string zone,
        string region,
        string code,
        string id
    ) =>
        (Good with { Region = country, Currency = currency, Zone = zone })
            .Normalise()
            .ShouldBe(Good with { Region = region, Currency = code, Zone = id });

    [Theory]
    [InlineData("", true)]
    [InlineData("https://forms.example.com", true)]
    [InlineData("http://192.0.2.7:8080", true)]
    [InlineData("forms.example.com", false)]
    [InlineData("https://forms.example.com/path", false)]
    [InlineData("javascript:alert(1)", false)]
    public void The_public_address_is_an_origin_or_nothing(string address, bool good) =>
        ((Good with { PublicAddress = address }).Check().Count == 0).ShouldBe(good);

    [Fact]
    public void Every_wrong_value_is_named_at_its_place()
    {
        new BusinessCard("", "Maren\nBcc: x@y.example", "maren at home", "Atlantis", "Shells", "Nowhere")
            .Check()
            .Select(finding => finding.Place)
            .ShouldBe(["name", "ownerName", "mailAddress", "region", "currency", "zone"]);
        (Good with { Name = new string('n', 101) }).Check().Single().Sentence.ShouldContain("at most 100");
    }

    // ISO 3166-1, ISO 4217 and IANA names, from memory.
    [Theory]
    [InlineData("JP", "JPY", "Asia/Tokyo")]
    [InlineData("BR", "BRL", "America/Sao_Paulo")]
    [InlineData("NZ", "NZD", "Pacific/Auckland")]
    public void Businesses_anywhere_can_be_written_down(string region, string currency, string zone) =>
        (Good with { Region = region, Currency = currency, Zone = zone }).Check().ShouldBeEmpty();

    [Fact]
    public void An_accent_on_which_white_cannot_be_read_names_the_nearest_that_works()
    {
        BrandLook.Plain.Check().ShouldBeEmpty();
        var finding = (BrandLook.Plain with { Accent = "#ffcc00" }).Check().Single();
        finding.Place.ShouldBe("accent");
        var offered = BrandLook.ReadableAccent("#ffcc00");
        finding.Sentence.ShouldContain(offered);
        (BrandLook.Plain with { Accent = offered }).Check().ShouldBeEmpty("what is offered is accepted");
        Contrast.Ratio(offered, "#ffffff").ShouldBeInRange(4.5, 4.7, "WCAG 2.2, 1.4.3, and not darker than need be");
    }

    [Theory]
    [InlineData("red")]
    [InlineData("#abc")]
    [InlineData("#12345g")]
    [InlineData("url(x)")]
    public void Only_colours_are_colours(string words) =>
        new BrandLook(words, words, Typeface.Figtree).Check().Select(finding => finding.Place).ShouldBe(["backdrop", "accent"]);
}
