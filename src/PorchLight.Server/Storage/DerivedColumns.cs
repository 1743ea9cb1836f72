namespace PorchLight.Server.Storage;

/// <summary>Columns that follow from others. They are brought up to date with every write, whatever changed the others.</summary>
internal interface IDerivedColumns
{
    /// <summary>Brings them up to date before what a write has changed is saved.</summary>
    Task RefreshAsync(PorchDb db, CancellationToken cancellationToken);
}

/// <summary>All of them.</summary>
internal sealed class DerivedColumns(IEnumerable<IDerivedColumns> columns)
{
    public async Task RefreshAsync(PorchDb db, CancellationToken cancellationToken)
    {
        db.ChangeTracker.DetectChanges();
        foreach (var one in columns)
            await one.RefreshAsync(db, cancellationToken);
    }
}
