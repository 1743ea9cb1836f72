namespace PorchLight.Server.Forms;

/// <summary>Where the business's own files are used beside its forms; one for each area that uses some.</summary>
internal interface IFileUse
{
    /// <summary>Each file with a place it is used in, named as a part of a sentence: "the message “Welcome”".</summary>
    Task<IReadOnlyList<(Guid File, string Where)>> UsesAsync(CancellationToken cancellationToken);
}
