using PorchLight.Core.Inquiries;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class AsideClientsTests
{
    private static readonly ClientInquiry Spam = new(IsAside: true, KnownBefore: false);
    private static readonly ClientInquiry Real = new(IsAside: false, KnownBefore: false);

    [Fact]
    public void Who_only_stands_in_the_records_because_of_spam_is_kept_apart() =>
        AsideClients.IsAside([Spam, Spam with { KnownBefore = true }]).ShouldBeTrue();

    [Fact]
    public void One_inquiry_that_counts_makes_them_a_client() =>
        AsideClients.IsAside([Spam, Real with { KnownBefore = true }]).ShouldBeFalse();

    [Fact]
    public void Who_was_known_before_stays_whatever_comes_in_under_their_name()
    {
        AsideClients.IsAside([Spam with { KnownBefore = true }]).ShouldBeFalse();
        AsideClients.IsAside([]).ShouldBeFalse();
    }
}
