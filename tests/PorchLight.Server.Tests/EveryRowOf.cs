using System.Runtime.CompilerServices;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests;

/// <summary>
/// Makes a client with rows of every table that holds something of clients, filled by the model: a table that is added is filled, too. All
/// words in them are the same word, so that it can be looked for afterwards.
/// </summary>
internal sealed class EveryRowOf(PorchDb db, string word, string email)
{
    private static readonly string[] Addresses = ["Email", "EmailKey", "MailedTo", "To", "From"];
    private readonly Dictionary<Type, object> _own = [];
    private static long _numbers = 1_000_000;

    /// <summary>Adds a row to each of some tables, those first on which others hang; of what happened one of every kind.</summary>
    /// <param name="tables">The tables, by what they hold.</param>
    /// <returns>The client.</returns>
    public async Task<Id<Client>> AddAsync(IEnumerable<Type> tables)
    {
        var left = tables.ToHashSet();
        while (left.Count > 0)
        {
            // Where two hang on each other, one of them can do without.
            var next =
                left.FirstOrDefault(table => !Waits(table, key => true)) ?? left.First(table => !Waits(table, key => key.IsRequired));
            left.Remove(next);
            if (next == typeof(LoggedEvent))
                foreach (var what in SampleValues.EachOf(typeof(DomainEvent)).Cast<DomainEvent>())
                    await AddRowAsync(next, what);
            else
                await AddRowAsync(next, null);
        }

        return Client.Id;

        bool Waits(Type table, Func<IForeignKey, bool> on) =>
            EntityOf(table)
                .GetForeignKeys()
                .Any(key => on(key) && key.PrincipalEntityType.ClrType != table && left.Contains(key.PrincipalEntityType.ClrType));
    }

    private Client Client => (Client)_own[typeof(Client)];

    private IEntityType EntityOf(Type table) => db.Model.FindEntityType(table)!;

    private async Task AddRowAsync(Type table, DomainEvent? what)
    {
        var entity = EntityOf(table);
        var row = RuntimeHelpers.GetUninitializedObject(table);
        foreach (var property in entity.GetProperties().Where(property => property.PropertyInfo is not null))
            property.PropertyInfo!.SetValue(row, Any(property, what));
        foreach (var key in entity.GetForeignKeys())
        {
            var of = key.PrincipalEntityType.ClrType;
            var isAnother = of == typeof(Client) && key.Properties[0].Name is "OtherId";
            var principal = isAnother
                ? await db.Clients.FirstAsync(one => one.Id != Client.Id)
                : _own.GetValueOrDefault(of) ?? (key.IsRequired ? await FirstAsync(of) : null);
            for (var n = 0; n < key.Properties.Count; n++)
                key.Properties[n]
                    .PropertyInfo!.SetValue(
                        row,
                        principal is null ? null : key.PrincipalKey.Properties[n].PropertyInfo!.GetValue(principal)
                    );
        }

        db.Add(row);

        if (what is null)
            _own.TryAdd(table, row);
        await db.CurrentWrite!.FlushAsync(CancellationToken.None);
    }

    private async Task<object> FirstAsync(Type table)
    {
        var all = (IQueryable<object>)typeof(DbContext).GetMethod(nameof(DbContext.Set), [])!.MakeGenericMethod(table).Invoke(db, null)!;
        if (await all.FirstOrDefaultAsync() is { } there)
            return there;
        // What is nobody's says nothing of them.
        await new EveryRowOf(db, "Somebody", "somebody@else.example").AddRowAsync(table, null);
        return await all.FirstAsync();
    }

    private object? Any(IProperty property, DomainEvent? what)
    {
        var type = Nullable.GetUnderlyingType(property.ClrType) ?? property.ClrType;
        // A run that is over asks nothing of a version that has other steps.
        if (
            property.DeclaringType.ClrType == typeof(Run)
            && property.Name is nameof(Run.Active) or nameof(Run.NextMoment) or nameof(Run.NodStatus)
        )
            return property.Name == nameof(Run.Active) ? false : null;
        return type switch
        {
            _ when what is not null && type == typeof(DomainEvent) => what.OutlivesErasing() ? what : Worded(what, type),
            _ when property.DeclaringType.ClrType == typeof(LoggedEvent) && property.Name == nameof(LoggedEvent.Kind) => what!.Kind(),
            _ when type == typeof(string) && (property.Name.EndsWith("Hash", StringComparison.Ordinal) || property.Name == "SendOff") =>
                $"{Guid.NewGuid():N}",
            _ when type == typeof(string) => Addresses.Contains(property.Name) ? email : $"{word} {Guid.NewGuid():N}",
            _ when type == typeof(Guid) || type.IsGenericType && type.GetGenericTypeDefinition() == typeof(Id<>) => property.IsPrimaryKey()
            || property.Name == "SendKey"
                ? Identifier(type)
                : null,
            _ when type == typeof(bool) => false,
            _ when type == typeof(long) => Interlocked.Increment(ref _numbers),
            _ when type == typeof(int) => 1,
            _ when type == typeof(double) => 1.0,
            _ when type == typeof(Instant) => Instant.FromUtc(2026, 11, 23, 10, 0),
            _ when type == typeof(LocalDate) => new LocalDate(2027, 2, 28),
            _ when type.IsEnum => Enum.GetValues(type).Cast<object>().Last(),
            _ when property.IsNullable && type.Namespace?.StartsWith("NodaTime", StringComparison.Ordinal) == true => null,
            _ when type.IsGenericType && type.GetGenericTypeDefinition() == typeof(IReadOnlyList<>) => Array.CreateInstance(
                type.GetGenericArguments()[0],
                0
            ),
            _ => Worded(SampleValues.EachOf(type).First(), type),
        };
    }

    private static object Identifier(Type type) =>
        type == typeof(Guid) ? Guid.NewGuid() : Activator.CreateInstance(type, Guid.CreateVersion7())!;

    /// <summary>A sample whose words are the word that is looked for.</summary>
    private object Worded(object? sample, Type type) =>
        JsonSerializer.Deserialize(
            JsonSerializer.Serialize(sample, type, Json.Options).Replace("Laoghaire", word, StringComparison.Ordinal),
            type,
            Json.Options
        )!;
}
