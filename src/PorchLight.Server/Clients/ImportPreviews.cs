using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Says what would become of the lines of a file, without writing anything.</summary>
internal static class ImportPreviews
{
    private const int MostShown = 50;
    private const int LinesNamed = 3;
    private const int AtOnce = 500;
    private const int MostUnderOneKey = 500;

    /// <param name="table">The file.</param>
    /// <param name="people">Each of its lines as a person.</param>
    public static async Task<ImportEndpoints.ImportPreview> OfAsync(
        PorchDb db,
        PeopleTable table,
        IReadOnlyList<ImportedPerson> people,
        CancellationToken cancellationToken
    )
    {
        var (made, known, leftOut) = (new List<(int Line, ImportedPerson Person)>(), 0, 0);
        var inFile = new Dictionary<string, List<SameAddress>>();
        for (var from = 0; from < people.Count; from += AtOnce)
        {
            var batch = people.Skip(from).Take(AtOnce).ToList();
            var here = await KnownPeople.OfAsync(db, batch, cancellationToken);
            foreach (var (index, person) in batch.Index())
            {
                if (!person.IsSomebody)
                    leftOut++;
                else if (await here.FindAsync(db, person) is not null || IsInFile(person))
                    known++;
                else
                    made.Add((Line(from + index), person));
            }
        }

        var alike = await AlikeAsync(db, made, cancellationToken);
        var faults = people
            .SelectMany((person, index) => person.Faults.Select(fault => (Line: Line(index), fault.Column, fault.Sentence)))
            .GroupBy(fault => (fault.Column, fault.Sentence))
            .Select(group => new ImportEndpoints.FaultInFile(
                [.. group.Take(LinesNamed).Select(fault => fault.Line)],
                group.Count(),
                group.Key.Column is { } column ? table.Headings[column] : null,
                group.Key.Sentence
            ))
            .ToList();
        return new ImportEndpoints.ImportPreview(
            made.Count,
            known,
            [.. alike.Take(MostShown)],
            alike.Count,
            leftOut,
            [.. faults.Take(MostShown)],
            faults.Sum(fault => fault.Count),
            Math.Max(0, faults.Count - MostShown)
        );

        // The first line of a table has the headings; a card is counted as a line.
        int Line(int index) => table.Headings.SequenceEqual(VCards.Headings) ? index + 1 : index + 2;

        bool IsInFile(ImportedPerson person)
        {
            if (person.Traits is not { EmailKey: { } email } traits)
                return false;
            var same = inFile.TryGetValue(email, out var others) ? others : inFile[email] = [];
            if (ClientRecognition.Among(traits.Name, same) is not null)
                return true;
            same.Add(new SameAddress(Guid.Empty, traits.Name, default));
            return false;
        }
    }

    private static async Task<List<ImportEndpoints.PerhapsInFile>> AlikeAsync(
        PorchDb db,
        List<(int Line, ImportedPerson Person)> made,
        CancellationToken cancellationToken
    )
    {
        var keys = made.SelectMany(one => one.Person.Traits.Keys).ToHashSet();
        var under = (await db.ClientKeys.AsNoTracking().ToListAsync(cancellationToken))
            .Where(key => keys.Contains(key.Key))
            .GroupBy(key => key.Key, key => key.ClientId)
            .Where(group => group.Count() <= MostUnderOneKey)
            .ToDictionary(group => group.Key, group => group.ToList());
        var ids = under.Values.SelectMany(one => one).Distinct().ToList();
        var names = await db
            .Clients.Where(client => ids.Contains(client.Id))
            .ToDictionaryAsync(client => client.Id, client => client.Name, cancellationToken);
        var traits = await new AlikeClients(db).TraitsAsync(ids, cancellationToken);
        var found = new List<ImportEndpoints.PerhapsInFile>();
        foreach (var (line, person) in made)
        {
            foreach (var id in person.Traits.Keys.Where(under.ContainsKey).SelectMany(key => under[key]).Distinct())
            {
                if (names.TryGetValue(id, out var name) && ClientLikeness.Between(person.Traits, traits[id]) is { } likeness)
                {
                    found.Add(new ImportEndpoints.PerhapsInFile(line, NameOf(person), id, name, likeness.Say()));
                    break;
                }
            }
        }

        return found;
    }

    private static string NameOf(ImportedPerson person) =>
        new[] { BuiltInFields.Name, BuiltInFields.Email, BuiltInFields.Phone }
            .Select(field => person.Values.GetValueOrDefault(field.Key))
            .OfType<Core.Answers.Answer>()
            .Select(value => Core.Forms.AnswerWords.Say(value))
            .First();
}
