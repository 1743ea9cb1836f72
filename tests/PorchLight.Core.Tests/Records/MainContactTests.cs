using CsCheck;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class MainContactTests
{
    [Fact]
    public void The_former_main_contact_stands_among_the_people_with_everything_known_of_them()
    {
        var tomas = Row(("name", new PersonNameAnswer("Tomas", "Ingleby")), ("role", new TextAnswer("Partner")), ("phone", Phone("177")));
        var ada = Row(("name", new PersonNameAnswer("Ada", "Penrose")));
        var onFile = new Dictionary<string, Answer>
        {
            ["client.name"] = new PersonNameAnswer("Pilar", "Ingleby"),
            ["client.email"] = new TextAnswer("pilar@ingleby.example"),
            ["client.phone"] = Phone("142"),
            ["client.born"] = new DateAnswer(new LocalDate(1984, 4, 2)),
            ["client.people"] = new RowsAnswer([ada, tomas]),
            ["client.company"] = new TextAnswer("Ingleby Coffee"),
        };
        var values = MainContact.HandedTo(1, onFile)!;
        values.Keys.ShouldBe(["client.name", "client.phone", "client.born", "client.people"], ignoreOrder: true);
        values["client.name"].ShouldBe(new PersonNameAnswer("Tomas", "Ingleby"));
        values["client.phone"].ShouldBe(Phone("177"));
        values["client.born"].ShouldBeNull("nobody knows when he was born, and it was not that day");
        values["client.people"]
            .ShouldBe(
                new RowsAnswer([
                    ada,
                    Row(
                        ("name", new PersonNameAnswer("Pilar", "Ingleby")),
                        ("role", new TextAnswer("Contact")),
                        ("email", new TextAnswer("pilar@ingleby.example")),
                        ("phone", Phone("142")),
                        ("born", new DateAnswer(new LocalDate(1984, 4, 2)))
                    ),
                ])
            );
    }

    [Fact]
    public void Nobody_without_a_name_and_nobody_who_is_not_there_becomes_the_main_contact()
    {
        var onFile = new Dictionary<string, Answer> { ["client.people"] = new RowsAnswer([Row(("phone", Phone("177")))]) };
        foreach (var person in new[] { -1, 0, 1 })
            MainContact.HandedTo(person, onFile).ShouldBeNull();
        MainContact.HandedTo(0, new Dictionary<string, Answer>()).ShouldBeNull();
    }

    [Fact]
    public void Handed_on_and_back_everybody_is_who_they_were()
    {
        var person = Gen.Select(
            Gen.Int[0, 99],
            Gen.Int[0, 99],
            (a, b) =>
                Row(
                    ("name", new PersonNameAnswer($"G{a}", $"F{b}")),
                    ("role", new TextAnswer("Contact")),
                    ("email", new TextAnswer($"{a}@f{b}.example")),
                    ("phone", Phone($"{100 + a}")),
                    ("born", new DateAnswer(new LocalDate(1950, 1, 1).PlusDays(a * 100 + b)))
                )
        );
        Gen.Select(person, person.Array[1, 5], Gen.Int[0, 4])
            .Sample(
                (main, people, at) =>
                {
                    at %= people.Length;
                    var before = new Dictionary<string, Answer>
                    {
                        ["client.name"] = main["name"]!,
                        ["client.email"] = main["email"]!,
                        ["client.phone"] = main["phone"]!,
                        ["client.born"] = main["born"]!,
                        ["client.people"] = new RowsAnswer(people),
                    };
                    var after = new Dictionary<string, Answer>(before);
                    foreach (var _ in new[] { 1, 2 })
                    {
                        foreach (var (field, value) in MainContact.HandedTo(at, after)!)
                            after[field] = value!;
                    }

                    after.ShouldBe(before);
                }
            );
    }

    private static PhoneAnswer Phone(string end) => new($"+353 1 555 0{end}", $"+35315550{end}");

    private static AnswerRow Row(params (string Key, Answer Value)[] cells) =>
        new(cells.ToDictionary(cell => cell.Key, cell => (Answer?)cell.Value));
}
