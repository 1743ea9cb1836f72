namespace PorchLight.Core.Fields;

/// <summary>The fields every business has, as they are before it renames any.</summary>
public static class BuiltInFields
{
    /// <summary>The main contact's name.</summary>
    public static Field Name { get; } = new("client.name", "Name", FieldKind.PersonName);

    /// <summary>The main contact's e-mail address; clients are recognised by it.</summary>
    public static Field Email { get; } = new("client.email", "E-mail", FieldKind.Email) { AtAGlance = true };

    /// <summary>The main contact's phone number.</summary>
    public static Field Phone { get; } = new("client.phone", "Phone", FieldKind.Phone) { AtAGlance = true };

    /// <summary>Where the client is.</summary>
    public static Field Address { get; } = new("client.address", "Address", FieldKind.Address) { AtAGlance = true };

    /// <summary>The company the client writes for.</summary>
    public static Field Company { get; } = new("client.company", "Company", FieldKind.Text) { AtAGlance = true };

    /// <summary>The day the main contact was born.</summary>
    public static Field Born { get; } = new("client.born", "Birth date", FieldKind.Date);

    /// <summary>How the client found the business.</summary>
    public static Field Source { get; } = new("client.source", "Found us through", FieldKind.Text) { AtAGlance = true };

    /// <summary>Whether the client permitted advertising; what was said is kept with the answer.</summary>
    public static Field MayAdvertise { get; } = new("client.mayAdvertise", "May be sent news", FieldKind.YesNo);

    /// <summary>Whether the client permitted text messages.</summary>
    public static Field MayText { get; } = new("client.mayText", "May be sent text messages", FieldKind.YesNo);

    /// <summary>What of the business's services the project is about.</summary>
    public static Field Service { get; } = new("project.service", "Service", FieldKind.Text) { AtAGlance = true };

    /// <summary>All of them, in the order they are shown.</summary>
    public static IReadOnlyList<Field> All { get; } =
    [
        Name,
        Email,
        Phone,
        Address,
        new("client.website", "Website", FieldKind.WebAddress),
        Company,
        Born,
        ClientPeople.Field,
        new("client.language", "Language", FieldKind.Text),
        Source,
        MayAdvertise,
        MayText,
        Service,
        new("project.what", "What they need", FieldKind.LongText) { AtAGlance = true },
        new("project.place", "Place", FieldKind.Text) { AtAGlance = true },
        new("project.budget", "Budget", FieldKind.Money) { AtAGlance = true },
        new("project.decides", "Who decides", FieldKind.Text),
        new("project.wanted", "Wanted by", FieldKind.Date) { AtAGlance = true },
        new("project.start", "Start", FieldKind.Date),
        new("project.end", "End", FieldKind.Date),
    ];

    /// <summary>The field with the key, or null.</summary>
    /// <param name="key">The key ("client.name"), case counts.</param>
    public static Field? Find(string key) => All.FirstOrDefault(field => field.Key == key);
}
