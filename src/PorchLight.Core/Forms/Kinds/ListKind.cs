using System.Text.Json.Serialization;

namespace PorchLight.Core.Forms;

/// <summary>A list of things, each with the same questions.</summary>
/// <param name="Asks">What each row asks.</param>
/// <param name="Called">What one row is called: "sign".</param>
/// <param name="Least">How many rows there must be.</param>
/// <param name="Most">How many rows there may be; at most 200.</param>
[QuestionKindName("rows", "A list, with questions for each line")]
public sealed record ListKind(IReadOnlyList<Question> Asks, string Called, int Least = 0, int Most = 50) : RowsKind(Least, Most)
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IReadOnlyList<Question> Questions => Asks;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string OneIsCalled => Called;
}
