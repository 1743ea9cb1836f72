using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Records;

public sealed class PersonLandingTests
{
    private static readonly FormContent Form = OnePage(
        About("partner", new PersonNameKind(), PersonRole.Partner, PersonPart.Name),
        About("partner-about", new ShortTextKind(), PersonRole.Partner, PersonPart.About),
        About("speaker", new PersonNameKind(), PersonRole.Representative, PersonPart.Name),
        About("speaker-mail", new EmailKind(), PersonRole.Representative, PersonPart.Email)
    );

    private static readonly PersonNameAnswer Ada = new("Ada", "Penrose");
    private static readonly PersonNameAnswer Tomas = new("Tomas", "Ingleby");

    [Fact]
    public void What_is_asked_of_one_role_is_one_person()
    {
        var plan = Land([], LandingTrust.NewClient, ("partner", Ada), ("partner-about", Says("mornings")), ("speaker", Tomas));
        plan.Writes.Count.ShouldBe(2);
        ((RowsAnswer)plan.Writes[^1].Value).Rows.ShouldBe([
            Person(PersonRole.Partner, Ada, "mornings"),
            Person(PersonRole.Representative, Tomas),
        ]);
        plan.Differences.ShouldBeEmpty();
    }

    [Fact]
    public void Said_again_it_changes_nothing()
    {
        var plan = Land(
            [Person(PersonRole.Partner, Ada, "mornings")],
            LandingTrust.OwnLink,
            ("partner", Ada),
            ("partner-about", Says("Mornings"))
        );
        (plan.Writes.Count, plan.Differences.Count).ShouldBe((0, 0));
    }

    [Fact]
    public void What_is_blank_of_a_person_is_filled_and_what_stands_there_is_left_to_be_settled()
    {
        var filled = Land([Person(PersonRole.Partner, Ada)], LandingTrust.OwnLink, ("partner", Ada), ("partner-about", Says("mornings")));
        ((RowsAnswer)filled.Writes.Single().Value).Rows.ShouldBe([Person(PersonRole.Partner, Ada, "mornings")]);
        var unlike = Land(
            [Person(PersonRole.Partner, Ada, "mornings")],
            LandingTrust.OwnLink,
            ("partner", Ada),
            ("partner-about", Says("evenings"))
        );
        unlike.Writes.ShouldBeEmpty();
        unlike.Differences.Single().Theirs.ShouldBe(new RowsAnswer([Person(PersonRole.Partner, Ada, "evenings")]));
    }

    [Fact]
    public void Without_a_name_the_only_one_in_that_role_is_meant_and_of_two_nobody()
    {
        var one = Land([Person(PersonRole.Partner, Ada)], LandingTrust.OwnLink, ("partner-about", Says("mornings")));
        ((RowsAnswer)one.Writes.Single().Value).Rows.ShouldBe([Person(PersonRole.Partner, Ada, "mornings")]);
        var two = Land(
            [Person(PersonRole.Partner, Ada), Person(PersonRole.Partner, Tomas)],
            LandingTrust.OwnLink,
            ("partner-about", Says("mornings"))
        );
        ((RowsAnswer)two.Writes.Single().Value).Rows.Count.ShouldBe(3);
    }

    [Fact]
    public void A_stranger_who_claims_to_be_the_client_only_makes_a_difference()
    {
        var plan = Land([], LandingTrust.Claims, ("speaker", Ada), ("speaker-mail", Says("ada@penrose.example")));
        plan.Writes.ShouldBeEmpty();
        plan.Differences.Single().Question.ShouldBe("speaker");
    }

    [Fact]
    public void Only_parts_that_can_keep_the_answer_are_offered()
    {
        var name = new Question("name", "Name?", new PersonNameKind());
        name.RefusesToLand(new SetPerson(PersonRole.Contact, PersonPart.Name), FieldCatalogue.BuiltIn).ShouldBeNull();
        name.RefusesToLand(new SetPerson(PersonRole.Contact, PersonPart.Born), FieldCatalogue.BuiltIn).ShouldNotBeNull();
    }

    [Fact]
    public void A_form_for_a_known_person_already_says_who_speaks_for_them() =>
        Prefilling
            .Start(
                Form,
                new Dictionary<string, string>(),
                new Dictionary<string, Answer> { ["client.people"] = new RowsAnswer([Person(PersonRole.Representative, Tomas)]) },
                null
            )
            .ShouldBe(new Dictionary<string, Answer> { ["speaker"] = Tomas });

    /// <summary>Cards on a table, one a person: the second way.</summary>
    [Fact]
    public void People_land_as_somebody_with_cards_would_file_them()
    {
        var names = RandomForms.Pick<PersonNameAnswer?>(null, Ada, Tomas);
        var words = RandomForms.Pick<string?>(null, "mornings", "evenings");
        var card = Gen.Select(
            RandomForms.Pick(PersonRole.Partner, PersonRole.Contact),
            names,
            words,
            (role, name, about) => (role, name, about)
        );
        Gen.Select(card.Array[0, 3], names, words)
            .Sample(
                (cards, name, about) =>
                {
                    var onFile = cards.Select(one => Person(one.role, one.name, one.about)).ToList();
                    var answers = new List<(string, Answer)>();
                    if (name is not null)
                        answers.Add(("partner", name));
                    if (about is not null)
                        answers.Add(("partner-about", Says(about)));
                    var plan = Land(onFile, LandingTrust.OwnLink, [.. answers]);
                    var partners = cards.Count(one => one.role == PersonRole.Partner);
                    var only = partners == 1 ? Array.FindIndex(cards, one => one.role == PersonRole.Partner) : -1;
                    var named = name is null ? -1 : Array.FindIndex(cards, one => one.name == name);
                    var mine =
                        named >= 0 ? named
                        : only >= 0 && (name is null || cards[only].name is null) ? only
                        : -1;
                    if (name is null && about is null)
                        (plan.Writes.Count, plan.Differences.Count).ShouldBe((0, 0));
                    else if (mine < 0)
                        ((RowsAnswer)plan.Writes.Single().Value).Rows[^1].ShouldBe(Person(PersonRole.Partner, name, about));
                    else
                    {
                        var was = cards[mine];
                        var unlike = was.role != PersonRole.Partner || about is not null && was.about is not null && about != was.about;
                        var fills = name is not null && was.name is null || about is not null && was.about is null;
                        plan.Differences.Count.ShouldBe(unlike ? 1 : 0);
                        plan.Writes.Count.ShouldBe(!unlike && fills ? 1 : 0);
                        var after =
                            unlike ? plan.Differences[0].Theirs
                            : plan.Writes is [var write] ? write.Value
                            : null;
                        if (after is RowsAnswer { Rows: var rows })
                            rows.ShouldBe(
                                cards.Select(
                                    (one, at) =>
                                        at == mine
                                            ? Person(PersonRole.Partner, name ?? was.name, about ?? was.about)
                                            : Person(one.role, one.name, one.about)
                                )
                            );
                    }
                },
                iter: 2_000
            );
    }

    private static TextAnswer Says(string words) => new(words);

    private static Question About(string key, QuestionKind kind, PersonRole role, PersonPart part) =>
        new(key, key, kind) { LandsIn = new SetPerson(role, part) };

    private static AnswerRow Person(PersonRole role, PersonNameAnswer? name, string? about = null) =>
        new(
            new Dictionary<string, Answer?>
            {
                ["name"] = name,
                ["role"] = new TextAnswer(role.ToString()),
                ["about"] = about is null ? null : Says(about),
            }
        );

    private static LandingPlan Land(List<AnswerRow> onFile, LandingTrust trust, params (string Key, Answer Answer)[] said) =>
        Landing.Plan(
            Known(Form, [.. said.Select(one => (one.Key, AnswerState.Of(one.Answer)))]),
            onFile.Count == 0
                ? new Dictionary<string, Answer>()
                : new Dictionary<string, Answer> { ["client.people"] = new RowsAnswer(onFile) },
            FieldCatalogue.BuiltIn,
            trust
        );
}
