namespace PorchLight.Core.Forms;

/// <summary>How a question is asked in markup a developer writes by hand.</summary>
public abstract record PlainControl;

/// <summary>One line to type into.</summary>
/// <param name="Type">The type of the HTML input.</param>
/// <param name="AnyStep">Whether a number may have decimals.</param>
public sealed record PlainLine(string Type = "text", bool AnyStep = false) : PlainControl;

/// <summary>Several lines to type into.</summary>
/// <param name="MaxLength">How long the text may be, in UTF-16 code units.</param>
public sealed record PlainLines(int MaxLength) : PlainControl;

/// <summary>Something to choose from.</summary>
/// <param name="Choices">In the order they are offered.</param>
public sealed record PlainChoices(IReadOnlyList<PlainChoice> Choices) : PlainControl
{
    /// <summary>Whether more than one may be chosen.</summary>
    public bool Several { get; init; }

    /// <summary>Whether they are folded into a drop-down.</summary>
    public bool DropDown { get; init; }

    /// <summary>What stands before the line for own words, or null when there is none.</summary>
    public string? OwnWords { get; init; }
}

/// <summary>One of the things to choose from.</summary>
/// <param name="Value">What is posted.</param>
/// <param name="Words">What is read.</param>
public sealed record PlainChoice(string Value, string Words);

/// <summary>A box to tick.</summary>
/// <param name="Statement">What ticking it says.</param>
public sealed record PlainTick(string Statement) : PlainControl;

/// <summary>An answer in parts, posted as <c>key.part</c>.</summary>
/// <param name="Parts">In the order they stand.</param>
public sealed record PlainParts(IReadOnlyList<PlainPart> Parts) : PlainControl;

/// <summary>A part of an answer.</summary>
/// <param name="Words">What stands before it.</param>
/// <param name="Name">What it is posted under, behind the question's key.</param>
/// <param name="Type">The type of the HTML input, or null for a line of text.</param>
/// <param name="FilledInAs">What browsers may fill in by themselves (HTML autocomplete), or null.</param>
/// <param name="NeededWhenRequired">Whether this part must be there when the question must be answered.</param>
public sealed record PlainPart(string Words, string Name, string? Type = null, string? FilledInAs = null, bool NeededWhenRequired = false);

/// <summary>Rows with the same questions.</summary>
/// <param name="Questions">What each row asks.</param>
/// <param name="OneIsCalled">What one row is called.</param>
public sealed record PlainRows(IReadOnlyList<Question> Questions, string OneIsCalled) : PlainControl;

/// <summary>A value nobody sees.</summary>
public sealed record PlainUnseen : PlainControl;
