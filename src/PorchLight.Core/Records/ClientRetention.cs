using NodaTime;

namespace PorchLight.Core.Records;

/// <summary>What the keeping period of the business means for a client today.</summary>
/// <param name="Announced">The day they are erased on, as it is said beforehand; null while nothing is said.</param>
/// <param name="IsOver">Whether they are to be erased now.</param>
public sealed record RetentionState(LocalDate? Announced, bool IsOver);

/// <summary>Decides how long the records of clients are kept with whom nothing happens any more.</summary>
public static class ClientRetention
{
    /// <summary>How many days before it is said.</summary>
    public const int NoticeDays = 7;

    /// <summary>
    /// Nothing is erased that was not announced for a week, also when the business has only just chosen a period; and whenever something
    /// happens with a client, the period begins anew. Clients the business works for are kept.
    /// </summary>
    /// <param name="last">The day on which a person did something last, they or the business; what goes by itself does not count.</param>
    /// <param name="months">The period, counted in calendar months; null keeps everybody.</param>
    /// <param name="standing">How the business stands with them.</param>
    /// <param name="announced">The day that is said so far; null for none.</param>
    /// <param name="today">The day in the business's zone.</param>
    public static RetentionState Of(LocalDate last, int? months, Standing standing, LocalDate? announced, LocalDate today)
    {
        if (months is not { } period || standing == Standing.Active)
            return new RetentionState(null, false);
        var ends = last.PlusMonths(period);
        if (today < ends.PlusDays(-NoticeDays))
            return new RetentionState(null, false);
        var on = LocalDate.Max(announced ?? today.PlusDays(NoticeDays), ends);
        return new RetentionState(on, announced is not null && on <= today);
    }
}
