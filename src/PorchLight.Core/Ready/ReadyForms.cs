using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Ready;

/// <summary>A form to start from, with its screening and what follows an inquiry.</summary>
/// <param name="Content">Pages, questions and send-offs.</param>
/// <param name="Screening">What the answers tell about fit.</param>
/// <param name="FollowThroughs">For the form with the given identifier.</param>
public sealed record ReadyForm(
    FormContent Content,
    ScreeningRules Screening,
    Func<Guid, IReadOnlyList<FollowThroughContent>> FollowThroughs
);

/// <summary>What a ready form is made for.</summary>
/// <param name="Title">The form's title.</param>
/// <param name="StartingPrice">Where the work starts in price; above 0 except for a blank page.</param>
/// <param name="Currency">ISO 4217 code.</param>
public sealed record ReadyFormRequest(string Title, decimal StartingPrice, string Currency);

/// <summary>A ready form as it is offered.</summary>
/// <param name="Key">Names it for ever.</param>
/// <param name="Name">What it is for: "Photography".</param>
/// <param name="About">What it asks and how it sorts, in a sentence.</param>
/// <param name="Title">A title to begin with.</param>
/// <param name="Make">Makes the form.</param>
public sealed record ReadyFormOffer(string Key, string Name, string About, string Title, Func<ReadyFormRequest, ReadyForm> Make);

/// <summary>The ready forms. Every word of them can be changed.</summary>
public static class ReadyForms
{
    private const int LongestTitle = 120;
    private const decimal HighestPrice = 100_000_000;

    private static readonly ReadyFormOffer Blank = new("", "A blank page", "One empty page and one send-off.", "", MakeBlank);

    /// <summary>No signals: nobody is sorted.</summary>
    public static ScreeningRules NoScreening { get; } = new(0, 50, 0, 2, []);

    /// <summary>All that are offered, the one for any service first.</summary>
    public static IReadOnlyList<ReadyFormOffer> All { get; } =
    [
        new(
            "any",
            "Any service",
            "Who, what, budget, who decides and by when; small budgets get a kind no.",
            "A new project",
            request => Inquiry(request.Title, request.StartingPrice, request.Currency)
        ),
        .. ReadyOccasionForms.All,
        .. ReadyStudioForms.All,
    ];

    /// <summary>The ready form with the key, null being the blank page; null when there is none.</summary>
    /// <param name="key">The key, case counts.</param>
    public static ReadyFormOffer? Find(string? key) => key is null ? Blank : All.FirstOrDefault(offer => offer.Key == key);

    /// <summary>What has to be put right before a form can be made: a title in at most 120 characters.</summary>
    /// <param name="title">The form's title, without blanks around it.</param>
    public static IReadOnlyList<Finding> CheckTitle(string title) =>
        title.Length is > 0 and <= LongestTitle
            ? []
            : [new Finding("title", $"Please give the form a title of at most {LongestTitle} characters.")];

    /// <summary>What has to be put right before a ready form can be made: its title (<see cref="CheckTitle"/>), and a price.</summary>
    /// <param name="title">The form's title, without blanks around it.</param>
    /// <param name="startingPrice">Where the work starts in price; above 0, at most 100 million.</param>
    public static IReadOnlyList<Finding> Check(string title, decimal startingPrice) =>
        [
            .. CheckTitle(title),
            .. startingPrice is > 0 and <= HighestPrice
                ? Array.Empty<Finding>()
                : [new Finding("startingPrice", "Please give your starting price; the budget question is built around it.")],
        ];

    /// <summary>The title of a copy: the same with "copy" behind it, and a number where that is taken.</summary>
    /// <param name="title">The title of the original.</param>
    /// <param name="taken">The titles there are.</param>
    public static string CopyTitle(string title, IReadOnlyCollection<string> taken)
    {
        var copy = $"{title} (copy)";
        for (var number = 2; taken.Contains(copy); number++)
            copy = $"{title} (copy {number})";
        return copy;
    }

    /// <summary>
    /// An inquiry about a piece of work, for any service: who, what, budget in bands around the starting price, who
    /// decides, by when, how they found the business.
    /// </summary>
    /// <param name="title">The form's title.</param>
    /// <param name="startingPrice">Where the work starts in price; above 0.</param>
    /// <param name="currency">ISO 4217 code.</param>
    public static ReadyForm Inquiry(string title, decimal startingPrice, string currency)
    {
        var parts = new ReadyParts(new ReadyFormRequest(title, startingPrice, currency));
        return parts.Form(
            "Tell us what you have in mind. Two short pages, about three minutes.",
            [
                ReadyParts.You(),
                new Page(
                    "work",
                    "What you have in mind",
                    [
                        ReadyParts.What("What can we do for you?"),
                        parts.Budget("What have you set aside for it?"),
                        ReadyParts.Decides("Do you decide about it?"),
                        ReadyParts.Wanted("When should it be finished?"),
                        ReadyParts.Found(),
                    ]
                ),
            ],
            parts.BudgetAndDecisionSignals()
        );
    }

    /// <summary>What every form owes whoever sends it: one mail at once, that the answers have arrived.</summary>
    /// <param name="form">The identifier of the form.</param>
    /// <param name="title">Its title.</param>
    public static FollowThroughContent Thanks(Guid form, string title) => FormFollowThroughs.Thanks(form, title);

    private static ReadyForm MakeBlank(ReadyFormRequest request) =>
        new(
            new FormContent(
                request.Title,
                "",
                [new Page("page", "", [])],
                [],
                new SendOff("thank-you", "Thank you", "We have your answers and will reply {promise}.")
            ),
            NoScreening,
            form => [Thanks(form, request.Title)]
        );
}
