using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// Starts each year on a day counted from the same day of a person: a birthday, the day they became a client. The first time a year after
/// the day itself; 29 February is kept on the 28th in years without one (<see cref="AnnualDate"/>).
/// </summary>
/// <param name="Field">The key of a field of clients that holds a date.</param>
/// <param name="Days">How many days later; negative for earlier.</param>
[Kind("yearlyDate")]
public sealed record YearlyDateStart(string Field, int Days) : DatedStart(Field, Days)
{
    /// <inheritdoc/>
    public override bool Comes(LocalDate date, LocalDate day)
    {
        var counted = day.PlusDays(-Days);
        return counted.Year > date.Year && new AnnualDate(date.Month, date.Day).InYear(counted.Year) == counted;
    }

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => $"{base.Say(names)}, each year";

    /// <inheritdoc/>
    public override string? Check(FollowThroughSurroundings around) => Check(RecordScope.Client, "clients", around);
}
