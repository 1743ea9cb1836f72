using System.Text.Json.Serialization;

namespace PorchLight.Core.Fields;

/// <summary>Where a question's answer is written.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(SetField), "field")]
[JsonDerivedType(typeof(AppendToNotes), "notes")]
public abstract record LandsIn;

/// <summary>It goes into a field: a value fills it, rows are added to its rows, files to its files.</summary>
/// <param name="Field">The field's key.</param>
public sealed record SetField(string Field) : LandsIn;

/// <summary>It is added to the notes.</summary>
/// <param name="Scope">Whose notes.</param>
public sealed record AppendToNotes(RecordScope Scope) : LandsIn;

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
            AppendToNotes notes => $"Added to the notes of the {(notes.Scope == RecordScope.Client ? "client" : "project")}",
            _ => "Lands nowhere",
        };
}
