using CsCheck;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class ClientLikenessTests
{
    private static readonly string Open = MailDomains.OpenToEverybody.First();

    private static readonly ClientTraits Pilar = new("Pilar Ingleby", "pilar@ingleby.example", "+35315550142", "D13 AB12");

    [Fact]
    public void The_same_address_under_an_unlike_name_is_perhaps_a_shared_mailbox() =>
        ClientLikeness.Between(Pilar, new ClientTraits("Oskar Venn", Pilar.EmailKey, null, null)).ShouldBe(Likeness.SameEmail);

    [Fact]
    public void The_same_number_is_perhaps_the_same_person_whatever_the_name() =>
        ClientLikeness.Between(Pilar, new ClientTraits(null, null, Pilar.Phone, null)).ShouldBe(Likeness.SamePhone);

    [Theory]
    [InlineData("Pilar Inglebey", "d13ab12", null, Likeness.AlikeNameSamePostalCode)]
    [InlineData("PILAR INGLÉBY", null, "p.i@ingleby.example", Likeness.AlikeNameSameMailDomain)]
    [InlineData("Pilar Inglebey", "D14", "p.i@elsewhere.example", null)]
    [InlineData("Pedro Ibanez", "D13 AB12", "p.i@ingleby.example", null)]
    [InlineData("Pilar Inglebey", "-", null, null)]
    public void A_name_counts_only_where_something_else_agrees(string name, string? postal, string? email, Likeness? likeness) =>
        ClientLikeness.Between(Pilar, new ClientTraits(name, email, null, postal)).ShouldBe(likeness);

    [Fact]
    public void Mail_from_a_house_open_to_everybody_says_nothing() =>
        ClientLikeness
            .Between(
                new ClientTraits("Pilar Ingleby", $"pilar@{Open}", null, null),
                new ClientTraits("Pilar Ingleby", $"ingleby@{Open}", null, null)
            )
            .ShouldBeNull();

    [Fact]
    public void Without_anything_known_nobody_is_alike() =>
        ClientLikeness.Between(new ClientTraits(null, null, null, null), new ClientTraits(null, null, null, null)).ShouldBeNull();

    private static readonly Gen<ClientTraits> Traits = Gen.Select(
        RandomForms.Pick<string?>(null, "Ann Lee", "Ann Leigh", "Bob Marlow"),
        RandomForms.Pick<string?>(null, "a@lee.example", "b@lee.example", $"a@{Open}", $"b@{Open}"),
        RandomForms.Pick<string?>(null, "+35315550142", "+35315550199"),
        RandomForms.Pick<string?>(null, "D13", "d 13", "D14"),
        (name, email, phone, postal) => new ClientTraits(name, email, phone, postal)
    );

    [Fact]
    public void Whoever_is_alike_shares_a_key_and_it_does_not_matter_who_is_looked_at_first() =>
        Traits
            .Select(Traits)
            .Sample(
                (a, b) =>
                {
                    ClientLikeness.Between(a, b).ShouldBe(ClientLikeness.Between(b, a));
                    if (ClientLikeness.Between(a, b) is not null)
                        a.Keys.Intersect(b.Keys).ShouldNotBeEmpty();
                }
            );

    [Fact]
    public void The_traits_are_read_from_the_records() =>
        ClientTraits
            .Of(
                new Dictionary<string, Answer>
                {
                    ["client.name"] = new PersonNameAnswer("Pilar", "Ingleby"),
                    ["client.email"] = new TextAnswer("Pilar@Ingleby.example"),
                    ["client.phone"] = new PhoneAnswer("01 555 0142", "+35315550142"),
                    ["client.address"] = new AddressAnswer("12 Harbour Row", null, "Howth", null, "D13 AB12", null),
                }
            )
            .Keys.ShouldBe(["mail pilar@ingleby.example", "domain ingleby.example", "phone +35315550142", "postal D13AB12"]);

    [Fact]
    public void Of_several_with_one_address_the_one_with_the_most_similar_name_writes()
    {
        var (ann, bob, older) = (Known("Ann Lee", 2), Known("Bob Marlow", 1), Known("Ann Lee", 0));
        ClientRecognition.Among("Ann Leigh", [ann, bob]).ShouldBe(ann);
        ClientRecognition.Among("Ann Lee", [ann, older]).ShouldBe(older);
        ClientRecognition.Among(null, [ann, bob]).ShouldBe(bob);
        ClientRecognition.Among("Cyd Oakes", [ann, bob]).ShouldBeNull();
        ClientRecognition.Among("Cyd Oakes", [Known(null, 0)]).ShouldNotBeNull();

        static SameAddress Known(string? name, int days) =>
            new(Guid.NewGuid(), name, Instant.FromUtc(2026, 1, 1, 0, 0) + Duration.FromDays(days));
    }

    [Theory]
    [InlineData(Standing.Lead, Standing.Active, Standing.Active)]
    [InlineData(Standing.Past, Standing.Lead, Standing.Past)]
    [InlineData(Standing.Archived, Standing.Lead, Standing.Lead)]
    [InlineData(Standing.Archived, Standing.Archived, Standing.Archived)]
    public void One_person_has_the_standing_that_says_more(Standing a, Standing b, Standing both)
    {
        StandingWords.Closer(a, b).ShouldBe(both);
        StandingWords.Closer(b, a).ShouldBe(both);
    }

    private static readonly FieldCatalogue Fields = new([
        new Field("client.one", "One", FieldKind.Text),
        new Field("client.rows", "Rows", FieldKind.Rows) { Columns = [new FieldColumn("what", "What", FieldKind.Text)] },
        new Field("project.one", "One", FieldKind.Text),
    ]);

    [Fact]
    public void Merging_fills_what_is_empty_brings_rows_together_and_asks_about_the_rest()
    {
        var kept = new Dictionary<string, Answer> { ["client.one"] = new TextAnswer("ours"), ["client.rows"] = Rows("a") };
        var other = new Dictionary<string, Answer>
        {
            ["client.one"] = new TextAnswer("theirs"),
            ["client.rows"] = Rows("b"),
            ["project.one"] = new TextAnswer("no matter here"),
        };
        var plan = ClientMerging.Plan(kept, other, Fields, new HashSet<string>());
        plan.Conflicts.ShouldBe([new MergeConflict("client.one", kept["client.one"], other["client.one"])]);
        plan.Writes.ShouldBe(new Dictionary<string, Answer> { ["client.rows"] = Rows("a", "b") });
        ClientMerging.Plan(kept, other, Fields, new HashSet<string> { "client.one" }).Writes["client.one"].ShouldBe(other["client.one"]);
        ClientMerging.Plan(new Dictionary<string, Answer>(), other, Fields, new HashSet<string>()).Writes.Count.ShouldBe(2);

        static RowsAnswer Rows(params string[] words) =>
            new([.. words.Select(word => new AnswerRow(new Dictionary<string, Answer?> { ["what"] = new TextAnswer(word) }))]);
    }

    private static readonly Gen<Dictionary<string, Answer>> Values = RandomForms
        .Pick<string?>(null, "x", "X ", "y")
        .Select(one => one is null ? [] : new Dictionary<string, Answer> { ["client.one"] = new TextAnswer(one) });

    [Fact]
    public void Nothing_a_record_says_is_lost_unasked_when_it_is_merged() =>
        Gen.Select(Values, Values, Gen.Bool)
            .Sample(
                (kept, other, take) =>
                {
                    var plan = ClientMerging.Plan(kept, other, Fields, take ? ["client.one"] : new HashSet<string>());
                    var after = plan.Writes.GetValueOrDefault("client.one") ?? kept.GetValueOrDefault("client.one");
                    foreach (var value in kept.Values.Concat(other.Values))
                        (FieldValues.IsSame(value, after!) || plan.Conflicts.Count == 1).ShouldBeTrue();
                    if (plan.Conflicts.Count == 1)
                        after.ShouldBe(take ? other["client.one"] : kept["client.one"]);
                }
            );
}
