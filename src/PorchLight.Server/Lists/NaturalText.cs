using PorchLight.Core.Common;

namespace PorchLight.Server.Lists;

/// <summary>A text that is in order as a person would put it; for rows in memory.</summary>
internal readonly record struct NaturalText(string Text) : IComparable<NaturalText>
{
    public int CompareTo(NaturalText other) => NaturalOrder.Instance.Compare(Text, other.Text);
}
