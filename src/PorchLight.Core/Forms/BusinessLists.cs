using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Projects;

namespace PorchLight.Core.Forms;

/// <summary>Something the business sells.</summary>
/// <param name="Key">Names it for ever; small letters, digits and hyphens.</param>
/// <param name="Name">What clients call it.</param>
/// <param name="StartsAt">Where it starts in price, in the business's currency; null when that is not said.</param>
public sealed record Service(string Key, string Name, decimal? StartsAt = null)
{
    /// <summary>No work is planned further ahead, and none takes longer to begin.</summary>
    public const int LongestPlan = 260;

    /// <summary>How many weeks lie between a yes and the work; null when that is not said.</summary>
    public int? LeadWeeks { get; init; }

    /// <summary>How many weeks ahead it can be booked; null when there is no end.</summary>
    public int? BookingWeeks { get; init; }

    /// <summary>The places it is done at, as people name them ("Dublin"); empty when it is done anywhere.</summary>
    public IReadOnlyList<string> Area { get; init; } = [];
}

/// <summary>A way people find the business.</summary>
/// <param name="Key">Names it for ever; small letters, digits and hyphens.</param>
/// <param name="Name">What people read.</param>
public sealed record Source(string Key, string Name)
{
    /// <summary>
    /// What else people wrote, or what a link said, that means the same way: former names, and names that were merged into it.
    /// </summary>
    public IReadOnlyList<string> AlsoWritten { get; init; } = [];

    /// <summary>Whether it is a person who sent them, whom the business thanks.</summary>
    public bool IsReferral { get; init; }

    /// <summary>Whether words name it, in small or capital letters.</summary>
    /// <param name="written">What somebody wrote, or what a link said.</param>
    public bool IsCalled(string written) => AlsoWritten.Prepend(Name).Contains(written.Trim(), StringComparer.OrdinalIgnoreCase);
}

/// <summary>Somebody of the trade whom the business names to people it cannot help itself.</summary>
/// <param name="Key">Names it for ever; small letters, digits and hyphens.</param>
/// <param name="Name">What they are called.</param>
/// <param name="About">What they are good for and how to reach them, as it stands in a message after the name.</param>
public sealed record TradeColleague(string Key, string Name, string About);

/// <summary>The business's own lists, which forms offer as options.</summary>
/// <param name="Services">What it sells, in the order it is shown.</param>
/// <param name="Sources">How people find it, in the order it is shown.</param>
public sealed record BusinessLists(IReadOnlyList<Service> Services, IReadOnlyList<Source> Sources)
{
    private const int LongestName = 100;
    private const int MostLines = 50;

    /// <summary>Where projects stand on their way, in the order of the work.</summary>
    public IReadOnlyList<Stage> Stages { get; init; } = Stage.Usual;

    /// <summary>Why work does not come, as the business says it; what a lost project is marked with.</summary>
    public IReadOnlyList<string> LostReasons { get; init; } =
    ["Too dear for them", "Went with someone else", "No answer any more", "Plans changed"];

    /// <summary>Colleagues of the trade, named where a kind no is said.</summary>
    public IReadOnlyList<TradeColleague> Colleagues { get; init; } = [];

    /// <summary>The service that is called so, in small or capital letters; null when there is none.</summary>
    /// <param name="name">Its name, or its key, as a link may say it; of two the one with the name counts.</param>
    public Service? ServiceCalled(string name) =>
        Services.FirstOrDefault(service => string.Equals(service.Name, name.Trim(), StringComparison.OrdinalIgnoreCase))
        ?? Services.FirstOrDefault(service => string.Equals(service.Key, name.Trim(), StringComparison.OrdinalIgnoreCase));

    /// <summary>The way people found the business that is called so, or was once; null when it is none of the list.</summary>
    /// <param name="written">What somebody wrote, or what a link said.</param>
    public Source? SourceCalled(string written) => Sources.FirstOrDefault(source => source.IsCalled(written));

    /// <summary>
    /// The lists with something people wrote counted to one of the ways they found the business. What was a way of its own until now is
    /// none any more, and all it was called goes with it.
    /// </summary>
    /// <param name="written">What people wrote, or the name of a way of the list.</param>
    /// <param name="into">The key of the way it means; null makes it a way of its own.</param>
    /// <returns>The lists; the same where it was so already, or where there is no such way.</returns>
    public BusinessLists WithSource(string written, string? into)
    {
        var words = written.Trim();
        var was = SourceCalled(words);
        if (into is null)
            return words.Length == 0 || was is not null ? this : (this with { Sources = [.. Sources, new Source("", words)] }).Normalise();
        if (words.Length == 0 || was?.Key == into || Sources.All(source => source.Key != into))
            return this;
        // A way of the list goes with all it was called; else these words alone move.
        var isWay = was is not null && string.Equals(was.Name, words, StringComparison.OrdinalIgnoreCase);
        IReadOnlyList<string> moved = isWay ? [was!.Name, .. was.AlsoWritten] : [words];
        return this with
        {
            Sources =
            [
                .. Sources
                    .Where(source => !isWay || source.Key != was!.Key)
                    .Select(source =>
                        source with
                        {
                            AlsoWritten =
                                source.Key == into
                                    ? [.. source.AlsoWritten, .. moved]
                                    : [.. source.AlsoWritten.Except(moved, StringComparer.OrdinalIgnoreCase)],
                        }
                    ),
            ],
        };
    }

    /// <summary>
    /// The lists with what its ways were called until now, so that what was written under a former name is still counted to them.
    /// </summary>
    /// <param name="was">The lists as they were.</param>
    public BusinessLists Remembering(BusinessLists was) =>
        this with
        {
            Sources =
            [
                .. Sources.Select(source =>
                    was.Sources.FirstOrDefault(before => before.Key == source.Key) is { } before && SourceCalled(before.Name) is null
                        ? source with
                        {
                            AlsoWritten = [.. source.AlsoWritten, before.Name],
                        }
                        : source
                ),
            ],
        };

    /// <summary>Nothing in them but the usual stages.</summary>
    public static BusinessLists Empty { get; } = new([], []);

    /// <summary>Names without blanks around; a key for every line that has none yet, made of its name.</summary>
    public BusinessLists Normalise()
    {
        return new BusinessLists(
            Keyed(
                Services,
                one => one.Name,
                one => one.Key,
                (one, key) =>
                    one with
                    {
                        Key = key,
                        Name = one.Name.Trim(),
                        Area = [.. one.Area.Select(place => place.Trim()).Where(place => place.Length > 0).Distinct()],
                    }
            ),
            Keyed(Sources, one => one.Name, one => one.Key, (one, key) => one with { Key = key, Name = one.Name.Trim() })
        )
        {
            Colleagues = Keyed(
                Colleagues,
                one => one.Name,
                one => one.Key,
                (one, key) => one with { Key = key, Name = one.Name.Trim(), About = one.About.Trim() }
            ),
            LostReasons = [.. LostReasons.Select(reason => reason.Trim())],
            Stages = Keyed(Stages, one => one.Name, one => one.Key, (one, key) => one with { Key = key, Name = one.Name.Trim() }),
        };

        static List<T> Keyed<T>(IReadOnlyList<T> lines, Func<T, string> name, Func<T, string> key, Func<T, string, T> with)
        {
            var used = lines.Select(key).Where(one => one.Length > 0).ToHashSet();
            return
            [
                .. lines.Select(line => with(line, key(line).Length > 0 ? key(line) : ItemKeys.For(name(line), used, otherwise: "line"))),
            ];
        }
    }

    /// <summary>What has to be put right, by place ("services.1.name"); for tidy lists.</summary>
    public IReadOnlyList<Finding> Check() =>
        [
            .. CheckNames("services", Services.Select(one => one.Name).ToList()),
            .. Services
                .Select((one, index) => (one, index))
                .Where(line => line.one.StartsAt < 0)
                .Select(line => new Finding($"services.{line.index}.startsAt", "A price does not lie under zero.")),
            .. Services.SelectMany(CheckPlans),
            .. CheckNames("sources", Sources.Select(one => one.Name).ToList()),
            .. Sources
                .Select((one, index) => (one, index))
                .Where(line => Sources.Any(other => other.Key != line.one.Key && other.AlsoWritten.Any(words => line.one.IsCalled(words))))
                .Select(line => new Finding(
                    $"sources.{line.index}.name",
                    $"“{line.one.Name}” counts to another way of this list. Choose another name, or merge the two."
                )),
            .. CheckNames("colleagues", Colleagues.Select(one => one.Name).ToList()),
            .. Colleagues
                .Select((one, index) => (one, index))
                .Where(line => line.one.About.Length > 2 * LongestName)
                .Select(line => new Finding($"colleagues.{line.index}.about", $"Say it in at most {2 * LongestName} characters.")),
            .. CheckNames("lostReasons", LostReasons.ToList()),
            .. CheckNames("stages", Stages.Select(one => one.Name).ToList()),
            .. Stages.Lacks() is { } lacks ? [new Finding("stages", lacks)] : Array.Empty<Finding>(),
        ];

    /// <summary>
    /// The form with the options of the lists in it: those of the list first, then the question's own ("something else").
    /// A choice of services that lands nowhere sets the project's service, one of sources how the client found the business.
    /// </summary>
    /// <param name="form">The form as it is written; one that uses no list comes back as it is.</param>
    public FormContent Into(FormContent form) => Each(form, Into);

    /// <summary>
    /// The form without the options that the lists have now, as it would be written anew: the lists set them in again,
    /// and take them away when they go. What was once on a list and is not any more stays as the question's own.
    /// </summary>
    /// <param name="form">A form with lists in it, as versions are.</param>
    public FormContent OutOf(FormContent form) => Each(form, OutOf);

    private static FormContent Each(FormContent form, Func<Question, Question> change) =>
        form with
        {
            Pages =
            [
                .. form.Pages.Select(page =>
                    page with
                    {
                        Items = [.. page.Items.Select(item => item is Question question ? change(question) : item)],
                    }
                ),
            ],
        };

    private Question OutOf(Question question) =>
        question.Kind is ChoiceKind { From: { } list } choice
            ? question with
            {
                Kind = choice with
                {
                    Options = [.. choice.Options.ExceptBy(Listed(list).Select(option => option.Key), option => option.Key)],
                },
            }
            : question;

    private IEnumerable<Option> Listed(OptionList list) =>
        list == OptionList.Services
            ? Services.Select(service => new Option(service.Key, service.Name))
            : Sources.Select(source => new Option(source.Key, source.Name));

    /// <summary>The same for one question.</summary>
    /// <param name="question">The question; one that offers no list of the business stays as it is.</param>
    public Question Into(Question question)
    {
        if (question.Kind is not ChoiceKind { From: { } list } choice)
            return question;
        var options = Listed(list).Concat(choice.Options).DistinctBy(option => option.Key).ToList();
        return question with
        {
            Kind = choice with { Options = options },
            LandsIn = question.LandsIn ?? new SetField(list == OptionList.Services ? BuiltInFields.Service.Key : BuiltInFields.Source.Key),
        };
    }

    private static IEnumerable<Finding> CheckPlans(Service service, int index)
    {
        foreach (var (place, weeks) in new[] { ("leadWeeks", service.LeadWeeks), ("bookingWeeks", service.BookingWeeks) })
        {
            if (weeks is < 0 or > Service.LongestPlan)
                yield return new Finding($"services.{index}.{place}", $"Say a number of weeks from 0 to {Service.LongestPlan}.");
        }

        if (service is { LeadWeeks: { } lead, BookingWeeks: { } ahead } && ahead < lead)
            yield return new Finding($"services.{index}.bookingWeeks", "It cannot be booked less far ahead than it takes to begin.");
        if (service.Area.Count > MostLines || service.Area.Any(place => place.Length > LongestName))
            yield return new Finding(
                $"services.{index}.area",
                $"An area has up to {MostLines} places, each with at most {LongestName} characters."
            );
    }

    private static IEnumerable<Finding> CheckNames(string list, List<string> names)
    {
        if (names.Count > MostLines)
            yield return new Finding(list, $"A list can have up to {MostLines} lines.");
        for (var index = 0; index < names.Count; index++)
        {
            if (names[index].Length is 0 or > LongestName)
                yield return new Finding(
                    $"{list}.{index}.name",
                    names[index].Length == 0
                        ? "This line has no name. Write one, or take the line away."
                        : $"A name has at most {LongestName} characters."
                );
            else if (names.Take(index).Contains(names[index], StringComparer.OrdinalIgnoreCase))
                yield return new Finding($"{list}.{index}.name", $"“{names[index]}” is listed twice.");
        }
    }
}
