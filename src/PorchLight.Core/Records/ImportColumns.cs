using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>Where a column of a file can go.</summary>
/// <param name="Key">Names it: a field's key, one with a part of it ("client.name given"), "tags", "notes" or "standing".</param>
/// <param name="Label">What a person reads.</param>
public sealed record ImportTarget(string Key, string Label);

/// <summary>Finds out what the columns of a file of people are.</summary>
public static class ImportColumns
{
    /// <summary>The words a client is sorted by, parted by commas.</summary>
    public const string Tags = "tags";

    /// <summary>A note on the client.</summary>
    public const string Notes = "notes";

    /// <summary>How the business stands with them.</summary>
    public const string Standing = "standing";

    private const int LeastPhone = 7;

    internal const string Given = "client.name given";
    internal const string Family = "client.name family";

    internal static readonly (string Part, string Label)[] AddressParts =
    [
        ("street", "Street and number"),
        ("unit", "Flat or floor"),
        ("city", "Town"),
        ("postalCode", "Postal code"),
        ("region", "County or region"),
        ("country", "Country"),
    ];

    // What other programs call these columns. Common practice, no source.
    private static readonly Dictionary<string, string[]> OtherWords = new()
    {
        [BuiltInFields.Name.Key] = ["full name", "display name", "contact", "contact name", "client", "client name", "customer", "fn"],
        [Given] = ["first name", "firstname", "given name", "forename", "given"],
        [Family] = ["last name", "lastname", "family name", "surname", "family"],
        [BuiltInFields.Email.Key] =
        [
            "email",
            "e-mail",
            "mail",
            "email address",
            "e-mail address",
            "mail address",
            "email 1",
            "e-mail 1 - value",
        ],
        [BuiltInFields.Phone.Key] = ["phone", "telephone", "tel", "mobile", "cell", "phone number", "mobile phone", "phone 1 - value"],
        [BuiltInFields.Company.Key] = ["company", "organisation", "organization", "business", "company name", "org"],
        [BuiltInFields.Born.Key] = ["birthday", "birth date", "date of birth", "born", "dob", "bday"],
        [BuiltInFields.Source.Key] = ["source", "lead source", "how did you hear about us", "referred by"],
        ["client.website"] = ["website", "web site", "url", "web", "homepage", "web address"],
        ["client.language"] = ["language", "lang"],
        [BuiltInFields.Address.Key] = ["address", "full address", "postal address", "mailing address"],
        ["client.address street"] = ["street", "street address", "address line 1", "address 1"],
        ["client.address unit"] = ["unit", "apartment", "flat", "address line 2", "address 2", "flat or floor"],
        ["client.address city"] = ["city", "town", "locality", "place"],
        ["client.address postalCode"] = ["postal code", "postcode", "zip", "zip code", "eircode"],
        ["client.address region"] = ["region", "state", "county", "province"],
        ["client.address country"] = ["country"],
        [Tags] = ["tags", "labels", "group", "groups", "categories", "group membership"],
        [Notes] = ["notes", "note", "comment", "comments", "remarks"],
        [Standing] = ["standing", "status"],
    };

    /// <summary>Everything a column can go to: the fields of clients whose values can be read from text, parts of the name and of the address.</summary>
    /// <param name="fields">The fields of the business.</param>
    public static IReadOnlyList<ImportTarget> Targets(FieldCatalogue fields) =>
        [
            .. fields
                .Offered.Where(field => field.Scope == RecordScope.Client && field.Kind is not (FieldKind.Files or FieldKind.Rows))
                .SelectMany(field =>
                    new[] { new ImportTarget(field.Key, field.Label) }.Concat(
                        field.Key == BuiltInFields.Name.Key
                            ?
                            [
                                new ImportTarget(Given, $"{field.Label}: first name"),
                                new ImportTarget(Family, $"{field.Label}: family name"),
                            ]
                        : field.Kind == FieldKind.Address
                            ? AddressParts.Select(part => new ImportTarget(
                                $"{field.Key} {part.Part}",
                                $"{field.Label}: {part.Label.ToLowerInvariant()}"
                            ))
                        : []
                    )
                ),
            new ImportTarget(Standing, "Standing"),
            new ImportTarget(Tags, "Tags"),
            new ImportTarget(Notes, "A note"),
        ];

    /// <summary>
    /// Where each column most likely goes: by its heading and the words other programs use; where the heading says nothing, by what
    /// stands in it, if that is e-mail addresses or phone numbers throughout. Empty for one nobody can tell. No two columns go to one
    /// place: the first one does, and a heading counts before contents.
    /// </summary>
    /// <param name="table">The file.</param>
    /// <param name="fields">The fields of the business.</param>
    /// <param name="context">The day, and the region for phone numbers.</param>
    /// <param name="currency">The business's currency.</param>
    public static IReadOnlyList<string> Propose(PeopleTable table, FieldCatalogue fields, NormaliseContext context, string currency)
    {
        var byHeading = Propose(table.Headings, fields);
        var taken = byHeading.ToHashSet();
        return
        [
            .. byHeading.Select(
                (target, column) =>
                    target.Length > 0 ? target
                    : new[] { BuiltInFields.Email, BuiltInFields.Phone }
                        .Where(field => !taken.Contains(field.Key))
                        .Where(field => fields.Offered.Any(one => one.Key == field.Key))
                        .FirstOrDefault(field => IsIn(field.Kind, [.. table.Rows.Select(row => row[column])]))
                        is { } found
                    && taken.Add(found.Key)
                        ? found.Key
                    : ""
            ),
        ];

        // "12" could be dialled, too: a number of people or of a house is no phone number.
        bool IsIn(FieldKind kind, IReadOnlyList<string> cells) =>
            ColumnContents.AreAll(kind, cells, context, currency)
            && (kind != FieldKind.Phone || cells.All(cell => cell.Length == 0 || cell.Count(char.IsAsciiDigit) >= LeastPhone));
    }

    internal static IReadOnlyList<string> Propose(IReadOnlyList<string> headings, FieldCatalogue fields)
    {
        var targets = Targets(fields);
        var taken = new HashSet<string>();
        return
        [
            .. headings.Select(heading =>
            {
                var words = ValueOrder.Fold(heading).Trim();
                var target =
                    targets.FirstOrDefault(one => ValueOrder.Fold(one.Label) == words)?.Key
                    ?? targets.FirstOrDefault(one => OtherWords.TryGetValue(one.Key, out var others) && others.Contains(words))?.Key;
                return target is not null && taken.Add(target) ? target : "";
            }),
        ];
    }
}
