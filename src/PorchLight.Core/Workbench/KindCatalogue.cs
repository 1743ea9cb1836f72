using PorchLight.Core.Answers;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>A kind of question as it is offered to whoever builds a form.</summary>
/// <param name="Words">What it is called.</param>
/// <param name="Kind">The kind with the limits it usually has.</param>
/// <param name="InRows">Whether it may be asked in the rows of a list.</param>
public sealed record KindOnOffer(string Words, QuestionKind Kind, bool InRows);

/// <summary>The kinds of questions a form can be built of.</summary>
public static class KindCatalogue
{
    /// <summary>
    /// Every kind once, the common ones first; a choice twice, for one and for several answers. What still has to be chosen or written
    /// is empty: the statement of an agreement, the list to look something up in.
    /// </summary>
    /// <param name="currency">The business's currency, an ISO 4217 code.</param>
    public static IReadOnlyList<KindOnOffer> For(string currency) =>
        [
            Offer(new ShortTextKind()),
            Offer(new LongTextKind()),
            Offer(new ChoiceKind([new Option("first", "First answer"), new Option("second", "Second answer")]), "One answer of several"),
            Offer(
                new ChoiceKind([new Option("first", "First answer"), new Option("second", "Second answer")], Several: true),
                "Any of several answers"
            ),
            Offer(new YesNoKind()),
            Offer(new NumberKind(Min: 0)),
            Offer(new MoneyKind(currency, Min: 0)),
            Offer(new ScaleKind(1, 5)),
            Offer(new DateKind()),
            Offer(new DateRangeKind()),
            Offer(new PersonNameKind()),
            Offer(new EmailKind()),
            Offer(new PhoneKind()),
            Offer(new AddressKind()),
            Offer(new WebAddressKind()),
            Offer(new FilesKind()),
            Offer(new ListKind([new Question("line", "What is it?", new ShortTextKind()) { Required = true }], "line", 1)),
            Offer(new PeopleKind("name", null, [])),
            Offer(new LookUpKind(Guid.Empty, [])),
            Offer(new ConsentKind("")),
            Offer(new AdvertisingKind("")),
            Offer(new SignatureKind("")),
            Offer(new WorkedOutKind(WorkedOutKind.Open)),
            Offer(new HiddenKind(null)),
        ];

    private static KindOnOffer Offer(QuestionKind kind, string? words = null) =>
        new(words ?? QuestionKinds.WordsOf(kind.GetType()), kind, kind.Uses().HasFlag(KindUses.InRows));
}
