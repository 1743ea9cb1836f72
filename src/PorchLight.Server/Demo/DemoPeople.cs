using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;

namespace PorchLight.Server.Demo;

/// <summary>One thing that somebody did in the demo's last days.</summary>
internal abstract record DemoAction(Instant At, string Email)
{
    internal sealed record Sends(Instant At, string Email, IReadOnlyDictionary<string, Answer?> Answers, string? CameFrom)
        : DemoAction(At, Email);

    internal sealed record Replies(Instant At, string Email, string Text) : DemoAction(At, Email);

    internal sealed record Books(Instant At, string Email) : DemoAction(At, Email);

    internal sealed record Nods(Instant At, string Email, string GapText) : DemoAction(At, Email);
}

/// <summary>The made-up people of the demo, hand-written, with dates that count back from now.</summary>
internal static class DemoPeople
{
    private const string Site = "http://ochrewren.example/murals";

    public static IReadOnlyList<DemoAction> Actions(Instant now, BusinessCalendar calendar)
    {
        var oskarWrites = Ago(11, 10, 5);
        var nodded = calendar.WorkingDaysAfter(calendar.Today(oskarWrites), 1)!.Value;
        DemoAction[] scenes =
        [
            Sends(
                oskarWrites,
                "oskar@vennbikes.example",
                "Oskar",
                "Venn",
                "01 555 0163",
                "Greystones",
                "The shutter and the wall beside our bike shop. Something that still looks good when the shutter is down.",
                "4000-9000",
                "me",
                75,
                "saw-one",
                Site
            ),
            new DemoAction.Nods(
                On(nodded, 11, 40),
                "oskar@vennbikes.example",
                "I cycle past your shop on Tuesdays; the shutter would be seen from the bridge."
            ),
            new DemoAction.Replies(
                On(nodded.PlusDays(1), 11, 20),
                "oskar@vennbikes.example",
                "Hello Maren, yes, let us talk. Thursday after four would be good.\n\nOskar"
            ),
            Sends(
                Ago(9, 15, 30),
                "mo.lattimer@quillpress.example",
                "Mo",
                "Lattimer",
                null,
                "Dublin 8",
                "Our reading room ceiling. Clouds, but with a sense of humour.",
                "over-9000",
                "together",
                120,
                "past-client",
                Site
            ),
            new DemoAction.Books(Ago(8, 12, 0), "mo.lattimer@quillpress.example"),
            Sends(
                Ago(6, 19, 45),
                "b.carraway@lodge.example",
                "B.",
                "Carraway",
                null,
                "Athlone",
                "A garden wall, as cheap as possible, a sunset or so.",
                "under-1500",
                "me",
                20,
                "search",
                null
            ),
            Sends(
                Ago(5, 9, 15),
                "pilar@ingleby-coffee.example",
                "Pilar",
                "Ingleby",
                "+353 1 555 0142",
                "Howth",
                "The long wall in our café, opposite the counter. Sea birds, but not the usual ones. People queue along it every morning and look at a blank wall.",
                "4000-9000",
                "me",
                60,
                "past-client",
                Site
            ),
            Sends(
                Ago(4, 16, 10),
                "office@yewtreeclinic.example",
                "Ngozi",
                "Farrant",
                "01 555 0177",
                "Bray",
                "The corridor of our children's clinic. Calm, nothing with needles or doctors in it.",
                "unsure",
                "someone-else",
                null,
                "search",
                null
            ),
            Sends(
                Ago(1, 14, 20),
                "bursar@hartlane.example",
                "Edda",
                "Marsh",
                null,
                "Wicklow",
                "The hall of Hart Lane School. The children want a map of the river with everything that lives in it.",
                "1500-4000",
                "together",
                140,
                "saw-one",
                Site
            ),
            Sends(
                now - Duration.FromMinutes(210),
                "joss@amblecote.example",
                "Joss",
                "Amblecote",
                "01 555 0198",
                "Naas",
                "Two gable ends of a row of cottages, so that people find the right one.",
                "unsure",
                "me",
                200,
                "other",
                Site
            ),
            Sends(
                now - Duration.FromMinutes(47),
                "tilda@brackenridge-bakes.example",
                "Tilda",
                "Brackenridge",
                "01 555 0136",
                "Dún Laoghaire",
                "The side wall towards the harbour. Something with bread and gulls; people should smell it from across the street.",
                "4000-9000",
                "me",
                24,
                "past-client",
                Site
            ),
        ];
        // Around holidays some of it has not happened yet.
        return [.. scenes.Where(scene => scene.At < now)];

        Instant Ago(int days, int hour, int minute) => On(calendar.Today(now).PlusDays(-days), hour, minute);

        Instant On(LocalDate day, int hour, int minute) => calendar.ToInstant(day + new LocalTime(hour, minute));

        DemoAction.Sends Sends(
            Instant at,
            string email,
            string given,
            string family,
            string? phone,
            string place,
            string what,
            string budget,
            string decides,
            int? wantedInDays,
            string found,
            string? cameFrom
        ) =>
            new(
                at,
                email,
                new Dictionary<string, Answer?>
                {
                    ["name"] = new PersonNameAnswer(given, family),
                    ["email"] = new TextAnswer(email),
                    ["phone"] = phone is null ? null : new PhoneAnswer(phone),
                    ["place"] = new TextAnswer(place),
                    ["what"] = new TextAnswer(what),
                    ["budget"] = ChoiceAnswer.Of(budget),
                    ["decides"] = ChoiceAnswer.Of(decides),
                    ["wanted"] = wantedInDays is { } days ? new DateAnswer(calendar.Today(at).PlusDays(days)) : null,
                    ["found"] = ChoiceAnswer.Of(found),
                },
                cameFrom
            );
    }
}
