namespace PorchLight.Core.Common;

/// <summary>Tells the mail of a house of one's own from that of providers open to everybody.</summary>
public static class MailDomains
{
    // Common practice, no source: those most private people of Europe and North America have their address with.
    private static readonly HashSet<string> OpenToEverybody =
    [
        .. (
            "aol.com bigpond.com bluewin.ch btinternet.com comcast.net eircom.net fastmail.com free.fr freenet.de gmail.com "
            + "gmx.at gmx.ch gmx.com gmx.de gmx.net googlemail.com hotmail.co.uk hotmail.com hotmail.de hotmail.fr hotmail.it "
            + "icloud.com laposte.net libero.it live.co.uk live.com live.ie mac.com mail.com mail.ru me.com msn.com orange.fr outlook.com "
            + "outlook.de outlook.fr outlook.ie posteo.de proton.me protonmail.com qq.com seznam.cz sfr.fr sky.com t-online.de telenet.be "
            + "tuta.com tutanota.com verizon.net virginmedia.com wanadoo.fr web.de wp.pl xs4all.nl yahoo.ca yahoo.co.uk yahoo.com yahoo.de "
            + "yahoo.fr yahoo.ie yahoo.it yandex.com yandex.ru ziggo.nl zoho.com"
        ).Split(' '),
    ];

    /// <summary>The domain of an address, in small letters, or null when anybody can have an address there.</summary>
    /// <param name="address">An e-mail address, or null.</param>
    public static string? OwnDomain(string? address) =>
        address is not null
        && address.LastIndexOf('@') is >= 0 and var at
        && address[(at + 1)..].ToLowerInvariant() is { Length: > 0 } domain
            ? OpenToEverybody.Contains(domain)
                ? null
                : domain
            : null;
}
