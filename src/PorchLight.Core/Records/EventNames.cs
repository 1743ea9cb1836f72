namespace PorchLight.Core.Records;

/// <summary>What those are called whom an event names by their identifiers, at the time it is read.</summary>
/// <param name="Client">The client; of an event about somebody who is none, the address it is about.</param>
/// <param name="Form">The title of the form.</param>
/// <param name="FollowThrough">The name of the follow-through.</param>
/// <param name="Step">The name of a step by its key.</param>
/// <param name="Stage">The name of a stage by its key.</param>
/// <param name="User">The name of a user by identifier, also of one who has left.</param>
public sealed record EventNames(
    string Client,
    string Form,
    string FollowThrough,
    Func<string, string> Step,
    Func<string, string> Stage,
    Func<Guid, string> User
)
{
    /// <summary>Who did what a follow-through may do, too.</summary>
    /// <param name="by">The user; null for a follow-through.</param>
    public string UserOrFollowThrough(Guid? by) => by is { } user ? User(user) : "A follow-through";
}

/// <summary>What the sentences of events have in common.</summary>
internal static class EventWords
{
    /// <summary>"one answer", "3 answers".</summary>
    public static string Count(int count, string thing) => count == 1 ? $"one {thing}" : $"{count} {thing}s";

    /// <summary>The same with a capital at its start.</summary>
    public static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
