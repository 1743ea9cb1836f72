using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Agreement to something that has to be agreed to. What was agreed to is kept word for word.</summary>
/// <param name="Statement">What is agreed to.</param>
[QuestionKindName("consent", "Agreement to something")]
public sealed record ConsentKind(string Statement) : AgreementKind(Statement)
{
    /// <inheritdoc/>
    public override string Describe() => "Agreement";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.MayBeRequired;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => false;

    internal override string MissingSentence() => "We need your agreement to this before we can go on.";
}
