using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Meetings;

/// <summary>What somebody says of themselves when they book.</summary>
/// <param name="Name">Their name.</param>
/// <param name="Email">Their mail address.</param>
public sealed record Booker(PersonNameAnswer Name, string Email);

/// <summary>What whoever books a meeting says, as it was typed.</summary>
/// <param name="GivenName">Their first name; not read of somebody who is known.</param>
/// <param name="FamilyName">Their family name, which may be empty; not read of somebody who is known.</param>
/// <param name="Email">Their mail address; not read of somebody who is known.</param>
/// <param name="Place">Where they want to meet.</param>
/// <param name="PlaceWords">Their number or address, where the place asks for it.</param>
/// <param name="Answers">What they answered, by the keys of the questions.</param>
public sealed record BookingDetails(
    string GivenName,
    string FamilyName,
    string Email,
    MeetingPlaceKind Place,
    string PlaceWords,
    IReadOnlyDictionary<string, string> Answers
)
{
    /// <summary>The longest part of a name.</summary>
    public const int LongestName = 100;

    private const string NoEmail = "Please give your e-mail address, so that we can send you the time in writing.";

    /// <summary>The longest answer.</summary>
    public const int LongestAnswer = 2_000;

    /// <summary>What of it is kept, and what has to be put right before.</summary>
    /// <param name="type">The type of the meeting.</param>
    /// <param name="known">Who books, where they are known; null for somebody who says so themselves.</param>
    /// <param name="region">The ISO 3166 region for numbers without a country code.</param>
    /// <returns>The details; or what is wrong, by the names of the values here and <c>answers.KEY</c>.</returns>
    public (CheckedBooking? Booking, IReadOnlyList<Finding> Findings) Check(MeetingType type, Booker? known, string region)
    {
        var found = new List<Finding>();
        var booker = known ?? Read(found);
        var (place, phone) = ReadPlace(type, region, found);
        var answers = new Dictionary<string, string>();
        foreach (var question in type.Questions)
        {
            var answer = Answers.GetValueOrDefault(question.Key)?.Trim() ?? "";
            if (TextLength.TooLong(answer, LongestAnswer) is { } tooLong)
                found.Add(new Finding($"answers.{question.Key}", tooLong));
            else if (answer.Length > 0)
                answers[question.Key] = answer;
            else if (question.IsRequired)
                found.Add(new Finding($"answers.{question.Key}", "Please answer this."));
        }

        return found.Count > 0 ? (null, found) : (new CheckedBooking(booker!, Place, place, phone, answers), []);
    }

    private Booker? Read(List<Finding> found)
    {
        var (given, family, email) = (GivenName.Trim(), FamilyName.Trim(), Email.Trim());
        var wrong = found.Count;
        if (given.Length is 0 or > LongestName || given.Any(char.IsControl))
            found.Add(new Finding("givenName", $"Please give your first name, in at most {LongestName} characters."));
        if (family.Length > LongestName || family.Any(char.IsControl))
            found.Add(new Finding("familyName", $"Please shorten this to {LongestName} characters."));
        if ((email.Length == 0 ? NoEmail : EmailAddress.Check(email)) is { } sentence)
            found.Add(new Finding("email", sentence));
        return found.Count > wrong ? null : new Booker(new PersonNameAnswer(given, family), email);
    }

    /// <summary>Where the meeting is, in words, and the number they gave.</summary>
    private (string Words, PhoneAnswer? Phone) ReadPlace(MeetingType type, string region, List<Finding> found)
    {
        if (type.Places.FirstOrDefault(place => place.Kind == Place) is not { } offered)
        {
            found.Add(new Finding("place", "Please choose where we meet."));
            return ("", null);
        }

        var words = PlaceWords.Trim();
        if (!MeetingPlace.AsksForMore(Place))
            return (offered.Address.Trim(), null);
        if (Place == MeetingPlaceKind.Theirs)
        {
            if (words.Length is 0 or > MeetingType.LongestAddress)
                found.Add(
                    new Finding("placeWords", $"Please say where we should come, in at most {MeetingType.LongestAddress} characters.")
                );
            return (KnownValues.OneLine(words), null);
        }

        var phone = PhoneReader.Read(words, region);
        if (phone is { E164: null, LocalOnly: false })
            found.Add(new Finding("placeWords", "Please give the number we should ring, with its country code if it is abroad."));
        return (words, phone);
    }
}

/// <summary>A booking without a finding.</summary>
/// <param name="Booker">Who books.</param>
/// <param name="Place">Where they meet.</param>
/// <param name="PlaceWords">The number, the address or the address of the web; may be empty.</param>
/// <param name="Phone">The number they gave; null where the place asks for none.</param>
/// <param name="Answers">What they answered, by the keys of the questions; blanks are left out.</param>
public sealed record CheckedBooking(
    Booker Booker,
    MeetingPlaceKind Place,
    string PlaceWords,
    PhoneAnswer? Phone,
    IReadOnlyDictionary<string, string> Answers
);
