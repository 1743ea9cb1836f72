using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.FollowThrough;

/// <summary>Writes a value into a field of the client or the project.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Value">The value; null for the day on which it is written.</param>
[Kind("fillField")]
public sealed record FillField(string Field, Answer? Value) : OutsideAction
{
    /// <summary>Whether a step can write into fields of a kind: words, yes or no, or the day on which it is done.</summary>
    /// <param name="kind">The kind of the field.</param>
    public static bool CanFill(FieldKind kind) => kind is FieldKind.Text or FieldKind.LongText or FieldKind.Date or FieldKind.YesNo;

    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) =>
        $"“{names.Field(Field)}” is set to {(Value is null ? "that day" : $"“{AnswerWords.Say(Value)}”")}";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        around.Fields.GetValueOrDefault(Field) is not { Archived: false } field ? "Choose the field it sets."
        : !CanFill(field.Kind) ? "A step cannot write into this field. Choose one for words, for a day, or for yes and no."
        : Value is null && field.Kind != FieldKind.Date ? "Only a field for dates can hold the day. Say what it is set to."
        : null;

    /// <inheritdoc/>
    public override bool NeedsClient() => true;
}
