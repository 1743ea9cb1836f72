using System.Collections.Concurrent;
using System.Data.Common;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.EntityFrameworkCore.Metadata;

namespace PorchLight.Server.Storage;

/// <summary>
/// Refuses every statement that changes rows outside a <see cref="Write"/>, and tells the write which areas it touches; notes which areas
/// an answer is made of. It reads the statements themselves, so that bulk updates and deletes, which pass the change tracker by, are told
/// like any other, and no query is forgotten.
/// </summary>
internal sealed partial class WriteGuard : DbCommandInterceptor
{
    private static readonly ConcurrentDictionary<string, string?> Areas = new(StringComparer.Ordinal);

    public override InterceptionResult<DbDataReader> ReaderExecuting(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<DbDataReader> result
    ) => Check(command, eventData, result);

    public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<DbDataReader> result,
        CancellationToken cancellationToken = default
    ) => ValueTask.FromResult(Check(command, eventData, result));

    public override InterceptionResult<int> NonQueryExecuting(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<int> result
    ) => Check(command, eventData, result);

    public override ValueTask<InterceptionResult<int>> NonQueryExecutingAsync(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<int> result,
        CancellationToken cancellationToken = default
    ) => ValueTask.FromResult(Check(command, eventData, result));

    private static T Check<T>(DbCommand command, CommandEventData eventData, T result)
    {
        if (eventData.Context is not PorchDb db)
            return result;
        if (eventData.CommandSource is not (CommandSource.SaveChanges or CommandSource.ExecuteUpdate or CommandSource.ExecuteDelete))
        {
            if (db.Areas is { } areas)
                NoteRead(db, command.CommandText, areas);
            return result;
        }

        var write =
            db.CurrentWrite ?? throw new InvalidOperationException("Only a write may change what is stored: begin one with db.WriteAsync.");
        foreach (Match changed in ChangedTable().Matches(command.CommandText))
        {
            if (Areas.GetOrAdd(changed.Groups["table"].Value, table => AreaOf(db.Model, table)) is { } area)
                write.Touch(area);
        }

        return result;
    }

    private static void NoteRead(PorchDb db, string statement, AnswerAreas areas)
    {
        foreach (Match read in ReadTable().Matches(statement))
        {
            if (Areas.GetOrAdd(read.Groups["table"].Value, table => AreaOf(db.Model, table)) is { } area)
                areas.MadeOf.Add(area);
        }
    }

    /// <summary>
    /// The area a table belongs to, by the namespace of what is stored in it; null for what no screen shows, and for what is no table of the
    /// model.
    /// </summary>
    internal static string? AreaOf(IModel model, string table) =>
        model.GetEntityTypes().FirstOrDefault(entity => entity.GetTableName() == table) is { ClrType: var type } ? AreaOf(type) : null;

    /// <summary>The area of what is stored under a type.</summary>
    internal static string? AreaOf(Type type)
    {
        var area = type.Namespace!.StartsWith("PorchLight.Server.", StringComparison.Ordinal)
            ? type.Namespace.Split('.')[2]
            : nameof(Identity);
        return area is nameof(Storage) or nameof(Hosting) ? null : char.ToLowerInvariant(area[0]) + area[1..];
    }

    [GeneratedRegex("(?:INSERT INTO|UPDATE|DELETE FROM) \"(?<table>[A-Za-z]+)\"", RegexOptions.CultureInvariant)]
    private static partial Regex ChangedTable();

    [GeneratedRegex("(?:FROM|JOIN) \"(?<table>[A-Za-z]+)\"", RegexOptions.CultureInvariant)]
    private static partial Regex ReadTable();
}
