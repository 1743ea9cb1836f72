using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Inquiries;

/// <summary>What stands on a page, as a lead may see it.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="Width">How much of the line it takes.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(PublicQuestion), "question")]
[JsonDerivedType(typeof(PublicHeading), "heading")]
[JsonDerivedType(typeof(PublicPassage), "passage")]
[JsonDerivedType(typeof(PublicPicture), "picture")]
[JsonDerivedType(typeof(PublicVideo), "video")]
[JsonDerivedType(typeof(PublicDivider), "divider")]
[JsonDerivedType(typeof(PublicDownload), "download")]
internal abstract record PublicItem(string Key, ItemWidth Width);

/// <param name="Always">Whether it is asked whatever is answered.</param>
internal sealed record PublicQuestion(
    string Key,
    ItemWidth Width,
    bool Always,
    string Wording,
    string? Help,
    string? Placeholder,
    Control Control
) : PublicItem(Key, Width);

internal sealed record PublicHeading(string Key, ItemWidth Width, string Text) : PublicItem(Key, Width);

internal sealed record PublicPassage(string Key, ItemWidth Width, string Text) : PublicItem(Key, Width);

internal sealed record PublicPicture(string Key, ItemWidth Width, string Address, string Alt) : PublicItem(Key, Width);

internal sealed record PublicVideo(string Key, ItemWidth Width, string Address, string Title) : PublicItem(Key, Width);

internal sealed record PublicDivider(string Key, ItemWidth Width) : PublicItem(Key, Width);

internal sealed record PublicDownload(string Key, ItemWidth Width, string Address, string Label) : PublicItem(Key, Width);

/// <summary>What a question is answered with, and the limits that help while typing. What counts is checked when a page is left.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(LineControl), "line")]
[JsonDerivedType(typeof(LinesControl), "lines")]
[JsonDerivedType(typeof(EmailControl), "email")]
[JsonDerivedType(typeof(PhoneControl), "phone")]
[JsonDerivedType(typeof(WebAddressControl), "webAddress")]
[JsonDerivedType(typeof(NumberControl), "number")]
[JsonDerivedType(typeof(MoneyControl), "money")]
[JsonDerivedType(typeof(ScaleControl), "scale")]
[JsonDerivedType(typeof(DateControl), "date")]
[JsonDerivedType(typeof(DateRangeControl), "dateRange")]
[JsonDerivedType(typeof(YesNoControl), "yesNo")]
[JsonDerivedType(typeof(ChoiceControl), "choice")]
[JsonDerivedType(typeof(LookUpControl), "lookUp")]
[JsonDerivedType(typeof(PersonNameControl), "personName")]
[JsonDerivedType(typeof(AddressControl), "address")]
[JsonDerivedType(typeof(FilesControl), "files")]
[JsonDerivedType(typeof(RowsControl), "rows")]
[JsonDerivedType(typeof(ConsentControl), "consent")]
[JsonDerivedType(typeof(SignatureControl), "signature")]
[JsonDerivedType(typeof(WorkedOutControl), "workedOut")]
internal abstract record Control
{
    /// <summary>The control of a kind of question; null for kinds nobody sees.</summary>
    /// <param name="kind">The kind.</param>
    /// <param name="today">The day of asking in the business's zone.</param>
    public static Control? Of(QuestionKind kind, LocalDate today) =>
        kind switch
        {
            ShortTextKind k => new LineControl(k.MaxLength),
            LongTextKind k => new LinesControl(k.MaxLength),
            EmailKind => new EmailControl(),
            PhoneKind => new PhoneControl(),
            WebAddressKind => new WebAddressControl(),
            NumberKind k => new NumberControl(k.Unit, k.Whole),
            MoneyKind k => new MoneyControl(k.Currency),
            ScaleKind k => new ScaleControl(k.Low, k.High, k.LowLabel, k.HighLabel),
            DateKind k => k.Limits?.On(today) is var days ? new DateControl(days?.First, days?.Last) : null,
            DateRangeKind k => k.Limits?.On(today) is var days
                ? new DateRangeControl(days?.First, days?.Last, [.. k.Months(today).Select(PublicMonth.Of)])
                : null,
            YesNoKind => new YesNoControl(),
            ChoiceKind k => new ChoiceControl(
                [
                    .. k.Options.Select(option => new PublicOption(
                        option.Key,
                        option.Label,
                        option.Explanation,
                        option.Picture is { } picture ? PublicAddress.OfFile(picture) : null,
                        option.OwnWords,
                        k.NotWith(option)
                    )),
                ],
                k.Several,
                k.DropDown
            ),
            LookUpKind => new LookUpControl(),
            PersonNameKind => new PersonNameControl(),
            AddressKind => new AddressControl(),
            FilesKind k => new FilesControl(k.AtMost, k.MaxBytes, FileSize.Say(k.MaxBytes), FileTypes.Endings(k.Groups)),
            RowsKind k => new RowsControl(
                [.. k.Questions.Select(question => PublicForms.Show(question, today)).OfType<PublicQuestion>()],
                k.OneIsCalled,
                k.Least,
                k.Most
            ),
            ConsentKind k => new ConsentControl(k.Statement),
            AdvertisingKind k => new ConsentControl(k.Statement),
            SignatureKind k => new SignatureControl(k.Statement, k.ForOthers),
            WorkedOutKind { Shown: true } => new WorkedOutControl(),
            WorkedOutKind or HiddenKind => null,
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "A kind of question that cannot be shown."),
        };
}

internal sealed record LineControl(int MaxLength) : Control;

internal sealed record LinesControl(int MaxLength) : Control;

internal sealed record EmailControl : Control;

internal sealed record PhoneControl : Control;

internal sealed record WebAddressControl : Control;

internal sealed record NumberControl(string? Unit, bool Whole) : Control;

internal sealed record MoneyControl(string Currency) : Control;

internal sealed record ScaleControl(int Low, int High, string? LowLabel, string? HighLabel) : Control;

internal sealed record DateControl(LocalDate? First, LocalDate? Last) : Control;

/// <param name="Months">The months that can be named instead of days; empty when days are asked for.</param>
internal sealed record DateRangeControl(LocalDate? First, LocalDate? Last, IReadOnlyList<PublicMonth> Months) : Control;

/// <param name="First">Its first day, which stands for it.</param>
internal sealed record PublicMonth(LocalDate First, string Words)
{
    public static PublicMonth Of(YearMonth month) => new(month.OnDayOfMonth(1), Capacities.Say(month));
}

internal sealed record YesNoControl : Control;

internal sealed record ChoiceControl(IReadOnlyList<PublicOption> Options, bool Several, bool DropDown) : Control;

/// <param name="NotWith">The options that cannot be chosen together with it.</param>
internal sealed record PublicOption(
    string Key,
    string Label,
    string? Explanation,
    string? Picture,
    bool OwnWords,
    IReadOnlyList<string> NotWith
);

internal sealed record LookUpControl : Control;

internal sealed record PersonNameControl : Control;

internal sealed record AddressControl : Control;

/// <param name="Largest">The limit in words: "25 MB".</param>
/// <param name="Endings">The endings of the files that are taken, each with its dot.</param>
internal sealed record FilesControl(int AtMost, long MaxBytes, string Largest, IReadOnlyList<string> Endings) : Control;

internal sealed record RowsControl(IReadOnlyList<PublicQuestion> Questions, string Called, int Least, int Most) : Control;

internal sealed record ConsentControl(string Statement) : Control;

internal sealed record SignatureControl(string Statement, bool ForOthers) : Control;

internal sealed record WorkedOutControl : Control;
