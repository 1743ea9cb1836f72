using System.Text.RegularExpressions;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>Items that were copied and can be set in.</summary>
/// <param name="Items">The copies, in the order they were given.</param>
/// <param name="Lost">What could not come along, a sentence each; empty when all did.</param>
public sealed record ItemCopies(IReadOnlyList<Item> Items, IReadOnlyList<string> Lost);

/// <summary>Copies items within a form or from one form to another.</summary>
public static partial class CopiedItems
{
    /// <summary>
    /// Copies with keys that are free. What looks at another copied question looks at its copy; what looks at a question the form does
    /// not have, in a condition, a worked-out value or words, is taken away, and that is said. A copy lands in no field that another question of the form lands in.
    /// </summary>
    /// <param name="items">What is copied.</param>
    /// <param name="target">The form the copies are set into; it is left as it is.</param>
    public static ItemCopies For(IReadOnlyList<Item> items, FormContent target)
    {
        var taken = TypedQuestions.KeysOf(target);
        var names = items
            .SelectMany(item => new[] { item.Key }.Concat((item as Question)?.RowQuestions.Select(asked => asked.Key) ?? []))
            .Distinct()
            .ToDictionary(key => key, key => ItemKeys.For(key, taken));
        var there = target.Questions.SelectMany(question => question.RowQuestions.Prepend(question)).Select(question => question.Key);
        var copying = new Copying(
            names,
            [.. there],
            [.. target.Questions.Select(question => question.LandsIn).Where(IsForOne).OfType<LandsIn>()]
        );
        return new ItemCopies([.. items.Select(copying.Copy)], copying.Lost);
    }

    // Two answers added to the notes stand beside each other; in a field, or of a person, one would be in the other's way.
    private static bool IsForOne(LandsIn? place) => place is SetField or SetPerson;

    private sealed class Copying(Dictionary<string, string> names, HashSet<string> there, HashSet<LandsIn> landed)
    {
        public List<string> Lost { get; } = [];

        public Item Copy(Item item) =>
            item switch
            {
                Question question => Copy(question),
                Heading heading => Free(heading, heading.Text) with { Text = Words(heading.Text, heading.Text) },
                Passage passage => Free(passage, passage.Text) with { Text = Words(passage.Text, passage.Text) },
                Content content => Free(content, "What you copied"),
                _ => throw new ArgumentOutOfRangeException(nameof(item), item, "An item of an unknown kind."),
            };

        private T Free<T>(T content, string name)
            where T : Content => content with { Key = names[content.Key], ShownOnlyWhen = Condition(content.ShownOnlyWhen, name) };

        private Question Copy(Question question)
        {
            var landsIn = IsForOne(question.LandsIn) && !landed.Add(question.LandsIn!) ? null : question.LandsIn;
            if (landsIn != question.LandsIn)
                Lost.Add($"“{question.Wording}” lands nowhere: another question lands in the same place.");
            return question with
            {
                Key = names[question.Key],
                Wording = Words(question.Wording, question.Wording),
                Help = question.Help is { } help ? Words(help, question.Wording) : null,
                AskedOnlyWhen = Condition(question.AskedOnlyWhen, question.Wording),
                RequiredWhen = Condition(question.RequiredWhen, question.Wording),
                LandsIn = landsIn,
                Kind = question.Kind switch
                {
                    ListKind rows => rows with { Asks = [.. rows.Asks.Select(Copy)] },
                    PeopleKind people => people with
                    {
                        NameKey = names[people.NameKey],
                        BornKey = people.BornKey is { } born ? names[born] : null,
                        More = [.. people.More.Select(Copy)],
                    },
                    ConsentKind consent => new ConsentKind(Words(consent.Statement, question.Wording)),
                    AdvertisingKind advertising => new AdvertisingKind(Words(advertising.Statement, question.Wording)),
                    SignatureKind signature => signature with { Statement = Words(signature.Statement, question.Wording) },
                    WorkedOutKind worked => worked with { Value = Calculation(worked.Value, question.Wording) },
                    var kind => kind,
                },
            };
        }

        private Condition? Condition(Condition? condition, string name)
        {
            if (condition is null)
                return null;
            if (condition.QuestionsUsed().All(IsThere))
                return condition.Renamed(Name);
            Lost.Add($"A condition of “{name}” looks at a question that is not in this form, and is left out.");
            return null;
        }

        private Calculation Calculation(Calculation calculation, string name)
        {
            if (calculation.QuestionsUsed().All(IsThere))
                return calculation.Renamed(Name);
            Lost.Add($"“{name}” is worked out from a question that is not in this form. Choose again how it is worked out.");
            return WorkedOutKind.Open;
        }

        /// <summary>The words with answers of the copies in them; of a question that is not there the fallback stays.</summary>
        private string Words(string words, string name)
        {
            var gone = Wordings.QuestionsUsed(words).Where(key => !IsThere(key)).ToHashSet();
            if (gone.Count > 0)
                Lost.Add(
                    $"The words of “{KnownValues.BeforeAnswers(name)}” name an answer to a question that is not in this form. It is left out."
                );
            return Answers().Replace(Wordings.Without(words, gone), match => match.Groups[1].Value + Name(match.Groups[2].Value));
        }

        private bool IsThere(string key) => names.ContainsKey(key) || there.Contains(key);

        private string Name(string key) => names.GetValueOrDefault(key, key);
    }

    /// <summary>The condition with other keys of questions.</summary>
    internal static Condition Renamed(this Condition condition, Func<string, string> name) =>
        condition switch
        {
            AllCondition all => new AllCondition([.. all.Parts.Select(part => part.Renamed(name))]),
            AnyCondition any => new AnyCondition([.. any.Parts.Select(part => part.Renamed(name))]),
            NotCondition not => new NotCondition(not.Part.Renamed(name)),
            ComparisonCondition { Of: AnswerTo of } comparison => comparison with { Of = new AnswerTo(name(of.Question)) },
            _ => condition,
        };

    /// <summary>The calculation with other keys of questions.</summary>
    internal static Calculation Renamed(this Calculation calculation, Func<string, string> name) =>
        calculation switch
        {
            CopiedAnswer c => new CopiedAnswer(name(c.Question)),
            FixedValue => calculation,
            AgeOn c => new AgeOn(name(c.Born), name(c.Event)),
            TimeBetween c => c with { From = name(c.From), To = c.To is { } to ? name(to) : null },
            DaysUntil c => new DaysUntil(name(c.Date)),
            CountRows c => new CountRows(name(c.Rows), c.Where?.Renamed(name)),
            OverRows c => c with { Rows = name(c.Rows), Of = name(c.Of) },
            AreaOfRows c => c with
            {
                Rows = name(c.Rows),
                Width = name(c.Width),
                Height = name(c.Height),
                HowMany = c.HowMany is { } many ? name(many) : null,
            },
            DivideAndRoundUp c => c with { Amount = c.Amount.Renamed(name) },
            ArithmeticOfTwo c => c with { First = c.First.Renamed(name), Second = c.Second.Renamed(name) },
            JoinedText c => new JoinedText(Answers().Replace(c.Words, match => match.Groups[1].Value + name(match.Groups[2].Value))),
            IfElse c => new IfElse(c.If.Renamed(name), c.Then.Renamed(name), c.Otherwise.Renamed(name)),
            _ => throw new ArgumentOutOfRangeException(nameof(calculation), calculation, "A calculation of an unknown kind."),
        };

    [GeneratedRegex(@"(\{answer:)([a-z0-9-]+)")]
    private static partial Regex Answers();
}
