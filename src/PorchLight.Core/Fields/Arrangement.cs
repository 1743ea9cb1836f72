using System.Text.Json.Serialization;
using PorchLight.Core.Common;

namespace PorchLight.Core.Fields;

/// <summary>What stands in a part of the view of a client or project.</summary>
public enum PartKind
{
    /// <summary>The fields one looks for first.</summary>
    Glance,

    /// <summary>More fields, under a title.</summary>
    Fields,

    /// <summary>Everybody there is to talk to.</summary>
    People,

    /// <summary>Notes.</summary>
    Notes,

    /// <summary>Tasks and dates.</summary>
    Tasks,

    /// <summary>The projects of a client.</summary>
    Projects,

    /// <summary>The days of a project.</summary>
    Days,
}

/// <summary>A part of the view of a client or project.</summary>
/// <param name="Key">Names it within the arrangement for ever.</param>
/// <param name="Kind">What stands in it.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Beside">Whether it stands at the side, where there is room.</param>
/// <param name="Fields">The keys of its fields in order; empty for parts that hold no fields.</param>
public sealed record ArrangedPart(string Key, PartKind Kind, string Title, bool Beside, IReadOnlyList<string> Fields)
{
    /// <summary>Whether fields can stand in it.</summary>
    public static bool Holds(PartKind kind) => kind is PartKind.Glance or PartKind.Fields;
}

/// <summary>How the view of clients, or of projects, is put together: its parts in order, and which fields stand where.</summary>
/// <param name="Parts">The parts in order.</param>
public sealed record Arrangement(IReadOnlyList<ArrangedPart> Parts)
{
    private const int LongestTitle = 80;
    private const int MostParts = 30;

    /// <summary>The arrangement before anybody changes it. No field is named in it: each stands where fields stand by themselves.</summary>
    /// <param name="scope">Clients or projects.</param>
    public static Arrangement Usual(RecordScope scope) =>
        new(
            scope == RecordScope.Client
                ?
                [
                    new("glance", PartKind.Glance, "At a glance", Beside: false, []),
                    new("people", PartKind.People, "People", Beside: true, []),
                    new("notes", PartKind.Notes, "Notes", Beside: true, []),
                    new("tasks", PartKind.Tasks, "Tasks and dates", Beside: true, []),
                    new("projects", PartKind.Projects, "Projects", Beside: false, []),
                    new("more", PartKind.Fields, "More about them", Beside: false, []),
                ]
                :
                [
                    new("days", PartKind.Days, "On the way", Beside: false, []),
                    new("glance", PartKind.Glance, "At a glance", Beside: false, []),
                    new("people", PartKind.People, "People", Beside: true, []),
                    new("notes", PartKind.Notes, "Notes", Beside: true, []),
                    new("tasks", PartKind.Tasks, "Tasks and dates", Beside: true, []),
                    new("more", PartKind.Fields, "More about it", Beside: false, []),
                ]
        );

    /// <summary>
    /// The arrangement with everything in it that there is: every field of the scope stands in one part, every part of the usual
    /// arrangement but further fields is there once.
    /// <list type="bullet">
    /// <item>Fields that are gone, of the other scope, or named a second time are left out, and so are those in parts that hold none.
    /// People have a part of their own.</item>
    /// <item>Fields that are named nowhere stand by themselves, in the order of the catalogue: those shown at a glance at the end of
    /// that part, the others at the end of the last part of further fields; where there is none, one is added at the end.</item>
    /// <item>Parts of one kind stay where the first stands, but for further fields, of which there may be many. What is missing is
    /// added at the end, in the usual order.</item>
    /// </list>
    /// </summary>
    /// <param name="scope">Clients or projects.</param>
    /// <param name="catalogue">The fields of the business; those put away have a place, too.</param>
    public Arrangement Completed(RecordScope scope, FieldCatalogue catalogue)
    {
        var usual = Usual(scope).Parts;
        var parts = Parts
            .Where(part => part.Kind == PartKind.Fields || usual.Any(one => one.Kind == part.Kind))
            .DistinctBy(part => part.Kind == PartKind.Fields ? part.Key : part.Kind.ToString())
            .ToList();
        parts.AddRange(usual.Where(one => one.Kind != PartKind.Fields && !parts.Exists(part => part.Kind == one.Kind)));
        if (!parts.Exists(part => part.Kind == PartKind.Fields))
            parts.Add(usual.Single(one => one.Kind == PartKind.Fields));

        var free = catalogue.All.Where(field => field.Scope == scope && field.Key != ClientPeople.Field.Key).ToList();
        for (var index = 0; index < parts.Count; index++)
            parts[index] = parts[index] with { Fields = [.. parts[index].Fields.Where(key => Holds(parts[index]) && Take(key))] };
        Add(
            parts.FindIndex(part => part.Kind == PartKind.Glance),
            free.Where(field => field.AtAGlance || field.Key == BuiltInFields.Name.Key)
        );
        Add(parts.FindLastIndex(part => part.Kind == PartKind.Fields), free);
        return new Arrangement(parts);

        static bool Holds(ArrangedPart part) => ArrangedPart.Holds(part.Kind);

        bool Take(string key) => free.RemoveAll(field => field.Key == key) > 0;

        void Add(int part, IEnumerable<Field> more)
        {
            var keys = more.Select(field => field.Key).ToList();
            free.RemoveAll(field => keys.Contains(field.Key));
            parts[part] = parts[part] with { Fields = [.. parts[part].Fields, .. keys] };
        }
    }

    /// <summary>The fields shown at a glance, in order.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> AtAGlance => Parts.FirstOrDefault(part => part.Kind == PartKind.Glance)?.Fields ?? [];

    /// <summary>The arrangement without a field in any part, so that completing it puts the field where it stands by itself.</summary>
    /// <param name="field">The field's key.</param>
    public Arrangement Without(string field) =>
        new([.. Parts.Select(part => part with { Fields = [.. part.Fields.Where(key => key != field)] })]);

    /// <summary>Titles without blanks around them, and a key for every part that has none yet, made of its title.</summary>
    public Arrangement Tidied()
    {
        var used = Parts.Select(part => part.Key).Where(key => key.Length > 0).ToHashSet();
        return new Arrangement([
            .. Parts.Select(part =>
                part with
                {
                    Key = part.Key.Length > 0 ? part.Key : ItemKeys.For(part.Title, used, "part"),
                    Title = part.Title.Trim(),
                }
            ),
        ]);
    }

    /// <summary>What has to be put right, by place ("parts.more.title"); for a tidied arrangement.</summary>
    public IReadOnlyList<Finding> Check()
    {
        if (Parts.Count > MostParts)
            return [new Finding("parts", $"These are too many parts. Please use at most {MostParts}.")];
        return
        [
            .. Parts
                .Where(part => part.Title.Length is 0 or > LongestTitle)
                .Select(part => new Finding(
                    $"parts.{part.Key}.title",
                    part.Title.Length == 0
                        ? "This part has no name. Write one, or take it away."
                        : $"A name has at most {LongestTitle} characters."
                )),
        ];
    }
}
