using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;

namespace PorchLight.Server.Messages;

/// <summary>A message that is kept to be used again.</summary>
internal sealed class LibraryMessage
{
    public required Id<LibraryMessage> Id { get; init; }
    public required string Name { get; set; }

    /// <summary>The folder it lies in; empty for none.</summary>
    public required string Folder { get; set; }
    public required MessageTemplate Message { get; set; }
    public required Instant Changed { get; set; }
}
