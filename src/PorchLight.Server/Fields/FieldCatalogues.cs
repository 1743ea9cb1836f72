using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Fields;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Fields;

/// <summary>
/// The fields of the business, read once and kept, for every sending asks for them. Whoever changes a field says so after the
/// write (<see cref="Forget"/>).
/// </summary>
internal sealed class FieldCatalogues
{
    private readonly Lock _lock = new();
    private FieldCatalogue? _known;
    private long _generation;

    public async Task<FieldCatalogue> ReadAsync(PorchDb db)
    {
        db.NoteRead<StoredField>();
        long generation;
        lock (_lock)
        {
            if (_known is not null)
                return _known;
            generation = _generation;
        }

        var fields = await db.Fields.AsNoTracking().OrderBy(field => field.Position).Select(field => field.Field).ToListAsync();
        var read = new FieldCatalogue(fields);
        lock (_lock)
        {
            // What was read before a change is no longer true after it.
            if (generation == _generation)
                _known = read;
        }

        return read;
    }

    public void Forget()
    {
        lock (_lock)
            (_known, _generation) = (null, _generation + 1);
    }
}
