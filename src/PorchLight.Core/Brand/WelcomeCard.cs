using PorchLight.Core.Common;

namespace PorchLight.Core.Brand;

/// <summary>Who welcomes people on the cover of forms.</summary>
/// <param name="Photo">The identifier of a stored picture of the owner, or null.</param>
/// <param name="ContactLines">How to reach them, line by line; may be empty.</param>
public sealed record WelcomeCard(Guid? Photo, string ContactLines)
{
    private const int Longest = 400;
    private const int MostLines = 6;

    /// <summary>What has to be put right, by the place of each value.</summary>
    public IReadOnlyList<Finding> Check() =>
        ContactLines.Length > Longest || ContactLines.Trim().Split('\n').Length > MostLines
            ? [new Finding("contactLines", $"Up to {MostLines} short lines fit on a cover.")]
            : [];
}

/// <summary>How long the business keeps what nobody has sent, and clients with whom nothing happens any more.</summary>
/// <param name="UnfinishedDays">Days a half-finished form is kept for somebody who wants to go on later; 1 to 365.</param>
/// <param name="ClientMonths">Months the records of a client are kept after something happened with them last; null for good.</param>
public sealed record Keeping(int UnfinishedDays, int? ClientMonths)
{
    private const int FewestMonths = 1;
    private const int MostMonths = 240;
    private static readonly Finding[] NoFindings = [];

    /// <summary>What has to be put right, by the place of each value.</summary>
    public IReadOnlyList<Finding> Check() =>
        [
            .. UnfinishedDays is < 1 or > 365 ? [new Finding("unfinishedDays", "Between 1 and 365 days make sense here.")] : NoFindings,
            .. ClientMonths is < FewestMonths or > MostMonths
                ?
                [
                    new Finding(
                        "clientMonths",
                        $"Between {FewestMonths} and {MostMonths} months make sense here. Leave it empty to keep everyone."
                    ),
                ]
                : NoFindings,
        ];
}
