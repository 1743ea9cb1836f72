using System.Collections;
using System.Reflection;
using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;

namespace PorchLight.Server.Tests;

/// <summary>
/// Makes values in which nothing is empty, zero, false or null, so that whatever a store forgets is missed. Of what comes in
/// several kinds there is one of each.
/// </summary>
internal static class SampleValues
{
    /// <summary>How deep kinds within kinds go before only the simplest of them stand.</summary>
    private const int Deepest = 4;

    /// <summary>Of kinds that are found by themselves the one that stands within something else.</summary>
    private static readonly Type[] Usual =
    [
        typeof(ShortTextKind),
        typeof(SendMessage),
        typeof(InquiryStart),
        typeof(RepliedOccasion),
        typeof(RunStartAnchor),
    ];

    /// <summary>One value of each kind of a type.</summary>
    public static IEnumerable<object> EachOf(Type type) => KindsOf(type).Select(kind => Make(kind, 0));

    /// <summary>The kinds a type is written as; itself when there is but one.</summary>
    public static IReadOnlyList<Type> KindsOf(Type type)
    {
        if (!type.IsAbstract)
            return [type];
        if (type.IsDefined(typeof(KindFamilyAttribute)))
            return [.. Kinds.Of(type).Values.OrderByDescending(Usual.Contains)];
        var named = type.GetCustomAttributes<JsonDerivedTypeAttribute>(inherit: false).Select(kind => kind.DerivedType).ToList();
        return named.Count > 0 ? named : throw new InvalidOperationException($"{type.Name} is stored, but does not say its kinds.");
    }

    private static object Any(Type type, int depth)
    {
        var bare = Nullable.GetUnderlyingType(type) ?? type;
        if (Plain(bare) is { } plain)
            return plain;
        if (bare.IsEnum)
            return Enum.GetValues(bare).Cast<object>().Last();
        if (bare.IsGenericType && bare.GetGenericTypeDefinition() == typeof(Id<>))
            return Activator.CreateInstance(bare, new Guid(1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11))!;
        if (typeof(IEnumerable).IsAssignableFrom(bare))
            return Collection(bare, depth);
        var kinds = KindsOf(bare);
        return Make(depth < Deepest ? kinds[0] : kinds.MinBy(kind => Inputs(kind).Count(input => Plain(input.Type) is null))!, depth + 1);
    }

    private static object? Plain(Type type) =>
        type == typeof(string) ? "Dún „Laoghaire“ 🧱"
        : type == typeof(bool) ? true
        : type == typeof(int) ? 7
        : type == typeof(long) ? 7L
        : type == typeof(uint) ? 7u
        : type == typeof(decimal) ? 6.50m
        : type == typeof(double) ? 0.5
        : type == typeof(Guid) ? new Guid(1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11)
        : type == typeof(Instant) ? Instant.FromUtc(2026, 11, 23, 10, 0)
        : type == typeof(LocalDate) ? new LocalDate(2027, 2, 28)
        : type == typeof(LocalTime) ? new LocalTime(9, 30)
        : type == typeof(LocalDateTime) ? new LocalDateTime(2027, 2, 28, 9, 30)
        : type == typeof(YearMonth) ? new YearMonth(2027, 5)
        : null;

    private static object Collection(Type type, int depth)
    {
        var of = type.IsArray ? [type.GetElementType()!] : type.GetGenericArguments();
        if (of.Length == 2)
        {
            var entries = (IDictionary)Activator.CreateInstance(typeof(Dictionary<,>).MakeGenericType(of))!;
            entries[Any(of[0], depth)] = Any(of[1], depth);
            return entries;
        }

        // Deep down a list stands for itself: forms within forms would never end.
        var values =
            depth < 2 && of[0].IsAbstract ? KindsOf(of[0]).Select(kind => Make(kind, depth + 1)).ToList()
            : depth < Deepest || Plain(of[0]) is not null ? [Any(of[0], depth + 1)]
            : new List<object>();
        var array = Array.CreateInstance(of[0], values.Count);
        for (var n = 0; n < values.Count; n++)
            array.SetValue(values[n], n);
        return type.IsArray || type.IsInterface ? array : Activator.CreateInstance(type, array)!;
    }

    private static object Make(Type type, int depth)
    {
        var constructor = Constructor(type);
        var made = constructor.Invoke([.. constructor.GetParameters().Select(parameter => Any(parameter.ParameterType, depth))]);
        foreach (var property in Settable(type))
            property.SetValue(made, Any(property.PropertyType, depth));
        return made;
    }

    private static IEnumerable<(string Name, Type Type)> Inputs(Type type) =>
        Constructor(type)
            .GetParameters()
            .Select(parameter => (parameter.Name!, parameter.ParameterType))
            .Concat(Settable(type).Select(property => (property.Name, property.PropertyType)));

    private static ConstructorInfo Constructor(Type type) =>
        type.GetConstructors().MaxBy(constructor => constructor.GetParameters().Length)!;

    private static IEnumerable<PropertyInfo> Settable(Type type) =>
        type.GetProperties()
            .Where(property =>
                property.SetMethod is { IsPublic: true }
                && !Constructor(type).GetParameters().Any(parameter => parameter.Name == property.Name)
            );
}
