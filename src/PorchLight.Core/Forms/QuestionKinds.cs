using System.Reflection;
using System.Text.Json.Serialization.Metadata;

namespace PorchLight.Core.Forms;

/// <summary>Names a kind of question in stored forms and in the API.</summary>
/// <param name="name">The name, for ever: "shortText".</param>
/// <param name="words">What it is called on screen: "A line of text".</param>
[AttributeUsage(AttributeTargets.Class, Inherited = false)]
public sealed class QuestionKindNameAttribute(string name, string words) : Attribute
{
    /// <summary>The name.</summary>
    public string Name => name;

    /// <summary>What it is called on screen.</summary>
    public string Words => words;
}

/// <summary>All kinds of questions there are.</summary>
public static class QuestionKinds
{
    /// <summary>The types of all kinds by their names, in the order of the names.</summary>
    public static IReadOnlyDictionary<string, Type> All { get; } =
        new SortedDictionary<string, Type>(
            typeof(QuestionKind)
                .Assembly.GetTypes()
                .Where(type => type.IsAssignableTo(typeof(QuestionKind)) && !type.IsAbstract)
                .ToDictionary(NameOf),
            StringComparer.Ordinal
        );

    /// <summary>Tells the serializer all kinds, each by its name under "kind".</summary>
    /// <param name="info">The type that is about to be read or written; other types are left as they are.</param>
    public static void Describe(JsonTypeInfo info)
    {
        if (info.Type != typeof(QuestionKind))
            return;
        info.PolymorphismOptions = new JsonPolymorphismOptions { TypeDiscriminatorPropertyName = "kind" };
        foreach (var (name, type) in All)
            info.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(type, name));
    }

    /// <summary>What a kind is called on screen: "A line of text".</summary>
    /// <param name="kind">The type of the kind.</param>
    public static string WordsOf(Type kind) => Named(kind).Words;

    private static string NameOf(Type kind) => Named(kind).Name;

    private static QuestionKindNameAttribute Named(Type kind) =>
        kind.GetCustomAttribute<QuestionKindNameAttribute>()
        ?? throw new InvalidOperationException($"{kind.Name} needs a name: [{nameof(QuestionKindNameAttribute)}].");
}
