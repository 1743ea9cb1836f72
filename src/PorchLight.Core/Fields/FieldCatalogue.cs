using PorchLight.Core.Common;

namespace PorchLight.Core.Fields;

/// <summary>All fields of a business: those every business has, and its own. It never changes; another one takes its place.</summary>
public sealed class FieldCatalogue
{
    private const int LongestLabel = 80;
    private const int LongestHelp = 300;
    private const int MostFields = 300;
    private const int MostOptions = 100;
    private const int MostColumns = 20;
    private readonly Dictionary<string, Field> _byKey;

    /// <summary>A catalogue of the fields in the order given.</summary>
    /// <param name="fields">The fields; no key twice.</param>
    /// <exception cref="ArgumentException">Two fields have one key.</exception>
    public FieldCatalogue(IReadOnlyList<Field> fields)
    {
        All = fields;
        _byKey = fields.ToDictionary(field => field.Key);
    }

    /// <summary>What a business has before it makes fields of its own.</summary>
    public static FieldCatalogue BuiltIn { get; } = new(BuiltInFields.All);

    /// <summary>All fields in order, those put away included.</summary>
    public IReadOnlyList<Field> All { get; }

    /// <summary>Those that are offered.</summary>
    public IEnumerable<Field> Offered => All.Where(one => !one.Archived);

    /// <summary>The field with the key, also one that is put away; null when there is none.</summary>
    /// <param name="key">The key, case counts.</param>
    public Field? Find(string key) => _byKey.GetValueOrDefault(key);

    /// <summary>A key for a new field, made of its words: "client.coffee-order"; a number follows while it is taken.</summary>
    /// <param name="scope">Whose field it is.</param>
    /// <param name="label">Its words.</param>
    public string NewKey(RecordScope scope, string label)
    {
        var prefix = scope == RecordScope.Client ? "client." : "project.";
        var taken = All.Where(field => field.Scope == scope).Select(field => field.Key[prefix.Length..]).ToHashSet();
        return prefix + ItemKeys.For(label, taken, "field");
    }

    /// <summary>What is wrong with a field as somebody wants it, each with the member it is about; none when it can be kept.</summary>
    /// <param name="wanted">The field, new or changed.</param>
    public IReadOnlyList<Finding> Check(Field wanted)
    {
        var found = new List<Finding>();
        if (string.IsNullOrWhiteSpace(wanted.Label))
            Say("label", "A field needs a name, so that people know what it holds.");
        else if (wanted.Label.Length > LongestLabel)
            Say("label", $"This name is too long. Please use at most {LongestLabel} characters.");
        else if (
            All.Any(other =>
                other.Key != wanted.Key
                && other.Scope == wanted.Scope
                && string.Equals(other.Label.Trim(), wanted.Label.Trim(), StringComparison.OrdinalIgnoreCase)
            )
        )
            Say("label", $"There is a field “{wanted.Label.Trim()}” already. Please choose another name.");
        if (wanted.Help.Length > LongestHelp)
            Say("help", $"This line is too long. Please use at most {LongestHelp} characters.");
        if (Find(wanted.Key) is null && All.Count >= MostFields)
            Say("label", $"There are {MostFields} fields already. Put the new one's facts into the notes, or use a field there is.");
        if (BuiltInFields.Find(wanted.Key) is { } builtIn)
        {
            if (builtIn.Kind != wanted.Kind)
                Say("kind", "This field comes with Porch Light and keeps its kind. Make one of your own for another.");
            else if (builtIn.Columns.Any(column => !wanted.Columns.Any(one => one.Key == column.Key && one.Kind == column.Kind)))
                Say("columns", "The columns this field came with stay. Rename them, or add some of your own.");
        }

        if (wanted.Key == BuiltInFields.Name.Key && wanted.Archived)
            Say("archived", "Clients are found by their names; this field stays.");
        if (wanted.Key == BuiltInFields.Email.Key && wanted.Archived)
            Say("archived", "Clients are recognised by their e-mail address; this field stays.");
        if (wanted.Kind is FieldKind.OneOf or FieldKind.SeveralOf)
            CheckNames("options", "answer", wanted.Options, MostOptions);
        else if (wanted.Options.Count > 0)
            Say("options", "This kind of field has no answers to choose from.");
        if (wanted.Kind == FieldKind.Rows)
        {
            CheckNames("columns", "column", [.. wanted.Columns.Select(column => column.Label)], MostColumns);
            if (wanted.Columns.Any(column => column.Kind is FieldKind.Rows or FieldKind.Files))
                Say("columns", "A column keeps single values; it cannot hold rows or files.");
        }
        else if (wanted.Columns.Count > 0)
            Say("columns", "Only a list of rows has columns.");
        return found;

        void CheckNames(string place, string what, IReadOnlyList<string> names, int most)
        {
            if (names.Count == 0)
                Say(place, $"Please add at least one {what}.");
            else if (names.Count > most)
                Say(place, $"These are too many. Please use at most {most}.");
            else if (names.Any(name => string.IsNullOrWhiteSpace(name) || name.Length > LongestLabel))
                Say(place, $"Each {what} needs a name of at most {LongestLabel} characters.");
            else if (names.Select(name => name.Trim()).Distinct(StringComparer.OrdinalIgnoreCase).Count() < names.Count)
                Say(place, $"Two of them have the same name. Please give each {what} its own.");
        }

        void Say(string place, string sentence) => found.Add(new Finding(place, sentence));
    }
}
