using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Permission to send advertising. It is asked apart from every other agreement, and never required.</summary>
/// <param name="Statement">What is permitted.</param>
[QuestionKindName("advertising", "Permission to advertise")]
public sealed record AdvertisingKind(string Statement) : AgreementKind(Statement)
{
    /// <inheritdoc/>
    public override string Describe() => "Permission to advertise";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.None;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.YesNo;

    internal override string MissingSentence() => "Please answer this.";
}
