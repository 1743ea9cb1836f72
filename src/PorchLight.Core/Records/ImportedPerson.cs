using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>Something in a line of a file that cannot be taken in.</summary>
/// <param name="Column">The column, counted from 0; null for the line as a whole.</param>
/// <param name="Sentence">What is wrong, and what becomes of it.</param>
public sealed record ImportFault(int? Column, string Sentence);

/// <summary>A person as a line of a file describes them.</summary>
/// <param name="Values">What can be kept, by field key.</param>
/// <param name="Tags">The words they are sorted by.</param>
/// <param name="Note">A note on them, or null.</param>
/// <param name="Standing">How the business stands with them; null where the file does not say.</param>
/// <param name="Faults">What could not be taken in.</param>
public sealed record ImportedPerson(
    IReadOnlyDictionary<string, Answer> Values,
    IReadOnlyList<string> Tags,
    string? Note,
    Standing? Standing,
    IReadOnlyList<ImportFault> Faults
)
{
    private const int LongestTag = 40;
    private const int LongestNote = 20_000;

    /// <summary>Whether there is anybody to bring in: a name, an e-mail address or a phone number.</summary>
    public bool IsSomebody =>
        Values.ContainsKey(BuiltInFields.Name.Key)
        || Values.ContainsKey(BuiltInFields.Email.Key)
        || Values.ContainsKey(BuiltInFields.Phone.Key);

    /// <summary>What they are recognised by.</summary>
    public ClientTraits Traits => ClientTraits.Of(Values);

    /// <summary>
    /// Reads a line. A cell that cannot be kept in its field is left out, with a sentence; the rest of the line is taken in. A column that
    /// goes nowhere is not looked at, and of two that go to one place the first that is not blank counts; a whole name counts where neither
    /// first nor family name is given.
    /// </summary>
    /// <param name="cells">The cells of the line.</param>
    /// <param name="targets">Where each column goes, by <see cref="ImportTarget.Key"/>; empty for nowhere.</param>
    /// <param name="fields">The fields of the business.</param>
    /// <param name="context">The day, and the region for phone numbers.</param>
    /// <param name="currency">The business's currency.</param>
    public static ImportedPerson Read(
        IReadOnlyList<string> cells,
        IReadOnlyList<string> targets,
        FieldCatalogue fields,
        NormaliseContext context,
        string currency
    )
    {
        var (values, faults) = (new Dictionary<string, Answer>(), new List<ImportFault>());
        Standing? standing = null;
        if (Name(Cell(ImportColumns.Given), Cell(ImportColumns.Family)) is { } name)
            Keep(name.Column, BuiltInFields.Name, FieldEntry.Of(name.Value, BuiltInFields.Name, context, currency));
        foreach (var field in fields.Offered.Where(field => field.Scope == RecordScope.Client))
        {
            if (field.Kind == FieldKind.Address && AddressOf(field) is { } address)
                Keep(address.Column, field, FieldEntry.Of(address.Value, field, context, currency));
            if (Cell(field.Key) is { } cell && !values.ContainsKey(field.Key))
                Keep(cell.Column, field, FieldEntry.Read(cell.Text, field, context, currency));
        }

        if (Cell(ImportColumns.Standing) is { } said)
        {
            // By its name only: a column of numbers says no standing.
            if (
                Enum.GetValues<Standing>().Where(one => string.Equals($"{one}", said.Text, StringComparison.OrdinalIgnoreCase)).ToList()
                is [var known]
            )
                standing = known;
            else
                faults.Add(new ImportFault(said.Column, $"“{Short(said.Text)}” is not a standing; they are imported as a lead."));
        }

        var tags = (Cell(ImportColumns.Tags)?.Text ?? "")
            .Split([',', ';', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(tag => UnicodeText.Start(tag, LongestTag).TrimEnd())
            .Distinct()
            .Take(20)
            .ToList();
        var note = Cell(ImportColumns.Notes)?.Text is { } words ? UnicodeText.Start(words, LongestNote) : null;
        var person = new ImportedPerson(values, tags, note, standing, faults);
        return person.IsSomebody || cells.All(string.IsNullOrWhiteSpace)
            ? person
            : person with
            {
                Faults =
                [
                    .. faults,
                    new ImportFault(null, "Nobody can be told from this line: it has no name, e-mail address or phone number."),
                ],
            };

        (int Column, string Text)? Cell(string target)
        {
            for (var column = 0; column < targets.Count && column < cells.Count; column++)
            {
                if (targets[column] == target && TextParts.Clean(cells[column]) is { Length: > 0 } text)
                    return (column, text);
            }

            return null;
        }

        void Keep(int column, Field field, EnteredValue entered)
        {
            if (entered.Fault is { } fault)
                faults.Add(new ImportFault(column, $"{field.Label} is left out. {fault}"));
            else if (entered.Value is { } value)
                values[field.Key] = value;
        }

        (int Column, AddressAnswer Value)? AddressOf(Field field)
        {
            var parts = ImportColumns.AddressParts.Select(part => Cell($"{field.Key} {part.Part}")).ToList();
            return parts.Find(part => part is not null) is not { } first
                ? null
                : (
                    first.Column,
                    new AddressAnswer(parts[0]?.Text, parts[1]?.Text, parts[2]?.Text, parts[4]?.Text, parts[3]?.Text, parts[5]?.Text)
                );
        }
    }

    private static (int Column, PersonNameAnswer Value)? Name((int Column, string Text)? given, (int Column, string Text)? family) =>
        (given ?? family) is { } first ? (first.Column, new PersonNameAnswer(given?.Text ?? "", family?.Text ?? "")) : null;

    private static string Short(string text) => text.Length <= 60 ? text : UnicodeText.Start(text, 60) + "…";
}
