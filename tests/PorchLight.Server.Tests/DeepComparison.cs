using System.Collections;
using System.Reflection;

namespace PorchLight.Server.Tests;

/// <summary>Compares what two values hold, whatever they think of being equal and whatever kind of list they use.</summary>
internal static class DeepComparison
{
    /// <summary>Where the first difference lies, or null.</summary>
    public static string? FirstDifference(object? one, object? other, string place = "")
    {
        if (one is null || other is null)
            return one is null && other is null ? null : $"{place}: {one ?? "nothing"} and {other ?? "nothing"}";
        if (one is IDictionary map && other is IDictionary another)
            return map.Count != another.Count
                ? $"{place}: {map.Count} and {another.Count} entries"
                : map
                    .Keys.Cast<object>()
                    .Select(key => FirstDifference(map[key], another[key], $"{place}[{key}]"))
                    .FirstOrDefault(found => found is not null);
        if (one is not string && one is IEnumerable list && other is IEnumerable others)
            return Lists([.. list.Cast<object?>()], [.. others.Cast<object?>()], place);
        if (one.GetType() != other.GetType())
            return $"{place}: a {one.GetType().Name} and a {other.GetType().Name}";
        if (one is string or ValueType)
            return one.Equals(other) ? null : $"{place}: {one} and {other}";
        return FieldsOf(one.GetType())
            .Select(field => FirstDifference(field.GetValue(one), field.GetValue(other), $"{place}.{field.Name}"))
            .FirstOrDefault(found => found is not null);
    }

    private static string? Lists(List<object?> one, List<object?> other, string place) =>
        one.Count != other.Count
            ? $"{place}: {one.Count} and {other.Count} entries"
            : one.Select((value, index) => FirstDifference(value, other[index], $"{place}[{index}]"))
                .FirstOrDefault(found => found is not null);

    private static IEnumerable<FieldInfo> FieldsOf(Type? type) =>
        type is null
            ? []
            : type.GetFields(BindingFlags.Instance | BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.DeclaredOnly)
                .Concat(FieldsOf(type.BaseType));
}
