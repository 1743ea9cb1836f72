namespace PorchLight.Core.Common;

/// <summary>
/// A truth value of Kleene's strong three-valued logic, as SQL has it. The order False, Unknown, True makes "and"
/// the smaller and "or" the larger of two values (Kleene, Introduction to Metamathematics, 1952, section 64).
/// </summary>
public enum Truth
{
    /// <summary>Certainly not so.</summary>
    False,

    /// <summary>Not known: something it rests on is blank, unsure, not asked yet or off the route.</summary>
    Unknown,

    /// <summary>Certainly so.</summary>
    True,
}

/// <summary>The connectives of <see cref="Truth"/>.</summary>
public static class TruthLogic
{
    /// <summary>A two-valued fact as a truth value; never <see cref="Truth.Unknown"/>.</summary>
    /// <param name="value">The fact.</param>
    public static Truth ToTruth(this bool value) => value ? Truth.True : Truth.False;

    /// <summary>True if both are, false if either is, else unknown.</summary>
    /// <param name="a">One side.</param>
    /// <param name="b">The other; the order does not matter.</param>
    public static Truth And(this Truth a, Truth b) => a < b ? a : b;

    /// <summary>True if either is, false if both are, else unknown.</summary>
    /// <param name="a">One side.</param>
    /// <param name="b">The other; the order does not matter.</param>
    public static Truth Or(this Truth a, Truth b) => a > b ? a : b;

    /// <summary>True and false change places; unknown stays.</summary>
    /// <param name="a">What is turned round.</param>
    public static Truth Not(this Truth a) => (Truth)((int)Truth.True - (int)a);
}
