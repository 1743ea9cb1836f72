using CsCheck;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class ClientRecognitionTests
{
    private static readonly Guid Tilda = Guid.CreateVersion7();
    private static readonly Guid Robin = Guid.CreateVersion7();
    private static readonly Contact ByMail = new(null, " Tilda@Bakes.Example ", null);

    [Fact]
    public void A_personal_link_counts_more_than_the_address_they_give()
    {
        ClientRecognition.LookFor(ByMail, Robin).ShouldBe(new ClientLookup(Robin, null));
        ClientRecognition.LookFor(ByMail, null).ShouldBe(new ClientLookup(null, "tilda@bakes.example"));
        ClientRecognition.LookFor(new Contact(null, null, new PhoneAnswer("+353 1 555 0100")), null).ShouldBe(new ClientLookup(null, null));
    }

    [Fact]
    public void Anyone_can_type_an_address_so_only_a_link_of_their_own_shows_who_they_are()
    {
        ClientRecognition.Trust(knownBefore: true, Tilda, null).ShouldBe(LandingTrust.Claims);
        ClientRecognition.Trust(knownBefore: true, Tilda, Robin).ShouldBe(LandingTrust.Claims);
        ClientRecognition.Trust(knownBefore: true, Tilda, Tilda).ShouldBe(LandingTrust.OwnLink);
        ClientRecognition.Trust(knownBefore: false, Tilda, null).ShouldBe(LandingTrust.NewClient);
    }

    [Fact]
    public void An_inquiry_joins_the_work_its_form_is_about()
    {
        var (walls, signs) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var early = new OpenProject(Guid.CreateVersion7(), walls, "A mural", Instant.FromUtc(2026, 11, 1, 9, 0));
        var late = new OpenProject(Guid.CreateVersion7(), signs, null, Instant.FromUtc(2026, 11, 2, 9, 0));
        var byHand = new OpenProject(Guid.CreateVersion7(), null, "a mural", Instant.FromUtc(2026, 11, 3, 9, 0));
        OpenProject[] inHand = [late, early];
        ProjectJoining.Joined(ProjectAssignment.WorkInHand, walls, null, inHand).ShouldBe(late, "the newest, whichever form it came by");
        ProjectJoining.Joined(ProjectAssignment.NewWorkOrMore, walls, null, inHand).ShouldBe(early);
        ProjectJoining.Joined(ProjectAssignment.NewWorkOrMore, Guid.CreateVersion7(), null, inHand).ShouldBeNull();
        ProjectJoining
            .Joined(ProjectAssignment.NewWorkOrMore, Guid.CreateVersion7(), "A mural", inHand)
            .ShouldBe(early, "the same service");
        ProjectJoining.Joined(ProjectAssignment.NewWorkOrMore, walls, "A mural", [byHand, early]).ShouldBe(byHand, "begun by hand");
        ProjectJoining.Joined(ProjectAssignment.NewWork, walls, "A mural", inHand).ShouldBeNull();
        ProjectJoining.Joined(ProjectAssignment.WorkInHand, walls, null, []).ShouldBeNull();
    }

    [Fact]
    public void Of_any_work_in_hand_an_inquiry_joins_what_would_be_found_by_going_through_it_from_the_oldest() =>
        Gen.Select(
                Gen.Select(Gen.Int[0, 2], Gen.Int[0, 3], Gen.Int[0, 2]).Array[0, 8],
                Gen.Int[0, 2],
                Gen.Int[0, 2],
                Gen.Enum<ProjectAssignment>()
            )
            .SelectMany(
                (works, form, service, about) =>
                    Gen.Shuffle(Enumerable.Range(0, works.Length).ToArray()).Select(order => (works, form, service, about, order))
            )
            .Sample(sample =>
            {
                var all = sample
                    .works.Select(
                        (work, index) =>
                            new OpenProject(
                                Numbered(index),
                                work.Item1 == 0 ? null : Numbered(work.Item1),
                                Service(work.Item3),
                                Instant.FromUnixTimeSeconds(work.Item2)
                            )
                    )
                    .ToList();
                OpenProject? newest = null;
                for (var second = 0; second <= 3; second++)
                {
                    foreach (var work in all.Where(work => work.Opened == Instant.FromUnixTimeSeconds(second)))
                    {
                        if (sample.about == ProjectAssignment.WorkInHand)
                            newest = work;
                        if (sample.about == ProjectAssignment.NewWorkOrMore && work.Form == Numbered(sample.form))
                            newest = work;
                        if (
                            sample.about == ProjectAssignment.NewWorkOrMore
                            && sample.service > 0
                            && work.Service == Service(sample.service)
                        )
                            newest = work;
                    }
                }

                ProjectJoining
                    .Joined(sample.about, Numbered(sample.form), Service(sample.service), sample.order.Select(index => all[index]))
                    .ShouldBe(newest);
            });

    private static string? Service(int number) => number == 0 ? null : $"Service {number}";

    private static Guid Numbered(int number) => new(number, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0);

    private sealed record Written(Guid Key, string Field, Answer Value, Instant At) : IWrittenValue;

    [Fact]
    public void What_stands_on_file_is_what_was_written_last_whatever_order_it_is_read_in() =>
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 3])
            .Array[1, 12]
            .SelectMany(writes => Gen.Shuffle(Enumerable.Range(0, writes.Length).ToArray()).Select(order => (writes, order)))
            .Sample(sample =>
            {
                // A second way: write them down one after the other, each over what stood there, oldest first.
                var rows = sample
                    .writes.Select(
                        (write, index) =>
                            new Written(
                                Numbered(index),
                                $"field {write.Item1}",
                                new NumberAnswer(index),
                                Instant.FromUnixTimeSeconds(write.Item2)
                            )
                    )
                    .ToList();
                var stands = new Dictionary<string, Answer>();
                for (var second = 0; second <= 3; second++)
                {
                    foreach (var row in rows.Where(row => row.At == Instant.FromUnixTimeSeconds(second)))
                        stands[row.Field] = row.Value;
                }

                ValuesOnFile.Read(sample.order.Select(index => rows[index])).ShouldBe(stands, ignoreOrder: true);
            });
}
