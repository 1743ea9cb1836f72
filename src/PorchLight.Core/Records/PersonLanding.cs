using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>Makes rows of people out of what a form asks about them.</summary>
internal static class PersonLanding
{
    /// <summary>What was said of the person in a role, as a row; null when nothing was. Of two answers for one part the first counts.</summary>
    public static AnswerRow? Said(PersonRole role, AnswerContext known)
    {
        var cells = new Dictionary<string, Answer?>();
        foreach (var question in known.Form.Questions)
        {
            if (
                question.LandsIn is SetPerson { Person: var person, Part: var part }
                && person == role
                && known.Of(question.Key).Answer is { } answer
                && known.Behind(question.Key) is { } behind
                && FieldValues.Of(answer, behind, ClientPeople.FieldOf(part)) is { } value
            )
                cells.TryAdd(ClientPeople.Key(part), value);
        }

        if (cells.Count == 0)
            return null;
        cells[ClientPeople.Role] = new TextAnswer(role.ToString());
        return new AnswerRow(cells);
    }

    /// <summary>
    /// The people on file with this one among them: in the row of the person who is meant, where cells nothing was said of stay as they
    /// are, else at the end; and whether nothing that stands there is touched.
    /// </summary>
    public static (RowsAnswer Everybody, bool OnlyFills) Among(Answer? onFile, AnswerRow said, PersonRole role, Field field)
    {
        var people = (onFile as RowsAnswer)?.Rows ?? [];
        var name = ClientPeople.Key(PersonPart.Name);
        var meant =
            RowMatching
                .Match(people, [said], field.Columns)
                .FirstOrDefault(match => match is { Ours: not null, Theirs: not null } && said[name] is not null)
                ?.Ours
            ?? (ClientPeople.Only(onFile, role) is { } only && (said[name] is null || only[name] is null) ? only : null);
        if (meant is null)
            return (new RowsAnswer([.. people, said]), true);
        var over = Over(meant, said);
        return (
            new RowsAnswer([.. people.Select(person => ReferenceEquals(person, meant) ? over : person)]),
            Landing.OnlyFills(meant, over)
        );
    }

    private static AnswerRow Over(AnswerRow person, AnswerRow said) =>
        new(person.Answers.Keys.Union(said.Answers.Keys).ToDictionary(key => key, key => said[key] ?? person[key]));
}
