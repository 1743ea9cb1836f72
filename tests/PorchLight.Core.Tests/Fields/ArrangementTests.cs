using CsCheck;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Tests.Fields;

public sealed class ArrangementTests
{
    private static readonly FieldCatalogue Catalogue = new([
        .. BuiltInFields.All,
        new Field("client.coffee", "Coffee order", FieldKind.Text) { AtAGlance = true },
        new Field("client.dog", "Dog", FieldKind.Text) { Archived = true },
        new Field("project.plaster", "Plaster", FieldKind.Text),
    ]);

    [Fact]
    public void Before_anybody_arranges_it_what_is_shown_at_a_glance_stands_first_and_everything_else_behind()
    {
        var parts = Arrangement.Usual(RecordScope.Client).Completed(RecordScope.Client, Catalogue).Parts;
        parts
            .Select(part => part.Kind)
            .ShouldBe([PartKind.Glance, PartKind.People, PartKind.Notes, PartKind.Tasks, PartKind.Projects, PartKind.Fields]);
        parts[0].Fields[0].ShouldBe("client.name");
        parts[0].Fields.ShouldContain("client.coffee");
        parts[^1].Fields.ShouldContain("client.dog", "one that is put away has a place for what it holds");
        parts.SelectMany(part => part.Fields).ShouldNotContain("client.people", "people have a part of their own");
        parts.SelectMany(part => part.Fields).ShouldNotContain(key => key.StartsWith("project."));
    }

    [Fact]
    public void A_field_stands_where_somebody_put_it_and_a_new_one_where_it_says_of_itself()
    {
        var arranged = new Arrangement([
            new("notes", PartKind.Notes, "Notes", false, ["client.phone"]),
            new("drinks", PartKind.Fields, "Drinks", true, ["client.coffee", "client.gone", "client.coffee"]),
            new("glance", PartKind.Glance, "First of all", false, ["client.email"]),
            new("other-notes", PartKind.Notes, "Once more", false, []),
            new("days", PartKind.Days, "Days", false, []),
        ]).Completed(RecordScope.Client, Catalogue);
        arranged.Parts.Select(part => part.Key).ShouldBe(["notes", "drinks", "glance", "people", "tasks", "projects"]);
        arranged.Parts[0].Fields.ShouldBeEmpty("notes hold no fields");
        arranged.Parts[1].Fields[0].ShouldBe("client.coffee", "it stays where it was put, although it says at a glance");
        arranged.AtAGlance[0].ShouldBe("client.email");
        arranged.AtAGlance.ShouldContain("client.phone");
        arranged.Without("client.coffee").Completed(RecordScope.Client, Catalogue).AtAGlance[^1].ShouldBe("client.coffee");
    }

    [Fact]
    public void Titles_are_asked_for_and_new_parts_get_keys()
    {
        var tidied = new Arrangement([
            new("", PartKind.Fields, " Site and access ", false, []),
            new("", PartKind.Fields, "Site and access", false, []),
            new("more", PartKind.Fields, "  ", false, []),
            new("long", PartKind.Fields, new string('x', 81), false, []),
        ]).Tidied();
        tidied.Parts.Select(part => part.Key).ShouldBe(["site-and-access", "site-and-access-2", "more", "long"]);
        tidied.Parts[0].Title.ShouldBe("Site and access");
        tidied.Check().Select(finding => finding.Place).ShouldBe(["parts.more.title", "parts.long.title"]);
        new Arrangement([.. Enumerable.Range(0, 31).Select(index => new ArrangedPart($"p{index}", PartKind.Fields, "X", false, []))])
            .Check()
            .Single()
            .Place.ShouldBe("parts");
    }

    [Fact]
    public void However_it_was_arranged_it_is_completed_as_somebody_with_a_list_of_cards_would()
    {
        var keys = Catalogue.All.Select(field => field.Key).Append("client.gone").ToArray();
        var part = Gen.Select(
            Gen.Int[0, 4],
            Gen.Enum<PartKind>(),
            Gen.Bool,
            Gen.Int[0, keys.Length - 1].Select(index => keys[index]).Array[0, 6],
            (key, kind, beside, fields) => new ArrangedPart($"k{key}", kind, "Title", beside, fields)
        );
        Gen.Select(part.Array[0, 8], Gen.Enum<RecordScope>())
            .Sample(
                (parts, scope) =>
                {
                    var completed = new Arrangement(parts).Completed(scope, Catalogue);
                    var wanted = ByHand(parts, scope);
                    completed.Parts.Select(Say).ShouldBe(wanted.Select(one => $"{one.Kind} {one.Key}: {string.Join(",", one.Fields)}"));
                    completed.Completed(scope, Catalogue).Parts.Select(Say).ShouldBe(completed.Parts.Select(Say), "it is complete");
                }
            );
    }

    private static string Say(ArrangedPart part) => $"{part.Kind} {part.Key}: {string.Join(",", part.Fields)}";

    private static List<(PartKind Kind, string Key, List<string> Fields)> ByHand(ArrangedPart[] parts, RecordScope scope)
    {
        PartKind[] once =
            scope == RecordScope.Client
                ? [PartKind.Glance, PartKind.People, PartKind.Notes, PartKind.Tasks, PartKind.Projects]
                : [PartKind.Days, PartKind.Glance, PartKind.People, PartKind.Notes, PartKind.Tasks];
        var table = new List<(PartKind Kind, string Key, List<string> Fields)>();
        var placed = new HashSet<string> { "client.people" };
        foreach (var part in parts)
        {
            if (
                part.Kind == PartKind.Fields
                    ? table.Exists(one => one.Kind == PartKind.Fields && one.Key == part.Key)
                    : !once.Contains(part.Kind)
            )
                continue;
            if (part.Kind != PartKind.Fields && table.Exists(one => one.Kind == part.Kind))
                continue;
            var cards = new List<string>();
            if (part.Kind is PartKind.Glance or PartKind.Fields)
            {
                foreach (var key in part.Fields)
                {
                    if (Catalogue.Find(key) is { } field && field.Scope == scope && placed.Add(key))
                        cards.Add(key);
                }
            }

            table.Add((part.Kind, part.Key, cards));
        }

        foreach (var kind in once)
        {
            if (!table.Exists(one => one.Kind == kind))
                table.Add((kind, kind.ToString().ToLowerInvariant(), []));
        }

        if (!table.Exists(one => one.Kind == PartKind.Fields))
            table.Add((PartKind.Fields, "more", []));
        foreach (var field in Catalogue.All)
        {
            if (field.Scope != scope || !placed.Add(field.Key))
                continue;
            var isFirst = field.AtAGlance || field.Key == "client.name";
            table.FindLast(one => one.Kind == (isFirst ? PartKind.Glance : PartKind.Fields)).Fields.Add(field.Key);
        }

        return table;
    }
}
