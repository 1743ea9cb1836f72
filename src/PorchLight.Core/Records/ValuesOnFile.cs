using NodaTime;
using PorchLight.Core.Answers;

namespace PorchLight.Core.Records;

/// <summary>A value as it was written into a field. Values are only added, never changed.</summary>
public interface IWrittenValue
{
    /// <summary>Names it; later ones of one instant compare larger (UUIDv7).</summary>
    Guid Key { get; }

    /// <summary>The key of the field.</summary>
    string Field { get; }

    /// <summary>What was written; null when the field was emptied.</summary>
    Answer? Value { get; }

    /// <summary>When it was written.</summary>
    Instant At { get; }
}

/// <summary>Reads what is on file out of all that was ever written.</summary>
public static class ValuesOnFile
{
    /// <summary>The newest of each field, by the field's key; of two of one instant the one that was written last.</summary>
    /// <param name="written">In any order; of one client, and where projects have fields, of one project.</param>
    public static Dictionary<string, T> Newest<T>(IEnumerable<T> written)
        where T : IWrittenValue =>
        written.GroupBy(value => value.Field).ToDictionary(field => field.Key, field => field.MaxBy(value => (value.At, value.Key))!);

    /// <summary>What stands in each field, by the field's key; one that was emptied is not in it.</summary>
    /// <param name="written">As for <see cref="Newest"/>.</param>
    public static Dictionary<string, Answer> Read<T>(IEnumerable<T> written)
        where T : IWrittenValue =>
        Newest(written).Where(newest => newest.Value.Value is not null).ToDictionary(newest => newest.Key, newest => newest.Value.Value!);
}
