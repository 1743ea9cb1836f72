using System.Text.Json.Serialization;

namespace PorchLight.Core.Fields;

/// <summary>Whether a field is about the person or about one piece of work.</summary>
public enum RecordScope
{
    /// <summary>About the person.</summary>
    Client,

    /// <summary>About one piece of work.</summary>
    Project,
}

/// <summary>What sort of value a field keeps.</summary>
public enum FieldKind
{
    /// <summary>One line of text.</summary>
    Text,

    /// <summary>Several lines of text.</summary>
    LongText,

    /// <summary>An e-mail address.</summary>
    Email,

    /// <summary>A phone number.</summary>
    Phone,

    /// <summary>A number, or a band of numbers.</summary>
    Number,

    /// <summary>An amount of money, or a band of amounts.</summary>
    Money,

    /// <summary>A day.</summary>
    Date,

    /// <summary>Yes or no.</summary>
    YesNo,

    /// <summary>A person's name.</summary>
    PersonName,

    /// <summary>An address in parts.</summary>
    Address,
}

/// <summary>A field of a client or a project.</summary>
/// <param name="Key">Names it for ever: "client.email".</param>
/// <param name="Scope">Whose field it is.</param>
/// <param name="Label">What a person reads.</param>
/// <param name="Kind">What it keeps.</param>
public sealed record Field(string Key, RecordScope Scope, string Label, FieldKind Kind);

/// <summary>The fields every business has.</summary>
public static class BuiltInFields
{
    /// <summary>The main contact's name.</summary>
    public static Field Name { get; } = new("client.name", RecordScope.Client, "Name", FieldKind.PersonName);

    /// <summary>The main contact's e-mail address; clients are recognised by it.</summary>
    public static Field Email { get; } = new("client.email", RecordScope.Client, "E-mail", FieldKind.Email);

    /// <summary>The main contact's phone number.</summary>
    public static Field Phone { get; } = new("client.phone", RecordScope.Client, "Phone", FieldKind.Phone);

    /// <summary>How the client found the business.</summary>
    public static Field Source { get; } = new("client.source", RecordScope.Client, "Found us through", FieldKind.Text);

    /// <summary>What of the business's services the project is about.</summary>
    public static Field Service { get; } = new("project.service", RecordScope.Project, "Service", FieldKind.Text);

    /// <summary>Whether the client permitted advertising; what was said is kept with the answer.</summary>
    public static Field MayAdvertise { get; } = new("client.mayAdvertise", RecordScope.Client, "May be sent news", FieldKind.YesNo);

    /// <summary>All of them, in the order they are shown.</summary>
    public static IReadOnlyList<Field> All { get; } =
    [
        Name,
        Email,
        Phone,
        Source,
        MayAdvertise,
        Service,
        new("project.what", RecordScope.Project, "What they need", FieldKind.LongText),
        new("project.place", RecordScope.Project, "Place", FieldKind.Text),
        new("project.budget", RecordScope.Project, "Budget", FieldKind.Money),
        new("project.decides", RecordScope.Project, "Who decides", FieldKind.Text),
        new("project.wanted", RecordScope.Project, "Wanted by", FieldKind.Date),
    ];

    /// <summary>The field with the key, or null.</summary>
    /// <param name="key">The key ("client.name"), case counts.</param>
    public static Field? Find(string key) => All.FirstOrDefault(field => field.Key == key);
}

/// <summary>Where a question's answer is written.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(SetField), "field")]
[JsonDerivedType(typeof(AppendToNotes), "notes")]
public abstract record LandsIn;

/// <summary>It sets a field.</summary>
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
    public static string Say(this LandsIn landsIn) =>
        landsIn switch
        {
            SetField set when BuiltInFields.Find(set.Field) is { } field => $"Lands in {field.Say()}",
            AppendToNotes notes => $"Added to the notes of the {(notes.Scope == RecordScope.Client ? "client" : "project")}",
            _ => "Lands nowhere",
        };

    /// <summary>A field with whose it is: "Client: Name".</summary>
    /// <param name="field">The field.</param>
    public static string Say(this Field field) => $"{field.Scope}: {field.Label}";
}
