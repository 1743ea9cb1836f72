using PorchLight.Core.Common;

namespace PorchLight.Core.Records;

/// <summary>All kinds of events there are, and what can be asked of any event.</summary>
public static class DomainEvents
{
    /// <summary>The types of all kinds by their names, in the order of the names.</summary>
    public static IReadOnlyDictionary<string, Type> All => Kinds.Of(typeof(DomainEvent));

    private static readonly Dictionary<Type, EventKindAttribute> Said = All.Values.ToDictionary(
        type => type,
        Kinds.Named<EventKindAttribute>
    );

    /// <summary>The names of the kinds that the program may bring about by itself.</summary>
    public static IReadOnlyList<string> PerhapsByItself { get; } =
    [.. Said.Values.Where(kind => kind.By is EventBy.Program or EventBy.ProgramOrUser).Select(kind => kind.Name)];

    /// <summary>The kind of an event, as its JSON names it: "inquiryReceived".</summary>
    /// <param name="happening">The event.</param>
    public static string Kind(this DomainEvent happening) => Of(happening).Name;

    /// <summary>The kind of all events of a type.</summary>
    /// <typeparam name="T">The type.</typeparam>
    public static string KindOf<T>()
        where T : DomainEvent => Said[typeof(T)].Name;

    /// <summary>The stage a project comes to by an event, or null where it is no such event or the event is too old to say.</summary>
    /// <param name="happening">The event.</param>
    public static string? StageReached(this DomainEvent happening) => (happening as IReachesStage)?.Stage;

    /// <summary>Whether follow-throughs may start, go on or end by it; any other event they need not be asked about.</summary>
    /// <param name="happening">The event.</param>
    public static bool MovesRuns(this DomainEvent happening) => Of(happening).MovesRuns;

    /// <summary>
    /// Whether it is a word of a person of the business to the client, which keeps the reply promise and answers what
    /// they wrote.
    /// </summary>
    /// <param name="happening">The event. A message that goes by itself is nobody's word.</param>
    public static bool IsPersonalWord(this DomainEvent happening) => Of(happening).IsPersonalWord && happening.IsByAPerson();

    /// <summary>Whether a person did it, the client or somebody of the business, and not the program by itself.</summary>
    /// <param name="happening">The event.</param>
    public static bool IsByAPerson(this DomainEvent happening) =>
        Of(happening).By switch
        {
            EventBy.Program => false,
            EventBy.ProgramOrUser => NamesAUser(happening),
            _ => true,
        };

    /// <summary>Whether the bell rings for it: a person should know, and nobody of the business did it.</summary>
    /// <param name="happening">The event.</param>
    public static bool Rings(this DomainEvent happening) => Of(happening).Rings && !NamesAUser(happening);

    /// <summary>
    /// Whether it stays when the person it is about is erased: what is counted later and says nothing in anybody's words.
    /// </summary>
    /// <param name="happening">The event.</param>
    public static bool OutlivesErasing(this DomainEvent happening) => Of(happening).OutlivesErasing;

    /// <summary>What somebody wrote, in their own words, or null.</summary>
    /// <param name="happening">The event.</param>
    public static string? Words(this DomainEvent happening) => (happening as IInTheirWords)?.Words;

    private static EventKindAttribute Of(DomainEvent happening) => Said[happening.GetType()];

    private static bool NamesAUser(DomainEvent happening) => happening is IPerhapsByAUser { By: not null };
}
