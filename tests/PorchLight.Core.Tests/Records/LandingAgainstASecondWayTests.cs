using System.Globalization;
using System.Text;
using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Records;

public sealed class LandingAgainstASecondWayTests
{
    private static readonly string[] Words = ["Bray", "bray ", "D\u00fan  Laoghaire", "Du\u0301n laoghaire", "Howth"];

    private static readonly Question[] Questions =
    [
        new("short", "Short?", new ShortTextKind()),
        new("mail", "E-mail?", new EmailKind()),
        new("phone", "Phone?", new PhoneKind()),
        Budget,
        Extras,
        Decides,
    ];

    private static readonly FieldCatalogue Fields = new([
        .. BuiltInFields.All.Select(field => field.Key is "client.phone" or "project.what" ? field with { ClientKeepsIt = true } : field),
    ]);

    private static readonly Gen<LandsIn?> Places = RandomForms.Pick<LandsIn?>(
        null,
        new AppendToNotes(RecordScope.Client),
        new AppendToNotes(RecordScope.Project),
        new SetField("client.email"),
        new SetField("client.phone"),
        new SetField("project.what"),
        new SetField("project.budget")
    );

    [Fact]
    public void What_lands_is_what_somebody_at_a_desk_would_write_down() =>
        Gen.Select(Places.Array[6], Gen.Int[0, 4].Array[6], Gen.Int[0, 4].Array[4], RandomForms.Pick(Enum.GetValues<LandingTrust>()))
            .Sample(
                (places, said, filed, trust) =>
                {
                    var questions = Questions
                        .Select(
                            (question, index) =>
                                places[index] is { } place && question.RefusesToLand(place, FieldCatalogue.BuiltIn) is null
                                    ? question with
                                    {
                                        LandsIn = place,
                                    }
                                    : question
                        )
                        .ToArray();
                    var form = OnePage(questions);
                    var answers = questions
                        .Select(
                            (question, index) =>
                                (
                                    question.Key,
                                    State: said[index] == 4 ? AnswerState.Blank : AnswerState.Of(AnswerTo(question, said[index]))
                                )
                        )
                        .ToArray();
                    var onFile = new Dictionary<string, Answer>();
                    foreach (
                        var (field, index) in new[] { "client.email", "client.phone", "project.what", "project.budget" }.Select(
                            (field, index) => (field, index)
                        )
                    )
                    {
                        if (filed[index] < 4)
                            onFile[field] =
                                field == "client.phone" ? Phone(filed[index])
                                : field == "project.budget" ? Band(filed[index] % 3)!
                                : new TextAnswer(Words[filed[index]]);
                    }

                    var plan = Landing.Plan(Known(form, answers), onFile, Fields, trust);
                    var desk = new Desk(onFile, trust);
                    foreach (var (question, state) in questions.Zip(answers, (question, answer) => (question, answer.State)))
                        desk.Take(question, state.Answer);
                    plan.Writes.Select(write => $"{write.Question} fills {write.Field}").ShouldBe(desk.Writes);
                    plan.Notes.Select(note => $"{note.Question} to {note.Scope}: {note.Text}").ShouldBe(desk.Notes);
                    plan.Differences.Select(difference => $"{difference.Question} differs from {difference.Field}")
                        .ShouldBe(desk.Differences);
                }
            );

    /// <summary>Somebody who writes answers down, one after the other, and looks at the file each time.</summary>
    private sealed class Desk(Dictionary<string, Answer> file, LandingTrust trust)
    {
        private readonly HashSet<string> _writtenToday = [];
        private readonly HashSet<(string Field, string Value)> _askedAbout = [];
        private readonly Dictionary<string, string> _file = file.ToDictionary(entry => entry.Key, entry => Plain(entry.Value));

        public List<string> Writes { get; } = [];

        public List<string> Notes { get; } = [];

        public List<string> Differences { get; } = [];

        public void Take(Question question, Answer? answer)
        {
            if (answer is null || question.LandsIn is null)
                return;
            if (question.LandsIn is AppendToNotes { Scope: var scope })
            {
                if (trust == LandingTrust.Claims)
                    Differences.Add($"{question.Key} differs from {scope.ToString().ToLowerInvariant()}.notes");
                else
                    Notes.Add($"{question.Key} to {scope}: {Aloud(question, answer)}");
                return;
            }

            var field = ((SetField)question.LandsIn).Field;
            if (answer is ChoiceAnswer { Keys: ["unsure"] })
                return;
            var value = answer is ChoiceAnswer { Keys: var keys }
                ? field == "project.budget"
                    ? Plain(Band(IndexOf(keys[0]))!)
                    : Fold(Aloud(question, answer))
                : field == "project.what"
                    ? Fold(Aloud(question, answer))
                    : Plain(answer);
            if (_file.TryGetValue(field, out var ours) && ours == value)
                return;
            // What is written on the card "the client keeps this" they may write over, once in a letter, when it is surely theirs.
            var over = trust == LandingTrust.OwnLink && field is ("client.phone" or "project.what") && !_writtenToday.Contains(field);
            if (trust == LandingTrust.Claims || ours is not null && !over)
            {
                if (_askedAbout.Add((field, value)))
                    Differences.Add($"{question.Key} differs from {field}");
                return;
            }

            Writes.Add($"{question.Key} fills {field}");
            _file[field] = value;
            _writtenToday.Add(field);
        }

        private static string Aloud(Question question, Answer answer) =>
            answer switch
            {
                ChoiceAnswer choice => string.Join(
                    ", ",
                    question.Options.Where(option => choice.Keys.Contains(option.Key)).Select(option => option.Label)
                ),
                YesNoAnswer { Yes: true } => "Yes",
                YesNoAnswer => "No",
                PhoneAnswer phone => phone.Typed,
                var other => ((TextAnswer)other).Text,
            };

        private static string Plain(Answer answer) =>
            answer switch
            {
                PhoneAnswer { E164: { } number } => number,
                PhoneAnswer local => local.Typed,
                BandAnswer band => $"{band.Band.Low?.Value} {band.Band.High?.Value}",
                YesNoAnswer { Yes: var yes } => yes ? "yes" : "no",
                var other => Fold(((TextAnswer)other).Text),
            };

        /// <summary>Letters and marks one by one, so that it does not matter how an accent was put together.</summary>
        private static string Fold(string text) =>
            string.Join(
                ' ',
                text.Normalize(NormalizationForm.FormD)
                    .ToLower(CultureInfo.InvariantCulture)
                    .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            );
    }

    private static Answer AnswerTo(Question question, int pick) =>
        question.Kind switch
        {
            PhoneKind => Phone(pick),
            YesNoKind => new YesNoAnswer(pick % 2 == 0),
            ChoiceKind { Several: true } => ChoiceAnswer.Of(pick % 2 == 0 ? ["lighting", "gilding"] : ["gilding", "lighting"]),
            ChoiceKind choice => ChoiceAnswer.Of(choice.Options[pick].Key),
            _ => new TextAnswer(Words[pick]),
        };

    private static PhoneAnswer Phone(int pick) =>
        new[]
        {
            new PhoneAnswer("01 555 0142", "+35315550142"),
            new PhoneAnswer("+353 1 555 0142", "+35315550142"),
            new PhoneAnswer("555 0142", LocalOnly: true),
            new PhoneAnswer("01 555 0199", "+35315550199"),
        }[pick];

    private static int IndexOf(string option) => Budget.Options.Select(one => one.Key).ToList().IndexOf(option);

    private static BandAnswer? Band(int pick) =>
        Budget.Options[pick].Band is { } band ? new BandAnswer(Budget.Options[pick].Label, band) : null;
}
