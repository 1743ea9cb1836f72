using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Common;

namespace PorchLight.Server.Storage;

/// <summary>How the types of the core are kept in columns.</summary>
internal static class Conversions
{
    /// <summary>The identifier of a <typeparamref name="T"/> as a UUID.</summary>
    public static ModelConfigurationBuilder HaveId<T>(this ModelConfigurationBuilder builder)
    {
        builder.Properties<Id<T>>().HaveConversion<IdConverter<T>>();
        return builder;
    }

    /// <summary>An immutable record as JSON text. It is replaced as a whole, never changed in place.</summary>
    public static ModelConfigurationBuilder HaveJson<T>(this ModelConfigurationBuilder builder)
        where T : class
    {
        builder.Properties<T>().HaveConversion<JsonConverter<T>, WholeComparer<T>>();
        return builder;
    }

    /// <summary>
    /// As <see cref="HaveJson{T}"/>, for what is few, large and read with every request: the same text is read once, and
    /// shared, as it never changes.
    /// </summary>
    public static ModelConfigurationBuilder HaveSharedJson<T>(this ModelConfigurationBuilder builder)
        where T : class
    {
        builder.Properties<T>().HaveConversion<SharedJsonConverter<T>, WholeComparer<T>>();
        return builder;
    }

    /// <summary>An instant as ticks since 1970, a day, month or time of day as ISO text; all order and compare in queries.</summary>
    public static ModelConfigurationBuilder HaveTimes(this ModelConfigurationBuilder builder)
    {
        builder.Properties<Instant>().HaveConversion<InstantConverter>();
        builder.Properties<LocalDate>().HaveConversion<LocalDateConverter>();
        builder.Properties<LocalTime>().HaveConversion<LocalTimeConverter>();
        builder.Properties<YearMonth>().HaveConversion<YearMonthConverter>();
        return builder;
    }

    private sealed class IdConverter<T>() : ValueConverter<Id<T>, Guid>(id => id.Value, value => new Id<T>(value));

    private sealed class InstantConverter()
        : ValueConverter<Instant, long>(instant => instant.ToUnixTimeTicks(), ticks => Instant.FromUnixTimeTicks(ticks));

    private sealed class LocalDateConverter()
        : ValueConverter<LocalDate, string>(date => LocalDatePattern.Iso.Format(date), text => LocalDatePattern.Iso.Parse(text).Value);

    private sealed class LocalTimeConverter()
        : ValueConverter<LocalTime, string>(
            time => LocalTimePattern.ExtendedIso.Format(time),
            text => LocalTimePattern.ExtendedIso.Parse(text).Value
        );

    private sealed class YearMonthConverter()
        : ValueConverter<YearMonth, string>(month => YearMonthPattern.Iso.Format(month), text => YearMonthPattern.Iso.Parse(text).Value);

    private sealed class JsonConverter<T>() : ValueConverter<T, string>(value => StoredJson.Write(value), text => StoredJson.Read<T>(text))
        where T : class;

    private sealed class SharedJsonConverter<T>()
        : ValueConverter<T, string>(value => StoredJson.Write(value), text => SharedReading<T>.Of(text))
        where T : class;

    private sealed class WholeComparer<T>()
        : ValueComparer<T>((a, b) => ReferenceEquals(a, b), value => value.GetHashCode(), value => value)
        where T : class;
}

/// <summary>What texts were read as. Working copies come and go, so it is emptied when it has grown.</summary>
internal static class SharedReading<T>
    where T : class
{
    private const int Most = 200;
    private static readonly ConcurrentDictionary<string, T> Read = new(StringComparer.Ordinal);

    public static T Of(string text)
    {
        if (Read.TryGetValue(text, out var known))
            return known;
        if (Read.Count >= Most)
            Read.Clear();
        return Read.GetOrAdd(text, StoredJson.Read<T>(text));
    }
}
