using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.Messages;

public sealed class ConsentTests
{
    /// <summary>Every way, purpose and permission; a second way is the table itself. Directive 2002/58/EC, article 13, 1, from memory.</summary>
    [Fact]
    public void Advertising_goes_only_to_those_who_permitted_it_and_texts_only_to_those_who_permitted_texts()
    {
        bool?[] said = [null, false, true];
        foreach (var channel in Enum.GetValues<Channel>())
        foreach (var isAdvertising in new[] { false, true })
        foreach (var news in said)
        foreach (var texts in said)
        {
            var wanted = (channel, isAdvertising, news, texts) switch
            {
                (_, true, null or false, _) => Forbidden.News,
                (Channel.Text, _, _, null or false) => Forbidden.Texts,
                _ => (Forbidden?)null,
            };
            Consent
                .Refuse(channel, isAdvertising, new Permissions(news, texts))
                .ShouldBe(wanted, $"{channel} {isAdvertising} {news} {texts}");
        }

        Consent.Refuse(Channel.Mail, isAdvertising: false, new Permissions(false, false)).ShouldBeNull("a word on one's own inquiry");
    }
}
