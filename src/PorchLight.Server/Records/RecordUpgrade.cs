using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>Brings records up to date that an earlier release kept.</summary>
internal static class RecordUpgrade
{
    /// <summary>
    /// Marks which value stands in each field and what it is put in order by. Earlier releases found that out whenever they looked; a
    /// business that keeps it already is left alone.
    /// </summary>
    public static async Task UpgradeRecordsAsync(this PorchDb db)
    {
        if (!await db.FieldValues.AnyAsync() || await db.FieldValues.AnyAsync(value => value.IsCurrent))
            return;
        await using var write = await db.WriteAsync(CancellationToken.None);
        var latest = (await db.Projects.Where(project => project.IsLatest).Select(project => project.Id).ToListAsync()).ToHashSet();
        foreach (var record in (await db.FieldValues.ToListAsync()).GroupBy(value => (value.ClientId, value.ProjectId)))
        {
            foreach (var value in ValuesOnFile.Newest(record).Values)
            {
                var order = ValueOrder.Of(value.Value!);
                (value.IsCurrent, value.OrderText, value.OrderNumber) = (true, order.Text, order.Number);
                value.IsListed = value.ProjectId is not { } project || latest.Contains(project);
            }
        }

        foreach (var client in await db.Clients.ToListAsync())
            client.SortName = ValueOrder.Fold(client.Name);
        await write.SaveAsync(CancellationToken.None);
        db.ChangeTracker.Clear();
    }
}
