using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>A value to be written into a field.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Question">The question it came from.</param>
/// <param name="Value">The value in the field's own kind.</param>
public sealed record FieldWrite(string Field, string Question, Answer Value)
{
    /// <summary>What stood there, or null when the field was empty.</summary>
    public Answer? Before { get; init; }
}

/// <summary>Words to be added to notes.</summary>
/// <param name="Scope">Whose notes.</param>
/// <param name="Question">The question they came from.</param>
/// <param name="Heading">The question's wording.</param>
/// <param name="Text">The answer in words.</param>
public sealed record NoteWrite(RecordScope Scope, string Question, string Heading, string Text);

/// <summary>An answer unlike what is on file, for a person to settle.</summary>
/// <param name="Field">The field's key, or "client.notes" and "project.notes".</param>
/// <param name="Question">The question it came from.</param>
/// <param name="Theirs">What they say now, in the field's own kind.</param>
/// <param name="Ours">What is on file, or null when nothing is.</param>
public sealed record Difference(string Field, string Question, Answer Theirs, Answer? Ours);

/// <summary>What an inquiry writes, and what it leaves to be settled.</summary>
/// <param name="Writes">Fields to fill.</param>
/// <param name="Notes">Notes to add.</param>
/// <param name="Differences">Answers to settle.</param>
public sealed record LandingPlan(IReadOnlyList<FieldWrite> Writes, IReadOnlyList<NoteWrite> Notes, IReadOnlyList<Difference> Differences);

/// <summary>How far what somebody says about a client can be believed to come from them.</summary>
public enum LandingTrust
{
    /// <summary>The client was not known before: everything is theirs.</summary>
    NewClient,

    /// <summary>They came by a personal link made for the client.</summary>
    OwnLink,

    /// <summary>They only say who they are; anyone can type an e-mail address.</summary>
    Claims,
}

/// <summary>Decides where the answers of an inquiry land.</summary>
public static class Landing
{
    /// <summary>
    /// What the answers on the route write. An empty field is filled; an equal value changes nothing; an unlike one is a
    /// difference, but what comes by the client's own link replaces what stands in a field that the client keeps up to date. Files are
    /// added to files, rows nobody has seen yet to rows, and the blanks of a row are filled; rows that are changed or corrected are a
    /// difference, and one that is not named again stays. What is said of a person of the client is such a row. Where the sender only claims to be a known client nothing is filled or added: everything new is a difference. "I don't know" and
    /// blank answers land nowhere, and so does what a field that is gone was meant for.
    /// </summary>
    /// <param name="known">The version that was answered, with the state of each question at sending.</param>
    /// <param name="onFile">Values on file by field key, of the client and of the project the inquiry belongs to.</param>
    /// <param name="fields">The fields of the business.</param>
    /// <param name="trust">How far the sender can be believed to be the client.</param>
    /// <param name="lists">The lists of the business: a service is on file by its name, however it is said. Null for none.</param>
    public static LandingPlan Plan(
        AnswerContext known,
        IReadOnlyDictionary<string, Answer> onFile,
        FieldCatalogue fields,
        LandingTrust trust,
        BusinessLists? lists = null
    )
    {
        var filled = new Dictionary<string, Answer>(onFile);
        var fromHere = new HashSet<string>();
        var people = new HashSet<PersonRole>();
        var (writes, notes, differences) = (new List<FieldWrite>(), new List<NoteWrite>(), new List<Difference>());
        foreach (var question in known.Form.Questions)
        {
            if (known.Of(question.Key).Answer is not { } answer || known.Behind(question.Key) is not { } behind)
                continue;
            switch (question.LandsIn)
            {
                case SetField { Field: var key } when fields.Find(key) is { } field && FieldValues.Of(answer, behind, field) is { } said:
                    var value = Named(field, said);
                    var ours = filled.GetValueOrDefault(key);
                    Set(
                        field,
                        question.Key,
                        ours is null ? value : Added(ours, value, field),
                        touchesNothing: ours is null || OnlyAdds(ours, value, field)
                    );
                    break;
                case SetPerson { Person: var role } when people.Add(role) && PersonLanding.Said(role, known) is { } person:
                    var kept = fields.Find(ClientPeople.Field.Key) ?? ClientPeople.Field;
                    var (everybody, onlyFills) = PersonLanding.Among(filled.GetValueOrDefault(kept.Key), person, role, kept);
                    Set(kept, question.Key, everybody, touchesNothing: onlyFills);
                    break;
                case AppendToNotes { Scope: var scope }:
                    var words = AnswerWords.Say(answer, behind);
                    if (trust == LandingTrust.Claims)
                        differences.Add(new Difference(NotesKey(scope), question.Key, new TextAnswer(words), null));
                    else
                        notes.Add(new NoteWrite(scope, question.Key, Wordings.Fill(question.Wording, known), words));
                    break;
            }
        }

        return new LandingPlan(writes, notes, differences);

        void Set(Field field, string question, Answer whole, bool touchesNothing)
        {
            var ours = filled.GetValueOrDefault(field.Key);
            if (ours is not null && FieldValues.IsSame(Named(field, ours), whole))
                return;
            // Two questions for one field never overwrite each other.
            var mayWrite =
                trust != LandingTrust.Claims
                && (touchesNothing || trust == LandingTrust.OwnLink && field.ClientKeepsIt && !fromHere.Contains(field.Key));
            if (!mayWrite)
            {
                // Said twice in one sending it is one difference.
                if (!differences.Exists(other => other.Field == field.Key && FieldValues.IsSame(other.Theirs, whole)))
                    differences.Add(new Difference(field.Key, question, whole, ours));
                return;
            }

            writes.Add(new FieldWrite(field.Key, question, whole) { Before = ours });
            filled[field.Key] = whole;
            fromHere.Add(field.Key);
        }

        Answer Named(Field field, Answer value) =>
            field.Key == BuiltInFields.Service.Key && value is TextAnswer text && lists?.ServiceCalled(text.Text) is { } service
                ? new TextAnswer(service.Name)
                : value;
    }

    /// <summary>How differences name the notes of a client or project.</summary>
    /// <param name="scope">Whose notes.</param>
    public static string NotesKey(RecordScope scope) => scope == RecordScope.Client ? "client.notes" : "project.notes";

    /// <summary>What stands in a field that holds many things once more come to it; of any other field the new value.</summary>
    internal static Answer Added(Answer ours, Answer theirs, Field field) =>
        (ours, theirs) switch
        {
            (FilesAnswer before, FilesAnswer more) => new FilesAnswer([.. before.Files.Concat(more.Files).DistinctBy(file => file.Id)]),
            (RowsAnswer before, RowsAnswer more) when OnlyAdds(ours, theirs, field) => new RowsAnswer([
                .. RowMatching
                    .Match(before.Rows, more.Rows, field.Columns)
                    .Select(match => match.Change is RowChange.Added or RowChange.Changed ? match.Theirs! : match.Ours!),
            ]),
            _ => theirs,
        };

    /// <summary>
    /// Whether nothing that stands there is touched. A row that was not sent once more is not thereby taken away, and in one that was,
    /// blank cells are filled.
    /// </summary>
    internal static bool OnlyAdds(Answer ours, Answer theirs, Field field) =>
        (ours, theirs) switch
        {
            (FilesAnswer, FilesAnswer) => true,
            (RowsAnswer before, RowsAnswer more) => RowMatching
                .Match(before.Rows, more.Rows, field.Columns)
                .All(match =>
                    match.Change is RowChange.Same or RowChange.Added or RowChange.Removed
                    || match is { Change: RowChange.Changed, Ours: { } row, Theirs: { } other } && OnlyFills(row, other)
                ),
            _ => false,
        };

    /// <summary>Whether a row says everything that stands in another, and perhaps more.</summary>
    internal static bool OnlyFills(AnswerRow ours, AnswerRow theirs) =>
        ours.Answers.All(cell => cell.Value is null || theirs[cell.Key] is { } other && FieldValues.IsSame(cell.Value, other));
}
