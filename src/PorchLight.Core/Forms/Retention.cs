using NodaTime;

namespace PorchLight.Core.Forms;

/// <summary>How long what people began is kept. All of it counts in real time.</summary>
public static class Retention
{
    /// <summary>How long a file of people that was looked at waits to be brought in; in the business's time.</summary>
    public static readonly Duration LookedAtImport = Duration.FromHours(24);

    /// <summary>How long what was carried and says nothing of a client is kept: mail of the program, practice mail, calls of webhooks.</summary>
    public static readonly Duration CarriedMail = Duration.FromDays(90);

    /// <summary>How long an upload waits for its form to be sent.</summary>
    public static readonly Duration UnsentUpload = Duration.FromHours(24);

    /// <summary>How long the link of a filling-in goes on saying how it ended, when the answers behind it are gone.</summary>
    public static readonly Duration EndOfUnfinished = Duration.FromDays(365);

    /// <summary>How long a personal link is good when nobody says otherwise.</summary>
    public static readonly Duration PersonalLink = Duration.FromDays(60);

    /// <summary>Until when a filling-in is kept that somebody wants to finish later; every save begins anew.</summary>
    /// <param name="saved">When it was saved.</param>
    /// <param name="days">For how many days the business keeps them.</param>
    public static Instant UnfinishedUntil(Instant saved, int days) => saved + Duration.FromDays(days);

    /// <summary>Whether something has run out: at its last instant it is still good.</summary>
    /// <param name="goodUntil">The last instant.</param>
    /// <param name="now">The instant of asking.</param>
    public static bool HasRunOut(Instant goodUntil, Instant now) => goodUntil < now;
}
