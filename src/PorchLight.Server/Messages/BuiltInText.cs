using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Forms;

namespace PorchLight.Server.Messages;

/// <summary>What the business, or one form, wants a message of the program to say; without a row it is as it comes.</summary>
internal sealed class BuiltInText
{
    public required Id<BuiltInText> Id { get; init; }

    /// <summary>The form whose words they are; null for the business's.</summary>
    public required Id<Form>? FormId { get; init; }
    public required BuiltInMessage Kind { get; init; }
    public required Wording Wording { get; set; }

    /// <summary>The words; kept also while it is switched off.</summary>
    public required MessageTemplate Message { get; set; }
}
