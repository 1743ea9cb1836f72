using System.Text.Json.Serialization;

namespace PorchLight.Core.Fields;

/// <summary>Where a question's answer is written.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(SetField), "field")]
[JsonDerivedType(typeof(AppendToNotes), "notes")]
[JsonDerivedType(typeof(SetPerson), "person")]
public abstract record LandsIn;

/// <summary>It goes into a field: a value fills it, rows are added to its rows, files to its files.</summary>
/// <param name="Field">The field's key.</param>
public sealed record SetField(string Field) : LandsIn;

/// <summary>It is added to the notes.</summary>
/// <param name="Scope">Whose notes.</param>
public sealed record AppendToNotes(RecordScope Scope) : LandsIn;

/// <summary>
/// It is about a person of the client. What a form asks about one role is about one person: the one with that name and birth date,
/// else, where no name was given, the only one on file in that role, else somebody new.
/// </summary>
/// <param name="Person">Who it is about.</param>
/// <param name="Part">What it says of them.</param>
public sealed record SetPerson(PersonRole Person, PersonPart Part) : LandsIn;

/// <summary>Says where answers land.</summary>
public static class LandsInWords
{
    /// <summary>
    /// For whoever builds a form: "Lands in Client: Name", "Added to the notes of the project", "Lands nowhere" for a
    /// field there is not.
    /// </summary>
    /// <param name="landsIn">The place.</param>
    /// <param name="fields">The fields of the business.</param>
    public static string Say(this LandsIn landsIn, FieldCatalogue fields) =>
        landsIn switch
        {
            SetField set when fields.Find(set.Field) is { } field => $"Lands in {field.Say()}",
            SetPerson person => $"Lands in Client: {person.Person}, {ClientPeople.FieldOf(person.Part).Label.ToLowerInvariant()}",
            AppendToNotes notes => $"Added to the notes of the {(notes.Scope == RecordScope.Client ? "client" : "project")}",
            _ => "Lands nowhere",
        };
}
