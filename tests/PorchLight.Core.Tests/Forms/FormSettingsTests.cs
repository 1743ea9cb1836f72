using NodaTime;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class FormSettingsTests
{
    private static readonly FormSettings May = new()
    {
        FirstDay = new LocalDate(2027, 5, 1),
        LastDay = new LocalDate(2027, 5, 31),
        MostAnswers = 3,
    };

    [Theory]
    [InlineData(true, "2027-04-30", 0, LightState.NotYetOpen)]
    [InlineData(true, "2027-05-01", 0, LightState.On)]
    [InlineData(true, "2027-05-31", 2, LightState.On)]
    [InlineData(true, "2027-05-31", 3, LightState.Full)]
    [InlineData(true, "2027-06-01", 0, LightState.Closed)]
    [InlineData(false, "2027-05-10", 0, LightState.SwitchedOff)]
    public void A_light_shines_from_its_first_day_to_the_end_of_its_last_and_up_to_its_cap(
        bool on,
        string today,
        int received,
        LightState expected
    ) => May.Judge(on, NodaTime.Text.LocalDatePattern.Iso.Parse(today).Value, received).ShouldBe(expected);

    [Fact]
    public void Without_limits_only_the_switch_counts()
    {
        new FormSettings().Judge(true, Today, 100_000).ShouldBe(LightState.On);
        new FormSettings().Judge(false, Today, 0).ShouldBe(LightState.SwitchedOff);
    }

    [Fact]
    public void How_the_light_stands_is_said_with_its_day_or_its_number()
    {
        May.Say(LightState.On, 2).ShouldBe("The light is on until 31 May 2027, 2 of 3 answers are in.");
        May.Say(LightState.NotYetOpen, 0).ShouldBe("The light turns on automatically on 1 May 2027.");
        May.Say(LightState.Full, 3).ShouldBe("The light turned off automatically: 3 answers came in, and 3 are taken.");
        new FormSettings().Say(LightState.On, 9).ShouldBe("The light is on.");
    }

    [Fact]
    public void What_makes_no_sense_is_said_at_its_place()
    {
        var wrong = new FormSettings
        {
            FirstDay = Today,
            LastDay = Today.PlusDays(-1),
            MostAnswers = 0,
            Guard = new SpamGuard(61),
            EmbedOn = ["https://bakery.example", "bakery.example/walls"],
            Capacity = new Capacity("width", [new MonthLimit(new YearMonth(2027, 5), -1)]),
        };
        wrong
            .Check(Everything)
            .Select(finding => finding.Place)
            .ShouldBe(["lastDay", "mostAnswers", "guard.leastSeconds", "embedOn", "capacity.question", "capacity.months"]);
        (May with { EmbedOn = ["http://localhost:5081", "https://bakery.example"], Capacity = new Capacity("wanted", []) })
            .Check(Everything)
            .ShouldBeEmpty();
    }

    [Theory]
    [InlineData("https://bakery.example/", "a path")]
    [InlineData("javascript:alert(1)", "no site")]
    [InlineData("https://bakery.example https://other.example", "two in one")]
    [InlineData("'none'", "a word of a security policy")]
    public void Only_an_origin_may_embed(string site, string because) =>
        new FormSettings { EmbedOn = [site] }
            .Check(Everything)
            .ShouldHaveSingleItem(because)
            .Place.ShouldBe("embedOn");

    [Theory]
    [InlineData(false, 3, true, null)]
    [InlineData(true, 300, true, "A field that people do not see")]
    [InlineData(false, 2, true, "very fast")]
    [InlineData(false, 3, false, "short check")]
    public void What_looks_like_a_programs_doing_is_said_so_that_a_person_can_send_after_all(
        bool trap,
        int seconds,
        bool proof,
        string? says
    ) =>
        (
            new SpamGuard(3, Proof: true).Judge(new SpamContext(trap, Duration.FromSeconds(seconds), proof))?.Sentence ?? "nothing"
        ).ShouldStartWith(
            says switch
            {
                null => "nothing",
                "very fast" => "That was very fast.",
                "short check" => "Your browser has not finished the short check",
                _ => says,
            }
        );

    [Fact]
    public void Who_never_saw_the_form_is_too_fast_unless_no_time_is_asked_for()
    {
        new SpamGuard(3).Judge(new SpamContext(false, null, false)).ShouldNotBeNull();
        new SpamGuard(0).Judge(new SpamContext(false, null, false)).ShouldBeNull();
    }
}
