using PorchLight.Core.Answers;

namespace PorchLight.Core.Fields;

/// <summary>How a person stands to the client whose people they are one of.</summary>
public enum PersonRole
{
    /// <summary>Who decides together with the main contact, as a spouse or a business partner does.</summary>
    Partner,

    /// <summary>Somebody else to talk to.</summary>
    Contact,

    /// <summary>Who speaks for the main contact: asks for somebody and not for themselves.</summary>
    Representative,
}

/// <summary>What is kept of a person of a client.</summary>
public enum PersonPart
{
    /// <summary>Their name.</summary>
    Name,

    /// <summary>Their e-mail address.</summary>
    Email,

    /// <summary>Their phone number.</summary>
    Phone,

    /// <summary>The day they were born.</summary>
    Born,

    /// <summary>A line about them.</summary>
    About,
}

/// <summary>
/// The people of a client beside the main contact. They are the rows of a built-in field, so that they are written, matched, settled
/// and shown as any other rows; who the main contact is stands in the client's own fields.
/// </summary>
public static class ClientPeople
{
    /// <summary>The column that says how they stand to the client.</summary>
    public const string Role = "role";

    /// <summary>The field, one row a person. A person is recognised by name and birth date.</summary>
    public static Field Field { get; } =
        new("client.people", "People", FieldKind.Rows)
        {
            Columns =
            [
                new FieldColumn(Key(PersonPart.Name), "Name", FieldKind.PersonName),
                new FieldColumn(Role, "Is their", FieldKind.OneOf) { Options = [.. Enum.GetNames<PersonRole>()] },
                new FieldColumn(Key(PersonPart.Email), "E-mail", FieldKind.Email),
                new FieldColumn(Key(PersonPart.Phone), "Phone", FieldKind.Phone),
                new FieldColumn(Key(PersonPart.Born), "Birth date", FieldKind.Date),
                new FieldColumn(Key(PersonPart.About), "About them", FieldKind.Text),
            ],
        };

    /// <summary>The key of the column that keeps a part.</summary>
    /// <param name="part">The part.</param>
    public static string Key(PersonPart part) => part.ToString().ToLowerInvariant();

    /// <summary>A part as a field of its own, to ask what fits it and to read values for it.</summary>
    /// <param name="part">The part.</param>
    public static Field FieldOf(PersonPart part)
    {
        var column = Field.Columns.Single(one => one.Key == Key(part));
        return new Field(Field.Key, column.Label, column.Kind);
    }

    /// <summary>Whether a person on file stands to the client in a role; by the word, without regard to case.</summary>
    /// <param name="person">The person's row.</param>
    /// <param name="role">The role.</param>
    public static bool Is(this AnswerRow person, PersonRole role) =>
        person[Role] is TextAnswer { Text: var word } && string.Equals(word, role.ToString(), StringComparison.OrdinalIgnoreCase);

    /// <summary>The only person in a role, or null when there is none or several.</summary>
    /// <param name="people">What stands in the field; null for nothing.</param>
    /// <param name="role">The role.</param>
    public static AnswerRow? Only(Answer? people, PersonRole role) =>
        (people as RowsAnswer)?.Rows.Where(person => person.Is(role)).Take(2).ToList() is [var one] ? one : null;
}
