using System.Text.Json.Serialization;
using NodaTime;

namespace PorchLight.Core.Forms;

/// <summary>What sort of answer a question takes, with the limits that belong to that sort.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(ShortTextKind), "shortText")]
[JsonDerivedType(typeof(LongTextKind), "longText")]
[JsonDerivedType(typeof(EmailKind), "email")]
[JsonDerivedType(typeof(PhoneKind), "phone")]
[JsonDerivedType(typeof(WebAddressKind), "webAddress")]
[JsonDerivedType(typeof(NumberKind), "number")]
[JsonDerivedType(typeof(MoneyKind), "money")]
[JsonDerivedType(typeof(ScaleKind), "scale")]
[JsonDerivedType(typeof(DateKind), "date")]
[JsonDerivedType(typeof(DateRangeKind), "dateRange")]
[JsonDerivedType(typeof(YesNoKind), "yesNo")]
[JsonDerivedType(typeof(ChoiceKind), "choice")]
[JsonDerivedType(typeof(LookUpKind), "lookUp")]
[JsonDerivedType(typeof(PersonNameKind), "personName")]
[JsonDerivedType(typeof(AddressKind), "address")]
[JsonDerivedType(typeof(FilesKind), "files")]
[JsonDerivedType(typeof(ListKind), "rows")]
[JsonDerivedType(typeof(PeopleKind), "people")]
[JsonDerivedType(typeof(ConsentKind), "consent")]
[JsonDerivedType(typeof(AdvertisingKind), "advertising")]
[JsonDerivedType(typeof(SignatureKind), "signature")]
[JsonDerivedType(typeof(WorkedOutKind), "workedOut")]
[JsonDerivedType(typeof(HiddenKind), "hidden")]
public abstract record QuestionKind;

/// <summary>One line of text.</summary>
/// <param name="MaxLength">In UTF-16 code units, at least 1.</param>
/// <param name="MinLength">In UTF-16 code units; 0 for none.</param>
public sealed record ShortTextKind(int MaxLength = 200, int MinLength = 0) : QuestionKind;

/// <summary>Several lines of text.</summary>
/// <param name="MaxLength">In UTF-16 code units, at least 1.</param>
/// <param name="MinLength">In UTF-16 code units; 0 for none.</param>
public sealed record LongTextKind(int MaxLength = 4000, int MinLength = 0) : QuestionKind;

/// <summary>An e-mail address.</summary>
public sealed record EmailKind : QuestionKind;

/// <summary>A phone number.</summary>
public sealed record PhoneKind : QuestionKind;

/// <summary>The address of a page on the web. "ochrewren.example" is taken for "https://ochrewren.example".</summary>
public sealed record WebAddressKind : QuestionKind;

/// <summary>A number.</summary>
/// <param name="Min">The smallest allowed, or null.</param>
/// <param name="Max">The largest allowed, or null.</param>
/// <param name="Unit">Shown behind the number ("m"), or null.</param>
/// <param name="Whole">Whether only whole numbers make sense.</param>
public sealed record NumberKind(decimal? Min = null, decimal? Max = null, string? Unit = null, bool Whole = false) : QuestionKind;

/// <summary>An amount of money in one currency.</summary>
/// <param name="Currency">The ISO 4217 code.</param>
/// <param name="Min">The smallest allowed, or null.</param>
/// <param name="Max">The largest allowed, or null.</param>
public sealed record MoneyKind(string Currency, decimal? Min = null, decimal? Max = null) : QuestionKind;

/// <summary>A whole number on a scale, each step a button of its own.</summary>
/// <param name="Low">The first step.</param>
/// <param name="High">The last step; above <paramref name="Low"/>, at most 20 steps after it.</param>
/// <param name="LowLabel">What the first step means, or null.</param>
/// <param name="HighLabel">What the last step means, or null.</param>
public sealed record ScaleKind(int Low, int High, string? LowLabel = null, string? HighLabel = null) : QuestionKind;

/// <summary>Which days are allowed. Days from today count in the business's zone at the instant of asking.</summary>
/// <param name="Earliest">The first allowed day, or null.</param>
/// <param name="Latest">The last allowed day, or null.</param>
/// <param name="FromDays">The first allowed day is this many days after today (0 is today, negative is past), or null.</param>
/// <param name="ToDays">The last allowed day is this many days after today, or null.</param>
public sealed record DateLimits(LocalDate? Earliest = null, LocalDate? Latest = null, int? FromDays = null, int? ToDays = null)
{
    /// <summary>The first and last allowed day on the day of asking; null where there is none.</summary>
    /// <param name="today">The day of asking.</param>
    public (LocalDate? First, LocalDate? Last) On(LocalDate today) =>
        (
            Pick(Earliest, FromDays is { } from ? DayArithmetic.Plus(today, from) : null, later: true),
            Pick(Latest, ToDays is { } to ? DayArithmetic.Plus(today, to) : null, later: false)
        );

    private static LocalDate? Pick(LocalDate? a, LocalDate? b, bool later) =>
        a is null || b is null ? a ?? b
        : later == (a > b) ? a
        : b;
}

/// <summary>A day.</summary>
/// <param name="Limits">Which days are allowed; null for all.</param>
public sealed record DateKind(DateLimits? Limits = null) : QuestionKind;

/// <summary>Two days, from and to.</summary>
/// <param name="Limits">Which days are allowed; null for all.</param>
/// <param name="OrMonth">Whether "some time in May" is an answer, too.</param>
public sealed record DateRangeKind(DateLimits? Limits = null, bool OrMonth = false) : QuestionKind;

/// <summary>Yes or no.</summary>
public sealed record YesNoKind : QuestionKind;

/// <summary>Which of the business's own lists the options of a choice are.</summary>
public enum OptionList
{
    /// <summary>What the business sells.</summary>
    Services,

    /// <summary>How people find it.</summary>
    Sources,
}

/// <summary>One option, or several.</summary>
/// <param name="Options">At least one. When they come from a list, a published version keeps them as they stood then.</param>
/// <param name="Several">Whether more than one may be chosen.</param>
public sealed record ChoiceKind(IReadOnlyList<Option> Options, bool Several = false) : QuestionKind
{
    /// <summary>Whether a single choice is folded into a drop-down.</summary>
    public bool DropDown { get; init; }

    /// <summary>Of several: at least this many, or null.</summary>
    public int? AtLeast { get; init; }

    /// <summary>Of several: at most this many, or null.</summary>
    public int? AtMost { get; init; }

    /// <summary>The business's list the options are taken from; null for options of its own.</summary>
    public OptionList? From { get; init; }
}

/// <summary>One line of a list the business keeps, found by typing a few letters.</summary>
/// <param name="List">The identifier of the list.</param>
/// <param name="Show">The columns that are shown, in order; the first one is what a line is called.</param>
public sealed record LookUpKind(Guid List, IReadOnlyList<string> Show) : QuestionKind;

/// <summary>A person's name.</summary>
public sealed record PersonNameKind : QuestionKind;

/// <summary>An address in parts.</summary>
public sealed record AddressKind : QuestionKind;

/// <summary>Files from the lead's own machine.</summary>
/// <param name="AtMost">How many; at least 1.</param>
/// <param name="MaxBytes">How large each may be.</param>
/// <param name="Groups">What sorts of files are taken; empty for every sort we know.</param>
public sealed record FilesKind(int AtMost = 5, long MaxBytes = FilesKind.UsualMaxBytes, IReadOnlyList<FileGroup>? Groups = null)
    : QuestionKind
{
    /// <summary>25 MB.</summary>
    public const long UsualMaxBytes = 25L * 1024 * 1024;
}

/// <summary>A repeating group: the same questions for each row.</summary>
/// <param name="Least">How many rows there must be when it is answered at all.</param>
/// <param name="Most">How many rows there may be; at most 200.</param>
public abstract record RowsKind(int Least, int Most) : QuestionKind
{
    /// <summary>What each row asks, in order.</summary>
    [JsonIgnore]
    public abstract IReadOnlyList<Question> Questions { get; }

    /// <summary>What one row is called: "sign".</summary>
    [JsonIgnore]
    public abstract string OneIsCalled { get; }
}

/// <summary>A list of things, each with the same questions.</summary>
/// <param name="Asks">What each row asks.</param>
/// <param name="Called">What one row is called: "sign".</param>
/// <param name="Least">How many rows there must be.</param>
/// <param name="Most">How many rows there may be; at most 200.</param>
public sealed record ListKind(IReadOnlyList<Question> Asks, string Called, int Least = 0, int Most = 50) : RowsKind(Least, Most)
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IReadOnlyList<Question> Questions => Asks;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string OneIsCalled => Called;
}

/// <summary>People, each with a name, and a birth date where it matters.</summary>
/// <param name="NameKey">The key of the question for the name.</param>
/// <param name="BornKey">The key of the question for the birth date; null when it is not asked.</param>
/// <param name="More">What else is asked of each.</param>
/// <param name="Called">What one of them is called: "painter".</param>
/// <param name="Least">How many people there must be.</param>
/// <param name="Most">How many people there may be; at most 200.</param>
public sealed record PeopleKind(
    string NameKey,
    string? BornKey,
    IReadOnlyList<Question> More,
    string Called = "person",
    int Least = 0,
    int Most = 50
) : RowsKind(Least, Most)
{
    private static readonly DateKind Past = new(new DateLimits(ToDays: 0));

    /// <inheritdoc/>
    [JsonIgnore]
    public override IReadOnlyList<Question> Questions =>
        [
            new Question(NameKey, "Name", new PersonNameKind()) { Required = true, Width = ItemWidth.Full },
            .. BornKey is null
                ? Array.Empty<Question>()
                : [new Question(BornKey, "Birth date", Past) { Required = true, Width = ItemWidth.Half }],
            .. More,
        ];

    /// <inheritdoc/>
    [JsonIgnore]
    public override string OneIsCalled => Called;
}

/// <summary>Agreement to something that has to be agreed to. What was agreed to is kept word for word.</summary>
/// <param name="Statement">What is agreed to.</param>
public sealed record ConsentKind(string Statement) : QuestionKind;

/// <summary>Permission to send advertising. It is asked apart from every other agreement, and never required.</summary>
/// <param name="Statement">What is permitted.</param>
public sealed record AdvertisingKind(string Statement) : QuestionKind;

/// <summary>A signature, drawn or typed.</summary>
/// <param name="Statement">What is signed.</param>
/// <param name="ForOthers">Whether somebody may sign as an authorised representative.</param>
public sealed record SignatureKind(string Statement, bool ForOthers = false) : QuestionKind;

/// <summary>A value the program works out from earlier answers. Nobody types it; it stands beside the answers like one.</summary>
/// <param name="Value">How it is worked out.</param>
/// <param name="Shown">Whether the lead sees it.</param>
/// <param name="Unit">Shown behind a number ("m²"), or null.</param>
public sealed record WorkedOutKind(Calculation Value, bool Shown = true, string? Unit = null) : QuestionKind;

/// <summary>A value the address or the page around the form tells, unseen: a campaign tag, the page they came from.</summary>
/// <param name="Parameter">The name in the address ("utm_source"); null for the page they came from.</param>
public sealed record HiddenKind(string? Parameter) : QuestionKind;
