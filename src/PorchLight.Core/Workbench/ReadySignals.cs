using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Money;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Workbench;

/// <summary>A signal that is ready to be used with a form.</summary>
/// <param name="Signal">The signal as it would be added.</param>
/// <param name="Needs">What has to be said first, as a sentence; null when it can be used at once.</param>
/// <param name="Renews">
/// Why it is offered though the screening has it: what it rests on in the settings has changed since. Null for a new one.
/// </param>
public sealed record ReadySignal(Signal Signal, string? Needs, string? Renews);

/// <summary>
/// The signals that are of use to most small businesses, made for the questions a form really has. What they weigh is common
/// practice and a place to begin; history says more.
/// </summary>
public static class ReadySignals
{
    private const int PaperWithinDays = 21;

    /// <summary>The ready signals for a form, in the order one meets them when talking to a lead.</summary>
    /// <param name="form">The form with the business's lists in it.</param>
    /// <param name="rules">The screening as it stands: what is in it already is not offered again.</param>
    /// <param name="service">What the form asks about; null for nothing in particular.</param>
    public static IReadOnlyList<ReadySignal> For(FormContent form, ScreeningRules rules, Service? service)
    {
        var there = rules.Signals.ToDictionary(signal => signal.Key);
        return
        [
            .. All(form, service)
                .Select(ready =>
                    there.TryGetValue(ready.Signal.Key, out var used)
                        ? ready with
                        {
                            Renews = ready.Needs is null && Differs(used.When, ready.Signal.When) ? ready.Renews : null,
                        }
                        : ready with
                        {
                            Renews = null,
                        }
                )
                .Where(ready => ready.Renews is not null || !there.ContainsKey(ready.Signal.Key)),
        ];
    }

    // Records compare their lists by identity; said in words, two conditions are the same when they read the same.
    private static bool Differs(Condition one, Condition other) => !Limits(one).SequenceEqual(Limits(other));

    private static IEnumerable<string> Limits(Condition condition) =>
        condition
            .Comparisons()
            .Select(comparison =>
                comparison switch
                {
                    NumberCondition number => $"{number.Relation} {number.Value} {number.Currency}",
                    WithinNextDaysCondition within => $"{within.Days}",
                    IsOneOfCondition oneOf => string.Join('\n', oneOf.Values),
                    _ => "",
                }
            );

    private static IEnumerable<ReadySignal> All(FormContent form, Service? service)
    {
        var questions = form.Questions.ToList();
        var day = questions.Find(LandsIn("project.wanted")) ?? questions.Find(LandsIn("project.start")) ?? questions.Find(IsDayOfWork);
        if (
            (questions.Find(LandsIn("project.budget")) ?? questions.Find(question => Comparisons.CurrencyOf(question, form) is not null)) is
            { } budget
        )
        {
            yield return Ready(
                "no-budget",
                "Cannot or will not name a budget",
                budget.Options.Any(option => option.Unsure) ? new DoesNotKnowCondition(Of(budget)) : new IsBlankCondition(Of(budget)),
                new PointsEffect(-5)
            );
            yield return service?.StartsAt is { } start && Comparisons.CurrencyOf(budget, form) is { } currency
                ? Ready(
                    "under-start",
                    $"Budget is under the starting price of {new MoneyAmount(start, currency)}",
                    new NumberCondition(Of(budget), NumberRelation.Under, start, currency),
                    new PointsEffect(-25)
                ) with
                {
                    Renews = $"The service starts at {new MoneyAmount(start, currency)} now.",
                }
                : Waiting(
                    "under-start",
                    "Budget is under the starting price",
                    service is null ? ChooseService : $"Say in your settings at which price “{service.Name}” starts."
                );
        }

        if (
            (questions.Find(LandsIn("project.decides")) ?? questions.Find(Asks("decide", "decision"))) is { } decides
            && Other(decides) is { } notThem
        )
            yield return Ready("not-deciding", "Is not the one who decides", notThem, new FlagEffect());
        if (
            questions.Find(Asks("working with someone", "working with someone", "working with another", "other studio")) is
            { Kind: YesNoKind } elsewhere
        )
            yield return Ready("has-somebody", "Already works with someone else", new IsCondition(Of(elsewhere), "yes"), new FlagEffect());
        if (day is not null)
        {
            yield return service?.BookingWeeks is { } ahead
                ? Ready(
                    "too-far-ahead",
                    $"Wants to start later than the {ahead} weeks we plan ahead",
                    new NotCondition(new WithinNextDaysCondition(Of(day), ahead * 7)),
                    new PointsEffect(-10)
                ) with
                {
                    Renews = $"The service can be booked {ahead} weeks ahead now.",
                }
                : Waiting(
                    "too-far-ahead",
                    "Wants to start later than we plan ahead",
                    service is null ? ChooseService : $"Say in your settings how far ahead “{service.Name}” can be booked."
                );
            yield return service?.LeadWeeks is { } lead
                ? Ready(
                    "inside-lead-time",
                    $"Needs it within our lead time of {lead} weeks",
                    new WithinNextDaysCondition(Of(day), lead * 7),
                    new DealBreakerEffect()
                ) with
                {
                    Renews = $"The lead time of the service is {lead} weeks now.",
                }
                : Waiting(
                    "inside-lead-time",
                    "Needs it within our lead time",
                    service is null ? ChooseService : $"Say in your settings how many weeks “{service.Name}” takes to begin."
                );
            if (
                questions.Find(question => question.Kind is FilesKind || Asks("permission", "permit", "licence", "landlord")(question))
                    is { } paper
                && Missing(paper) is { } missing
            )
                yield return new ReadySignal(
                    new Signal(
                        "paper-missing",
                        "A paper is missing, and the date is less than three weeks off",
                        new AllCondition([missing, new WithinNextDaysCondition(Of(day), PaperWithinDays)]),
                        new PointsEffect(-15)
                    )
                    {
                        Advice = "Ask for the paper first: without it the date cannot be kept.",
                    },
                    null,
                    null
                );
        }

        if (
            questions.Find(question => question.Kind is ChoiceKind { From: OptionList.Services }) is { Kind: ChoiceKind what } asked
            && service is not null
            && what.Options.Where(option => !option.Unsure && IsElse(option)).Select(option => option.Key).ToList() is { Count: > 0 } others
        )
            yield return Ready(
                "not-what-we-do",
                "Asks only for what we do not do",
                what.Several
                    ? new IncludesNoneOfCondition(Of(asked), [.. what.Options.Select(option => option.Key).Except(others)])
                    : new IsOneOfCondition(Of(asked), others),
                new DealBreakerEffect()
            );
        if (Choice(questions, "compar", "quotes") is ({ } shopping, { } compares))
            yield return Ready("compares-prices", "Only compares prices", compares(shopping), new PointsEffect(-15));
        if (questions.Find(LandsIn("project.place")) is { Kind: ShortTextKind } place)
            yield return service?.Area is { Count: > 0 } area
                ? Ready(
                    "outside-area",
                    "Lies outside the area we work in",
                    new NotCondition(new IsOneOfCondition(Of(place), area)),
                    new PointsEffect(-20)
                ) with
                {
                    Renews = "The area of the service has changed.",
                }
                : Waiting(
                    "outside-area",
                    "Lies outside the area we work in",
                    service is null ? ChooseService : $"Say in your settings in which places “{service.Name}” is done."
                );
        var sources = questions
            .Where(question => LandsIn(BuiltInFields.Source.Key)(question) || question.Kind is ChoiceKind { From: OptionList.Sources })
            .ToList();
        if (Choice(sources, "client", "referr", "recommend", "friend") is ({ } source, { } referred))
            yield return Ready("referred", "Came through a referral", referred(source), new PointsEffect(15));
        yield return questions.Find(Asks("worked with us", "been with us", "with us before")) is { Kind: YesNoKind } before
            ? Ready("worked-before", "Worked with us before", new IsCondition(Of(before), "yes"), new PointsEffect(20))
            : Ready(
                "worked-before",
                "Has been in touch with us before",
                new IsAnsweredCondition(new ValueOnFile(BuiltInFields.Email.Key)),
                new PointsEffect(20)
            );
    }

    private const string ChooseService = "Choose in the form's settings which service it asks about.";

    private static ReadySignal Ready(string key, string sentence, Condition when, SignalEffect effect) =>
        new(new Signal(key, sentence, when, effect), null, null);

    private static ReadySignal Waiting(string key, string sentence, string needs) =>
        new(new Signal(key, sentence, new AnyCondition([]), new PointsEffect(0)), needs, null);

    private static AnswerTo Of(Question question) => new(question.Key);

    private static Predicate<Question> LandsIn(string field) => question => question.LandsIn is SetField set && set.Field == field;

    private static Predicate<Question> Asks(params string[] words) =>
        question => Array.Exists(words, word => question.Wording.Contains(word, StringComparison.OrdinalIgnoreCase));

    private static bool IsDayOfWork(Question question) =>
        question.Kind is DateKind or DateRangeKind && !LandsIn(BuiltInFields.Born.Key)(question);

    private static bool IsElse(Option option) => Says(option, "else", "other", "none");

    private static bool Says(Option option, params string[] words) =>
        Array.Exists(words, word => option.Label.Contains(word, StringComparison.OrdinalIgnoreCase));

    /// <summary>That it is somebody else: a no, or an option that says so. Null when no answer says it.</summary>
    private static Condition? Other(Question question) =>
        question.Kind is YesNoKind ? new IsCondition(Of(question), "no")
        : question.Kind is ChoiceKind { Several: false } choice
        && choice.Options.Where(option => Says(option, "else", "someone", "board", "committee", "my boss")).ToList()
            is { Count: > 0 } others
            ? IsAnyOf(question, others)
        : null;

    private static Condition? Missing(Question question) =>
        question.Kind switch
        {
            FilesKind => new IsBlankCondition(Of(question)),
            YesNoKind => new IsCondition(Of(question), "no"),
            ChoiceKind { Several: false } choice
                when choice.Options.Where(option => Says(option, "not yet", "no,", "no ") || option.Key == "no").ToList()
                    is { Count: > 0 } none => IsAnyOf(question, none),
            _ => null,
        };

    private static (Question? Question, Func<Question, Condition>? When) Choice(IEnumerable<Question> questions, params string[] words)
    {
        foreach (var question in questions)
        {
            if (question.Kind is ChoiceKind choice && choice.Options.Where(option => Says(option, words)).ToList() is { Count: > 0 } said)
                return (question, one => choice.Several ? new IncludesCondition(Of(one), said[0].Key) : IsAnyOf(one, said));
        }

        return (null, null);
    }

    private static Condition IsAnyOf(Question question, List<Option> options) =>
        options is [var only]
            ? new IsCondition(Of(question), only.Key)
            : new IsOneOfCondition(Of(question), [.. options.Select(option => option.Key)]);
}
