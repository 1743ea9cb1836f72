using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>Names a kind of question in stored forms and in the API.</summary>
/// <param name="name">The name, for ever: "shortText".</param>
/// <param name="words">What it is called on screen: "A line of text".</param>
public sealed class QuestionKindNameAttribute(string name, string words) : KindAttribute(name)
{
    /// <summary>What it is called on screen.</summary>
    public string Words => words;
}

/// <summary>All kinds of questions there are.</summary>
public static class QuestionKinds
{
    /// <summary>The types of all kinds by their names, in the order of the names.</summary>
    public static IReadOnlyDictionary<string, Type> All => Kinds.Of(typeof(QuestionKind));

    /// <summary>What a kind is called on screen: "A line of text".</summary>
    /// <param name="kind">The type of the kind.</param>
    public static string WordsOf(Type kind) => Kinds.Named<QuestionKindNameAttribute>(kind).Words;
}
