using PorchLight.Core.Answers;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Records;

/// <summary>Hands the place of a client's main contact to another of their people.</summary>
public static class MainContact
{
    private static readonly (Field Field, PersonPart Part)[] Parts =
    [
        (BuiltInFields.Name, PersonPart.Name),
        (BuiltInFields.Email, PersonPart.Email),
        (BuiltInFields.Phone, PersonPart.Phone),
        (BuiltInFields.Born, PersonPart.Born),
    ];

    /// <summary>
    /// What stands in the fields of the client once somebody else is their main contact, by the field's key; only fields that change.
    /// The former main contact stands among the people in the place of the new one, as a contact, with everything that was known of
    /// them. A part that is not known of the new one stays as it is, but for the birth date, so that the client can still be reached.
    /// </summary>
    /// <param name="person">Which of the people, counted from zero.</param>
    /// <param name="onFile">What stands in the fields of the client.</param>
    /// <returns>The values, null for a field that is emptied; or null when there is no such person, or they have no name.</returns>
    public static IReadOnlyDictionary<string, Answer?>? HandedTo(int person, IReadOnlyDictionary<string, Answer> onFile)
    {
        var people = (onFile.GetValueOrDefault(ClientPeople.Field.Key) as RowsAnswer)?.Rows ?? [];
        if (person < 0 || person >= people.Count || people[person][ClientPeople.Key(PersonPart.Name)] is not PersonNameAnswer)
            return null;
        var next = people[person];
        var former = new Dictionary<string, Answer?> { [ClientPeople.Role] = new TextAnswer(nameof(PersonRole.Contact)) };
        var values = new Dictionary<string, Answer?>();
        foreach (var (field, part) in Parts)
        {
            var (stands, comes) = (onFile.GetValueOrDefault(field.Key), next[ClientPeople.Key(part)]);
            former[ClientPeople.Key(part)] = stands;
            if ((comes is not null || part == PersonPart.Born) && !Equals(stands, comes))
                values[field.Key] = comes;
        }

        values[ClientPeople.Field.Key] = new RowsAnswer([.. people.Select((row, index) => index == person ? new AnswerRow(former) : row)]);
        return values;
    }
}
