using System.Globalization;

namespace PorchLight.Core.Money;

/// <summary>An amount of one currency.</summary>
/// <param name="Amount">In units of the currency (euro, not cent).</param>
/// <param name="Currency">The ISO 4217 code in capitals.</param>
public sealed record MoneyAmount(decimal Amount, string Currency)
{
    /// <summary>
    /// The amount with thousands separators and the code: <c>4,000 EUR</c>, <c>1,234.500 KWD</c>; decimals only where there are any, and
    /// then as many as the smallest unit of the currency has. One with more decimals than that is said in full.
    /// </summary>
    public override string ToString()
    {
        var decimals = Amount == decimal.Truncate(Amount) ? 0 : Math.Max(Currencies.MinorUnits(Currency), DecimalsOf(Amount));
        return $"{Amount.ToString($"N{decimals}", CultureInfo.InvariantCulture)} {Currency}";
    }

    // Zeros at the end say nothing.
    private static int DecimalsOf(decimal amount) => (amount / 1.0000000000000000000000000000m).Scale;
}
