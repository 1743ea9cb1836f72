using System.Text.RegularExpressions;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>What a question seems to ask for.</summary>
/// <param name="Kind">The kind, with the limits it usually has.</param>
/// <param name="LandsIn">The field that keeps such answers, or null.</param>
public sealed record KindProposal(QuestionKind Kind, LandsIn? LandsIn = null);

/// <summary>What amounts are proposed in and around.</summary>
/// <param name="Currency">An ISO 4217 code.</param>
/// <param name="StartingPrice">
/// Under which the business does not begin; above zero and at most a quarter of <see cref="ValueBounds.LargestNumber"/>.
/// </param>
public sealed record ProposalContext(string Currency, decimal StartingPrice = 1000);

/// <summary>
/// Proposes the kind of a question from its words. It is a guess that is one press to change, so it is made of plain
/// rules.
/// </summary>
public static class KindProposals
{
    /// <summary>What the options of a choice are called until somebody writes them.</summary>
    private static readonly IReadOnlyList<Option> ToBeWritten = [new("first", "First answer"), new("second", "Second answer")];

    private static readonly ListKind OneLineEach = new(
        [new Question("line", "What is it?", new ShortTextKind()) { Required = true }],
        "line",
        1
    );

    /// <summary>The rules, the first that fits being taken: words, and what they ask for.</summary>
    private static readonly IReadOnlyList<(Regex Words, Func<ProposalContext, KindProposal> Proposal)> Rules =
    [
        Rule(
            @"\bnewsletter\b|\b(send|receive|hear|get)\b.*\b(news|offers)\b",
            _ => new(new AdvertisingKind(""), Lands(BuiltInFields.MayAdvertise))
        ),
        Rule(@"\be-?mail\b", _ => new(new EmailKind(), Lands(BuiltInFields.Email))),
        Rule(@"\b(phone|telephone|mobile)\b", _ => new(new PhoneKind(), Lands(BuiltInFields.Phone))),
        Rule(@"\b(website|web ?site|web address|web ?page|url|online shop|link to)\b", _ => new(new WebAddressKind())),
        Rule(
            @"^(please )?(show|send|give) us\b.*\b(photos?|pictures?|images?|files?|logos?|sketch(es)?|drawings?"
                + @"|plans?|examples?)\b|\b(upload|attach)\b|^show us\b|\b(photos?|pictures?|images?|files?|sketch(es)?"
                + @"|drawings?) (of|from|you|we)\b",
            _ => new(new FilesKind())
        ),
        Rule(@"\bsignature\b|^(please )?sign (here|below)\b", _ => new(new SignatureKind(""))),
        Rule(@"^i (agree|accept|consent|confirm|have read)\b|\b(terms|privacy)\b", _ => new(new ConsentKind(""))),
        Rule(
            @"\b(hear|heard) (about|of) us\b|\b(find|found|come across|came across) us\b|\b(recommended|referred) (us|you)\b",
            _ => new(new ChoiceKind([]) { From = OptionList.Sources }, Lands(BuiltInFields.Source))
        ),
        Rule(
            @"\b(which|what) (of our )?services?\b|\bwhat can we do for you\b",
            _ => new(new ChoiceKind([]) { From = OptionList.Services }, Lands(BuiltInFields.Service))
        ),
        Rule(
            @"\b(who decides?|do you decide|decision|decision-maker)\b",
            _ =>
                new(
                    new ChoiceKind([
                        new Option("me", "I decide"),
                        new Option("together", "Together with others"),
                        new Option("someone-else", "Someone else decides"),
                    ]),
                    Lands("project.decides")
                )
        ),
        Rule(
            @"\bbudget\b|\bset aside\b|\bprice range\b|\b(like|want|plan|able|hoping|prepared) to (spend|invest|pay)\b|\bafford\b",
            context => new(Bands(context), Lands("project.budget"))
        ),
        Rule(
            @"\bhow much (is|was|does|did|do|are)\b|\b(amount|fee|rent|price|cost) (of|per|for|you)\b|\bin (euros?|pounds|dollars)\b",
            context => new(new MoneyKind(context.Currency, Min: 0))
        ),
        Rule(
            @"\b(participants|attendees|guest list|who (is|will be) (coming|there|taking part|attending))\b",
            _ => new(new PeopleKind("name", null, []))
        ),
        Rule(@"\bone (per|to a) line\b|\b(list|name) (all|each|every|the)\b", _ => new(OneLineEach)),
        Rule(
            @"\bfrom when\b|\bbetween which\b|\b(which|what) (days|dates|weeks|weekend)\b|\barrive and leave\b|\b(period|dates) of\b",
            _ => new(new DateRangeKind())
        ),
        Rule(@"\b(birth ?date|date of birth|born|birthday)\b", _ => new(new DateKind(new DateLimits(ToDays: 0)))),
        Rule(
            @"^how soon\b|^(by )?when\b.*\b(ready|finished|done|need(ed)?|want(ed)?|deliver(ed)?|launch|open)\b"
                + @"|\bdeadline\b|\b(ready|needed|wanted|finished|due) by\b",
            _ => new(new DateKind(new DateLimits(FromDays: 0)), Lands("project.wanted"))
        ),
        Rule(@"^(by |since |until )?when\b|\b(which|what) (day|date)\b|\bdate\b", _ => new(new DateKind())),
        Rule(
            @"\bhow (happy|satisfied|likely|sure|certain|confident|important|urgent|difficult|easy)\b|\b(rate|rating|scale)\b",
            _ => new(new ScaleKind(1, 5))
        ),
        Rule(@"\bhow many\b|\bnumber of\b|^how old\b", _ => new(new NumberKind(Min: 0, Whole: true))),
        Rule(
            @"\bhow (long|wide|high|tall|deep|big|large|far|heavy|thick|often)\b|\b(width|height|length|depth|size|weight|area)\b",
            _ => new(new NumberKind(Min: 0))
        ),
        Rule(
            @"\b(your|full|first|last|family) names?\b|^names?\??$|^who are you\b",
            _ => new(new PersonNameKind(), Lands(BuiltInFields.Name))
        ),
        Rule(@"\b(partner|bride|groom|contact|child|mother|father|guest|speaker|author)('?s'?)? names?\b", _ => new(new PersonNameKind())),
        Rule(
            @"\b(all that apply|tick|choose any|which of (these|them|the following))\b",
            _ => new(new ChoiceKind(ToBeWritten, Several: true))
        ),
        Rule(@"\baddress\b", _ => new(new AddressKind())),
        Rule(@"^where\b|\b(which|what) (town|city|place|venue|area)\b", _ => new(new ShortTextKind(), Lands("project.place"))),
        Rule(@"\b(prefer|rather)\b.*\bor\b", _ => new(new ChoiceKind(ToBeWritten))),
        // "Do you have this or that?" is answered by yes; "Is it this or that?" is not.
        Rule(
            @"^(do|does|did|have|has|had|can|could|will|would|should|may|shall) (you|it|there|this|that|they|we|i"
                + @"|your|the|anyone|anybody|somebody)\b|^(is|are|was|were) there\b",
            _ => new(new YesNoKind())
        ),
        Rule(@"^(which|what kind|what sort|what type)\b|\bor\b.*\?$", _ => new(new ChoiceKind(ToBeWritten))),
        Rule(@"^(is|are|was|were) (you|it|this|that|they|we|i|your|the|anyone|anybody|somebody)\b", _ => new(new YesNoKind())),
        Rule(
            @"^what (do|would|should|can|could) (you|we|it)\b.*\b(need|want|like|paint(ed)?|design(ed)?|made"
                + @"|have in mind)\b|^tell us about your (project|idea|plans?)\b",
            _ => new(new LongTextKind(), Lands("project.what"))
        ),
        Rule(
            @"^(please )?(tell|describe|explain|say)\b|^(why|how|what (do|does|did|should|would|could|makes?"
                + @"|made))\b|\b(story|details?|more about|in your own words|anything else|comments?|notes?)\b",
            _ => new(new LongTextKind())
        ),
    ];

    /// <summary>What such a question usually asks for; one line of text when no rule fits.</summary>
    /// <param name="wording">The question as it was typed, in English; case does not count.</param>
    /// <param name="context">What amounts are proposed in and around.</param>
    public static KindProposal For(string wording, ProposalContext context)
    {
        var words = wording.Trim().Replace('’', '\'');
        foreach (var (pattern, proposal) in Rules)
        {
            if (pattern.IsMatch(words))
                return proposal(context) is var proposed && proposed.Kind is AgreementKind agreement
                    ? proposed with
                    {
                        Kind = agreement with { Statement = wording.Trim() },
                    }
                    : proposed;
        }

        return new KindProposal(new ShortTextKind());
    }

    /// <summary>The bands of a budget around a starting price: under it, up to twice it, up to four times it, and more.</summary>
    private static ChoiceKind Bands(ProposalContext context)
    {
        var (start, currency) = (context.StartingPrice, context.Currency);
        return new ChoiceKind([
            new Option("under", $"Under {Say(start)}", new Band(new Bound(0), new Bound(start, Open: true), currency)),
            new Option(
                "small",
                $"{Say(start)} to {Say(start * 2)}",
                new Band(new Bound(start), new Bound(start * 2, Open: true), currency)
            ),
            new Option("middle", $"{Say(start * 2)} to {Say(start * 4)}", new Band(new Bound(start * 2), new Bound(start * 4), currency)),
            new Option("large", $"More than {Say(start * 4)}", new Band(new Bound(start * 4, Open: true), null, currency)),
            new Option("unsure", "I don't know yet", Unsure: true),
        ]);
    }

    private static string Say(decimal amount) => amount.ToString("#,0.##", System.Globalization.CultureInfo.InvariantCulture);

    private static SetField Lands(Field field) => new(field.Key);

    private static SetField Lands(string field) => new(field);

    // They never go back over the words, so that no text takes them long.
    private static (Regex, Func<ProposalContext, KindProposal>) Rule(string words, Func<ProposalContext, KindProposal> proposal) =>
        (new Regex(words, RegexOptions.IgnoreCase | RegexOptions.CultureInvariant | RegexOptions.NonBacktracking), proposal);
}
