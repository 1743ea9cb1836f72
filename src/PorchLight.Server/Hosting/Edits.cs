using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Common;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Hosting;

/// <summary>An edit that says what it started from.</summary>
/// <param name="Was">The values as they were read.</param>
/// <param name="Now">The values as they should be.</param>
internal sealed record Edit<T>(T Was, T Now)
    where T : class;

internal static class Edits
{
    /// <summary>
    /// Sets an edit upon what is stored now. Places that were changed meanwhile in another way are refused, each with
    /// both values, so that a person can choose.
    /// </summary>
    public static (T Merged, ProblemHttpResult? Refusal) Onto<T>(this Edit<T> edit, T stored)
        where T : class => edit.Onto(stored, Merge.ThreeWay);

    /// <summary>The same by a merge that knows more of such values than that they are JSON.</summary>
    public static (T Merged, ProblemHttpResult? Refusal) Onto<T>(
        this Edit<T> edit,
        T stored,
        Func<JsonNode?, JsonNode?, JsonNode?, (JsonNode? Merged, IReadOnlyList<Clash> Clashes)> merge
    )
        where T : class
    {
        var (merged, clashes) = merge(Node(edit.Was), Node(edit.Now), Node(stored));
        return clashes.Count == 0 ? (merged.Deserialize<T>(Json.Options)!, null) : (stored, Refuse(clashes));
    }

    /// <summary>A refusal when what a person sees, and is about to act upon, is not what is stored; null when it is.</summary>
    public static ProblemHttpResult? UnlessSeen<T>(T seen, T stored)
        where T : class => Merge.Differences(Node(seen), Node(stored)) is { Count: > 0 } differences ? Refuse(differences) : null;

    /// <summary>A refusal for one place that was changed meanwhile in another way.</summary>
    /// <param name="place">What the place is called.</param>
    /// <param name="theirs">What is stored.</param>
    /// <param name="yours">What somebody wants to store.</param>
    public static ProblemHttpResult Clashing<T>(string place, T? theirs, T? yours)
        where T : class => Refuse([new Clash(place, Node(theirs), Node(yours))]);

    private static JsonNode? Node<T>(T value) => JsonSerializer.SerializeToNode(value, Json.Options);

    private static ProblemHttpResult Refuse(IReadOnlyList<Clash> clashes) =>
        TypedResults.Problem(
            "This was changed in another window. Choose what to keep; nothing of yours is lost.",
            statusCode: StatusCodes.Status409Conflict,
            extensions: new Dictionary<string, object?> { ["clashes"] = clashes }
        );
}
