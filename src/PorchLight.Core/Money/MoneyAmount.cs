using System.Globalization;

namespace PorchLight.Core.Money;

/// <summary>An amount of one currency.</summary>
/// <param name="Amount">In units of the currency (euro, not cent).</param>
/// <param name="Currency">The ISO 4217 code in capitals.</param>
public sealed record MoneyAmount(decimal Amount, string Currency)
{
    /// <summary>The amount with thousands separators and the code: <c>4,000 EUR</c>; decimals only where there are any.</summary>
    public override string ToString() =>
        Amount.ToString(Amount == decimal.Truncate(Amount) ? "N0" : "N2", CultureInfo.InvariantCulture) + " " + Currency;
}
