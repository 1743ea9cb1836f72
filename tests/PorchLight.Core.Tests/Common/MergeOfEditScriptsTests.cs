using System.Text.Json.Nodes;
using CsCheck;
using PorchLight.Core.Common;

namespace PorchLight.Core.Tests.Common;

/// <summary>
/// Merges of random edit scripts over a list of keyed entries. What must come of them is said by the scripts themselves, not by
/// comparing trees: each step names the one place it is about.
/// </summary>
public sealed class MergeOfEditScriptsTests
{
    private static readonly string[] Start = ["a", "b", "c", "d", "e"];

    /// <summary>One thing a person does to a list.</summary>
    private abstract record Edit
    {
        public sealed record Set(string Key, string Property, int Value) : Edit;

        public sealed record Add(string Key, int At) : Edit;

        public sealed record Remove(string Key) : Edit;

        public sealed record Move(string Key, int To) : Edit;
    }

    [Fact]
    public void Edits_of_different_places_lose_nothing_invent_nothing_and_clash_nowhere() =>
        Gen.Select(Script("y"), Script("t"), Gen.Bool)
            .Sample(
                (yours, theirs, youMove) =>
                {
                    // Each property of each entry is one side's own, and only one side moves; whoever takes an entry away is alone with it.
                    var mine = yours
                        .Where(edit =>
                            edit switch
                            {
                                Edit.Set set => set.Property == "x" && !Removes(theirs, set.Key),
                                Edit.Move move => youMove && !Removes(theirs, move.Key),
                                Edit.Remove remove => !Touches(theirs, remove.Key),
                                _ => true,
                            }
                        )
                        .ToList();
                    var others = theirs
                        .Where(edit =>
                            edit switch
                            {
                                Edit.Set set => set.Property == "y" && !Removes(yours, set.Key),
                                Edit.Move => !youMove,
                                Edit.Remove remove => !Touches(yours, remove.Key),
                                _ => true,
                            }
                        )
                        .ToList();
                    var was = Start.Select(key => (Key: key, X: 0, Y: 0)).ToList();
                    var (now, stored) = (Apply(was, mine), Apply(was, others));

                    var (merged, clashes) = Merge.ThreeWay(Json(was), Json(now), Json(stored));

                    clashes.ShouldBeEmpty();
                    var both = Read(merged!.AsArray());
                    both.Select(one => one.Key)
                        .ShouldBe(
                            Start.Concat(Added(mine)).Concat(Added(others)).Where(key => !Removes(mine, key) && !Removes(others, key)),
                            ignoreOrder: true,
                            "an entry was lost or invented"
                        );
                    foreach (var (key, x, y) in both)
                    {
                        x.ShouldBe(Last(mine, key, "x"), $"yours of {key}");
                        y.ShouldBe(Last(others, key, "y"), $"theirs of {key}");
                    }

                    // Whoever moved decides the order of all they knew; the other side's additions stand between.
                    var mover = youMove ? now : stored;
                    both.Select(one => one.Key)
                        .Where(key => mover.Any(one => one.Key == key))
                        .ShouldBe(mover.Select(one => one.Key).Where(key => both.Any(one => one.Key == key)));
                }
            );

    [Fact]
    public void Whatever_two_people_do_the_result_holds_only_what_one_of_them_saw_and_every_loss_is_said() =>
        Gen.Select(Script("y"), Script("t"))
            .Sample(
                (yours, theirs) =>
                {
                    var was = Start.Select(key => (Key: key, X: 0, Y: 0)).ToList();
                    var (now, stored) = (Apply(was, yours), Apply(was, theirs));
                    var (merged, clashes) = Merge.ThreeWay(Json(was), Json(now), Json(stored));
                    var both = Read(merged!.AsArray());
                    both.Select(one => one.Key).ShouldBeUnique();
                    foreach (var key in was.Concat(now).Concat(stored).Select(one => one.Key).Distinct())
                    {
                        var (b, n, s, m) = (At(was, key), At(now, key), At(stored, key), At(both, key));
                        if (clashes.Any(clash => clash.Place == key || clash.Place.StartsWith(key + ".", StringComparison.Ordinal)))
                            continue;
                        // Without a clash, an entry is where a side that changed it has it, property by property.
                        (m is null).ShouldBe(b is null ? n is null && s is null : n is null || s is null, key);
                        if (m is not { } there)
                            continue;
                        there.X.ShouldBe(n is { } mine && mine.X != b?.X ? mine.X : (s ?? n)!.Value.X);
                        there.Y.ShouldBe(n is { } own && own.Y != b?.Y ? own.Y : (s ?? n)!.Value.Y);
                    }
                }
            );

    private static bool Removes(IEnumerable<Edit> script, string key) => script.OfType<Edit.Remove>().Any(edit => edit.Key == key);

    private static bool Touches(IEnumerable<Edit> script, string key) =>
        script.Any(edit =>
            edit switch
            {
                Edit.Set set => set.Key == key,
                Edit.Move move => move.Key == key,
                Edit.Remove remove => remove.Key == key,
                _ => false,
            }
        );

    private static IEnumerable<string> Added(IEnumerable<Edit> script) => script.OfType<Edit.Add>().Select(edit => edit.Key).Distinct();

    private static int Last(IEnumerable<Edit> script, string key, string property) =>
        script.OfType<Edit.Set>().LastOrDefault(edit => edit.Key == key && edit.Property == property)?.Value ?? 0;

    private static (string Key, int X, int Y)? At(List<(string Key, int X, int Y)> list, string key) =>
        list.Where(one => one.Key == key).Select(one => ((string, int, int)?)one).FirstOrDefault();

    private static List<(string Key, int X, int Y)> Apply(List<(string Key, int X, int Y)> start, IEnumerable<Edit> script)
    {
        var list = start.ToList();
        foreach (var edit in script)
        {
            var index = list.FindIndex(one =>
                one.Key
                == edit switch
                {
                    Edit.Set s => s.Key,
                    Edit.Add a => a.Key,
                    Edit.Remove r => r.Key,
                    Edit.Move m => m.Key,
                    _ => "",
                }
            );
            switch (edit)
            {
                case Edit.Set { Property: "x" } set when index >= 0:
                    list[index] = list[index] with { X = set.Value };
                    break;
                case Edit.Set set when index >= 0:
                    list[index] = list[index] with { Y = set.Value };
                    break;
                case Edit.Add add when index < 0:
                    list.Insert(Math.Min(add.At, list.Count), (add.Key, 0, 0));
                    break;
                case Edit.Remove when index >= 0:
                    list.RemoveAt(index);
                    break;
                case Edit.Move move when index >= 0:
                    var moved = list[index];
                    list.RemoveAt(index);
                    list.Insert(Math.Min(move.To, list.Count), moved);
                    break;
            }
        }

        return list;
    }

    private static JsonArray Json(List<(string Key, int X, int Y)> list) =>
        new([
            .. list.Select(one => new JsonObject
            {
                ["key"] = one.Key,
                ["x"] = one.X,
                ["y"] = one.Y,
            }),
        ]);

    private static List<(string Key, int X, int Y)> Read(JsonArray list) =>
        [.. list.Select(one => ((string)one!["key"]!, (int)one["x"]!, (int)one["y"]!))];

    /// <summary>A few edits; what this side adds has names of its own.</summary>
    private static Gen<List<Edit>> Script(string side)
    {
        var key = Gen.Int[0, Start.Length - 1].Select(index => Start[index]);
        return Gen.OneOf<Edit>(
            Gen.Select(key, Gen.Bool, Gen.Int[1, 3]).Select((of, x, value) => (Edit)new Edit.Set(of, x ? "x" : "y", value)),
            Gen.Select(Gen.Int[1, 3], Gen.Int[0, 6]).Select((n, at) => (Edit)new Edit.Add($"{side}{n}", at)),
            key.Select(of => (Edit)new Edit.Remove(of)),
            Gen.Select(key, Gen.Int[0, 5]).Select((of, to) => (Edit)new Edit.Move(of, to))
        ).List[0, 6];
    }
}
