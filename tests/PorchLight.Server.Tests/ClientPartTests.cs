using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.Common;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests;

/// <summary>Each area answers for what it keeps of clients.</summary>
public sealed class ClientPartTests
{
    /// <summary>What hangs on a row of a client and goes with it by a foreign key, and holds no word of theirs.</summary>
    private static readonly Type[] HoldNoWord = [typeof(ProjectWatcher), typeof(ClientImportFile)];

    [Fact]
    public async Task Every_table_with_a_client_and_every_one_that_hangs_on_such_a_table_is_answered_for()
    {
        await using var app = new TestApp();
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        var rows = scope.ServiceProvider.GetServices<IClientPart>().SelectMany(part => part.RowsOf(WholePerson.Nobody)).ToList();
        var kept = rows.Select(one => one.Table).ToHashSet();

        var named = db
            .Model.GetEntityTypes()
            .Where(type =>
                type.GetProperties()
                    .Any(property => (Nullable.GetUnderlyingType(property.ClrType) ?? property.ClrType) == typeof(Id<Client>))
            )
            .ToList();
        named.Count.ShouldBeGreaterThan(15);
        named.Select(type => type.ClrType).Except(kept).ShouldBeEmpty("Say in the area's IClientPart what becomes of these rows.");
        db.Model.GetEntityTypes()
            .Where(type => type.GetForeignKeys().Any(key => kept.Contains(key.PrincipalEntityType.ClrType) && !key.IsOwnership))
            .Select(type => type.ClrType)
            .Except(kept)
            .ShouldBe(HoldNoWord, ignoreOrder: true);

        foreach (var table in rows.Where(one => one.WhenMerged == WhenMerged.GoesOver).Select(one => db.Model.FindEntityType(one.Table)!))
        {
            table.FindProperty(nameof(Note.ClientId)).ShouldNotBeNull(table.Name);
            table.FindPrimaryKey()!.Properties.Count.ShouldBe(1, table.Name);
        }
    }
}
