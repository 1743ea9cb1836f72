using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json.Serialization;

namespace PorchLight.Core.Common;

/// <summary>Compares by content what records compare by reference: lists within records.</summary>
internal static class StructuralEquality
{
    private static readonly ConcurrentDictionary<Type, PropertyInfo[]> Kept = [];

    /// <summary>Whether two values are of one type and hold the same in everything that is stored of them; lists in their order.</summary>
    public static bool Same(object? a, object? b)
    {
        if (ReferenceEquals(a, b))
            return true;
        if (a is null || b is null || a.GetType() != b.GetType() && !(a is IEnumerable && b is IEnumerable))
            return false;
        if (a is string || a.GetType().IsValueType)
            return a.Equals(b);
        if (a is IEnumerable these && b is IEnumerable those)
            return SameLists(these.GetEnumerator(), those.GetEnumerator());
        return PropertiesOf(a.GetType()).All(property => Same(property.GetValue(a), property.GetValue(b)));
    }

    private static bool SameLists(IEnumerator these, IEnumerator those)
    {
        while (these.MoveNext())
        {
            if (!those.MoveNext() || !Same(these.Current, those.Current))
                return false;
        }

        return !those.MoveNext();
    }

    private static PropertyInfo[] PropertiesOf(Type type) =>
        Kept.GetOrAdd(
            type,
            of =>
                [
                    .. of.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                        .Where(property =>
                            property.CanRead
                            && property.GetIndexParameters().Length == 0
                            && property.GetCustomAttribute<JsonIgnoreAttribute>() is null
                        ),
                ]
        );
}
