using PorchLight.Core.Brand;
using PorchLight.Core.Records;

namespace PorchLight.Core.Forms;

/// <summary>
/// Notices what a person may have meant otherwise. A doubt is said beside the answer and holds nobody up: what is valid can
/// be sent as it stands.
/// </summary>
public static class AnswerDoubts
{
    /// <summary>The doubts about the answers on a route, by the place they stand beside; at most one a place.</summary>
    /// <param name="known">The form and what is known beside the answers.</param>
    /// <param name="route">The route the tidied answers take.</param>
    public static Dictionary<string, string> About(AnswerContext known, Route route)
    {
        var doubts = new Dictionary<string, string>();
        var now = route.Know(known);
        foreach (var question in known.Form.Questions)
        {
            Say(question.Key, About(question, now.Of(question.Key).Answer, now));
            var rows = now.RowsOf(question.Key);
            for (var index = 0; index < rows.Count; index++)
            {
                foreach (var cell in question.RowQuestions)
                    Say(Places.InRow(question.Key, index, cell.Key), About(cell, rows[index].GetValueOrDefault(cell.Key).Answer, now));
            }

            if (question.Kind is PeopleKind people)
                SayTwice(question, people, rows);
        }

        return doubts;

        void Say(string place, string? doubt)
        {
            if (doubt is not null)
                doubts.TryAdd(place, doubt);
        }

        void SayTwice(Question question, PeopleKind people, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>> rows)
        {
            var seen = new HashSet<(string, Answer?)>();
            for (var index = 0; index < rows.Count; index++)
            {
                if (
                    rows[index].GetValueOrDefault(people.NameKey).Answer is PersonNameAnswer name
                    && !seen.Add(
                        (name.Full.ToUpperInvariant(), people.BornKey is { } born ? rows[index].GetValueOrDefault(born).Answer : null)
                    )
                )
                    Say(
                        Places.InRow(question.Key, index, people.NameKey),
                        $"{name.Full} is in this list already. Is this somebody else of the same name?"
                    );
            }
        }
    }

    private static string? About(Question question, Answer? answer, AnswerContext now) =>
        (question.Kind, answer) switch
        {
            (EmailKind, TextAnswer { Text: var text })
                when AnswerLimits.CheckEmail(text) is null && !text[(text.IndexOf('@') + 1)..].Contains('.') =>
                "Is that complete? Most addresses end in something like .com or .ie.",
            (PhoneKind, PhoneAnswer { LocalOnly: true }) => "Is the area code missing? From elsewhere we cannot reach this number.",
            (AddressKind, AddressAnswer { Street: not null, City: null, PostalCode: null }) =>
                "Is that the whole address? A town or a postal code helps us to find it.",
            (AddressKind, AddressAnswer { Country: { } country })
                when Locales.Countries.All(known => known.Code != Locales.ReadCountry(country)) =>
                $"We do not know a country called “{country}”. Is it spelt right?",
            (DateKind { Limits: null }, DateAnswer day) when day.Date < now.Today && IsAboutTheWork(question) =>
                "This day has passed. Is the year right?",
            (DateRangeKind { Limits: null }, DateRangeAnswer range) when range.To < now.Today && IsAboutTheWork(question) =>
                "These days have passed. Is the year right?",
            _ => null,
        };

    private static bool IsAboutTheWork(Question question) =>
        question.LandsIn is SetField { Field: var field } && BuiltInFields.Find(field)?.Scope == RecordScope.Project;
}
