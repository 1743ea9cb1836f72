using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;

namespace PorchLight.Core.Tests.Meetings;

public sealed class BookingDetailsTests
{
    private static readonly MeetingType Type = new(
        "A first talk",
        new SlotRules(30),
        [
            new MeetingPlace(MeetingPlaceKind.Phone),
            new MeetingPlace(MeetingPlaceKind.Ours, " 7 Wren Yard "),
            new MeetingPlace(MeetingPlaceKind.Theirs),
        ],
        [Guid.Empty]
    )
    {
        Questions =
        [
            new MeetingQuestion("what", "What is it about?", IsRequired: true),
            new MeetingQuestion("more", "More?", IsRequired: false),
        ],
    };

    private static readonly BookingDetails Good = new(
        " Tess ",
        "Ivory",
        " tess@brandnew.example ",
        MeetingPlaceKind.Phone,
        "+353 1 555 0177",
        new Dictionary<string, string>
        {
            ["what"] = " The long wall ",
            ["more"] = " ",
            ["other"] = "never asked",
        }
    );

    [Fact]
    public void What_was_typed_is_kept_trimmed_and_what_was_not_asked_is_not_kept()
    {
        var (booking, findings) = Good.Check(Type, known: null, "IE");
        findings.ShouldBeEmpty();
        booking!.Booker.ShouldBe(new Booker(new PersonNameAnswer("Tess", "Ivory"), "tess@brandnew.example"));
        booking.Phone!.E164.ShouldBe("+35315550177");
        booking.Answers.ShouldBe(new Dictionary<string, string> { ["what"] = "The long wall" });
    }

    [Fact]
    public void The_business_says_its_own_place_and_they_say_theirs()
    {
        Words(Good with { Place = MeetingPlaceKind.Ours, PlaceWords = "somewhere else" }).ShouldBe("7 Wren Yard");
        Words(Good with { Place = MeetingPlaceKind.Theirs, PlaceWords = "3 Mill Lane\nRathcoole" }).ShouldBe("3 Mill Lane Rathcoole");

        static string Words(BookingDetails details) => details.Check(Type, known: null, "IE").Booking!.PlaceWords;
    }

    [Fact]
    public void What_is_missing_or_wrong_is_said_at_its_place()
    {
        Wrong(Good with { GivenName = "" }).ShouldBe(["givenName"]);
        Wrong(Good with { FamilyName = "" }).ShouldBeEmpty("some people have one name");
        Wrong(Good with { Email = "" }).ShouldBe(["email"]);
        Wrong(Good with { Email = "tess" }).ShouldBe(["email"]);
        Wrong(Good with { Place = MeetingPlaceKind.Video }).ShouldBe(["place"]);
        Wrong(Good with { PlaceWords = "ring me" }).ShouldBe(["placeWords"]);
        Wrong(Good with { Place = MeetingPlaceKind.Theirs, PlaceWords = " " }).ShouldBe(["placeWords"]);
        Wrong(Good with { Answers = new Dictionary<string, string>() }).ShouldBe(["answers.what"]);
        Wrong(Good with { Answers = new Dictionary<string, string> { ["what"] = new('x', 2001) } }).ShouldBe(["answers.what"]);

        static IEnumerable<string> Wrong(BookingDetails details) =>
            details.Check(Type, known: null, "IE").Findings.Select(finding => finding.Place);
    }

    [Fact]
    public void Who_is_known_is_not_asked_who_they_are()
    {
        var known = new Booker(new PersonNameAnswer("Pilar", "Ingleby"), "pilar@longwall.example");
        var (booking, findings) = (Good with { GivenName = "", Email = "somebody@else.example" }).Check(Type, known, "IE");
        findings.ShouldBeEmpty();
        booking!.Booker.ShouldBe(known);
    }
}
