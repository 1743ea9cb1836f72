using CsCheck;
using NodaTime;
using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.Messages;

public sealed class MailDeliveryTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 10, 0);
    private static readonly HandOver.Refused ComeBackLater = new("Please come back later.");

    [Fact]
    public void A_refusal_is_tried_again_after_pauses_that_double_and_given_up_at_the_eighth_try()
    {
        var pauses = Enumerable
            .Range(1, 7)
            .Select(tries => MailDelivery.After(ComeBackLater, tries, "Your wall", Now).NextTry!.Value - Now);
        pauses.ShouldBe(new[] { 1, 2, 4, 8, 16, 32, 64 }.Select(minutes => Duration.FromMinutes(minutes)));
        MailDelivery
            .After(ComeBackLater, 8, "Your wall", Now)
            .ShouldBe(new DeliveryStep(MailState.Failed, ComeBackLater.Why, null, new DeliveryFailed("Your wall", ComeBackLater.Why)));
    }

    [Fact]
    public void What_is_refused_for_good_is_not_tried_again() =>
        MailDelivery.After(ComeBackLater with { ForGood = true }, 1, "Your wall", Now).State.ShouldBe(MailState.Failed);

    [Fact]
    public void What_may_have_arrived_waits_for_a_person()
    {
        var step = MailDelivery.After(new HandOver.Unsure(), 1, "Your wall", Now);
        (step.State, step.NextTry, step.Says).ShouldBe((MailState.PerhapsSent, null, new PerhapsDelivered("Your wall")));
    }

    [Fact]
    public void What_was_taken_leaves_no_failure_behind() =>
        MailDelivery.After(new HandOver.Taken(), 3, "Your wall", Now).ShouldBe(new DeliveryStep(MailState.HandedOver, null, null, null));

    [Fact]
    public void Whatever_the_server_says_a_message_goes_at_most_once_and_ends_within_eight_tries() =>
        Gen.Int[0, 5]
            .Select(said =>
                said switch
                {
                    0 => new HandOver.Taken(),
                    1 => new HandOver.Unsure(),
                    2 => ComeBackLater with { ForGood = true },
                    _ => (HandOver)ComeBackLater,
                }
            )
            .Array[8]
            .Sample(server =>
            {
                var (at, tries, took) = (Now, 0, 0);
                DeliveryStep step;
                do
                {
                    var says = server[tries++];
                    took += says is HandOver.Taken or HandOver.Unsure ? 1 : 0;
                    step = MailDelivery.After(says, tries, "Your wall", at);
                    at = step.NextTry ?? at;
                } while (step.NextTry is not null);

                took.ShouldBeLessThanOrEqualTo(1);
                // Found by looking at what the server said, without walking: the first word that is no "later" decides.
                var last = Array.FindIndex(server, says => says != ComeBackLater);
                tries.ShouldBe(last < 0 ? 8 : last + 1);
                step.State.ShouldBe(
                    last < 0 ? MailState.Failed
                    : server[last] is HandOver.Taken ? MailState.HandedOver
                    : server[last] is HandOver.Unsure ? MailState.PerhapsSent
                    : MailState.Failed
                );
                (step.Says is null).ShouldBe(step.State == MailState.HandedOver, "only a person's business is told");
                // One minute, two, four ...: all pauses before the last try together are one less than the next.
                (at - Now).ShouldBe(Duration.FromMinutes((1 << (tries - 1)) - 1));
            });
}
