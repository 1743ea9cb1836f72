using CsCheck;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class ValueOrderTests
{
    [Fact]
    public void Days_order_as_the_calendar_does() =>
        Gen.Select(Gen.Int[0, 80_000], Gen.Int[0, 80_000])
            .Sample(
                (a, b) =>
                {
                    var (first, second) = (Day(a), Day(b));
                    Math.Sign(ValueOrder.Day(first).CompareTo(ValueOrder.Day(second))).ShouldBe(Math.Sign(first.CompareTo(second)));
                }
            );

    [Theory]
    [InlineData("  Dún\tLaoghaire ", "dun laoghaire")]
    [InlineData("ÅNGSTRÖM", "angstrom")]
    [InlineData("ﬁne", "fine")] // U+FB01 is compatible with f and i (Unicode Standard Annex 15)
    [InlineData("", "")]
    public void Words_are_compared_without_regard_to_capitals_accents_and_white_space(string text, string folded) =>
        ValueOrder.Fold(text).ShouldBe(folded);

    [Fact]
    public void People_stand_under_their_family_names_and_phones_under_their_numbers()
    {
        ValueOrder.Of(new PersonNameAnswer("Tilda", "Brackenridge")).Text.ShouldBe("brackenridge tilda");
        ValueOrder.Of(new PhoneAnswer("01 555 0142", "+35315550142")).ShouldBe(new ValueOrder("+35315550142", null));
        ValueOrder.Of(new BandAnswer("4,000 to 9,000", new Band(new Bound(4_000), new Bound(9_000), "EUR"))).Number.ShouldBe(4_000);
    }

    [Fact]
    public void A_value_has_words_or_a_number_and_never_both()
    {
        foreach (
            var value in new Answer[]
            {
                new TextAnswer("Ochre"),
                new TextsAnswer(["Ochre", "Slate"]),
                new NumberAnswer(-4),
                new MoneyAnswer(4, "EUR"),
                new YesNoAnswer(false),
                new AddressAnswer("1 Quay", null, "Howth", null, null, null),
                new FilesAnswer([new FileRef(Guid.Empty, "a.jpg")]),
            }
        )
            (ValueOrder.Of(value).Text is null).ShouldNotBe(ValueOrder.Of(value).Number is null, value.GetType().Name);
    }

    private static LocalDate Day(int days) => new LocalDate(1900, 1, 1).PlusDays(days);
}
