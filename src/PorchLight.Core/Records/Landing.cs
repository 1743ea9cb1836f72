using System.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>A value to be written into a field that was empty.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Question">The question it came from.</param>
/// <param name="Value">The value in the field's own kind.</param>
public sealed record FieldWrite(string Field, string Question, Answer Value);

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

/// <summary>Decides where the answers of an inquiry land.</summary>
public static class Landing
{
    /// <summary>
    /// What the answers on the route write. An empty field is filled; an equal value changes nothing; an unlike one is a
    /// difference. Where the sender only claims to be a known client nothing is filled or added: anyone can type an e-mail
    /// address, so everything new is a difference. "I don't know" and blank answers land nowhere.
    /// </summary>
    /// <param name="known">The version that was answered, with the state of each question at sending.</param>
    /// <param name="onFile">Values on file by field key, of the client and of the project the inquiry belongs to.</param>
    /// <param name="onlyDifferences">
    /// Whether the client was known before this inquiry, and it did not come by a personal link made for them.
    /// </param>
    public static LandingPlan Plan(AnswerContext known, IReadOnlyDictionary<string, Answer> onFile, bool onlyDifferences)
    {
        var filled = new Dictionary<string, Answer>(onFile);
        var (writes, notes, differences) = (new List<FieldWrite>(), new List<NoteWrite>(), new List<Difference>());
        foreach (var question in known.Form.Questions)
        {
            if (known.Of(question.Key).Answer is not { } answer || known.Behind(question.Key) is not { } behind)
                continue;
            switch (question.LandsIn)
            {
                case SetField { Field: var key } when ToFieldValue(behind, answer, BuiltInFields.Find(key)) is { } value:
                    var ours = filled.GetValueOrDefault(key);
                    if (ours is not null && IsSame(ours, value))
                        break;
                    if (ours is not null || onlyDifferences)
                    {
                        differences.Add(new Difference(key, question.Key, value, ours));
                        break;
                    }

                    writes.Add(new FieldWrite(key, question.Key, value));
                    filled[key] = value;
                    break;
                case AppendToNotes { Scope: var scope }:
                    var words = AnswerWords.Say(answer, behind);
                    if (onlyDifferences)
                        differences.Add(new Difference(NotesKey(scope), question.Key, new TextAnswer(words), null));
                    else
                        notes.Add(new NoteWrite(scope, question.Key, Wordings.Fill(question.Wording, known), words));
                    break;
            }
        }

        return new LandingPlan(writes, notes, differences);
    }

    /// <summary>How differences name the notes of a client or project.</summary>
    /// <param name="scope">Whose notes.</param>
    public static string NotesKey(RecordScope scope) => scope == RecordScope.Client ? "client.notes" : "project.notes";

    /// <summary>
    /// Whether two values of a field say the same once normalised: text without regard to case, to how much white space
    /// there is and to how accents are put together (Unicode NFC), phone numbers by their E.164 form, several choices without
    /// regard to their order.
    /// </summary>
    /// <param name="a">One value.</param>
    /// <param name="b">The other; the order does not matter, and values of two kinds are never the same.</param>
    public static bool IsSame(Answer a, Answer b) =>
        (a, b) switch
        {
            (TextAnswer x, TextAnswer y) => SameText(x.Text, y.Text),
            (PersonNameAnswer x, PersonNameAnswer y) => SameText(x.Full, y.Full),
            (PhoneAnswer { E164: { } x }, PhoneAnswer { E164: { } y }) => x == y,
            (BandAnswer x, BandAnswer y) => x.Band.IsSame(y.Band),
            (AddressAnswer x, AddressAnswer y) => SameText(string.Join('\n', x.Parts), string.Join('\n', y.Parts)),
            _ => a.Equals(b),
        };

    private static Answer? ToFieldValue(Question question, Answer answer, Field? field) =>
        (answer, field?.Kind) switch
        {
            (_, null) => null,
            (ChoiceAnswer choice, _) when choice.Keys.Any(key => question.FindOption(key) is not { Unsure: false }) => null,
            (ChoiceAnswer { Keys: [var key] }, FieldKind.Number or FieldKind.Money) => question.FindOption(key) is { Band: { } band } option
                ? new BandAnswer(option.Label, band)
                : null,
            (ConsentAnswer, FieldKind.YesNo) => new YesNoAnswer(true),
            (TextAnswer or BandAnswer, _) => answer,
            (_, FieldKind.Text or FieldKind.LongText) => new TextAnswer(AnswerWords.Say(answer, question)),
            _ => answer,
        };

    private static bool SameText(string a, string b) => string.Equals(Squeeze(a), Squeeze(b), StringComparison.OrdinalIgnoreCase);

    private static string Squeeze(string text) =>
        string.Join(' ', UnicodeText.Normal(text, NormalizationForm.FormC).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}

/// <summary>How to reach the person who answered, as far as they said.</summary>
/// <param name="Name">Their name, or null.</param>
/// <param name="Email">Their e-mail address, or null.</param>
/// <param name="Phone">Their phone number, or null.</param>
public sealed record Contact(PersonNameAnswer? Name, string? Email, PhoneAnswer? Phone)
{
    /// <summary>Whether there is any way to reach them; without one an inquiry makes no client.</summary>
    public bool IsReachable => Email is not null || Phone is not null;

    /// <summary>What to call them in a list: the name, else whatever there is.</summary>
    public string ListName => Name?.Full ?? Email ?? Phone?.Typed ?? "Somebody";

    /// <summary>The contact details among the answers: those that land in the built-in fields.</summary>
    /// <param name="form">The version that was answered.</param>
    /// <param name="answers">The states by question key; what is blank or not asked is null in the contact.</param>
    public static Contact Of(FormContent form, IReadOnlyDictionary<string, AnswerState> answers)
    {
        return new Contact(
            For(BuiltInFields.Name) as PersonNameAnswer,
            (For(BuiltInFields.Email) as TextAnswer)?.Text,
            For(BuiltInFields.Phone) as PhoneAnswer
        );

        Answer? For(Field field) =>
            form
                .Questions.Where(question => question.LandsIn is SetField set && set.Field == field.Key)
                .Select(question => answers.GetValueOrDefault(question.Key).Answer)
                .FirstOrDefault(answer => answer is not null);
    }
}
