using System.ComponentModel.DataAnnotations.Schema;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;

namespace PorchLight.Server.Inquiries;

/// <summary>One submission by a lead, with its fit, its promise clock, and its project.</summary>
internal sealed class Inquiry
{
    public required Id<Inquiry> Id { get; init; }
    public required Id<Submission> SubmissionId { get; init; }
    public required Id<Form> FormId { get; init; }
    public required int FormVersion { get; init; }
    public required int ScreeningVersion { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project> ProjectId { get; init; }
    public required Instant Received { get; init; }

    /// <summary>How it is sorted today, by the rules or by a person; null where the form sorts nothing.</summary>
    public required Fit? Fit { get; set; }

    /// <summary>How it was judged when it came in, by the screening of that day.</summary>
    public required Verdict Verdict { get; init; }

    /// <summary>What it is about in one line, its points and raised flags: what lists show and are in order of.</summary>
    public required string About { get; set; }
    public required int Score { get; set; }
    public required int Flags { get; set; }

    /// <summary>What the records say that lists show and are in order of; kept true by <see cref="InquiryListColumns"/>.</summary>
    public string SortName { get; set; } = "";
    public string? Service { get; set; }
    public string? Source { get; set; }
    public string? Budget { get; set; }
    public double? BudgetAmount { get; set; }

    /// <summary>
    /// Where its project stands and who looks after it, so that lists need not ask; kept true by <see cref="InquiryListColumns"/>.
    /// </summary>
    public string Stage { get; set; } = "";
    public Guid? LooksAfterId { get; set; }

    /// <summary>What it needs, and where it stands among those who need the same; kept true by <see cref="InquiryListColumns"/>.</summary>
    public InquiryNeed Need { get; private set; }
    public long Urgency { get; private set; }

    /// <summary>Where it stands in a list; kept in columns of its own so that it can be put in order.</summary>
    [NotMapped]
    public InquiryRank Rank
    {
        get => new(Need, Urgency);
        set => (Need, Urgency) = (value.Need, value.Urgency);
    }

    /// <summary>Why it is kept apart and never counts; null where it does.</summary>
    public AsideReason? Aside { get; set; }

    /// <summary>How it reached the business.</summary>
    public InquiryChannel Channel { get; init; }

    /// <summary>Who of the business wrote it down; null where they sent it themselves.</summary>
    public string? WrittenDownBy { get; init; }

    /// <summary>The page the form stood on, or null when it was opened by its link.</summary>
    public required string? CameFrom { get; init; }
    public required bool KnownBefore { get; init; }
    public required Instant? PromisedBy { get; init; }
    public required PromiseClock PromiseClock { get; init; }
    public required int PromiseHours { get; init; }

    /// <summary>When the promise was kept or fell away: a personal reply, a booking, or a no on the page.</summary>
    public Instant? PromiseStopped { get; private set; }
    public Instant? CallAsked { get; set; }

    /// <summary>When they last wrote or got in touch; null when a person has answered since, or they have not.</summary>
    public Instant? WroteBack { get; private set; }

    /// <summary>When a person closed it; null while it is open.</summary>
    public Instant? Closed { get; private set; }

    /// <summary>Whose turn it is; kept in columns of its own so that it can be asked for.</summary>
    [NotMapped]
    public InquiryTurn Turn
    {
        get => new(PromiseStopped, WroteBack, Closed);
        set => (PromiseStopped, WroteBack, Closed) = (value.PromiseStopped, value.WroteBack, value.Closed);
    }

    /// <summary>The month it is for, where the form has limits by month; null elsewhere and for who was turned away.</summary>
    public YearMonth? WantedMonth { get; init; }

    /// <summary>Whether that month was fully booked, so that it stands on the waiting list.</summary>
    public bool Waits { get; set; }
}

/// <summary>A fit that a person chose instead of the one the rules found, which is kept beside it.</summary>
internal sealed class OverruledFit
{
    public required Id<Inquiry> InquiryId { get; init; }
    public required Fit Fit { get; set; }

    /// <summary>Why, in the person's words.</summary>
    public required string Reason { get; set; }
    public required string By { get; set; }
    public required Instant At { get; set; }
}

/// <summary>How an inquiry was judged once more, by a screening that came into force after it.</summary>
internal sealed class LaterVerdict
{
    public required Id<Inquiry> InquiryId { get; init; }
    public required int ScreeningVersion { get; init; }
    public required Verdict Verdict { get; init; }
    public required string By { get; init; }
    public required Instant At { get; init; }
}
