using CsCheck;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class RowMatchingTests
{
    private static readonly FieldColumn[] People =
    [
        new("name", "Name", FieldKind.PersonName),
        new("born", "Born", FieldKind.Date),
        new("shirt", "Shirt", FieldKind.Text),
    ];

    private static readonly FieldColumn[] Signs = [new("says", "Says", FieldKind.Text), new("wide", "Width", FieldKind.Number)];

    [Fact]
    public void People_are_told_by_name_and_birth_date_and_one_half_alone_is_perhaps_a_correction()
    {
        AnswerRow[] ours = [Person("Robin", 3, "S"), Person("Ada", 5, "M"), Person("Finn", 7, "L"), Person("Maeve", 9, "S")];
        AnswerRow[] theirs = [Person("Ada", 5, "L"), Person("robin", 3, "S"), Person("Finnian", 7, "L"), Person("Oona", 1, "S")];
        RowMatching
            .Match(ours, theirs, People)
            .Select(match => match.Change)
            .ShouldBe([RowChange.Same, RowChange.Changed, RowChange.Corrected, RowChange.Removed, RowChange.Added]);
    }

    [Fact]
    public void Other_rows_are_told_by_their_first_column()
    {
        RowMatching.KeyOf(Signs).Single().Key.ShouldBe("says");
        RowMatching
            .Match([Sign("Bread", 40)], [Sign("Cake", 40), Sign("bread", 60)], Signs)
            .Select(match => match.Change)
            .ShouldBe([RowChange.Changed, RowChange.Added]);
    }

    [Fact]
    public void Two_rows_with_one_key_are_matched_one_by_one() =>
        RowMatching
            .Match([Sign("Bread", 40), Sign("Bread", 50)], [Sign("Bread", 40)], Signs)
            .Select(match => match.Change)
            .ShouldBe([RowChange.Same, RowChange.Removed]);

    [Fact]
    public void Every_row_of_both_sides_stands_in_exactly_one_match_of_the_best_sort_it_can_have() =>
        Gen.Select(Rows, Rows)
            .Sample(
                (ours, theirs) =>
                {
                    var matches = RowMatching.Match(ours, theirs, People);
                    matches.Select(match => match.Ours).OfType<AnswerRow>().ShouldBe(ours, "ours in their order");
                    Sorted(matches.Select(match => match.Theirs).OfType<AnswerRow>()).ShouldBe(Sorted(theirs));
                    foreach (var match in matches)
                    {
                        var halves = match is { Ours: not null, Theirs: not null } ? (Half(match, "name"), Half(match, "born")) : default;
                        match.Change.ShouldBe(
                            match.Ours is null ? RowChange.Added
                            : match.Theirs is null ? RowChange.Removed
                            : halves == (true, true)
                                ? Half(match, "shirt") ? RowChange.Same
                                    : RowChange.Changed
                            : RowChange.Corrected
                        );
                    }

                    // Counted by hand: of each whole key as many pairs as the shorter side has.
                    var whole = ours.Select(KeyOf)
                        .Distinct()
                        .Sum(key => Math.Min(ours.Count(row => KeyOf(row) == key), theirs.Count(row => KeyOf(row) == key)));
                    matches.Count(match => match.Change is RowChange.Same or RowChange.Changed).ShouldBe(whole);
                    // Nothing is left over on both sides that has half a key in common.
                    foreach (var gone in matches.Where(match => match.Change == RowChange.Removed))
                    {
                        foreach (var come in matches.Where(match => match.Change == RowChange.Added))
                            (Half(gone.Ours!, come.Theirs!, "name") || Half(gone.Ours!, come.Theirs!, "born")).ShouldBeFalse();
                    }
                }
            );

    private static Gen<AnswerRow[]> Rows =>
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 2], Gen.Int[0, 1], (name, born, shirt) => Person($"P{name}", born + 1, $"{shirt}")).Array[
            0,
            4
        ];

    private static bool Half(RowMatch match, string column) => Half(match.Ours!, match.Theirs!, column);

    private static bool Half(AnswerRow a, AnswerRow b, string column) => Equals(a[column], b[column]);

    private static string KeyOf(AnswerRow row) => $"{row["name"]} {row["born"]}";

    private static IEnumerable<string> Sorted(IEnumerable<AnswerRow> rows) =>
        rows.Select(row => $"{KeyOf(row)} {row["shirt"]}").Order(StringComparer.Ordinal);

    private static AnswerRow Person(string name, int born, string shirt) =>
        new(
            new Dictionary<string, Answer?>
            {
                ["name"] = new PersonNameAnswer(name, "Pell"),
                ["born"] = new DateAnswer(new LocalDate(2019, 1, born)),
                ["shirt"] = new TextAnswer(shirt),
            }
        );

    private static AnswerRow Sign(string says, int wide) =>
        new(new Dictionary<string, Answer?> { ["says"] = new TextAnswer(says), ["wide"] = new NumberAnswer(wide) });
}
