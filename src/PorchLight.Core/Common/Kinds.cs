using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json.Serialization.Metadata;

namespace PorchLight.Core.Common;

/// <summary>
/// Says that what is derived from a record are kinds of it, each a record of its own with a <see cref="KindAttribute"/>: questions, events,
/// steps. <see cref="Kinds"/> finds them, so that a new kind is one more file.
/// </summary>
[AttributeUsage(AttributeTargets.Class, Inherited = false)]
public sealed class KindFamilyAttribute : Attribute;

/// <summary>Names a kind in what is stored and in the API.</summary>
/// <param name="name">The name, for ever: "shortText".</param>
[AttributeUsage(AttributeTargets.Class, Inherited = false)]
public class KindAttribute(string name) : Attribute
{
    /// <summary>The name.</summary>
    public string Name => name;
}

/// <summary>The kinds there are of whatever comes in kinds.</summary>
public static class Kinds
{
    private static readonly ConcurrentDictionary<Type, IReadOnlyDictionary<string, Type>> Found = [];

    /// <summary>The types of all kinds by their names, in the order of the names.</summary>
    /// <param name="family">The record they are derived from; its assembly is looked through once.</param>
    /// <exception cref="InvalidOperationException">One has no name.</exception>
    /// <exception cref="ArgumentException">Two have the same name.</exception>
    public static IReadOnlyDictionary<string, Type> Of(Type family) =>
        Found.GetOrAdd(
            family,
            static of => new SortedDictionary<string, Type>(
                of.Assembly.GetTypes()
                    .Where(type => type.IsSubclassOf(of) && !type.IsAbstract)
                    .ToDictionary(type => Named<KindAttribute>(type).Name),
                StringComparer.Ordinal
            )
        );

    /// <summary>What a kind says of itself.</summary>
    /// <typeparam name="T">The attribute it says it with.</typeparam>
    /// <param name="kind">The type of the kind.</param>
    /// <exception cref="InvalidOperationException">It says nothing.</exception>
    public static T Named<T>(Type kind)
        where T : KindAttribute =>
        kind.GetCustomAttribute<T>() ?? throw new InvalidOperationException($"{kind.Name} does not say what it is: [{typeof(T).Name}].");

    /// <summary>Tells the serializer all kinds, each by its name under "kind".</summary>
    /// <param name="info">The type that is about to be read or written; other types are left as they are.</param>
    public static void Describe(JsonTypeInfo info)
    {
        if (!info.Type.IsDefined(typeof(KindFamilyAttribute), inherit: false))
            return;
        info.PolymorphismOptions = new JsonPolymorphismOptions { TypeDiscriminatorPropertyName = "kind" };
        foreach (var (name, type) in Of(info.Type))
            info.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(type, name));
    }
}
