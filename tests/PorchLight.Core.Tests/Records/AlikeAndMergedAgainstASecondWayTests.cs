using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

/// <summary>Who is perhaps the same, and what one record of two holds, against what somebody with two index cards would say.</summary>
public sealed class AlikeAndMergedAgainstASecondWayTests
{
    private static readonly string Open = MailDomains.OpenToEverybody.First();

    private static readonly Gen<ClientTraits> Somebody = Gen.Select(
        RandomForms.Pick("Martha Lee", "Marhta Lee", "MARTHA LEE", "Dwayne Roe", "Duane Roe", "Dixon", "Dicksonx", null),
        RandomForms.Pick("a@lee.example", "b@lee.example", "a@roe.example", $"a@{Open}", $"b@{Open}", null),
        RandomForms.Pick("+35315550142", "+35315550199", null),
        RandomForms.Pick("D05 X2Y9", "d05x2y9", "D06", "-", null),
        (name, email, phone, postal) => new ClientTraits(name, email, phone, postal)
    );

    [Fact]
    public void Two_cards_are_alike_as_somebody_reading_the_rules_line_by_line_would_say() =>
        Gen.Select(Somebody, Somebody).Sample((a, b) => ClientLikeness.Between(a, b).ShouldBe(ByTheRules(a, b)));

    private static Likeness? ByTheRules(ClientTraits a, ClientTraits b)
    {
        var found = new List<Likeness>();
        if (a.EmailKey != null && b.EmailKey != null && a.EmailKey.Equals(b.EmailKey, StringComparison.Ordinal))
            found.Add(Likeness.SameEmail);
        if (a.Phone != null && b.Phone != null && a.Phone.Equals(b.Phone, StringComparison.Ordinal))
            found.Add(Likeness.SamePhone);
        if (a.Name != null && b.Name != null && JaroWinkler.Similarity(a.Name.ToLowerInvariant(), b.Name.ToLowerInvariant()) >= 0.92)
        {
            var (one, two) = (Letters(a.PostalCode), Letters(b.PostalCode));
            if (one.Length > 0 && one == two)
                found.Add(Likeness.AlikeNameSamePostalCode);
            var (here, there) = (Domain(a.EmailKey), Domain(b.EmailKey));
            if (here.Length > 0 && here == there && here != Open)
                found.Add(Likeness.AlikeNameSameMailDomain);
        }

        return found.Count > 0 ? found.Min() : null;
    }

    private static string Letters(string? code) => new([.. (code ?? "").ToLowerInvariant().Where(char.IsLetterOrDigit)]);

    private static string Domain(string? email) => email?.Split('@')[1] ?? "";

    private static readonly FieldCatalogue Fields = new([
        new Field("client.word", "Word", FieldKind.Text),
        new Field("client.money", "Money", FieldKind.Money),
        new Field("client.list", "List", FieldKind.Rows)
        {
            Columns = [new FieldColumn("what", "What", FieldKind.Text), new FieldColumn("size", "Size", FieldKind.Number)],
        },
        new Field("project.word", "Word", FieldKind.Text),
    ]);

    private static readonly Gen<Dictionary<string, Answer>> Card = Gen.Select(
        RandomForms.Pick<string?>(null, "oak", "Oak ", "ash"),
        RandomForms.Pick<decimal?>(null, 100, 200),
        Gen.Select(Gen.Int[0, 3], Gen.Int[0, 1]).Array[0, 3],
        (word, money, rows) =>
        {
            var card = new Dictionary<string, Answer>
            {
                ["project.word"] = new TextAnswer("no matter"),
                ["client.gone"] = new TextAnswer("gone"),
            };
            if (word is not null)
                card["client.word"] = new TextAnswer(word);
            if (money is { } amount)
                card["client.money"] = new MoneyAnswer(amount, "EUR");
            if (rows.Length > 0)
                card["client.list"] = new RowsAnswer([
                    .. rows.DistinctBy(row => row.Item1)
                        .Select(row => new AnswerRow(
                            new Dictionary<string, Answer?>
                            {
                                ["what"] = new TextAnswer($"w{row.Item1}"),
                                ["size"] = new NumberAnswer(row.Item2),
                            }
                        )),
                ]);
            return card;
        }
    );

    [Fact]
    public void One_card_is_written_of_two_and_where_they_differ_somebody_is_asked() =>
        Gen.Select(Card, Card, Gen.Bool)
            .Sample(
                (kept, other, takesTheirs) =>
                {
                    var plan = ClientMerging.Plan(
                        kept,
                        other,
                        Fields,
                        takesTheirs ? new HashSet<string> { "client.word", "client.money", "client.list" } : []
                    );
                    var asked = new List<string>();
                    foreach (var field in new[] { "client.word", "client.money" })
                    {
                        var (ours, theirs) = (kept.GetValueOrDefault(field), other.GetValueOrDefault(field));
                        var differ = ours is not null && theirs is not null && Plain(ours) != Plain(theirs);
                        if (differ)
                            asked.Add(field);
                        var wanted =
                            theirs is null ? null
                            : ours is null ? theirs
                            : differ && takesTheirs ? theirs
                            : null;
                        plan.Writes.GetValueOrDefault(field).ShouldBe(wanted, field);
                    }

                    var (mine, yours) = (Rows(kept), Rows(other));
                    // A row is one by its words; one that says another size is no addition.
                    var clashes = yours.Any(row => mine.Any(one => one["what"]!.Equals(row["what"]) && !one["size"]!.Equals(row["size"])));
                    var added = yours.Where(row => !mine.Any(one => one["what"]!.Equals(row["what"]))).ToList();
                    if (mine.Count > 0 && clashes)
                        asked.Add("client.list");
                    plan.Conflicts.Select(conflict => conflict.Field).ShouldBe(asked, ignoreOrder: true);
                    if (!(mine.Count > 0 && clashes))
                        plan.Writes.GetValueOrDefault("client.list")
                            .ShouldBe(added.Count == 0 ? null : new RowsAnswer([.. mine, .. added]));
                    plan.Writes.Keys.ShouldAllBe(key => key.StartsWith("client.") && key != "client.gone");
                }
            );

    private static string Plain(Answer answer) =>
        answer switch
        {
            TextAnswer text => text.Text.Trim().ToLowerInvariant(),
            MoneyAnswer money => money.Amount.ToString(System.Globalization.CultureInfo.InvariantCulture),
            _ => throw new ArgumentOutOfRangeException(nameof(answer)),
        };

    private static IReadOnlyList<AnswerRow> Rows(Dictionary<string, Answer> card) =>
        (card.GetValueOrDefault("client.list") as RowsAnswer)?.Rows ?? [];
}
