using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Server.Records;

/// <summary>A way to look at the clients, under a name.</summary>
internal sealed class SavedView
{
    public required Id<SavedView> Id { get; init; }
    public required string Name { get; set; }
    public required ClientQuery Query { get; set; }
}
