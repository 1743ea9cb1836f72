using NodaTime;

namespace PorchLight.Core.Forms;

/// <summary>What keeps programs from filling in a form. A field that people do not see is always part of it.</summary>
/// <param name="LeastSeconds">Nobody is faster than this from opening to sending; 0 to <see cref="MostSeconds"/>.</param>
/// <param name="Proof">Whether the browser has to prove some work, too.</param>
public sealed record SpamGuard(int LeastSeconds = 3, bool Proof = false)
{
    /// <summary>The longest time that may be asked for, in seconds: longer would keep people waiting.</summary>
    public const int MostSeconds = 60;

    /// <summary>Why what was sent looks like a program's doing; null when it does not.</summary>
    /// <param name="signs">What can be told of how it was filled in.</param>
    public SpamSuspicion? Judge(SpamContext signs) =>
        signs.TrapFilled
            ? new(
                "A field that people do not see was filled in, perhaps by a program that fills in forms for you. It is empty again now; please send again."
            )
        : LeastSeconds > 0 && !(signs.Took >= Duration.FromSeconds(LeastSeconds))
            ? new(
                "That was very fast. Please wait a few seconds and send again; everything is still here.",
                signs.Took is { } took ? (int)Math.Ceiling((Duration.FromSeconds(LeastSeconds) - took).TotalSeconds) : null
            )
        : Proof && !signs.ProofHolds
            ? new(
                "Your browser has not finished the short check above “Send”, or it was too long ago. Please let it finish and send again."
            )
        : null;
}

/// <summary>Why what was sent looks like a program's doing.</summary>
/// <param name="Sentence">A sentence that lets a person send it after all.</param>
/// <param name="RetryAfter">In how many seconds the same would be taken; null when waiting alone does not help.</param>
public sealed record SpamSuspicion(string Sentence, int? RetryAfter = null);

/// <summary>What can be told of how a form was filled in.</summary>
/// <param name="TrapFilled">Whether the field that people do not see holds anything.</param>
/// <param name="Took">How long it took from opening to sending; null when that cannot be told.</param>
/// <param name="ProofHolds">Whether a fresh and unused proof of work was sent along.</param>
public sealed record SpamContext(bool TrapFilled, Duration? Took, bool ProofHolds);
