namespace PorchLight.Core.Money;

/// <summary>What ISO 4217 says of currencies.</summary>
public static class Currencies
{
    private static readonly HashSet<string> Whole =
    [
        "BIF",
        "CLP",
        "DJF",
        "GNF",
        "ISK",
        "JPY",
        "KMF",
        "KRW",
        "PYG",
        "RWF",
        "UGX",
        "UYI",
        "VND",
        "VUV",
        "XAF",
        "XOF",
        "XPF",
    ];

    private static readonly HashSet<string> Thousandths = ["BHD", "IQD", "JOD", "KWD", "LYD", "OMN", "TND"];

    /// <summary>How many decimals the smallest unit of a currency has: 2, or 0 (JPY), 3 (KWD) or 4 (CLF, UYW).</summary>
    /// <param name="code">The ISO 4217 code in capitals; an unknown one counts as one with 2.</param>
    public static int MinorUnits(string code) =>
        Whole.Contains(code) ? 0
        : Thousandths.Contains(code) ? 3
        : code is "CLF" or "UYW" ? 4
        : 2;
}
