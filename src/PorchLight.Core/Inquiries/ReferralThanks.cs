using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Inquiries;

/// <summary>The task to thank a person who sent somebody.</summary>
/// <param name="Title">What stands on it; at most <see cref="LongestTitle"/> characters.</param>
/// <param name="On">The day it is for; null where no working day comes within the next 400 days.</param>
public sealed record ReferralThanks(string Title, LocalDate? On)
{
    /// <summary>The most characters of a title; what is longer ends there.</summary>
    public const int LongestTitle = 200;

    /// <summary>
    /// Whom to thank where an inquiry says how they found the business: for the next working day, with what they wrote where that says
    /// more than the name of the way does.
    /// </summary>
    /// <param name="written">How they found the business, in their words or as an option says it.</param>
    /// <param name="client">Who asks, as they are called.</param>
    /// <param name="lists">The lists of the business, which know what is a referral.</param>
    /// <param name="calendar">When it works.</param>
    /// <param name="today">The day it is there.</param>
    /// <returns>Null where nobody sent them, or where the words name none of the ways of the list.</returns>
    public static ReferralThanks? For(string written, string client, BusinessLists lists, BusinessCalendar calendar, LocalDate today)
    {
        if (lists.SourceCalled(written) is not { IsReferral: true } way)
            return null;
        var saysMore = !string.Equals(way.Name, written.Trim(), StringComparison.OrdinalIgnoreCase);
        var title = $"Thank who sent {client}" + (saysMore ? $": {written.Trim()}" : "");
        return new ReferralThanks(UnicodeText.Start(title, LongestTitle), calendar.WorkingDaysAfter(today, 1));
    }
}
