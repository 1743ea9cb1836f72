namespace PorchLight.Core.Fields;

/// <summary>What sort of value a field keeps.</summary>
public enum FieldKind
{
    /// <summary>One line of text.</summary>
    Text,

    /// <summary>Several lines of text.</summary>
    LongText,

    /// <summary>An e-mail address.</summary>
    Email,

    /// <summary>A phone number.</summary>
    Phone,

    /// <summary>An address on the web.</summary>
    WebAddress,

    /// <summary>A number, or a band of numbers.</summary>
    Number,

    /// <summary>An amount of money, or a band of amounts.</summary>
    Money,

    /// <summary>A day.</summary>
    Date,

    /// <summary>Yes or no.</summary>
    YesNo,

    /// <summary>One of some words. Words that are not among those offered are kept all the same.</summary>
    OneOf,

    /// <summary>Several of some words, in no order.</summary>
    SeveralOf,

    /// <summary>An address in parts.</summary>
    Address,

    /// <summary>A person's name.</summary>
    PersonName,

    /// <summary>Files.</summary>
    Files,

    /// <summary>Rows with named columns.</summary>
    Rows,
}
