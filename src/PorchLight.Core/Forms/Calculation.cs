using System.Text.Json.Serialization;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>How a worked-out value is made. Chosen from a list and read as a sentence; there is no formula text.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(CopiedAnswer), "answer")]
[JsonDerivedType(typeof(FixedValue), "fixed")]
[JsonDerivedType(typeof(AgeOn), "ageOn")]
[JsonDerivedType(typeof(TimeBetween), "timeBetween")]
[JsonDerivedType(typeof(DaysUntil), "daysUntil")]
[JsonDerivedType(typeof(CountRows), "countRows")]
[JsonDerivedType(typeof(OverRows), "overRows")]
[JsonDerivedType(typeof(AreaOfRows), "areaOfRows")]
[JsonDerivedType(typeof(DivideAndRoundUp), "shareOut")]
[JsonDerivedType(typeof(ArithmeticOfTwo), "arithmetic")]
[JsonDerivedType(typeof(JoinedText), "joinedText")]
[JsonDerivedType(typeof(IfElse), "ifElse")]
public abstract record Calculation;

/// <summary>The answer to an earlier question, or an earlier worked-out value.</summary>
public sealed record CopiedAnswer(string Question) : Calculation;

/// <summary>A value that is always the same: words, a number, an amount, a band.</summary>
public sealed record FixedValue(Answer Value) : Calculation;

/// <summary>Age in completed years on the event's date (see <see cref="Age.On"/>). Unknown when the event lies before the birth.</summary>
/// <param name="Born">The question for the birth date.</param>
/// <param name="Event">The question for the date that counts; of a date range the first day.</param>
public sealed record AgeOn(string Born, string Event) : Calculation;

/// <summary>What is counted between two days.</summary>
public enum SpanUnit
{
    /// <summary>Days, the first and the last included: from Monday to Wednesday are 3.</summary>
    Days,

    /// <summary>Nights: from Monday to Wednesday are 2.</summary>
    Nights,

    /// <summary>Completed weeks of 7 nights.</summary>
    Weeks,
}

/// <summary>Days, nights or weeks between two dates, or within one date range. Unknown when the end lies before the start.</summary>
/// <param name="From">The question for the first day, or for the whole range.</param>
/// <param name="To">The question for the last day; null when <paramref name="From"/> asks for a range.</param>
/// <param name="In">What is counted.</param>
public sealed record TimeBetween(string From, string? To, SpanUnit In) : Calculation;

/// <summary>Days from the day of asking until a date; negative when it is past.</summary>
public sealed record DaysUntil(string Date) : Calculation;

/// <summary>How many rows there are.</summary>
/// <param name="Rows">The question with the rows.</param>
/// <param name="Where">Only rows for which this is true; null for all. It may look at the row's own answers.</param>
public sealed record CountRows(string Rows, Condition? Where = null) : Calculation;

/// <summary>What is made of the numbers of all rows.</summary>
public enum Total
{
    /// <summary>Their sum; zero when there is none.</summary>
    Sum,

    /// <summary>The smallest; unknown when there is none.</summary>
    Smallest,

    /// <summary>The largest; unknown when there is none.</summary>
    Largest,
}

/// <summary>Sum, smallest or largest of a number or amount asked in each row. Blank ones count as nothing.</summary>
/// <param name="Rows">The question with the rows.</param>
/// <param name="Of">The question asked in each row, or a worked-out value of the row.</param>
/// <param name="Take">What is made of them.</param>
public sealed record OverRows(string Rows, string Of, Total Take) : Calculation;

/// <summary>In which unit the sides of an area are asked.</summary>
public enum LengthUnit
{
    /// <summary>Metres.</summary>
    Metres,

    /// <summary>Centimetres.</summary>
    Centimetres,

    /// <summary>Millimetres.</summary>
    Millimetres,
}

/// <summary>
/// Area in square metres, summed over the rows. A row with a blank side counts as nothing. Unknown when it comes to nothing, or a
/// side is negative: there is no such area to price.
/// </summary>
/// <param name="Rows">The question with the rows.</param>
/// <param name="Width">The question for one side.</param>
/// <param name="Height">The question for the other side.</param>
/// <param name="In">The unit of both sides.</param>
/// <param name="HowMany">The question for how many alike; null, or blank, for one.</param>
public sealed record AreaOfRows(string Rows, string Width, string Height, LengthUnit In, string? HowMany = null) : Calculation;

/// <summary>A number shared out in equal units, rounded up: 23 people in groups of 8 are 3.</summary>
/// <param name="Amount">What is shared out.</param>
/// <param name="PerUnit">How much goes into one unit; above 0.</param>
public sealed record DivideAndRoundUp(Calculation Amount, decimal PerUnit) : Calculation;

/// <summary>What is done with two numbers.</summary>
public enum Arithmetic
{
    /// <summary>Their sum.</summary>
    Plus,

    /// <summary>The first less the second.</summary>
    Minus,

    /// <summary>Their product.</summary>
    Times,

    /// <summary>The first divided by the second; unknown where that is zero.</summary>
    DividedBy,
}

/// <summary>
/// Two numbers or amounts together. Amounts of one currency add up to an amount and divide to a number; an amount times or divided by a
/// number is an amount. Unknown while one of them is, for two currencies, and for what means nothing: an amount plus a number, a number
/// divided by an amount, two amounts multiplied.
/// </summary>
/// <param name="First">The first.</param>
/// <param name="How">What is done with them.</param>
/// <param name="Second">The second.</param>
public sealed record ArithmeticOfTwo(Calculation First, Arithmetic How, Calculation Second) : Calculation;

/// <summary>Words with earlier answers in them, as in a wording.</summary>
/// <param name="Words">For instance <c>{answer:width} by {answer:height}</c>.</param>
public sealed record JoinedText(string Words) : Calculation;

/// <summary>One value when a condition is true, the other one when it is false or unknown.</summary>
public sealed record IfElse(Condition If, Calculation Then, Calculation Otherwise) : Calculation;
