using System.Text.Json.Serialization;
using PorchLight.Core.Answers;

namespace PorchLight.Core.Forms;

/// <summary>People, each with a name, and a birth date where it matters.</summary>
/// <param name="NameKey">The key of the question for the name.</param>
/// <param name="BornKey">The key of the question for the birth date; null when it is not asked.</param>
/// <param name="More">What else is asked of each.</param>
/// <param name="Called">What one of them is called: "painter".</param>
/// <param name="Least">How many people there must be.</param>
/// <param name="Most">How many people there may be; at most 200.</param>
[QuestionKindName("people", "People")]
public sealed record PeopleKind(
    string NameKey,
    string? BornKey,
    IReadOnlyList<Question> More,
    string Called = "person",
    int Least = 0,
    int Most = 50
) : RowsKind(Least, Most)
{
    private static readonly DateKind Past = new(new DateLimits(ToDays: 0));

    /// <inheritdoc/>
    [JsonIgnore]
    public override IReadOnlyList<Question> Questions =>
        [
            new Question(NameKey, "Name", new PersonNameKind()) { Required = true, Width = ItemWidth.Full },
            .. BornKey is null
                ? Array.Empty<Question>()
                : [new Question(BornKey, "Birth date", Past) { Required = true, Width = ItemWidth.Half }],
            .. More,
        ];

    /// <inheritdoc/>
    [JsonIgnore]
    public override string OneIsCalled => Called;

    internal override IEnumerable<(int Row, string Cell, string Doubt)> DoubtsBetweenRows(
        IReadOnlyList<IReadOnlyDictionary<string, AnswerState>> rows
    )
    {
        var seen = new HashSet<(string, Answer?)>();
        for (var index = 0; index < rows.Count; index++)
        {
            if (
                rows[index].GetValueOrDefault(NameKey).Answer is PersonNameAnswer name
                && !seen.Add((name.Full.ToUpperInvariant(), BornKey is null ? null : rows[index].GetValueOrDefault(BornKey).Answer))
            )
                yield return (index, NameKey, $"{name.Full} is in this list already. Is this someone else of the same name?");
        }
    }
}
