using System.Globalization;
using CsCheck;
using PorchLight.Core.FollowThrough;
using static PorchLight.Core.Tests.FollowThrough.FollowThroughDeskTests;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>A follow-through edited as a table.</summary>
public sealed class PlanTableTests
{
    [Fact]
    public void A_plan_table_that_comes_back_as_it_went_out_changes_nothing() =>
        RunDiaryTests.RandomContent.Sample(random =>
        {
            var content = random with { Steps = [.. random.Steps.Select(step => step with { Name = step.Key })] };
            var (read, findings) = PlanTable.Read(content, PlanTable.Of(content, Names));
            findings.ShouldBeEmpty();
            FollowThroughDifferences.Say(content, read, Names).ShouldBeEmpty();
        });

    [Fact]
    public void A_plan_table_changes_names_days_and_actors_and_its_new_lines_are_still_to_be_written()
    {
        var content = Content([
            Step("a", Mail()),
            Step("b", Mail(), new Schedule(Anchor.PreviousSettled, 3, TimeUnit.Days)),
            Step("c", Mail()),
        ]);
        PlanLine Line(string key, string day, string step, string who, string sees = "", string still = "") =>
            new(key, day, step, who, sees, still, "");
        var (read, findings) = PlanTable.Read(
            content,
            [
                Line("a", "0", "Thanks", "you, by a nod"),
                Line("", "", "", ""),
                Line("", "Day 2", "The guide", "by itself", "our guide to walls"),
                Line("b", "5", "b", "by itself"),
                Line("", "5", "", "you", "", "a word about colours"),
            ]
        );
        findings.ShouldBeEmpty();
        read.Steps.Select(step => (step.Key, step.Name, step.NeedsNod))
            .ShouldBe([
                ("a", "Thanks", true),
                ("the-guide", "The guide", false),
                ("b", "b", false),
                ("a-word-about-colours", "a word about colours", true),
            ]);
        StepDays.DaysOf(read).ShouldBe([0, 2, 5, 5]);
        read.Steps[2].Schedule.ShouldBe(content.Steps[1].Schedule, "it stands where it stood: three days after the one before");
        PlanTable.Unfinished(read).ShouldBe(["the-guide", "a-word-about-colours"]);
        PlanTable.Of(read, Names)[1].StillToWrite.ShouldBe("our guide to walls");

        var (same, wrong) = PlanTable.Read(content, [Line("a", "3", "a", ""), Line("b", "soon", "b", ""), Line("c", "1", "", "")]);
        same.ShouldBe(content);
        wrong.Select(one => one.Place).ShouldBe(["2", "3", "3"]);
    }

    [Fact]
    public void A_day_typed_behind_a_step_without_a_day_is_that_day_of_the_start()
    {
        var content = Content([
            Step("a", Mail()),
            Step("b", Mail(), new Schedule(new ProjectDateAnchor("project.start"), 2, TimeUnit.Days)),
            Step("c", Mail()),
            Step("d", Mail()),
        ]);
        var lines = PlanTable.Of(content, Names).ToList();
        lines[2] = lines[2] with { Day = "9" };
        var (read, findings) = PlanTable.Read(content, lines);
        findings.ShouldBeEmpty();
        StepDays.DaysOf(read).ShouldBe([0, null, 9, 9]);
        PlanTable.Of(read, Names)[2].Day.ShouldBe("9");
    }

    [Fact]
    public void Whatever_days_are_typed_the_table_says_them_afterwards() =>
        Gen.Select(RunDiaryTests.RandomContent, Gen.Int[0, 40].Array[12])
            .Sample(
                (random, days) =>
                {
                    var content = random with { Steps = [.. random.Steps.Select(step => step with { Name = step.Key })] };
                    var typed = days.Order().Take(content.Steps.Count).ToList();
                    var (read, findings) = PlanTable.Read(
                        content,
                        [.. PlanTable.Of(content, Names).Zip(typed, (line, day) => line with { Day = $"{day}" })]
                    );
                    findings.ShouldBeEmpty();
                    StepDays.DaysOf(read).Take(typed.Count).ShouldBe(typed.Select(day => (int?)day));
                }
            );

    [Fact]
    public void Whatever_somebody_does_to_a_table_is_read_as_a_second_reader_reads_it() =>
        Gen.Select(RandomSteps, RandomEdit.Array[0, 12])
            .Sample(
                (steps, edits) =>
                {
                    var content = Content(steps);
                    var lines = Edited(PlanTable.Of(content, Names), edits);
                    var (read, findings) = PlanTable.Read(content, lines);
                    var naive = NaivePlanTable.Read(steps, lines);
                    findings.Select(one => one.Place).ShouldBe(naive.Faults);
                    if (naive.Faults.Count > 0)
                    {
                        read.ShouldBe(content);
                        return;
                    }

                    read.Steps.Select(step => (step.Name, step.NeedsNod, Still: (step.Action as Unwritten)?.What))
                        .ShouldBe(naive.Steps.Select(step => (step.Name, step.NeedsNod, Still: step.StillToWrite)));
                    read.Steps.Select(step => step.Key).ShouldBeUnique();
                    PlanTable.Of(read, Names).Select(line => line.Day).ShouldBe(naive.Steps.Select(step => $"{step.Day}"));
                    // Who was there keeps what they do, and their moment where the table does not say another.
                    foreach (var (step, same) in read.Steps.Zip(naive.Steps).Where(pair => pair.Second.Old is not null))
                    {
                        step.Key.ShouldBe(same.Old!.Key);
                        if (same.Old.Action is not Unwritten)
                            step.Action.ShouldBe(same.Old.Action);
                        if (!same.Moved)
                            step.Schedule.ShouldBe(same.Old.Schedule);
                    }
                }
            );

    private static readonly Gen<Step[]> RandomSteps = Gen.Select(Gen.Int[0, 3], Gen.Int[0, 9], Gen.Bool, Gen.Int[0, 3])
        .Array[0, 8]
        .Select(steps =>
            steps
                .Select(
                    (step, index) =>
                        Step(
                            $"s{index}",
                            step.Item4 == 0 ? new Unwritten($"words {index}") : Mail(),
                            new Schedule(
                                step.Item1 switch
                                {
                                    0 => Anchor.RunStart,
                                    1 => new ProjectDateAnchor("project.start"),
                                    _ => Anchor.PreviousSettled,
                                },
                                step.Item2,
                                TimeUnit.Days
                            )
                        ) with
                        {
                            NeedsNod = step.Item3,
                        }
                )
                .ToArray()
        );

    private static readonly string[] Cells =
    [
        "",
        " ",
        "4",
        "Day 7",
        "12",
        "19",
        "-1",
        "soon",
        "3654",
        "by itself",
        "you, by a nod",
        "the guide",
        "nothing",
        "s0",
    ];

    private static readonly Gen<(int What, int Line, string Cell)> RandomEdit = Gen.Select(
        Gen.Int[0, 8],
        Gen.Int[0, 9],
        Gen.Int[0, Cells.Length - 1].Select(index => Cells[index])
    );

    private static List<PlanLine> Edited(IReadOnlyList<PlanLine> table, (int What, int Line, string Cell)[] edits)
    {
        var lines = table.ToList();
        foreach (var (what, number, cell) in edits)
        {
            if (what == 0)
                lines.Insert(Math.Min(number, lines.Count), new PlanLine("", "", cell, "", "", "", ""));
            if (lines.Count == 0)
                continue;
            var at = number % lines.Count;
            var line = lines[at];
            lines[at] = what switch
            {
                1 => line with { Day = cell },
                2 => line with { Step = cell },
                3 => line with { Who = cell },
                4 => line with { Sees = cell },
                5 => line with { StillToWrite = cell },
                _ => line,
            };
            switch (what)
            {
                case 6:
                    lines.RemoveAt(at);
                    break;
                case 7:
                    (lines[at], lines[0]) = (lines[0], lines[at]);
                    break;
                case 8:
                    lines.Add(line);
                    break;
            }
        }

        return lines;
    }
}

/// <summary>A second reader of edited plan tables, of whole days only: it walks down the lines with a finger on the day it has reached.</summary>
internal static class NaivePlanTable
{
    /// <summary>A line as it was understood.</summary>
    internal sealed record Row(Step? Old, string Name, bool NeedsNod, string? StillToWrite, int? Day, bool Moved);

    public static (IReadOnlyList<Row> Steps, IReadOnlyList<string> Faults) Read(Step[] steps, IReadOnlyList<PlanLine> lines)
    {
        var (rows, faults, left) = (new List<Row>(), new List<string>(), steps.ToList());
        var reached = 0;
        int? above = 0;
        for (var number = 1; number <= lines.Count; number++)
        {
            var line = lines[number - 1];
            string day = line.Day.Trim(),
                name = line.Step.Trim(),
                sees = line.Sees.Trim(),
                still = line.StillToWrite.Trim();
            if (day == "" && name == "" && sees == "" && still == "")
                continue;
            var old = left.Find(step => step.Key == line.Key);
            if (old is not null)
                left.Remove(old);
            var words = WordsOf(old, sees, still);
            if (name == "" && old is null)
                name = words ?? "";
            if (name == "")
                faults.Add($"{number}");

            var stands =
                old is { Schedule.Anchor: ProjectDateAnchor } ? null
                : old is { Schedule.Anchor: RunStartAnchor } ? Math.Max(old.Schedule.Amount, reached)
                : above is { } from ? Math.Max(from + (old?.Schedule.Amount ?? 0), reached)
                : (int?)null;
            var moved = false;
            if (day != "")
            {
                var digits = day.ToUpperInvariant().Replace("DAY ", "", StringComparison.Ordinal);
                if (
                    !digits.All(char.IsAsciiDigit)
                    || int.Parse(digits, CultureInfo.InvariantCulture) > 3653
                    || int.Parse(digits, CultureInfo.InvariantCulture) < reached
                )
                    faults.Add($"{number}");
                else if (int.Parse(digits, CultureInfo.InvariantCulture) != stands)
                    (stands, moved) = (int.Parse(digits, CultureInfo.InvariantCulture), true);
            }

            var nod = line.Who.Trim() switch
            {
                "" => old?.NeedsNod ?? true,
                "by itself" => false,
                _ => true,
            };
            rows.Add(
                new Row(
                    old,
                    name,
                    nod,
                    old is null ? words ?? name
                        : (old.Action as Unwritten) is null ? null
                        : words,
                    stands,
                    moved
                )
            );
            (above, reached) = (stands, stands ?? reached);
        }

        return (rows, faults);
    }

    /// <summary>What is still to be written: of two cells that say it, the one that somebody changed.</summary>
    private static string? WordsOf(Step? old, string sees, string still)
    {
        if (old is null)
            return still != "" ? still
                : sees is "" or "nothing" ? null
                : sees;
        if (old.Action is not Unwritten { What: var was })
            return null;
        if (still != "" && still != was)
            return still;
        return sees != "" && sees != was ? sees : was;
    }
}
