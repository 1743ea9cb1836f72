using System.Diagnostics.CodeAnalysis;

namespace PorchLight.Core.Common;

/// <summary>
/// The identifier of a <typeparamref name="T"/>, a UUID (version 7 when made by the server, so that identifiers
/// sort by the time they were made). Identifiers of different things cannot be mixed up.
/// </summary>
/// <typeparam name="T">What is identified; used as a tag only.</typeparam>
/// <param name="Value">The UUID itself.</param>
public readonly record struct Id<T>(Guid Value) : IParsable<Id<T>>, IComparable<Id<T>>
{
    /// <inheritdoc/>
    public static Id<T> Parse(string s, IFormatProvider? provider) => new(Guid.Parse(s, provider));

    /// <inheritdoc/>
    public static bool TryParse([NotNullWhen(true)] string? s, IFormatProvider? provider, out Id<T> result)
    {
        var read = Guid.TryParse(s, provider, out var value);
        result = new Id<T>(value);
        return read;
    }

    /// <summary>The order of the UUIDs, which for those the server made is the order they were made in.</summary>
    /// <param name="other">Another identifier.</param>
    public int CompareTo(Id<T> other) => Value.CompareTo(other.Value);

    /// <summary>Whether one comes before the other, as <see cref="CompareTo"/> has it.</summary>
    public static bool operator <(Id<T> left, Id<T> right) => left.CompareTo(right) < 0;

    /// <summary>Whether one comes no later than the other, as <see cref="CompareTo"/> has it.</summary>
    public static bool operator <=(Id<T> left, Id<T> right) => left.CompareTo(right) <= 0;

    /// <summary>Whether one comes behind the other, as <see cref="CompareTo"/> has it.</summary>
    public static bool operator >(Id<T> left, Id<T> right) => left.CompareTo(right) > 0;

    /// <summary>Whether one comes no earlier than the other, as <see cref="CompareTo"/> has it.</summary>
    public static bool operator >=(Id<T> left, Id<T> right) => left.CompareTo(right) >= 0;

    /// <summary>The UUID in its usual form with hyphens.</summary>
    public override string ToString() => Value.ToString();
}
